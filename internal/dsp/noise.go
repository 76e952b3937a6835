package dsp

import "math"

// Hash scrambles n (the finaliser of SplitMix64, Steele et al. 2014).
func Hash(n uint64) uint64 {
	n += 0x9e3779b97f4a7c15
	n = (n ^ (n >> 30)) * 0xbf58476d1ce4e5b9
	n = (n ^ (n >> 27)) * 0x94d049bb133111eb
	return n ^ (n >> 31)
}

// White returns the n-th value of a white noise in [-1, 1). It is a pure
// function of seed and n, so any frame of it can be computed on its own.
func White(seed uint64, n int64) float64 {
	return float64(int64(Hash(seed^Hash(uint64(n))))) / float64(1<<63)
}

// Drift returns smooth noise in [-1, 1] at the given phase: white values at the
// whole phases joined by raised cosines. It is a pure function of its arguments.
func Drift(seed uint64, phase float64) float64 {
	whole := math.Floor(phase)
	f := phase - whole
	a, b := White(seed, int64(whole)), White(seed, int64(whole)+1)
	return a + (b-a)*(0.5-0.5*math.Cos(math.Pi*f))
}

// Dither adds triangular noise of ±1 step before rounding to steps of 1/scale
// (Lipshitz, Wannamaker, Vanderkooy, JAES 1992). It is seeded, so that two
// exports of the same sound are equal.
type Dither struct {
	Scale  float64 // steps per unit, such as 32768
	n      int64
	shaped bool
	past   [len(leastHeard)]float64 // how far the last samples were rounded off, in steps, the latest first
}

// leastHeard is the filter of what rounding left, that puts its noise where a soft sound is heard least: 15 dB less from 2 to 5 kHz,
// more above 13 (at 44.1 and 48 kHz; Lipshitz, Vanderkooy, Wannamaker, Minimally Audible Noise Shaping, JAES 1991).
var leastHeard = [5]float64{2.033, -2.165, 1.959, -1.590, 0.6149}

// Shape has the noise shaped from here on.
func (d *Dither) Shape() { d.shaped = true }

// NewDither is the dither of one side of a file of so many bits. No side shares its noise with another one.
func NewDither(bits, side int) Dither {
	return Dither{Scale: math.Exp2(float64(bits - 1)), n: int64(side) << 48}
}

// Skip passes over samples that are not rounded.
func (d *Dither) Skip(n int) {
	d.n += int64(n)
	d.past = [len(leastHeard)]float64{}
}

// Round returns the dithered sample in whole steps, clipped to the range.
func (d *Dither) Round(x float64) int32 {
	if d.shaped {
		return d.shape(x)
	}
	return d.round(x * d.Scale)
}

// shape rounds what the errors of the samples before are taken from.
func (d *Dither) shape(x float64) int32 {
	v := x * d.Scale
	for i, e := range d.past {
		v -= leastHeard[i] * e
	}
	y := d.round(v)
	copy(d.past[1:], d.past[:])
	d.past[0] = min(max(float64(y)-v, -2), 2) // what is clipped is no rounding
	return y
}

// round rounds steps.
func (d *Dither) round(v float64) int32 {
	d.n++
	draw := Hash(uint64(d.n) * 0x9e3779b97f4a7c15) // SplitMix64: its halves are two even draws, whose difference is triangular
	tri := float64(int64(draw>>32)-int64(draw&0xffffffff)) / (1 << 32)
	v += tri + 0.5
	if v >= d.Scale {
		v = d.Scale - 1
	}
	if v < -d.Scale {
		v = -d.Scale
	}
	whole := int32(v) // towards zero: one lower where that was upwards
	if v < float64(whole) {
		whole--
	}
	return whole
}
