package demo

import (
	"math"

	"shoal/internal/synth"
)

// lowHorn plays long notes. As a brass note grows louder its upper partials
// grow faster than the lower ones.
func lowHorn(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0x40c}
	for b := s.from; b < s.to; {
		c := chordAt(b)
		bars := 2
		if b+bars > s.to || d.Roll() < 0.25 {
			bars = 1
		}
		note := c[0] + 12
		if partAt(b) == 3 && d.Roll() < 0.5 {
			note = c[1] - 12
		}
		blow(t, &d, float64(b-s.from)*bar, float64(bars)*bar*0.93, synth.Hz(note), d.About(0.8, 0.15))
		b += bars
	}
	t.Level(-10)
	return t
}

func blow(t *take, d *dice, at, length, f, gain float64) {
	start, n := int(at*rate), int((length+0.25)*rate)
	phase := 0.0
	breath := synth.NewSmooth(0.0004)
	rough := synth.NewSmooth(0.03)
	lip := d.About(1, 0.004)
	for i := range n {
		x := float64(i) / rate
		env := math.Min(1, x/0.11)
		env *= env * (3 - 2*env)
		env *= 0.72 + 0.28*math.Sin(math.Pi*math.Min(1, x/length)) // swells in the middle
		if x > length {
			env *= math.Max(0, 1-(x-length)/0.25)
		}
		vib := 1 + 0.0028*math.Sin(2*math.Pi*4.6*x)*math.Min(1, x/1.2) - 0.012*math.Exp(-x/0.03)
		phase += f * lip * vib / rate
		bright := 0.30 + 0.42*env + 0.4*rough.Next(2*d.Roll()-1)
		v, k := 0.0, 1.0
		for h := 1; h <= 22 && f*float64(h) < 9000; h++ {
			v += k * math.Sin(2*math.Pi*phase*float64(h))
			k *= bright * 1.12
			if h > 5 {
				k *= 0.93
			}
		}
		t.Add(start+i, gain*env*(0.4*v+0.02*breath.Next(2*d.Roll()-1)))
	}
}
