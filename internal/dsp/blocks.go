package dsp

import "unsafe"

// The loops over whole blocks that effects and engine share. All go eight frames a turn
// where they can: in WebAssembly a turn of a Go loop costs as much as several frames of
// plain arithmetic, and natively it costs nothing to write them so. The rest, when a
// block is cut off the eight, goes frame by frame with the same arithmetic.

// Scale multiplies a block by a gain.
func Scale(x []float64, gain float64) { ScaleTo(x, x, gain) }

// ScaleTo gives dst the samples of src, which may be dst itself, times a gain.
func ScaleTo(dst, src []float64, gain float64) {
	for len(dst) >= 8 && len(src) >= 8 {
		d, s := (*[8]float64)(dst), (*[8]float64)(src)
		d[0], d[1], d[2], d[3] = s[0]*gain, s[1]*gain, s[2]*gain, s[3]*gain
		d[4], d[5], d[6], d[7] = s[4]*gain, s[5]*gain, s[6]*gain, s[7]*gain
		dst, src = dst[8:], src[8:]
	}
	for i, v := range src {
		dst[i] = v * gain
	}
}

// Multiply multiplies a block by gains, sample by sample.
func Multiply(x, gains []float64) {
	for len(x) >= 8 && len(gains) >= 8 {
		a, g := (*[8]float64)(x), (*[8]float64)(gains)
		a[0], a[1], a[2], a[3] = a[0]*g[0], a[1]*g[1], a[2]*g[2], a[3]*g[3]
		a[4], a[5], a[6], a[7] = a[4]*g[4], a[5]*g[5], a[6]*g[6], a[7]*g[7]
		x, gains = x[8:], gains[8:]
	}
	for i, g := range gains {
		x[i] *= g
	}
}

// Rise fills a block with a straight line that begins at from and is by higher at the end: the first
// sample is that many frames after the beginning, and each frame is that share of the way.
func Rise(dst []float64, from, by float64, gone int64, share float64) {
	t := float64(gone)
	for len(dst) >= 4 {
		d := (*[4]float64)(dst)
		d[0], d[1] = from+by*(t*share), from+by*((t+1)*share)
		d[2], d[3] = from+by*((t+2)*share), from+by*((t+3)*share)
		dst, t = dst[4:], t+4
	}
	for k := range dst {
		dst[k] = from + by*((t+float64(k))*share)
	}
}

// AddScaled adds src times a gain to dst.
func AddScaled(dst, src []float64, gain float64) {
	for len(dst) >= 8 && len(src) >= 8 {
		d, s := (*[8]float64)(dst), (*[8]float64)(src)
		d[0], d[1], d[2], d[3] = d[0]+gain*s[0], d[1]+gain*s[1], d[2]+gain*s[2], d[3]+gain*s[3]
		d[4], d[5], d[6], d[7] = d[4]+gain*s[4], d[5]+gain*s[5], d[6]+gain*s[6], d[7]+gain*s[7]
		dst, src = dst[8:], src[8:]
	}
	for i, v := range src {
		dst[i] += gain * v
	}
}

// AddSingles adds src, samples as pages hold them, times a gain to dst.
func AddSingles(dst []float64, src []float32, gain float64) {
	for len(dst) >= 8 && len(src) >= 8 {
		d, s := (*[8]float64)(dst), (*[8]float32)(src)
		d[0] += float64(s[0]) * gain
		d[1] += float64(s[1]) * gain
		d[2] += float64(s[2]) * gain
		d[3] += float64(s[3]) * gain
		d[4] += float64(s[4]) * gain
		d[5] += float64(s[5]) * gain
		d[6] += float64(s[6]) * gain
		d[7] += float64(s[7]) * gain
		dst, src = dst[8:], src[8:]
	}
	for i, v := range src {
		dst[i] += float64(v) * gain
	}
}

// Toward moves dst a part of the way to src.
func Toward(dst, src []float64, part float64) {
	for len(dst) >= 4 && len(src) >= 4 {
		d, s := (*[4]float64)(dst), (*[4]float64)(src)
		d[0] += part * (s[0] - d[0])
		d[1] += part * (s[1] - d[1])
		d[2] += part * (s[2] - d[2])
		d[3] += part * (s[3] - d[3])
		dst, src = dst[4:], src[4:]
	}
	for i, v := range src {
		dst[i] += part * (v - dst[i])
	}
}

// Exchange swaps the samples of two blocks of the same length.
func Exchange(x, y []float64) {
	for len(x) >= 4 && len(y) >= 4 {
		a, b := (*[4]float64)(x), (*[4]float64)(y)
		a[0], a[1], a[2], a[3], b[0], b[1], b[2], b[3] = b[0], b[1], b[2], b[3], a[0], a[1], a[2], a[3]
		x, y = x[4:], y[4:]
	}
	for i, v := range x {
		x[i], y[i] = y[i], v
	}
}

// grain is what Feed and Diffuse add and take away again: a float64 near it has steps of
// 1.6e-30, so whatever is smaller becomes nothing, without a branch.
const grain = 1e-14

// Feed gives line what goes round again, x, and gain times what is new, in. Values far
// below hearing become zero (see Flush) so that no loop ever runs on denormals.
func Feed(line, x, in []float64, gain float64) {
	for len(line) >= 4 && len(x) >= 4 && len(in) >= 4 {
		a, b, c := (*[4]float64)(line), (*[4]float64)(x), (*[4]float64)(in)
		a[0] = (b[0] + gain*c[0] + grain) - grain
		a[1] = (b[1] + gain*c[1] + grain) - grain
		a[2] = (b[2] + gain*c[2] + grain) - grain
		a[3] = (b[3] + gain*c[3] + grain) - grain
		line, x, in = line[4:], x[4:], in[4:]
	}
	for i := range line {
		line[i] = (x[i] + gain*in[i] + grain) - grain
	}
}

// Diffuse runs a block through the all-pass whose memory is ring, of the same length: each
// sample meets the one that went in when the ring was last here. Tiny values become zero
// as in Feed.
func Diffuse(x, ring []float64, gain float64) {
	for len(x) >= 4 && len(ring) >= 4 {
		a, r := (*[4]float64)(x), (*[4]float64)(ring)
		d0, d1, d2, d3 := r[0], r[1], r[2], r[3]
		v0, v1, v2, v3 := a[0]-gain*d0, a[1]-gain*d1, a[2]-gain*d2, a[3]-gain*d3
		r[0], r[1], r[2], r[3] = (v0+grain)-grain, (v1+grain)-grain, (v2+grain)-grain, (v3+grain)-grain
		a[0], a[1], a[2], a[3] = d0+gain*v0, d1+gain*v1, d2+gain*v2, d3+gain*v3
		x, ring = x[4:], ring[4:]
	}
	for i, u := range x {
		d := ring[i]
		v := u - gain*d
		ring[i] = (v + grain) - grain
		x[i] = d + gain*v
	}
}

// DiffuseLossy is Diffuse with a ring that keeps only a part of what is in it.
func DiffuseLossy(x, ring []float64, gain, keep float64) {
	for len(x) >= 4 && len(ring) >= 4 {
		a, r := (*[4]float64)(x), (*[4]float64)(ring)
		d0, d1, d2, d3 := keep*r[0], keep*r[1], keep*r[2], keep*r[3]
		v0, v1, v2, v3 := a[0]-gain*d0, a[1]-gain*d1, a[2]-gain*d2, a[3]-gain*d3
		r[0], r[1], r[2], r[3] = (v0+grain)-grain, (v1+grain)-grain, (v2+grain)-grain, (v3+grain)-grain
		a[0], a[1], a[2], a[3] = d0+gain*v0, d1+gain*v1, d2+gain*v2, d3+gain*v3
		x, ring = x[4:], ring[4:]
	}
	for i, u := range x {
		d := keep * ring[i]
		v := u - gain*d
		ring[i] = (v + grain) - grain
		x[i] = d + gain*v
	}
}

// FeedThrough lets a block pass through the plain delay whose memory is ring, of the same length: in times a gain is added to
// what goes into it, and dst gets the part of what comes out that it keeps. Tiny values become zero as in Feed. dst may be x.
func FeedThrough(dst, x, ring, in []float64, gain, keep float64) {
	for len(dst) >= 4 && len(x) >= 4 && len(ring) >= 4 && len(in) >= 4 {
		d, a, r, c := (*[4]float64)(dst), (*[4]float64)(x), (*[4]float64)(ring), (*[4]float64)(in)
		d0, d1, d2, d3 := keep*r[0], keep*r[1], keep*r[2], keep*r[3]
		r[0] = (a[0] + gain*c[0] + grain) - grain
		r[1] = (a[1] + gain*c[1] + grain) - grain
		r[2] = (a[2] + gain*c[2] + grain) - grain
		r[3] = (a[3] + gain*c[3] + grain) - grain
		d[0], d[1], d[2], d[3] = d0, d1, d2, d3
		dst, x, ring, in = dst[4:], x[4:], ring[4:], in[4:]
	}
	for i, u := range x {
		d := keep * ring[i]
		ring[i] = (u + gain*in[i] + grain) - grain
		dst[i] = d
	}
}

// AddDifference adds to dst a less b, times a gain.
func AddDifference(dst, a, b []float64, gain float64) {
	for len(dst) >= 4 && len(a) >= 4 && len(b) >= 4 {
		d, x, y := (*[4]float64)(dst), (*[4]float64)(a), (*[4]float64)(b)
		d[0] += gain * (x[0] - y[0])
		d[1] += gain * (x[1] - y[1])
		d[2] += gain * (x[2] - y[2])
		d[3] += gain * (x[3] - y[3])
		dst, a, b = dst[4:], a[4:], b[4:]
	}
	for i := range dst {
		dst[i] += gain * (a[i] - b[i])
	}
}

// Louder gives dst the larger magnitude of the two channels at each frame and returns the
// largest of all. It works on bit patterns, see PeakBits.
func Louder(dst, l, r []float64) float64 {
	d, x, y := bits(dst), bits(l), bits(r)
	var a, b uint64
	for len(d) >= 4 && len(x) >= 4 && len(y) >= 4 {
		o, p, q := (*[4]uint64)(d), (*[4]uint64)(x), (*[4]uint64)(y)
		m0, m1 := max(p[0]<<1, q[0]<<1)>>1, max(p[1]<<1, q[1]<<1)>>1
		m2, m3 := max(p[2]<<1, q[2]<<1)>>1, max(p[3]<<1, q[3]<<1)>>1
		o[0], o[1], o[2], o[3] = m0, m1, m2, m3
		a, b = max(a, m0), max(b, m1)
		a, b = max(a, m2), max(b, m3)
		d, x, y = d[4:], x[4:], y[4:]
	}
	for i := range d {
		m := max(x[i]<<1, y[i]<<1) >> 1
		d[i], a = m, max(a, m)
	}
	a = max(a, b)
	return *(*float64)(unsafe.Pointer(&a))
}

// bits is a block seen as the bit patterns of its samples. Taking them one by one with
// math.Float64bits moves each through a register of the other kind.
func bits(x []float64) []uint64 {
	return unsafe.Slice((*uint64)(unsafe.Pointer(unsafe.SliceData(x))), len(x))
}

// SumAndDifference replaces two signals of the same length by what they add up to and by how they differ, times a gain.
func SumAndDifference(a, b []float64, gain float64) {
	for len(a) >= 4 && len(b) >= 4 {
		x, y := (*[4]float64)(a), (*[4]float64)(b)
		x[0], y[0] = gain*(x[0]+y[0]), gain*(x[0]-y[0])
		x[1], y[1] = gain*(x[1]+y[1]), gain*(x[1]-y[1])
		x[2], y[2] = gain*(x[2]+y[2]), gain*(x[2]-y[2])
		x[3], y[3] = gain*(x[3]+y[3]), gain*(x[3]-y[3])
		a, b = a[4:], b[4:]
	}
	for i := range a {
		a[i], b[i] = gain*(a[i]+b[i]), gain*(a[i]-b[i])
	}
}
