package dsp

import "math"

// unsigned takes the sign out of a number's bit pattern.
const unsigned = 1<<63 - 1

// PeakBits returns the largest magnitudes of two channels as bit patterns: without their
// sign these are ordered as the numbers are, and NaN and Inf stand above all. So one pass
// without branches serves meters, detectors and the search for what is no number. Four
// frames a turn: in WebAssembly the turn costs as much as a frame.
func PeakBits(l, r []float64) (ml, mr uint64) {
	var a, b, c, d uint64
	for len(l) >= 4 && len(r) >= 4 {
		x, y := (*[4]float64)(l), (*[4]float64)(r)
		a = max(a, math.Float64bits(x[0])&unsigned)
		b = max(b, math.Float64bits(y[0])&unsigned)
		c = max(c, math.Float64bits(x[1])&unsigned)
		d = max(d, math.Float64bits(y[1])&unsigned)
		a = max(a, math.Float64bits(x[2])&unsigned)
		b = max(b, math.Float64bits(y[2])&unsigned)
		c = max(c, math.Float64bits(x[3])&unsigned)
		d = max(d, math.Float64bits(y[3])&unsigned)
		l, r = l[4:], r[4:]
	}
	for i, v := range l {
		a = max(a, math.Float64bits(v)&unsigned)
		b = max(b, math.Float64bits(r[i])&unsigned)
	}
	return max(a, c), max(b, d)
}

// Peak returns the largest magnitude in two channels.
func Peak(l, r []float64) float64 {
	a, b := PeakBits(l, r)
	return math.Float64frombits(max(a, b))
}
