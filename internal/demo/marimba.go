package demo

import "shoal/internal/synth"

// marimba plays a figure in eighths that leans on the first and fourth. Bars of
// rosewood are tuned to 1 : 4 : 10.
func marimba(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0xba5}
	figures := [][]int{{1, 3, 2, 4, 3, 2}, {1, 2, 4, 3, 2, 4}, {4, 3, 2, 3, 1, 2}, {2, 4, 3, 1, 3, 4}}
	for b := s.from; b < s.to; b++ {
		c := chordAt(b)
		p := partAt(b)
		f := figures[int(d.Roll()*4)]
		for i, k := range f {
			if p == 0 && b < 4 && i%3 != 0 { // it begins sparsely
				continue
			}
			if p == 1 && i%2 == 1 && d.Roll() < 0.6 {
				continue
			}
			if d.Roll() < 0.06 {
				continue
			}
			at := float64(b-s.from)*bar + float64(i)*eighth + 0.008*d.Roll()
			gain := d.About(0.5, 0.25)
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
	t.Level(-9)
	return t
}

func mallet(t *take, d *dice, at, note, gain float64) {
	t.Struck = append(t.Struck, at)
	f := synth.Hz(note)
	ring := 1.9 * (220 / (f + 90))
	t.Strike(at, f, gain, []mode{
		{
			1,
			1,
			ring,
		},
		{d.About(3.95, 0.004), 0.22, ring * 0.35},
		{d.About(9.3, 0.01), 0.09, ring * 0.12},
		{d.About(16.2, 0.02), 0.03, ring * 0.06},
	})
	start := int(at * rate) // the knock of the mallet
	lp := synth.NewSmooth(0.00012)
	for i := range 500 {
		k := 1 - float64(i)/500
		t.Add(start+i, 0.10*gain*k*k*k*lp.Next(2*d.Roll()-1))
	}
}
