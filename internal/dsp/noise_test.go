package dsp

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

// The noise of one side says nothing of that of the other: dual mono would carry it in the middle only, 3 dB louder.
func TestTheDitherOfTheSidesIsIndependent(t *testing.T) {
	const n = 200000
	for _, bits := range []int{16, 24} {
		l, r := NewDither(bits, 0), NewDither(bits, 1)
		ll, rr, lr := 0.0, 0.0, 0.0
		for i := range n {
			x := 0.3 * math.Sin(float64(i)*0.01)
			a, b := float64(l.Round(x))-x*l.Scale, float64(r.Round(x))-x*r.Scale
			ll, rr, lr = ll+a*a, rr+b*b, lr+a*b
		}
		require.InDelta(t, 0, lr/math.Sqrt(ll*rr), 0.01, "%d bits", bits)
		require.InDelta(t, 0.25, ll/n, 0.01, "1/6 and 1/12 of a step squared")
	}
}

// Rounding goes to the nearest whole step on both sides of nothing, and stops at the ends.
func TestDitherRoundsEvenlyAndClips(t *testing.T) {
	d := NewDither(16, 0)
	for _, want := range []float64{-0.75, -2.4 / 32768, 0, 2.4 / 32768, 0.75} {
		mean := 0.0
		for range 400000 {
			mean += float64(d.Round(want)) / 400000
		}
		require.InDelta(t, want*32768, mean, 0.005)
	}
	require.EqualValues(t, 32767, d.Round(2))
	require.EqualValues(t, -32768, d.Round(-2))
}
