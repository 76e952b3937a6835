package effect

// larger and smaller are max and min for the render path. The built-in ones also look for
// what is no number and for the sign of zero, which in WebAssembly is a call.
func larger(a, b float64) float64 {
	if a > b {
		return a
	}
	return b
}

func smaller(a, b float64) float64 {
	if a < b {
		return a
	}
	return b
}
