package dsp

// RunStereo filters two channels through one section in one pass: the two
// recursions overlap in the processor, which nearly halves the time.
func RunStereo(s *Section, bl, br *Biquad, l, r []float64) {
	r = r[:len(l)]
	lz1, lz2, rz1, rz2 := bl.z1, bl.z2, br.z1, br.z2
	b0, b1, b2, a1, a2 := s.B0, s.B1, s.B2, s.A1, s.A2
	for i, v := range l {
		w := r[i]
		y := b0*v + lz1
		u := b0*w + rz1
		lz1 = b1*v - a1*y + lz2
		rz1 = b1*w - a1*u + rz2
		lz2 = b2*v - a2*y
		rz2 = b2*w - a2*u
		l[i], r[i] = y, u
	}
	bl.z1, bl.z2, br.z1, br.z2 = lz1, lz2, rz1, rz2
}
