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

// Shaped noise is 10 dB lower where a soft sound is heard best, and is paid for above; what is clipped winds nothing up.
func TestShapedDitherLeavesTheNoiseWhereItIsHeardLeast(t *testing.T) {
	const n, rate = 1 << 16, 44100
	spectrum := func(shaped bool) (low, high float64) {
		d := NewDither(16, 0)
		if shaped {
			d.Shape()
		}
		x := make([]float64, n)
		for i := range x {
			v := 0.2 * math.Sin(float64(i)*0.05)
			x[i] = float64(d.Round(v)) - v*d.Scale
		}
		for k := 1000; k < 6000; k += 7 { // a Fourier sum at some of the frequencies: 0.7 to 4 kHz, and 14 to 21
			for _, at := range []int{k, 20000 + 2*k} {
				re, im := 0.0, 0.0
				for i, v := range x {
					a := 2 * math.Pi * float64(at*i%n) / n
					re, im = re+v*math.Cos(a), im+v*math.Sin(a)
				}
				if at == k {
					low += re*re + im*im
				} else {
					high += re*re + im*im
				}
			}
		}
		return low, high
	}
	flatLow, flatHigh := spectrum(false)
	low, high := spectrum(true)
	require.Less(t, 10*math.Log10(low/flatLow), -10.0)
	require.Greater(t, 10*math.Log10(high/flatHigh), 3.0)

	d := NewDither(16, 0)
	d.Shape()
	for range 100 {
		require.EqualValues(t, 32767, d.Round(4))
	}
	for range 3 * len(leastHeard) {
		d.Round(0)
	}
	require.InDelta(t, 0, d.Round(0), 12)
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
