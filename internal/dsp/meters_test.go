package dsp

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

func sine(n int, freq, rate, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = Gain(db) * math.Sin(2*math.Pi*freq*float64(i)/rate)
	}
	return x
}

type part struct{ db, seconds float64 }

func tones(parts ...part) []float64 {
	var x []float64
	for _, p := range parts {
		x = append(x, sine(int(p.seconds*rate48), 1000, rate48, p.db)...)
	}
	return x
}

func TestLoudnessIsTheSameAtEveryRate(t *testing.T) {
	for _, rate := range []float64{44100, 48000, 88200, 96000} {
		x := sine(int(rate*5), 1000, rate, -23)
		l := NewLoudness(rate, true)
		l.Feed(x, x)
		require.InDelta(t, -23, l.Integrated(), 0.1)
		require.InDelta(t, -23, l.Momentary(), 0.1)
		require.InDelta(t, -23, l.Short(), 0.1)
	}
}

func TestTruePeakSeesBetweenSamples(t *testing.T) {
	// a sine at a quarter of the rate, sampled 45° off its peaks: samples at -3 dB
	x := make([]float64, 4800)
	for i := range x {
		x[i] = 0.5 * math.Sin(math.Pi/2*float64(i)+math.Pi/4) * math.Sin(math.Pi*float64(i)/float64(len(x)))
	}
	m := NewTruePeak(4, 12)
	m.Feed(x)
	db := Decibels(m.Take() / 0.5)
	require.Greater(t, db, -0.4)
	require.Less(t, db, 0.2)
	require.Zero(t, m.Take())
}

func TestResamplerKeepsLengthToneAndTime(t *testing.T) {
	for _, c := range [][2]int{{44100, 48000}, {48000, 44100}, {96000, 44100}, {44100, 96000}, {88200, 48000}} {
		from, to := c[0], c[1]
		for _, f := range []float64{100, 1000, 10000, 19900} {
			n := from / 2
			x := sine(n, f, float64(from), 0)
			r := NewResampler(from, to)
			var y []float64
			for at := 0; at < n; at += 777 {
				y = r.Feed(y, x[at:min(at+777, n)])
			}
			y = r.Finish(y, int64(n))
			require.Len(t, y, int(math.Round(float64(n)*float64(to)/float64(from))))
			want := sine(len(y), f, float64(to), 0)
			worst := 0.0
			for i := len(y) / 4; i < len(y)*3/4; i++ {
				worst = max(worst, math.Abs(y[i]-want[i]))
			}
			require.Less(t, worst, 0.012, "%v at %g Hz", c, f) // 0.1 dB
			if f <= 10000 {
				require.Less(t, Decibels(worst), -100.0, "%v at %g Hz", c, f)
			}
		}
	}
	// what lies above half of the lower rate does not come back below 20 kHz
	x := sine(48000, 26000, 96000, 0)
	r := NewResampler(96000, 44100)
	y := r.Finish(r.Feed(nil, x), 48000)
	peak := 0.0
	for _, v := range y[2000 : len(y)-2000] {
		peak = max(peak, math.Abs(v))
	}
	require.Less(t, Decibels(peak), -119.9)
}

func TestExpAgreesWithTheStandardLibrary(t *testing.T) {
	for x := -700.0; x < 700; x += 0.37 {
		require.InEpsilon(t, math.Exp(x), Exp(x), 1e-14)
	}
	require.Equal(t, 1.0, Exp(0))
	require.True(t, math.IsNaN(Exp(math.NaN())))
	require.InDelta(t, math.Tanh(0.7), Tanh(0.7), 1e-15)
	require.Equal(t, 0.0, Gain(Off))
	for x := 1e-6; x < 100; x *= 1.013 {
		require.InDelta(t, math.Log(x), QuickLog(x), 2e-8)
		require.InEpsilon(t, x, QuickExp(math.Log(x)), 2e-8)
	}
}

func TestShiftTakesOverAcrossLengths(t *testing.T) {
	a, b := NewShift(5), NewShift(3)
	x := []float64{1, 2, 3, 4, 5, 6, 7}
	a.Process(x)
	require.Equal(t, []float64{0, 0, 0, 0, 0, 1, 2}, x)
	b.CopyFrom(a)
	y := []float64{8, 9, 10, 11}
	b.Process(y)
	require.Equal(t, []float64{5, 6, 7, 8}, y)
}

// Silence is not looked through, and changes nothing: in small blocks it is found, in one large one it is not.
func TestSilenceChangesNoLoudness(t *testing.T) {
	x := make([]float64, 12*48000)
	for i := range x {
		if second := i / 48000; second%4 == 0 {
			x[i] = 0.3 * math.Sin(float64(i)*0.13)
		}
	}
	whole, parts := NewLoudness(rate48, true), NewLoudness(rate48, true)
	whole.Feed(x, x)
	for at := 0; at < len(x); at += 500 {
		parts.Feed(x[at:at+500], x[at:at+500])
	}
	require.InDelta(t, whole.Integrated(), parts.Integrated(), 1e-9)
	require.InDelta(t, whole.MaxMomentary(), parts.MaxMomentary(), 1e-9)
	require.InDelta(t, whole.MaxShort(), parts.MaxShort(), 1e-9)
	require.InDelta(t, whole.Range(), parts.Range(), 1e-9)
}

// What would fold back below 20 kHz is gone by 100 dB, what would fold back above by 60.
func TestNothingFoldsBackWhenTheRateIsLowered(t *testing.T) {
	for _, c := range []struct{ from, to int }{{48000, 44100}, {96000, 48000}, {96000, 44100}, {88200, 44100}} {
		for hz := float64(c.to)/2 + 60; hz < float64(c.from)/2; hz += 311 {
			x := make([]float64, c.from/4)
			for i := range x {
				x[i] = math.Sin(2 * math.Pi * hz * float64(i) / float64(c.from))
			}
			y := NewResampler(c.from, c.to).Feed(nil, x)
			y = y[len(y)/4 : len(y)*3/4]
			most := -100.0
			if math.Abs(hz-float64(c.to)) > 20000 {
				most = -60
			}
			require.Less(t, Decibels(Highest(y)), most, "%g Hz from %d to %d", hz, c.from, c.to)
		}
	}
}
