package dsp

// A recursion can only go as fast as its own chain of a multiplication and two
// additions; several that do not depend on each other overlap in the
// processor. So sections are run in pairs where there is a pair to run.

// RunStereo filters two channels through one section in one pass.
func RunStereo(s *Section, bl, br *Biquad, l, r []float64) {
	r = r[:len(l)]
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	for i, v := range l {
		w := r[i]
		y := b0*v + lz1
		u := b0*w + rz1
		lz1 = (b1*v + lz2) - a1*y
		rz1 = (b1*w + rz2) - a1*u
		lz2 = b2*v - a2*y
		rz2 = b2*w - a2*u
		l[i], r[i] = y, u
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}

// RunStereo2 filters two channels through two sections, one after the other.
func RunStereo2(s, t *Section, bl, br, cl, cr *Biquad, l, r []float64) {
	r = r[:len(l)]
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	ly1, ly2, ry1, ry2 := cl.z1, cl.z2, cr.z1, cr.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	d0, d1, d2, c1, c2 := t.B0, t.B1, t.B2, t.A1, t.A2
	for i, v := range l {
		w := r[i]
		y := b0*v + lz1
		u := b0*w + rz1
		lz1 = (b1*v + lz2) - a1*y
		rz1 = (b1*w + rz2) - a1*u
		lz2 = b2*v - a2*y
		rz2 = b2*w - a2*u
		p := d0*y + ly1
		q := d0*u + ry1
		ly1 = (d1*y + ly2) - c1*p
		ry1 = (d1*u + ry2) - c1*q
		ly2 = d2*y - c2*p
		ry2 = d2*u - c2*q
		l[i], r[i] = p, q
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
	cl.z1, cl.z2, cr.z1, cr.z2 = ly1, ly2, ry1, ry2
}

// RunTwo filters two channels, each through a section of its own, from x and y into l and r.
func RunTwo(s, t *Section, bl, br *Biquad, x, y, l, r []float64) {
	y, l, r = y[:len(x)], l[:len(x)], r[:len(x)]
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	d0, d1, d2, c1, c2 := t.B0, t.B1, t.B2, t.A1, t.A2
	for i, v := range x {
		w := y[i]
		p := b0*v + lz1
		q := d0*w + rz1
		lz1 = (b1*v + lz2) - a1*p
		rz1 = (d1*w + rz2) - c1*q
		lz2 = b2*v - a2*p
		rz2 = d2*w - c2*q
		l[i], r[i] = p, q
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}
