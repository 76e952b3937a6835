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
		s += (a[k] + (b[k]-a[k])*g) * d.buf[(d.pos-n-k+fractionTaps/2-1)&d.mask]
	}
	return s
}

// ReadSmooth is ReadSinc in sums that need not wait for one another, for lines that are read all the time.
func (d *DelayLine) ReadSmooth(delay float64) float64 {
	n := int(delay)
	at := (delay - float64(n)) * fractionPhases
	p := int(at)
	g := at - float64(p)
	t := fractions()
	a, b := &t[p], &t[p+1]
	var around [fractionTaps]float64
	x := d.from((d.pos-n-fractionTaps/2)&d.mask, &around)
	var s0, s1, s2, s3 float64
	for k := 0; k < fractionTaps; k += 4 {
		s0 += (a[k] + (b[k]-a[k])*g) * x[15-k]
		s1 += (a[k+1] + (b[k+1]-a[k+1])*g) * x[14-k]
		s2 += (a[k+2] + (b[k+2]-a[k+2])*g) * x[13-k]
		s3 += (a[k+3] + (b[k+3]-a[k+3])*g) * x[12-k]
	}
	return (s0 + s1) + (s2 + s3)
}

// ReadSmoothTwo reads two lines that are written together at the same delay.
func ReadSmoothTwo(l, r *DelayLine, delay float64) (float64, float64) {
	n := int(delay)
	at := (delay - float64(n)) * fractionPhases
	p := int(at)
	g := at - float64(p)
	t := fractions()
	a, b := &t[p], &t[p+1]
	var aroundL, aroundR [fractionTaps]float64
	x := l.from((l.pos-n-fractionTaps/2)&l.mask, &aroundL)
	y := r.from((r.pos-n-fractionTaps/2)&r.mask, &aroundR)
	var s0, s1, u0, u1 float64
	for k := 0; k < fractionTaps; k += 2 {
		c := a[k] + (b[k]-a[k])*g
		s0 += c * x[15-k]
		u0 += c * y[15-k]
		c = a[k+1] + (b[k+1]-a[k+1])*g
		s1 += c * x[14-k]
		u1 += c * y[14-k]
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
