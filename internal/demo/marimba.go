package demo

// marimba plays a figure in eighths that leans on the first and fourth. Bars of
// rosewood are tuned to 1 : 4 : 10.
func marimba(s stretch) *take {
	t := newTake(s.seconds(), false)
	d := dice{seed: 0xba5}
	figures := [][]int{{1, 3, 2, 4, 3, 2}, {1, 2, 4, 3, 2, 4}, {4, 3, 2, 3, 1, 2}, {2, 4, 3, 1, 3, 4}}
	for b := s.from; b < s.to; b++ {
		c := chordAt(b)
		p := partAt(b)
		f := figures[int(d.roll()*4)]
		for i, k := range f {
			if p == 0 && b < 4 && i%3 != 0 { // it begins sparsely
				continue
			}
			if p == 1 && i%2 == 1 && d.roll() < 0.6 {
				continue
			}
			if d.roll() < 0.06 {
				continue
			}
			at := float64(b-s.from)*bar + float64(i)*eighth + 0.008*d.roll()
			gain := d.about(0.5, 0.25)
			if i%3 == 0 {
				gain *= 1.5
			}
			if p >= 2 {
				gain *= 1.15
			}
			mallet(t, &d, at, c[k], gain)
			if p == 3 && i == 0 {
				mallet(t, &d, at+0.004, c[k]+12, gain*0.6)
			}
		}
		if p >= 1 {
			mallet(t, &d, float64(b-s.from)*bar, c[0]+12, 0.8)
		}
	}
	t.level(-9)
	return t
}

func mallet(t *take, d *dice, at, note, gain float64) {
	t.struck = append(t.struck, at)
	f := hz(note)
	ring := 1.9 * (220 / (f + 90))
	t.strike(at, f, gain, []mode{
		{
			1,
			1,
			ring,
		},
		{d.about(3.95, 0.004), 0.22, ring * 0.35},
		{d.about(9.3, 0.01), 0.09, ring * 0.12},
		{d.about(16.2, 0.02), 0.03, ring * 0.06},
	})
	start := int(at * rate) // the knock of the mallet
	lp := newSmooth(0.00012)
	for i := range 500 {
		k := 1 - float64(i)/500
		t.add(start+i, 0.10*gain*k*k*k*lp.next(2*d.roll()-1))
	}
}
