package dsp

import "math"

// Section holds the coefficients of a second-order section
// (b0 + b1 z⁻¹ + b2 z⁻²) / (1 + a1 z⁻¹ + a2 z⁻²).
type Section struct{ B0, B1, B2, A1, A2 float64 }

// Through is the section that changes nothing.
var Through = Section{B0: 1}

// Power returns the squared magnitude at a frequency, in the numerically safe
// form with φ = sin²(ω/2).
func (s Section) Power(freq, rate float64) float64 {
	sn := math.Sin(math.Pi * freq / rate)
	p1 := sn * sn
	p0 := 1 - p1
	p2 := 4 * p0 * p1
	num := sq(s.B0+s.B1+s.B2)*p0 + sq(s.B0-s.B1+s.B2)*p1 - 4*s.B0*s.B2*p2
	den := sq(1+s.A1+s.A2)*p0 + sq(1-s.A1+s.A2)*p1 - 4*s.A2*p2
	if num < 0 {
		num = 0
	}
	return num / den
}

// Invert returns the section with the reciprocal response. The numerator must
// have its zeros inside the unit circle.
func (s Section) Invert() Section {
	return Section{B0: 1 / s.B0, B1: s.A1 / s.B0, B2: s.A2 / s.B0, A1: s.B1 / s.B0, A2: s.B2 / s.B0}
}

// Radius is how far from the middle the section's outermost pole lies: by so much it falls from frame to frame in the end.
func (s Section) Radius() float64 {
	if d := s.A1*s.A1/4 - s.A2; d > 0 {
		return math.Abs(s.A1)/2 + math.Sqrt(d)
	}
	return math.Sqrt(max(s.A2, 0))
}

func sq(x float64) float64 { return x * x }

// Biquad is the state of one section for one channel (transposed direct form II).
type Biquad struct{ z1, z2 float64 }

// Run filters a block in place, four frames a turn (see blocks.go).
func (b *Biquad) Run(s *Section, x []float64) {
	z1, z2 := b.z1, b.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	for len(x) >= 4 {
		f := (*[4]float64)(x)
		v := f[0]
		y := b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		f[0] = y
		v = f[1]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		f[1] = y
		v = f[2]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		f[2] = y
		v = f[3]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		f[3] = y
		x = x[4:]
	}
	for i, v := range x {
		y := b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		x[i] = y
	}
	b.z1, b.z2 = z1, z2
}

// RunStereoTo filters two channels in place while the coefficients move in a straight
// line: at frame i of the block they are the part (from+i)/of of the way.
func RunStereoTo(s, t *Section, from, of int, bl, br *Biquad, l, r []float64) {
	r = r[:len(l)]
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	d0, d1, d2, e1, e2 := t.B0-s.B0, t.B1-s.B1, t.B2-s.B2, t.A1-s.A1, t.A2-s.A2
	for i, v := range l {
		w := r[i]
		f := float64(from+i) / float64(of)
		b0 := s.B0 + d0*f
		y, u := b0*v+lz1, b0*w+rz1
		b1, a1 := s.B1+d1*f, s.A1+e1*f
		lz1, rz1 = (b1*v+lz2)-a1*y, (b1*w+rz2)-a1*u
		b2, a2 := s.B2+d2*f, s.A2+e2*f
		lz2, rz2 = b2*v-a2*y, b2*w-a2*u
		l[i], r[i] = y, u
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}

// Next filters one sample.
func (b *Biquad) Next(s *Section, v float64) float64 {
	y := s.B0*v + b.z1
	b.z1 = (s.B1*v + b.z2) - s.A1*y
	b.z2 = s.B2*v - s.A2*y
	return y
}

// Clear empties the state; Flush zeroes what has become too small.
func (b *Biquad) Clear() { b.z1, b.z2 = 0, 0 }

// Flush zeroes state that has become too small to matter.
func (b *Biquad) Flush() { b.z1, b.z2 = Flush(b.z1), Flush(b.z2) }
