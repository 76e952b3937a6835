package dsp

import "math"

const (
	// rootTwo is the mantissa of the root of two.
	rootTwo = 0x6a09e667f3bcd
	// whole, added to a number, leaves no room for a fraction: the number is rounded, and
	// stands as an integer in the lowest bits.
	whole = 3 << 51
)

// QuickLog is the natural logarithm of a positive, normal x to about 1e-9: the
// series of the inverse hyperbolic tangent around √½..√2. For detectors, where
// the exact one would cost more than the rest of the effect. Of 0 it makes -709.
func QuickLog(x float64) float64 {
	b := math.Float64bits(x)
	// a mantissa above that of the root of two counts to the next power; no branch,
	// because signals would make a processor guess it wrong every other time
	e := int64(b+1<<52-1-rootTwo)>>52 - 1023
	m := math.Float64frombits(b - uint64(e)<<52)
	s := (m - 1) / (m + 1)
	t := s * s
	u := t * t // by halves, so that the products need not wait for each other
	return float64(e)*math.Ln2 + s*((2+t*(2./3))+u*((2./5+t*(2./7))+u*(2./9)))
}

// QuickExp is e**x to about 1e-9 for x between -300 and 300.
func QuickExp(x float64) float64 {
	t := x*math.Log2E + whole
	f := x - (t-whole)*math.Ln2
	p := 1 + f*(1+f*(1./2+f*(1./6+f*(1./24+f*(1./120+f*(1./720+f*(1./5040+f*(1./40320))))))))
	return math.Float64frombits(math.Float64bits(p) + math.Float64bits(t)<<52)
}

// QuickLogs replaces every sample by its QuickLog, four a turn (see blocks.go).
func QuickLogs(x []float64) {
	for len(x) >= 4 {
		a := (*[4]float64)(x)
		a[0], a[1], a[2], a[3] = QuickLog(a[0]), QuickLog(a[1]), QuickLog(a[2]), QuickLog(a[3])
		x = x[4:]
	}
	for i, v := range x {
		x[i] = QuickLog(v)
	}
}

// QuickExps replaces every sample v by the QuickExp of scale times v + shift.
func QuickExps(x []float64, shift, scale float64) {
	shift *= scale
	for len(x) >= 4 {
		a := (*[4]float64)(x)
		v, w, y, z := a[0]*scale+shift, a[1]*scale+shift, a[2]*scale+shift, a[3]*scale+shift
		a[0], a[1], a[2], a[3] = QuickExp(v), QuickExp(w), QuickExp(y), QuickExp(z)
		x = x[4:]
	}
	for i, v := range x {
		x[i] = QuickExp(v*scale + shift)
	}
}
