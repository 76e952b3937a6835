package dsp

import "math"

// SVF is the state of a state-variable filter with two trapezoidal integrators
// and no delay in its loop (Zavalishin, "The Art of VA Filter Design", 2018,
// chapter 4). It stays stable however fast g and k move. A state beyond
// ±4 (+12 dBFS) is bent towards ±8, so that it cannot run away when k is 0.
type SVF struct{ s1, s2 float64 }

// Warp is the integrator gain for a frequency in Hz, which is kept below 0.49 of the rate:
// the tangent of πf/rate, by the ninth convergent of its continued fraction (Lambert), which is
// within 5e-12 of it up to there and has no branches.
func Warp(freq, rate float64) float64 {
	f := freq / rate
	if f > 0.49 {
		f = 0.49
	}
	x := math.Pi * f
	y := x * x
	return x * (34459425 - y*(4729725-y*(135135-y*(990-y)))) / (34459425 - y*(16216200-y*(945945-y*(13860-y*45))))
}

// Next filters one sample: g from Warp, k is 1/Q. The band output peaks at 1/k.
func (s *SVF) Next(x, g, k float64) (low, band, high float64) {
	band = (s.s1 + g*(x-s.s2)) / (1 + g*(g+k))
	low = s.s2 + g*band
	a, b := 2*band-s.s1, 2*low-s.s2
	if math.Abs(a) > 4 {
		a = corral(a)
	}
	if math.Abs(b) > 4 {
		b = corral(b)
	}
	s.s1, s.s2 = a, b
	return low, band, x - k*band - low
}

// corral bends a state beyond ±4 towards ±8.
func corral(x float64) float64 {
	if x > 0 {
		return 4 + 4*Tanh((x-4)/4)
	}
	return -4 + 4*Tanh((x+4)/4)
}

// Flush zeroes state that has become too small to matter.
func (s *SVF) Flush() { s.s1, s.s2 = Flush(s.s1), Flush(s.s2) }

// SVFPower is the squared magnitude of the outputs at a frequency. The
// trapezoidal rule only bends the frequency axis, so this is exact.
func SVFPower(freq, g, k, rate float64) (low, band, high float64) {
	x := math.Tan(math.Pi*min(freq/rate, 0.4999)) / g
	d := sq(1-x*x) + sq(k*x)
	return 1 / d, x * x / d, x * x * x * x / d
}
