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
	pad      [oversamplePad]float64
	a, b     []float64
}

// Oversample8Latency is the delay in frames of the base rate: (8 (2·32-1) +
// 4 (2·6-1) + 2 (2·4-1) + 1 + pad) / 8.
const Oversample8Latency = 71

const oversamplePad = 5

// NewOversample8 has room for blocks of at most so many frames.
func NewOversample8(frames int) *Oversample8 {
	o := &Oversample8{a: make([]float64, 8*frames), b: make([]float64, 8*frames)}
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
	for i, v := range high { // so that the whole comes out as whole frames
		high[i], o.pad[0], o.pad[1], o.pad[2], o.pad[3], o.pad[4] = o.pad[0], o.pad[1], o.pad[2], o.pad[3], o.pad[4], v
	}
	o.down[2].halve(b[:4*n], high)
	o.down[1].halve(a[:2*n], b[:4*n])
	o.down[0].halve(x, a[:2*n])
}

// Clear empties it.
func (o *Oversample8) Clear() {
	for i := range o.up {
		o.up[i].clear()
		o.down[i].clear()
	}
	o.pad = [oversamplePad]float64{}
}

// CopyFrom takes over the state of another.
func (o *Oversample8) CopyFrom(p *Oversample8) {
	for i := range o.up {
		o.up[i].copyFrom(&p.up[i])
		o.down[i].copyFrom(&p.down[i])
	}
	o.pad = p.pad
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
	h := halfband{c: make([]float64, 2*m), even: make([]float64, 2*m-1+frames), odd: make([]float64, m+frames), made: make([]float64, frames)}
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

// fir is the symmetric filter over history and block. Four outputs are made at once:
// their sums do not wait for each other, and they share the taps.
func (h *halfband) fir(dst, x []float64, gain float64) {
	m := len(h.c) / 2
	c := h.c[:m]
	n := 0
	for ; n+4 <= len(dst); n += 4 {
		up, down := x[n:n+m+3], x[n+m:n+2*m+3]
		var s0, s1, s2, s3 float64
		// the window slides by one sample a tap on either side
		a0, a1, a2 := up[0], up[1], up[2]
		b1, b2, b3 := down[m], down[m+1], down[m+2]
		for k, v := range c {
			a3, b0 := up[k+3], down[m-1-k]
			s0 += v * (a0 + b0)
			s1 += v * (a1 + b1)
			s2 += v * (a2 + b2)
			s3 += v * (a3 + b3)
			a0, a1, a2 = a1, a2, a3
			b1, b2, b3 = b0, b1, b2
		}
		dst[n], dst[n+1], dst[n+2], dst[n+3] = s0*gain, s1*gain, s2*gain, s3*gain
	}
	for ; n < len(dst); n++ {
		w := x[n : n+2*m]
		s := 0.0
		for k, v := range c {
			s += v * (w[k] + w[2*m-1-k])
		}
		dst[n] = s * gain
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

// Smoothed applies a Shape by first-order antiderivative antialiasing (Parker,
// Zavalishin, Le Bivic, DAFx 2016), averaged over two samples, so that it delays by one
// whole sample too. It is enough for curves without corners and needs only F1.
type Smoothed struct {
	x1, f1, d1 float64
	primed     bool
}

// Next shapes one sample.
func (a *Smoothed) Next(s *Shape, x0 float64) float64 {
	if !a.primed {
		a.f1, a.d1, a.primed = s.F1(0), s.F(0), true
	}
	f0 := s.F1(x0)
	d0 := 0.0
	if d := x0 - a.x1; math.Abs(d) < 1e-5 {
		d0 = s.F((x0 + a.x1) * 0.5)
	} else {
		d0 = (f0 - a.f1) / d
	}
	y := (d0 + a.d1) * 0.5
	a.x1, a.f1, a.d1 = x0, f0, d0
	return y
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
