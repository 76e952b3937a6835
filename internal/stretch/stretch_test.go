package stretch

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
)

const rate = 48000.0

func sine(hz float64, frames int) []float64 {
	x := make([]float64, frames)
	for i := range x {
		x[i] = 0.5 * math.Sin(2*math.Pi*hz*float64(i)/rate)
	}
	return x
}

// amplitude is that of one frequency in the middle second of a sound, by its definition, under a window of Blackman
// and Harris (92 dB).
func amplitude(x []float64, hz float64) float64 {
	n := min(48000, len(x)/2)
	from := (len(x) - n) / 2
	re, im, sum := 0.0, 0.0, 0.0
	for i := range n {
		t := 2 * math.Pi * float64(i) / float64(n)
		w := 0.35875 - 0.48829*math.Cos(t) + 0.14128*math.Cos(2*t) - 0.01168*math.Cos(3*t)
		s, c := math.Sincos(2 * math.Pi * hz * float64(i) / rate)
		re, im, sum = re+w*x[from+i]*c, im+w*x[from+i]*s, sum+w
	}
	return 2 * math.Hypot(re, im) / sum
}

// beside is in dB how loud all else is in the middle second, once the tone that fits best is taken out.
func beside(x []float64, hz float64) float64 {
	n := 48000
	from := (len(x) - n) / 2
	sc, ss, n2 := 0.0, 0.0, 2/float64(n)
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * hz * float64(i) / rate)
		sc, ss = sc+x[from+i]*c*n2, ss+x[from+i]*s*n2
	}
	tone, rest := 0.0, 0.0
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * hz * float64(i) / rate)
		y := sc*c + ss*s
		tone, rest = tone+y*y, rest+(x[from+i]-y)*(x[from+i]-y)
	}
	return 10 * math.Log10(rest/tone)
}

// loudestNear is the frequency with the greatest amplitude around one, in steps of a tenth of a cent.
func loudestNear(x []float64, hz float64) float64 {
	best, most := 0.0, 0.0
	for c := -1.6; c <= 1.6; c += 0.1 {
		f := hz * math.Exp2(c/1200)
		if a := amplitude(x, f); a > most {
			best, most = f, a
		}
	}
	return best
}

func TestASineIsMovedToTheCentAndStaysClean(t *testing.T) {
	for _, c := range []Character{Auto, Together} {
		for _, semitones := range []float64{-12, -7, -3, -1, 1, 4, 7, 12} {
			ratio := math.Exp2(semitones / 12)
			out, err := Pitch(context.Background(), [][]float64{sine(1000, 96000)}, rate, ratio, How{Character: c})
			require.NoError(t, err)
			require.Len(t, out[0], 96000)
			want := 1000 * ratio
			cents := 1200 * math.Log2(loudestNear(out[0], want)/want)
			require.InDelta(t, 0, cents, 1, "%g semitones", semitones)
			tone := amplitude(out[0], loudestNear(out[0], want))
			require.InDelta(t, 0.5, tone, 0.03, "%g semitones", semitones)
			require.Less(t, beside(out[0], loudestNear(out[0], want)), -60.0, "%g semitones", semitones)
		}
	}
}

func TestLengthIsExactAndThePitchStays(t *testing.T) {
	for _, to := range []int64{30001, 47999, 96000, 177777} {
		for _, c := range []Character{Single, Together, Struck} {
			out, err := Length(context.Background(), [][]float64{sine(440, 72000)}, rate, Even(72000, to), How{Character: c})
			require.NoError(t, err)
			require.Len(t, out[0], int(to))
			require.InDelta(t, 0, 1200*math.Log2(loudestNear(out[0], 440)/440), 1, "%d frames, %d", to, c)
			require.InDelta(t, 0.5, amplitude(out[0], 440), 0.05, "%d frames, %d", to, c)
		}
	}
}

func TestNothingToDoIsTheSoundItself(t *testing.T) {
	x := [][]float64{sine(440, 1000), sine(330, 1000)}
	for _, do := range []func() ([][]float64, error){
		func() ([][]float64, error) { return Pitch(context.Background(), x, rate, 1, How{}) },
		func() ([][]float64, error) { return Length(context.Background(), x, rate, Even(1000, 1000), How{}) },
		func() ([][]float64, error) { return Speed(context.Background(), x, Even(1000, 1000)) },
	} {
		out, err := do()
		require.NoError(t, err)
		require.Equal(t, x, out)
	}
}

// A click's energy stays within 5 ms of where the map puts it, whatever it is taken for.
func TestAClickStaysAClick(t *testing.T) {
	for _, c := range []Character{Auto, Single, Together, Struck} {
		for _, to := range []int64{48000, 72000, 150000} {
			x := make([]float64, 96000)
			for i := range x {
				x[i] = 1e-5 * dsp.White(1, int64(i))
			}
			x[40000] = 0.9
			out, err := Length(context.Background(), [][]float64{x}, rate, Even(96000, to), How{Character: c})
			require.NoError(t, err)
			place := int(math.Round(40000 * float64(to) / 96000))
			near, all := 0.0, 0.0
			for i, v := range out[0] {
				all += v * v
				if d := i - place; d >= -240 && d <= 240 {
					near += v * v
				}
			}
			require.Greater(t, near/all, 0.95, "to %d as %d", to, c)
			require.InDelta(t, 1, all/0.81, 0.1, "to %d as %d", to, c)
		}
	}
}

func TestAMonoSoundStaysMono(t *testing.T) {
	x := make([]float64, 48000)
	for i := range x {
		x[i] = 0.2*dsp.White(3, int64(i)) + 0.3*math.Sin(float64(i)/20)
	}
	for _, c := range []Character{Single, Together, Struck} {
		out, err := Length(context.Background(), [][]float64{x, x}, rate, Even(48000, 70000), How{Character: c})
		require.NoError(t, err)
		require.Equal(t, out[0], out[1])
	}
}

// A side that is the other one turned round and quieter stays so: the picture between the sides is kept.
func TestTheSidesKeepTheirRelation(t *testing.T) {
	l := make([]float64, 48000)
	r := make([]float64, 48000)
	for i := range l {
		l[i] = 0.3*math.Sin(float64(i)/15) + 0.2*math.Sin(float64(i)/9.1)
		r[i] = -0.5 * l[i]
	}
	out, err := Length(context.Background(), [][]float64{l, r}, rate, Even(48000, 61234), How{Character: Together})
	require.NoError(t, err)
	for i := range out[0] {
		require.InDelta(t, -0.5*out[0][i], out[1][i], 1e-3)
	}
}

// vowel is a train of pulses at a pitch through two resonances, which are its formants.
func vowel(hz float64, frames int) []float64 {
	x := make([]float64, frames)
	for k := 1.0; k*hz < 10000; k++ {
		a := 0.0
		for _, f := range []float64{700, 2200} {
			a += 1 / (1 + math.Pow((k*hz-f)/120, 2))
		}
		for i := range x {
			x[i] += 0.1 * (a + 0.001) * math.Sin(2*math.Pi*k*hz*float64(i)/rate+k*k)
		}
	}
	return x
}

// centre is the middle of the energy of a sound's partials between two frequencies.
func centre(x []float64, pitch, from, to float64) float64 {
	sum, all := 0.0, 0.0
	for hz := math.Ceil(from/pitch) * pitch; hz < to; hz += pitch {
		a := amplitude(x, hz)
		sum, all = sum+hz*a*a, all+a*a
	}
	return sum / all
}

func TestFormantsStayWhereTheyAreWhenAsked(t *testing.T) {
	x := vowel(110, 96000)
	for _, semitones := range []float64{-5, 5, 7} {
		ratio := math.Exp2(semitones / 12)
		kept, err := Pitch(context.Background(), [][]float64{x}, rate, ratio, How{Character: Single, Formants: true})
		require.NoError(t, err)
		moved, err := Pitch(context.Background(), [][]float64{x}, rate, ratio, How{Character: Single})
		require.NoError(t, err)
		want := centre(vowel(110*ratio, 96000), 110*ratio, 450, 1150)
		require.InDelta(t, want, centre(kept[0], 110*ratio, 450, 1150), 40, "%g semitones", semitones)
		require.InDelta(t, 700*ratio, centre(moved[0], 110*ratio, 450*ratio, 1150*ratio), 80*ratio, "%g semitones", semitones)
	}
}

func TestSpeedMovesPitchAndLengthTogether(t *testing.T) {
	out, err := Speed(context.Background(), [][]float64{sine(1000, 96000)}, Even(96000, 64000))
	require.NoError(t, err)
	require.Len(t, out[0], 64000)
	require.InDelta(t, 0, 1200*math.Log2(loudestNear(out[0], 1500)/1500), 0.1)
	high, err := Speed(context.Background(), [][]float64{sine(15000, 96000)}, Even(96000, 48000))
	require.NoError(t, err)
	require.Less(t, amplitude(high[0], 18000), 1e-4, "what would fold back is gone")
}

func TestWhatASoundIsIsFoundOut(t *testing.T) {
	drum := make([]float64, 96000)
	for k := range 8 {
		for i := range 9000 {
			drum[2000+k*11000+i] += 0.6 * math.Exp(-float64(i)/900) * dsp.White(uint64(k), int64(i))
		}
	}
	chord := make([]float64, 96000)
	for i := range chord {
		for k, hz := range []float64{220, 277.2, 329.6, 466.2, 587.3} {
			chord[i] += 0.1 * math.Sin(2*math.Pi*hz*float64(i)/rate+float64(k))
		}
	}
	for want, x := range map[Character][]float64{Struck: drum, Together: chord, Single: vowel(140, 96000)} {
		k := survey([][]float64{x}, rate)
		require.Equal(t, want, k.character(), "%+v", k)
	}
}

func TestAMapWithTwoSpeedsPutsEveryStrokeInItsPlace(t *testing.T) {
	x := make([]float64, 96000)
	for k := range 6 {
		x[8000+k*16000-1] = 0.8
	}
	m := Map{{0, 0}, {48000, 72000}, {96000, 100000}}
	for _, c := range []Character{Single, Struck} {
		out, err := Length(context.Background(), [][]float64{x}, rate, m, How{Character: c})
		require.NoError(t, err)
		for k := range 6 {
			at := int(math.Round(m.at(float64(8000 + k*16000 - 1))))
			most := 0.0
			for i := at - 48; i <= at+48; i++ {
				most = max(most, math.Abs(out[0][i]))
			}
			require.Greater(t, most, 0.6, "stroke %d as %d", k, c)
		}
	}
}

func TestWhatIsShortSilentOrCalledOffIsNoTrouble(t *testing.T) {
	for _, n := range []int{1, 2, 100} {
		for _, c := range []Character{Auto, Single, Together, Struck} {
			out, err := Length(context.Background(), [][]float64{make([]float64, n)}, rate, Even(int64(n), int64(3*n)), How{Character: c})
			require.NoError(t, err)
			require.Equal(t, make([]float64, 3*n), out[0])
			_, err = Pitch(context.Background(), [][]float64{sine(100, n)}, rate, 2, How{Character: c, Formants: true})
			require.NoError(t, err)
		}
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, err := Length(ctx, [][]float64{sine(100, 9600)}, rate, Even(9600, 20000), How{})
	require.ErrorIs(t, err, context.Canceled)
}
