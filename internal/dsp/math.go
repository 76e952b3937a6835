package dsp

import "math"

const (
	ln2Hi = 6.93147180369123816490e-01
	ln2Lo = 1.90821492927058770002e-10
	log2e = 1.44269504088896338700
	ln10  = 2.30258509299404568402
)

// Exp returns e**x. It follows the polynomial method of FreeBSD's e_exp.c
// (error below 1 ulp) and uses no processor-specific code, so that the native
// and the WebAssembly engine agree to the bit.
func Exp(x float64) float64 {
	switch {
	case x != x || x > 709.78:
		if x != x {
			return x
		}
		return math.Inf(1)
	case x < -708:
		return 0
	}
	var k int
	if x < 0 {
		k = int(log2e*x - 0.5)
	} else {
		k = int(log2e*x + 0.5)
	}
	hi := x - float64(k)*ln2Hi
	lo := float64(k) * ln2Lo
	const (
		p1 = 1.66666666666666657415e-01
		p2 = -2.77777777770155933842e-03
		p3 = 6.61375632143793436117e-05
		p4 = -1.65339022054652515390e-06
		p5 = 4.13813679705723846039e-08
	)
	r := hi - lo
	t := r * r
	c := r - t*(p1+t*(p2+t*(p3+t*(p4+t*p5))))
	y := 1 - ((lo - (r*c)/(2-c)) - hi)
	if k == 1024 { // 2**1024 is not a float64, but the product may be
		return y * 2 * math.Float64frombits(uint64(1023+1023)<<52)
	}
	return y * math.Float64frombits(uint64(k+1023)<<52)
}

// Tanh returns the hyperbolic tangent of x.
func Tanh(x float64) float64 {
	if x > 20 {
		return 1
	}
	if x < -20 {
		return -1
	}
	if x > -1e-4 && x < 1e-4 {
		return x - x*x*x/3
	}
	e := Exp(2 * x)
	return (e - 1) / (e + 1)
}

// Decibels turns a factor into dB, never below Off.
func Decibels(gain float64) float64 {
	if gain < 0 {
		gain = -gain
	}
	if gain <= 1e-6 {
		return Off
	}
	return math.Log(gain) * (20 / ln10)
}

// Decay returns the factor by which a one-pole keeps its state each frame so
// that it covers 63 % of a step in the given number of seconds.
func Decay(seconds, rate float64) float64 {
	if seconds*rate < 1e-3 {
		return 0
	}
	return Exp(-1 / (seconds * rate))
}

// Flush returns 0 for values so small that they would become denormal, and x
// otherwise. Neither Go nor WebAssembly flushes denormals in hardware.
func Flush(x float64) float64 {
	if math.Abs(x) < 1e-30 { // one comparison: two would depend on the sign, which no processor can guess
		return 0
	}
	return x
}

// Finite reports whether x is neither NaN nor infinite.
func Finite(x float64) bool { return x-x == 0 }
