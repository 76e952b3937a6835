package demo

import "shoal/internal/synth"

// handbells ring single notes, high and far apart. A handbell's partials stand
// near 1 : 3 with weak inharmonic ones above.
func handbells(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0xbe11}
	for b := s.from; b < s.to; b++ {
		c := chordAt(b)
		places := []int{0, 4}
		if partAt(b) == 3 {
			places = []int{0, 2, 3, 5}
		}
		for n, i := range places {
			if n > 0 && d.Roll() < 0.35 {
				continue
			}
			note := c[1+int(d.Roll()*4)] + 12
			at := float64(b-s.from)*bar + float64(i)*eighth + 0.012*d.Roll()
			bell(t, &d, at, synth.Hz(note), d.About(0.6, 0.3))
		}
	}
	t.Level(-11)
	return t
}

func bell(t *take, d *dice, at, f, gain float64) {
	ring := 3.2 * (700 / (f + 250))
	t.Strike(at, f, gain, []mode{
		{1, 1, ring}, {d.About(1.0016, 0.0004), 0.35, ring * 0.9}, {2.98, 0.42, ring * 0.5},
		{5.41, 0.12, ring * 0.2}, {8.3, 0.06, ring * 0.1}, {11.6, 0.03, ring * 0.05},
	})
}

// buoy is the bell buoy outside the harbour: heavy, dull, struck by the swell.
func buoy(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0xb0b0}
	for at := 1.0; at < s.seconds()-5; at += 2.6 + 4.5*d.Roll() {
		gain := d.About(0.6, 0.5)
		for hit := 0.0; hit < 2+d.Roll()*2; hit++ {
			hitAt := at + hit*d.About(0.42, 0.3)
			t.Struck = append(t.Struck, hitAt)
			t.Strike(hitAt, 311, gain, []mode{
				{0.5, 0.5, 5}, {1, 1, 3.6}, {1.19, 0.6, 2.8}, {1.5, 0.35, 2}, {2.02, 0.5, 1.6}, {2.66, 0.25, 0.9}, {3.8, 0.12, 0.5},
			})
			gain *= 0.6
		}
	}
	t.Level(-13)
	return t
}
