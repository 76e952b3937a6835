package dsp

import "math"

// oversampleStages are half the odd taps of the half-band filters of the
// three doublings; the first one is long, because its transition is narrow.
var oversampleStages = [3]int{32, 6, 4}

// Oversample8 runs a function at eight times the rate, between half-band filters
// (Kaiser window, 100 dB). The function sees every sample in order. Passing
// through delays by Oversample8Latency frames, the function's own delay of
// one high-rate sample (as second-order antialiasing has) included.
type Oversample8 struct {
	up, down [3]halfband
	padded   []float64 // the last few high-rate samples, then a block
	a, b     []float64
}

// Oversample8Latency is the delay in frames of the base rate: (8 (2·32-1) +
// 4 (2·6-1) + 2 (2·4-1) + 1 + pad) / 8.
const Oversample8Latency = 71

const oversamplePad = 5

// NewOversample8 has room for blocks of at most so many frames.
func NewOversample8(frames int) *Oversample8 {
	o := &Oversample8{padded: make([]float64, 8*frames+oversamplePad), a: make([]float64, 8*frames), b: make([]float64, 8*frames)}
	for i, m := range oversampleStages {
		n := frames << i
		o.up[i], o.down[i] = newHalfband(m, n), newHalfband(m, n)
	}
	return o
}

// Process works on a block in place. f is given the samples at eight times the rate.
func (o *Oversample8) Process(x []float64, f func(x []float64)) {
	n := len(x)
	a, b := o.a, o.b
	o.up[0].double(a[:2*n], x)
	o.up[1].double(b[:4*n], a[:2*n])
	o.up[2].double(a[:8*n], b[:4*n])
	high := a[:8*n]
	f(high)
	// a few frames more, so that the whole comes out as whole frames
	copy(o.padded[oversamplePad:], high)
	o.down[2].halve(b[:4*n], o.padded[:8*n])
	copy(o.padded[:oversamplePad], o.padded[8*n:8*n+oversamplePad])
	o.down[1].halve(a[:2*n], b[:4*n])
	o.down[0].halve(x, a[:2*n])
}

// Clear empties it.
func (o *Oversample8) Clear() {
	for i := range o.up {
		o.up[i].clear()
		o.down[i].clear()
	}
	clear(o.padded[:oversamplePad])
}

// CopyFrom takes over the state of another.
func (o *Oversample8) CopyFrom(p *Oversample8) {
	for i := range o.up {
		o.up[i].copyFrom(&p.up[i])
		o.down[i].copyFrom(&p.down[i])
	}
	copy(o.padded[:oversamplePad], p.padded)
}

// halfband holds the odd taps of a half-band filter (its even ones are zero, but
// for the centre) and the samples that it still needs.
type halfband struct {
	c    []float64 // 2m odd taps, symmetric, for a gain of 2 at half the rate
	even []float64 // history, then the block
	odd  []float64
	made []float64
}

func newHalfband(m, frames int) halfband {
	h := halfband{
		c:    make([]float64, 2*m),
		even: make([]float64, 2*m-1+frames),
		odd:  make([]float64, m+frames),
		made: make([]float64, frames),
	}
	sum := 0.0
	for k := range h.c {
		i := float64(2*k - 2*m + 1)
		h.c[k] = sinc(i/2) * kaiser(i/float64(2*m), 10.06)
		sum += h.c[k]
	}
	for k := range h.c {
		h.c[k] /= sum
	}
	return h
}

// fir is the symmetric filter over history and block. The short ones, which run at the
// highest rates, are written out.
func (h *halfband) fir(dst, x []float64, gain float64) {
	c := h.c
	switch len(c) {
	case 8:
		c0, c1, c2, c3 := c[0]*gain, c[1]*gain, c[2]*gain, c[3]*gain
		for n := range dst {
			w := (*[8]float64)(x[n:])
			dst[n] = (c0*(w[0]+w[7]) + c1*(w[1]+w[6])) + (c2*(w[2]+w[5]) + c3*(w[3]+w[4]))
		}
	case 12:
		c0, c1, c2, c3, c4, c5 := c[0]*gain, c[1]*gain, c[2]*gain, c[3]*gain, c[4]*gain, c[5]*gain
		for n := range dst {
			w := (*[12]float64)(x[n:])
			dst[n] = (c0*(w[0]+w[11]) + c1*(w[1]+w[10]) + c2*(w[2]+w[9])) + (c3*(w[3]+w[8]) + c4*(w[4]+w[7]) + c5*(w[5]+w[6]))
		}
	case 64:
		k := (*[64]float64)(c)
		for n := range dst {
			w := (*[64]float64)(x[n:])
			var s0, s1, s2, s3 float64 // four sums that do not wait for each other
			for i := 0; i < 32; i += 4 {
				s0 += k[i] * (w[i] + w[63-i])
				s1 += k[i+1] * (w[i+1] + w[62-i])
				s2 += k[i+2] * (w[i+2] + w[61-i])
				s3 += k[i+3] * (w[i+3] + w[60-i])
			}
			dst[n] = ((s0 + s1) + (s2 + s3)) * gain
		}
	}
}

// double makes dst, twice as long as x.
func (h *halfband) double(dst, x []float64) {
	n, keep := len(x), len(h.c)-1
	m := len(h.c) / 2
	copy(h.even[keep:], x)
	h.fir(h.made[:n], h.even, 1)
	for i, v := range h.made[:n] {
		dst[2*i], dst[2*i+1] = v, h.even[i+m]
	}
	copy(h.even, h.even[n:n+keep])
}

// halve makes dst, half as long as x.
func (h *halfband) halve(dst, x []float64) {
	n, keep, m := len(dst), len(h.c)-1, len(h.c)/2
	for i := range dst {
		h.even[keep+i], h.odd[m+i] = x[2*i], x[2*i+1]
	}
	h.fir(dst, h.even, 0.5)
	for i := range dst {
		dst[i] += 0.5 * h.odd[i]
	}
	copy(h.even, h.even[n:n+keep])
	copy(h.odd, h.odd[n:n+m])
}

func (h *halfband) clear() { clear(h.even); clear(h.odd) }

func (h *halfband) copyFrom(o *halfband) {
	copy(h.even, o.even)
	copy(h.odd, o.odd)
}

// Shape is a curve without memory, with its first and second antiderivatives.
type Shape struct {
	F, F1, F2 func(x float64) float64
}

// Soft is a curve without corners, x/√(1+x²) around a bias, with its value there
// taken off and its slope there brought to 1. Bias 0 bends both sides alike.
type Soft struct{ bias, at, slope float64 }

// NewSoft makes the curve around a bias.
func NewSoft(bias float64) Soft {
	r := math.Sqrt(1 + bias*bias)
	return Soft{bias, bias / r, 1 / (r * r * r)}
}

// At is the curve itself.
func (c Soft) At(x float64) float64 {
	x += c.bias
	return (x/math.Sqrt(1+x*x) - c.at) / c.slope
}

// Smoothed applies a Soft by first-order antiderivative antialiasing (Parker,
// Zavalishin, Le Bivic, DAFx 2016), averaged over two samples, so that it delays by one
// whole sample too. The antiderivative of the curve is a square root, so the whole is
// written out in one loop: calls are dear in WebAssembly.
type Smoothed struct {
	x1, f1, d1 float64
	primed     bool
}

// Process shapes a block in place.
func (a *Smoothed) Process(c Soft, x []float64) {
	if !a.primed { // silence came before
		a.x1, a.f1, a.d1, a.primed = c.bias, math.Sqrt(1+c.bias*c.bias), c.at, true
	}
	x1, f1, d1 := a.x1, a.f1, a.d1
	gain, at := 0.5/c.slope, c.at/c.slope
	for i, v := range x {
		v += c.bias
		f := math.Sqrt(1 + v*v)
		var d0 float64
		if d := v - x1; math.Abs(d) < 1e-5 {
			m := (v + x1) * 0.5
			d0 = m / math.Sqrt(1+m*m)
		} else {
			d0 = (f - f1) / d
		}
		x[i] = gain*(d0+d1) - at
		x1, f1, d1 = v, f, d0
	}
	a.x1, a.f1, a.d1 = x1, f1, d1
}

// SmoothedFine is Smoothed over half steps, with the line between two samples cut in its middle: four means, weighted as
// 1 3 3 1, take what lies around the rate down three times as far, where the two of Smoothed do it once. The mean of the curve
// between two places is written as (a+b)/(√(1+a²)+√(1+b²)), which needs no special case where they meet.
type SmoothedFine struct {
	x1, f1, first, second float64 // the means over the halves of the step before
	primed                bool
}

// Process shapes a block in place, one sample late.
func (a *SmoothedFine) Process(c Soft, x []float64) {
	if !a.primed { // silence came before
		a.x1, a.f1, a.first, a.second, a.primed = c.bias, math.Sqrt(1+c.bias*c.bias), c.at, c.at, true
	}
	x1, f1, first, second := a.x1, a.f1, a.first, a.second
	gain, at := 0.125/c.slope, c.at/c.slope
	for i, v := range x {
		v += c.bias
		m := (v + x1) * 0.5
		f, fm := math.Sqrt(1+v*v), math.Sqrt(1+m*m)
		d1, d2 := (x1+m)/(f1+fm), (m+v)/(fm+f)
		x[i] = gain*((first+d2)+3*(second+d1)) - at
		x1, f1, first, second = v, f, d1, d2
	}
	a.x1, a.f1, a.first, a.second = x1, f1, first, second
}

// Antialiased applies a Shape by second-order antiderivative antialiasing
// (Bilbao, Esqueda, Parker, Välimäki, IEEE SPL 2017): the output is the curve
// averaged over the line between three samples with a triangular weight. It
// delays by one sample.
type Antialiased struct {
	x1, x2, f1, d1 float64
	primed         bool
}

// near is the distance below which the quotients would only be rounding noise.
const near = 1e-3

// Next shapes one sample.
func (a *Antialiased) Next(s *Shape, x0 float64) float64 {
	if !a.primed { // silence came before
		a.f1, a.d1, a.primed = s.F2(0), s.F1(0), true
	}
	f0 := s.F2(x0)
	d0 := 0.0
	if d := x0 - a.x1; math.Abs(d) < near {
		d0 = s.F1((x0 + a.x1) * 0.5)
	} else {
		d0 = (f0 - a.f1) / d
	}
	var y float64
	if d := x0 - a.x2; math.Abs(d) < near {
		mid := (x0 + a.x2) * 0.5
		if e := mid - a.x1; math.Abs(e) < near {
			y = s.F((mid + a.x1) * 0.5)
		} else {
			y = 2 / e * (s.F1(mid) + (a.f1-s.F2(mid))/e)
		}
	} else {
		y = 2 / d * (d0 - a.d1)
	}
	a.x2, a.x1, a.f1, a.d1 = a.x1, x0, f0, d0
	return y
}
