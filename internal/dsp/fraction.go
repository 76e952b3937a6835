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
