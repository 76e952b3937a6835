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
	c := smoothAt(delay - float64(n))
	first := d.back(n + fractionTaps/2)
	if first+fractionTaps > len(d.buf) {
		return weigh(c, d.around(first))
	}
	return weigh(c, (*[fractionTaps]float64)(d.buf[first:]))
}

// ReadSmoothBlock is ReadSmooth for as many frames as were written last: dst[i] is what it gave at delays[i] when frame i
// had just been written.
func (d *DelayLine) ReadSmoothBlock(dst, delays []float64) {
	d.readSmooth(dst, delays, d.pos-len(dst)+1)
}

// ReadSmoothAhead reads for frames that are yet to be written: dst[i] is what ReadSmoothBlock will give at delays[i] when
// they are. So every delay must reach behind them: by FractionMargin and the length of dst at least.
func (d *DelayLine) ReadSmoothAhead(dst, delays []float64) { d.readSmooth(dst, delays, d.pos+1) }

// readSmooth reads at delays that count from a frame that moves on from newest.
func (d *DelayLine) readSmooth(dst, delays []float64, newest int) {
	delays = delays[:len(dst)]
	for i, delay := range delays {
		n := int(delay)
		c := smoothAt(delay - float64(n))
		if first := newest + i - n - fractionTaps/2; uint(first) <= uint(len(d.buf)-fractionTaps) {
			dst[i] = weigh(c, (*[fractionTaps]float64)(d.buf[first:]))
		} else {
			dst[i] = weigh(c, d.around(d.back(d.pos-first)))
		}
	}
}

// ReadSmoothBlocks is ReadSmoothBlock for two lines that are written together at the same delays.
func ReadSmoothBlocks(l, r *DelayLine, dstL, dstR, delays []float64) {
	delays, dstR = delays[:len(dstL)], dstR[:len(dstL)]
	newest := l.pos - len(dstL) + 1
	for i, delay := range delays {
		n := int(delay)
		c := smoothAt(delay - float64(n))
		if first := newest + i - n - fractionTaps/2; uint(first) <= uint(len(l.buf)-fractionTaps) {
			dstL[i], dstR[i] = weighBoth(c, (*[fractionTaps]float64)(l.buf[first:]), (*[fractionTaps]float64)(r.buf[first:]))
		} else {
			first = l.back(l.pos - first)
			dstL[i], dstR[i] = weighBoth(c, l.around(first), r.around(first))
		}
	}
}

// AddSmoothBlocks adds to both sides what two lines that are written together give at the same delays, times a gain each.
// The frames are those that were written last. Its sums are other ones than those of ReadSmoothBlocks, to the last bit.
func AddSmoothBlocks(l, r *DelayLine, dstL, dstR, delays []float64, gain [2]float64) {
	delays, dstR = delays[:len(dstL)], dstR[:len(dstL)]
	newest := l.pos - len(dstL) + 1
	for i, delay := range delays {
		n := int(delay)
		c := smoothAt(delay - float64(n))
		var x, y float64
		if first := newest + i - n - fractionTaps/2; uint(first) <= uint(len(l.buf)-fractionTaps) {
			x, y = weighTwo(c, (*[fractionTaps]float64)(l.buf[first:]), (*[fractionTaps]float64)(r.buf[first:]))
		} else {
			first = l.back(l.pos - first)
			x, y = weighTwo(c, l.around(first), r.around(first))
		}
		dstL[i] += gain[0] * x
		dstR[i] += gain[1] * y
	}
}

// smoothAt gives the taps for a part of a frame.
func smoothAt(part float64) *[fractionTaps]float64 { return &smooth[int(part*smoothPhases+0.5)] }

// weigh sums samples by their taps, in four sums so that no addition waits for more than three others.
func weigh(c, x *[fractionTaps]float64) float64 {
	s0 := c[0]*x[0] + c[1]*x[1] + c[2]*x[2] + c[3]*x[3]
	s1 := c[4]*x[4] + c[5]*x[5] + c[6]*x[6] + c[7]*x[7]
	s2 := c[8]*x[8] + c[9]*x[9] + c[10]*x[10] + c[11]*x[11]
	s3 := c[12]*x[12] + c[13]*x[13] + c[14]*x[14] + c[15]*x[15]
	return (s0 + s1) + (s2 + s3)
}

// weighBoth is weigh for two sides.
func weighBoth(c, x, y *[fractionTaps]float64) (float64, float64) {
	s0 := c[0]*x[0] + c[1]*x[1] + c[2]*x[2] + c[3]*x[3]
	u0 := c[0]*y[0] + c[1]*y[1] + c[2]*y[2] + c[3]*y[3]
	s1 := c[4]*x[4] + c[5]*x[5] + c[6]*x[6] + c[7]*x[7]
	u1 := c[4]*y[4] + c[5]*y[5] + c[6]*y[6] + c[7]*y[7]
	s2 := c[8]*x[8] + c[9]*x[9] + c[10]*x[10] + c[11]*x[11]
	u2 := c[8]*y[8] + c[9]*y[9] + c[10]*y[10] + c[11]*y[11]
	s3 := c[12]*x[12] + c[13]*x[13] + c[14]*x[14] + c[15]*x[15]
	u3 := c[12]*y[12] + c[13]*y[13] + c[14]*y[14] + c[15]*y[15]
	return (s0 + s1) + (s2 + s3), (u0 + u1) + (u2 + u3)
}

// weighTwo weighs two sides by the same taps, the even and the odd ones of each apart.
func weighTwo(c, x, y *[fractionTaps]float64) (float64, float64) {
	s0 := c[0]*x[0] + c[2]*x[2] + c[4]*x[4] + c[6]*x[6] + c[8]*x[8] + c[10]*x[10] + c[12]*x[12] + c[14]*x[14]
	u0 := c[0]*y[0] + c[2]*y[2] + c[4]*y[4] + c[6]*y[6] + c[8]*y[8] + c[10]*y[10] + c[12]*y[12] + c[14]*y[14]
	s1 := c[1]*x[1] + c[3]*x[3] + c[5]*x[5] + c[7]*x[7] + c[9]*x[9] + c[11]*x[11] + c[13]*x[13] + c[15]*x[15]
	u1 := c[1]*y[1] + c[3]*y[3] + c[5]*y[5] + c[7]*y[7] + c[9]*y[9] + c[11]*y[11] + c[13]*y[13] + c[15]*y[15]
	return s0 + s1, u0 + u1
}

// around gathers the samples from one on, the oldest first, where they lie on both ends of the ring. It is rare, and
// stands alone so that what is read all the time needs no room for them.
//
//go:noinline
func (d *DelayLine) around(first int) *[fractionTaps]float64 {
	n := copy(d.seam[:], d.buf[first:])
	copy(d.seam[n:], d.buf)
	return &d.seam
}
