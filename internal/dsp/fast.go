package dsp

import "math"

// rootTwo is the mantissa of the root of two.
const rootTwo = 0x6a09e667f3bcd

// QuickLog is the natural logarithm of a positive, normal x to about 1e-9: the
// series of the inverse hyperbolic tangent around √½..√2. For detectors, where
// the exact one would cost more than the rest of the effect.
func QuickLog(x float64) float64 {
	b := math.Float64bits(x)
	// a mantissa above that of the root of two counts to the next power; no branch,
	// because signals would make a processor guess it wrong every other time
	e := int((b+1<<52-1-rootTwo)>>52) - 1023
	m := math.Float64frombits(b - uint64(e)<<52)
	s := (m - 1) / (m + 1)
	t := s * s
	return float64(e)*math.Ln2 + s*(2+t*(2./3+t*(2./5+t*(2./7+t*(2./9)))))
}

// QuickExp is e**x to about 1e-9 for x between -300 and 300.
func QuickExp(x float64) float64 {
	y := x * math.Log2E
	k := int(y + 1024.5) // rounds, for y above -1024
	f := (y - float64(k-1024)) * math.Ln2
	p := 1 + f*(1+f*(1./2+f*(1./6+f*(1./24+f*(1./120+f*(1./720+f*(1./5040+f*(1./40320))))))))
	return p * math.Float64frombits(uint64(k-1)<<52)
}
