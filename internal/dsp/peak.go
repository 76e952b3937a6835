package dsp

import "math"

// PeakBits returns the largest magnitudes of two channels as bit patterns: without their
// sign these are ordered as the numbers are, and NaN and Inf stand above all. So one pass
// without branches serves meters, detectors and the search for what is no number. The sign
// goes out by a shift to the left, at the end all are shifted back.
func PeakBits(l, r []float64) (ml, mr uint64) {
	var a, b, c, d uint64
	x, y := bits(l), bits(r)
	for len(x) >= 8 && len(y) >= 8 {
		p, q := (*[8]uint64)(x), (*[8]uint64)(y)
		a, b = max(a, p[0]<<1), max(b, q[0]<<1)
		c, d = max(c, p[1]<<1), max(d, q[1]<<1)
		a, b = max(a, p[2]<<1), max(b, q[2]<<1)
		c, d = max(c, p[3]<<1), max(d, q[3]<<1)
		a, b = max(a, p[4]<<1), max(b, q[4]<<1)
		c, d = max(c, p[5]<<1), max(d, q[5]<<1)
		a, b = max(a, p[6]<<1), max(b, q[6]<<1)
		c, d = max(c, p[7]<<1), max(d, q[7]<<1)
		x, y = x[8:], y[8:]
	}
	for i, v := range x {
		a, b = max(a, v<<1), max(b, y[i]<<1)
	}
	return max(a, c) >> 1, max(b, d) >> 1
}

// Peak returns the largest magnitude in two channels.
func Peak(l, r []float64) float64 {
	a, b := PeakBits(l, r)
	return math.Float64frombits(max(a, b))
}

// Highest returns the largest magnitude in one channel.
func Highest(x []float64) float64 {
	var a, b uint64
	p := bits(x)
	for len(p) >= 4 {
		q := (*[4]uint64)(p)
		a, b = max(a, q[0]<<1), max(b, q[1]<<1)
		a, b = max(a, q[2]<<1), max(b, q[3]<<1)
		p = p[4:]
	}
	for _, v := range p {
		a = max(a, v<<1)
	}
	return math.Float64frombits(max(a, b) >> 1)
}

// Silent reports whether nothing but silence is in a signal.
func Silent(x []float64) bool {
	for _, v := range x {
		if v != 0 {
			return false
		}
	}
	return true
}
