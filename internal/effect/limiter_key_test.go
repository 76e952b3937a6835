package effect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
)

// keyed runs a limiter over a quiet signal with a loud key from the frame at.
func keyed(t *testing.T, peaks float64, at int) []float64 {
	t.Helper()
	k, ok := effect.Find("limiter")
	require.True(t, ok)
	p := k.New(rate)
	v := []float64{0, -12, 20, 1, peaks}
	p.(interface{ Prepare([]float64) }).Prepare(v)
	out := make([]float64, 0, 48000)
	for from := 0; from < 48000; from += effect.MaxFrames {
		s := effect.Span{
			L:    make([]float64, effect.MaxFrames),
			R:    make([]float64, effect.MaxFrames),
			KeyL: make([]float64, effect.MaxFrames),
			KeyR: make([]float64, effect.MaxFrames),
		}
		for i := range s.L {
			x := math.Sin(2 * math.Pi * 440 * float64(from+i) / rate)
			s.L[i], s.R[i] = 0.1*x, 0.1*x
			if from+i >= at && from+i < at+12000 {
				s.KeyL[i] = math.Sin(2 * math.Pi * 60 * float64(from+i) / rate)
			}
		}
		for _, x := range v {
			s.Values = append(s.Values, effect.Value{Now: x})
		}
		p.Process(&s)
		out = append(out, s.L...)
	}
	return out
}

func TestLimiterIsTurnedDownByItsKey(t *testing.T) {
	for _, peaks := range []float64{0, 1} {
		y := keyed(t, peaks, 24000)
		top := func(from, to int) float64 {
			m := 0.0
			for _, x := range y[from:to] {
				m = max(m, math.Abs(x))
			}
			return dsp.Decibels(m)
		}
		require.InDelta(t, -20, top(12000, 23000), 0.01, "untouched while the key is silent")
		// the key stands 12 dB above the ceiling: the signal goes down with it, by the release at most a little less
		require.InDelta(t, -32, top(26000, 35000), 1.5)
		require.InDelta(t, -20, top(45000, 48000), 0.5, "and comes back: it was down for long")
	}
}

func TestLimiterHoldsItsCeilingWhateverItsKeySays(t *testing.T) {
	k, _ := effect.Find("limiter")
	p := k.New(rate)
	for from := 0; from < 48000; from += effect.MaxFrames {
		s := effect.Span{
			L:    make([]float64, effect.MaxFrames),
			R:    make([]float64, effect.MaxFrames),
			KeyL: make([]float64, effect.MaxFrames),
			KeyR: make([]float64, effect.MaxFrames),
		}
		for i := range s.L {
			s.L[i] = 2 * math.Sin(2*math.Pi*97*float64(from+i)/rate) // loud, with a silent key
		}
		for _, x := range []float64{0, -6, 80, 1, 0} {
			s.Values = append(s.Values, effect.Value{Now: x})
		}
		p.Process(&s)
		for _, x := range s.L {
			require.LessOrEqual(t, math.Abs(x), dsp.Gain(-6)+1e-9)
		}
	}
}
