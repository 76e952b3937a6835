package effect_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/dsp/fourier"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

const rate = 48000.0

type set = map[string]float64

func level(x []float64) float64 {
	sum := 0.0
	for _, v := range x {
		sum += v * v
	}
	return 10 * math.Log10(sum/float64(len(x))+1e-30)
}

func tone(n int, f, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = dsp.Gain(db) * math.Sin(2*math.Pi*f*float64(i)/rate)
	}
	return x
}

func impulse(n int) (l, r []float64) {
	l, r = make([]float64, n), make([]float64, n)
	l[0], r[0] = 1, 1
	return l, r
}

// response is the magnitude in dB at a frequency, from an impulse response.
func response(h []float64, f float64) float64 {
	re, im := 0.0, 0.0
	for i, v := range h {
		s, c := math.Sincos(2 * math.Pi * f * float64(i) / rate)
		re += v * c
		im -= v * s
	}
	return 10 * math.Log10(re*re+im*im)
}

func TestTrimGainIsExactAndAFlipNulls(t *testing.T) {
	l, r := effecttest.Noise(1000, 1, -6), effecttest.Noise(1000, 2, -6)
	a, b := append([]float64{}, l...), append([]float64{}, r...)
	effecttest.New("trim", rate, set{"gain": -6}).Run(a, b, 128)
	for i := range a {
		require.Equal(t, l[i]*dsp.Gain(-6), a[i])
	}
	a, b = append([]float64{}, l...), append([]float64{}, r...)
	effecttest.New("trim", rate, set{"polarity": 3}).Run(a, b, 128)
	for i := range a {
		require.Zero(t, a[i]+l[i])
		require.Zero(t, b[i]+r[i])
	}
}

func TestTheDrawnEqualiserIsTheMeasuredOne(t *testing.T) {
	k, _ := effect.Find("equaliser")
	rig := effecttest.New("equaliser", rate, set{
		"on1": 1, "shape1": 3, "freq1": 90, "slope1": 5, "gain2": 5, "gain3": -9, "q3": 3, "gain5": 6, "freq5": 9000,
		"on6": 1, "shape6": 6, "freq6": 3000, "q6": 0.4, "gain7": 4, "on8": 1, "freq8": 15000, "slope8": 3})
	h, r := impulse(65536)
	rig.Run(h, r, 128)
	p := k.Draw(rate, 120, rig.Values)
	main := p.Curves[len(p.Curves)-1]
	for i, f := range main.X {
		if main.Y[i] > -60 {
			require.InDelta(t, response(h, f), main.Y[i], 0.1, "at %.0f Hz", f)
		}
	}
}

func TestCompressorFollowsItsStaticCurve(t *testing.T) {
	k, _ := effect.Find("compressor")
	for _, c := range []set{{"threshold": -30, "ratio": 4, "knee": 0, "makeup": 0}, {"threshold": -20, "ratio": 2, "knee": 12, "makeup": 3}} {
		p := k.Draw(rate, 120, effecttest.New("compressor", rate, c).Values)
		curve := p.Curves[1]
		for i := 0; i < len(curve.X); i += 9 {
			rig := effecttest.New("compressor", rate, c)
			l, r := make([]float64, 48000), make([]float64, 48000)
			for n := range l {
				l[n], r[n] = dsp.Gain(curve.X[i]), dsp.Gain(curve.X[i])
			}
			rig.Run(l, r, 128)
			require.InDelta(t, curve.Y[i], dsp.Decibels(l[len(l)-1]), 0.1, "in %.1f dB", curve.X[i])
		}
	}
}

// Attack and release are the times in which 63 % of a step of the reduction is reached.
func TestCompressorTimesAreWhatTheySay(t *testing.T) {
	for _, ms := range []float64{1, 10, 80} {
		c := set{"threshold": -30, "ratio": 4, "knee": 0, "makeup": 0, "attack": ms, "release": ms * 3}
		rig := effecttest.New("compressor", rate, c)
		n := int(ms * 48 * 20)
		l, r := make([]float64, 2*n), make([]float64, 2*n)
		for i := range l {
			v := 1.0
			if i >= n {
				v = dsp.Gain(-29.9999) // just above the threshold: what it wants is nothing
			}
			l[i], r[i] = v, v
		}
		in := append([]float64{}, l...)
		rig.Run(l, r, 128)
		full := 30 * 0.75
		reached := func(from int, test func(reduction float64) bool) float64 {
			for i := from; i < len(l); i++ {
				if test(dsp.Decibels(in[i] / l[i])) {
					return float64(i-from) / 48
				}
			}
			return -1
		}
		e := 1 - 1/math.E
		require.InEpsilon(t, ms, reached(0, func(g float64) bool { return g >= full*e }), 0.05)
		require.InEpsilon(t, ms*3, reached(n, func(g float64) bool { return g <= full*(1-e) }), 0.05)
	}
}

func TestLimiterNeverPassesItsCeiling(t *testing.T) {
	for _, ahead := range []float64{0, 1, 2, 3} {
		for _, release := range []float64{1, 80, 1000} {
			rig := effecttest.New("limiter", rate, set{"input": 18, "ceiling": -3, "ahead": ahead, "release": release})
			l, r := effecttest.Noise(96000, 5, 0), tone(96000, 997, 0)
			for i := 0; i < len(l); i += 4801 { // lone peaks between silences, and steps
				l[i] = 3
				for k := i + 1000; k < i+2000 && k < len(l); k++ {
					l[k], r[k] = 0, 0
				}
			}
			rig.Run(l, r, 128)
			top := 0.0
			for i := range l {
				top = max(top, math.Abs(l[i]), math.Abs(r[i]))
			}
			require.LessOrEqual(t, dsp.Decibels(top), -3+1e-9, "look-ahead %g release %g", ahead, release)
		}
	}
}

func TestLimiterIsTransparentBelowItsCeiling(t *testing.T) {
	rig := effecttest.New("limiter", rate, nil)
	x, y := effecttest.Noise(20000, 6, -6), effecttest.Noise(20000, 7, -6)
	l, r := append([]float64{}, x...), append([]float64{}, y...)
	rig.Run(l, r, 128)
	lag := rig.Latency()
	for i := lag; i < len(l); i++ {
		require.Equal(t, x[i-lag], l[i])
	}
}

func TestEchoesComeOnTheFrame(t *testing.T) {
	open := set{"lowcut": 20, "highcut": 20000, "feedback": 50}
	with := func(more set) set {
		m := set{}
		for _, s := range []set{open, more} {
			for k, v := range s {
				m[k] = v
			}
		}
		return m
	}
	for name, c := range map[string]struct {
		set  set
		want map[int][2]float64
	}{
		"straight":     {with(set{"sync": 1, "time": 100}), map[int][2]float64{4800: {1, 0}, 9600: {0.5, 0}, 14400: {0.25, 0}}},
		"notes":        {with(set{"note": 5}), map[int][2]float64{12000: {1, 0}, 24000: {0.5, 0}}}, // an eighth at 120
		"crossed":      {with(set{"sync": 1, "time": 100, "route": 1}), map[int][2]float64{4800: {1, 0}, 9600: {0, 0.5}, 14400: {0.25, 0}}},
		"side to side": {with(set{"sync": 1, "time": 100, "route": 2}), map[int][2]float64{4800: {0.5, 0}, 9600: {0, 0.5}, 14400: {0.25, 0}}},
	} {
		l, r := make([]float64, 30000), make([]float64, 30000)
		l[0] = 1
		effecttest.New("delay", rate, c.set).Run(l, r, 128)
		for i := range l {
			w := c.want[i]
			if i < 15000 {
				require.InDelta(t, w[0], l[i], 1e-12, "%s left %d", name, i)
				require.InDelta(t, w[1], r[i], 1e-12, "%s right %d", name, i)
			}
		}
	}
}

func TestDelayCannotRunAway(t *testing.T) {
	rig := effecttest.New("delay", rate, set{"feedback": 100, "sync": 1, "time": 10, "lowcut": 20, "highcut": 20000})
	top := 0.0
	for range 60 {
		l, r := effecttest.Noise(48000, 8, 0), effecttest.Noise(48000, 9, 0)
		rig.Run(l, r, 128)
		for i := range l {
			top = max(top, math.Abs(l[i]))
		}
	}
	require.Less(t, top, 3.01)
}

func TestAChangeOfDelayTimeDoesNotClick(t *testing.T) {
	const n = 16384
	for change := range 2 {
		rig := effecttest.New(
			"delay",
			rate,
			set{"sync": 1, "time": 100, "feedback": 0, "lowcut": 20, "highcut": 20000, "change": float64(change)},
		)
		x, y := tone(48000+n, 500, -6), tone(48000+n, 500, -6)
		rig.Run(x[:48000], y[:48000], 128)
		rig.Values[2] = 103
		rig.Run(x[48000:], y[48000:], 128)
		w := x[48000:]
		win := make([]float64, n)
		for i := range win {
			a := 2 * math.Pi * float64(i) / n
			win[i] = w[i] * (0.35875 - 0.48829*math.Cos(a) + 0.14128*math.Cos(2*a) - 0.01168*math.Cos(3*a)) / 0.35875 * 2 / n
		}
		c := fourier.NewFFT(n).Coefficients(nil, win)
		for i, v := range c {
			if f := float64(i) * rate / n; f > 3000 {
				require.Less(t, 20*math.Log10(math.Hypot(real(v), imag(v))+1e-20), -80.0, "change %d at %.0f Hz", change, f)
			}
		}
	}
}

// octave filters by a steep band pass around a centre.
func octave(x []float64, f float64) []float64 {
	y := append([]float64{}, x...)
	var s [4]dsp.Section
	n := dsp.Butterworth(s[:], true, 6, f/math.Sqrt2, 0.7, rate)
	m := dsp.Butterworth(s[n:], false, 2, f*math.Sqrt2, math.Sqrt2/2, rate)
	for i := 0; i < n+m; i++ {
		var b dsp.Biquad
		b.Run(&s[i], y)
	}
	var t [4]dsp.Section
	m = dsp.Butterworth(t[:], false, 4, f*math.Sqrt2, 0.7, rate)
	for i := 0; i < m; i++ {
		var b dsp.Biquad
		b.Run(&t[i], y)
	}
	return y
}

// decayTime is T30 by backward integration (Schroeder 1965), between two levels in dB, of an octave of some responses together.
func decayTime(ways [][]float64, f, from, to float64) float64 {
	e := make([]float64, len(ways[0])+1)
	for _, h := range ways {
		x, sum := octave(h, f), 0.0
		for i := len(x) - 1; i >= 0; i-- {
			sum += x[i] * x[i]
			e[i] += sum
		}
	}
	at := func(db float64) int {
		for i, v := range e {
			if 10*math.Log10(v/e[0]+1e-30) <= db {
				return i
			}
		}
		return len(e)
	}
	return float64(at(to)-at(from)) / rate * 60 / (from - to)
}

// askedDecay is the T30 of an octave in which every frequency dies away as it is
// asked to: in an octave across which the curve falls, the slowest part counts most.
func askedDecay(v []float64, f float64) float64 {
	left := func(t float64) float64 {
		sum := 0.0
		for i := range 25 {
			d := effect.ReverbDecay(v, f*math.Exp2(float64(i)/24-0.5))
			sum += d * math.Pow(10, -6*t/d)
		}
		return 10 * math.Log10(sum)
	}
	at := func(db float64) float64 {
		lo, hi := 0.0, 100.0
		for range 60 {
			m := (lo + hi) / 2
			if left(m)-left(0) > db {
				lo = m
			} else {
				hi = m
			}
		}
		return lo
	}
	return (at(-35) - at(-5)) * 2
}

// fourWays are the responses from each side to each: a decay is that of all of them (ISO 3382).
func fourWays(rig *effecttest.Rig, seconds float64) (ways [][]float64) {
	for side := range 2 {
		x := [2][]float64{make([]float64, int(rate*seconds)), make([]float64, int(rate*seconds))}
		x[side][0] = 1
		rig.P = rig.Make()
		rig.Run(x[0], x[1], 128)
		ways = append(ways, x[0], x[1])
	}
	return ways
}

func TestReverbDecaysAsItIsAsked(t *testing.T) {
	for _, decay := range []float64{0.3, 1, 3, 10} {
		for _, movement := range []float64{0, 100} {
			rig := effecttest.New(
				"reverb",
				rate,
				set{"decay": decay, "movement": movement, "lowcut": 20, "highcut": 20000, "predelay": 0, "early": -120},
			)
			ways := fourWays(rig, math.Max(1, decay*1.4))
			for _, f := range []float64{125, 250, 500, 1000, 2000, 4000, 8000} {
				want := askedDecay(rig.Values, f)
				got := decayTime(ways, f, -5, -35)
				require.InEpsilon(t, want, got, 0.10, "decay %g movement %g at %g Hz", decay, movement, f)
			}
		}
	}
}

func TestNoModeOfTheReverbOutlivesItsOctave(t *testing.T) {
	rig := effecttest.New("reverb", rate, set{"decay": 2, "movement": 0, "predelay": 0, "early": -120})
	l, r := impulse(int(rate * 4))
	rig.Run(l, r, 128)
	for _, f := range []float64{125, 500, 2000} {
		late := decayTime([][]float64{l[int(rate*1.2):]}, f, -2, -22)
		require.Less(t, late, 1.5*effect.ReverbDecay(rig.Values, f), fmt.Sprint(f))
	}
}

// Echo density (Abel and Huang, AES 2006): the part of samples outside one
// standard deviation, over what it is in Gaussian noise.
func TestReverbGrowsDenseSoon(t *testing.T) {
	rig := effecttest.New("reverb", rate, set{"predelay": 0, "size": 130, "decay": 3, "diffusion": 80})
	l, r := impulse(48000)
	rig.Run(l, r, 128)
	w := l[int(0.14*rate):int(0.16*rate)]
	sum := 0.0
	for _, v := range w {
		sum += v * v
	}
	sigma := math.Sqrt(sum / float64(len(w)))
	out := 0
	for _, v := range w {
		if math.Abs(v) > sigma {
			out++
		}
	}
	require.Greater(t, float64(out)/float64(len(w))/math.Erfc(1/math.Sqrt2), 0.9)
}

func TestDefaultsDoNotJumpInLevel(t *testing.T) {
	for _, k := range effect.Kinds() {
		if k.ID == "amplifier" {
			continue // its cabinet takes most of a noise away: soundtest judges it by music
		}
		rig := effecttest.New(k.ID, rate, nil)
		x, y := effecttest.Noise(96000, 11, -18), effecttest.Noise(96000, 12, -18)
		l, r := append([]float64{}, x...), append([]float64{}, y...)
		rig.Run(l, r, 128)
		m := k.Mix / 100
		for i := range l { // as the engine mixes it in
			if k.MixLaw == "add" {
				l[i] = x[i] + m*l[i]
			} else {
				l[i] = x[i] + m*(l[i]-x[i])
			}
		}
		require.InDelta(t, level(x[48000:]), level(l[48000:]), 3, k.ID)
	}
}
