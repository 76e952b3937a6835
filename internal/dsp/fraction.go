package dsp

import "sync"

const (
	fractionTaps   = 16
	fractionPhases = 256
)

// fractions are the taps of a windowed sinc (Kaiser, 80 dB) for every 256th of
// a frame; between them ReadSinc interpolates in a straight line.
var fractions = sync.OnceValue(func() *[fractionPhases + 1][fractionTaps]float64 {
	var t [fractionPhases + 1][fractionTaps]float64
	for p := range t {
		f := float64(p) / fractionPhases
		sum := 0.0
		for k := range t[p] {
			x := float64(k-fractionTaps/2+1) - f
			t[p][k] = sinc(x) * kaiser(x/(fractionTaps/2), 7.9)
			sum += t[p][k]
		}
		for k := range t[p] {
			t[p][k] /= sum
		}
	}
	return &t
})

// FractionMargin is the least delay that ReadSinc can read at.
const FractionMargin = fractionTaps / 2

// Fractions makes the table of ReadSinc; call it before rendering.
func Fractions() { fractions() }

// ReadSinc returns the sample at a fractional delay of at least
// FractionMargin frames, band-limited. A line that is read slower than it was
// written gives no images above -70 dB.
func (d *DelayLine) ReadSinc(delay float64) float64 {
	n := int(delay)
	f := delay - float64(n)
	at := f * fractionPhases
	p := int(at)
	g := at - float64(p)
	t := fractions()
	a, b := &t[p], &t[p+1]
	s := 0.0
	for k := range a {
		s += (a[k] + (b[k]-a[k])*g) * d.buf[d.back(n+k-fractionTaps/2+1)]
	}
	return s
}

// smoothPhases is how many places between two frames ReadSmooth knows: the nearest serves, which is within 1/4096 of a frame.
const smoothPhases = 2048

// smooth are the taps of a windowed sinc for each of them, the oldest sample first; Smooths makes them.
var smooth *[smoothPhases + 1][fractionTaps]float64

// Smooths makes the table of ReadSmooth: it is called before anything is read.
var Smooths = sync.OnceFunc(func() {
	t := new([smoothPhases + 1][fractionTaps]float64)
	for p := range t {
		f := float64(p) / smoothPhases
		sum := 0.0
		for k := range t[p] {
			x := float64(fractionTaps/2-k) - f
			t[p][k] = sinc(x) * kaiser(x/(fractionTaps/2), 7.9)
			sum += t[p][k]
		}
		for k := range t[p] {
			t[p][k] /= sum
		}
	}
	smooth = t
})

// ReadSmooth is ReadSinc at the nearest of very many places, for lines that are read all the time. The delay is at least
// FractionMargin frames.
func (d *DelayLine) ReadSmooth(delay float64) float64 {
	n := int(delay)
	c := &smooth[int((delay-float64(n))*smoothPhases+0.5)]
	var around [fractionTaps]float64
	x := d.from(d.back(n+fractionTaps/2), &around)
	s0 := c[0]*x[0] + c[1]*x[1] + c[2]*x[2] + c[3]*x[3]
	s1 := c[4]*x[4] + c[5]*x[5] + c[6]*x[6] + c[7]*x[7]
	s2 := c[8]*x[8] + c[9]*x[9] + c[10]*x[10] + c[11]*x[11]
	s3 := c[12]*x[12] + c[13]*x[13] + c[14]*x[14] + c[15]*x[15]
	return (s0 + s1) + (s2 + s3)
}

// ReadSmoothTwo reads two lines that are written together at the same delay.
func ReadSmoothTwo(l, r *DelayLine, delay float64) (float64, float64) {
	n := int(delay)
	c := &smooth[int((delay-float64(n))*smoothPhases+0.5)]
	var aroundL, aroundR [fractionTaps]float64
	x := l.from(l.back(n+fractionTaps/2), &aroundL)
	y := r.from(r.back(n+fractionTaps/2), &aroundR)
	var s0, s1, u0, u1 float64
	for k := 0; k < fractionTaps; k += 4 {
		a, b := c[k], c[k+1]
		s0, u0 = s0+a*x[k], u0+a*y[k]
		s1, u1 = s1+b*x[k+1], u1+b*y[k+1]
		a, b = c[k+2], c[k+3]
		s0, u0 = s0+a*x[k+2], u0+a*y[k+2]
		s1, u1 = s1+b*x[k+3], u1+b*y[k+3]
	}
	return s0 + s1, u0 + u1
}

// from gives the samples from one on, the oldest first; around has room for those that lie on both ends of the ring.
func (d *DelayLine) from(first int, around *[fractionTaps]float64) *[fractionTaps]float64 {
	if first+fractionTaps <= len(d.buf) {
		return (*[fractionTaps]float64)(d.buf[first:])
	}
	n := copy(around[:], d.buf[first:])
	copy(around[n:], d.buf)
	return around
}
