package dsp

// A recursion can only go as fast as its own chain of a multiplication and two additions;
// several that do not depend on each other overlap in the processor. So two channels, or
// two sections, are run together, and four frames a turn (see blocks.go). What a turn
// needs has to fit the fifteen registers there are: one section on two channels does, two
// sections on one channel nearly do, two on two do not.

// RunStereo filters two channels through one section.
func RunStereo(s *Section, bl, br *Biquad, l, r []float64) {
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	for len(l) >= 4 && len(r) >= 4 {
		f, g := (*[4]float64)(l), (*[4]float64)(r)
		v, w := f[0], g[0]
		p, q := b0*v+lz1, b0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (b1*w+rz2)-a1*q
		lz2, rz2 = b2*v-a2*p, b2*w-a2*q
		f[0], g[0] = p, q
		v, w = f[1], g[1]
		p, q = b0*v+lz1, b0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (b1*w+rz2)-a1*q
		lz2, rz2 = b2*v-a2*p, b2*w-a2*q
		f[1], g[1] = p, q
		v, w = f[2], g[2]
		p, q = b0*v+lz1, b0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (b1*w+rz2)-a1*q
		lz2, rz2 = b2*v-a2*p, b2*w-a2*q
		f[2], g[2] = p, q
		v, w = f[3], g[3]
		p, q = b0*v+lz1, b0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (b1*w+rz2)-a1*q
		lz2, rz2 = b2*v-a2*p, b2*w-a2*q
		f[3], g[3] = p, q
		l, r = l[4:], r[4:]
	}
	for i, v := range l {
		w := r[i]
		p, q := b0*v+lz1, b0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (b1*w+rz2)-a1*q
		lz2, rz2 = b2*v-a2*p, b2*w-a2*q
		l[i], r[i] = p, q
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}

// RunStereo2 filters two channels through two sections, one after the other.
func RunStereo2(s, t *Section, bl, br, cl, cr *Biquad, l, r []float64) {
	runPair(s, t, bl, cl, l)
	runPair(s, t, br, cr, r)
}

// runPair filters one channel through two sections, one after the other.
func runPair(s, t *Section, b, c *Biquad, x []float64) {
	z1, z2, y1, y2 := b.z1, b.z2, c.z1, c.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	d0, d1, d2, c1, c2 := t.B0, t.B1, t.B2, t.A1, t.A2
	for len(x) >= 4 {
		f := (*[4]float64)(x)
		v := f[0]
		y := b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		p := d0*y + y1
		y1 = (d1*y + y2) - c1*p
		y2 = d2*y - c2*p
		f[0] = p
		v = f[1]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		p = d0*y + y1
		y1 = (d1*y + y2) - c1*p
		y2 = d2*y - c2*p
		f[1] = p
		v = f[2]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		p = d0*y + y1
		y1 = (d1*y + y2) - c1*p
		y2 = d2*y - c2*p
		f[2] = p
		v = f[3]
		y = b0*v + z1
		z1 = (b1*v + z2) - a1*y
		z2 = b2*v - a2*y
		p = d0*y + y1
		y1 = (d1*y + y2) - c1*p
		y2 = d2*y - c2*p
		f[3] = p
		x = x[4:]
	}
	b.z1, b.z2, c.z1, c.z2 = z1, z2, y1, y2
	if len(x) > 0 {
		b.Run(s, x)
		c.Run(t, x)
	}
}

// RunTwo filters two channels, each through a section of its own, from x and y into l and r.
func RunTwo(s, t *Section, bl, br *Biquad, x, y, l, r []float64) {
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	d0, d1, d2, c1, c2 := t.B0, t.B1, t.B2, t.A1, t.A2
	for len(x) >= 4 && len(y) >= 4 && len(l) >= 4 && len(r) >= 4 {
		f, g, m, n := (*[4]float64)(x), (*[4]float64)(y), (*[4]float64)(l), (*[4]float64)(r)
		v, w := f[0], g[0]
		p, q := b0*v+lz1, d0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (d1*w+rz2)-c1*q
		lz2, rz2 = b2*v-a2*p, d2*w-c2*q
		m[0], n[0] = p, q
		v, w = f[1], g[1]
		p, q = b0*v+lz1, d0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (d1*w+rz2)-c1*q
		lz2, rz2 = b2*v-a2*p, d2*w-c2*q
		m[1], n[1] = p, q
		v, w = f[2], g[2]
		p, q = b0*v+lz1, d0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (d1*w+rz2)-c1*q
		lz2, rz2 = b2*v-a2*p, d2*w-c2*q
		m[2], n[2] = p, q
		v, w = f[3], g[3]
		p, q = b0*v+lz1, d0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (d1*w+rz2)-c1*q
		lz2, rz2 = b2*v-a2*p, d2*w-c2*q
		m[3], n[3] = p, q
		x, y, l, r = x[4:], y[4:], l[4:], r[4:]
	}
	for i, v := range x {
		w := y[i]
		p, q := b0*v+lz1, d0*w+rz1
		lz1, rz1 = (b1*v+lz2)-a1*p, (d1*w+rz2)-c1*q
		lz2, rz2 = b2*v-a2*p, d2*w-c2*q
		l[i], r[i] = p, q
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}
