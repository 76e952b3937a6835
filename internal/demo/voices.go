package demo

import (
	"math"

	"shoal/internal/synth"
)

// choir sings chords without words: three singers a note, each a little off,
// between oo and ah.
func choir(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0xc401}
	for b := s.from; b < s.to; b += 2 {
		bars := min(2, s.to-b)
		c := chordAt(b)
		for _, k := range []int{1, 2, 4} {
			for range 3 {
				sing(t, &d, float64(b-s.from)*bar+0.05*d.Roll(), float64(bars)*bar, synth.Hz(c[k]), 0.3, partAt(b) == 3)
			}
		}
	}
	t.Level(-12)
	return t
}

func sing(t *take, d *dice, at, length, f, gain float64, open bool) {
	start, n := int(at*rate), int((length+0.9)*rate)
	var o saw
	o.Phase = d.Roll()
	detune := d.About(1, 0.005)
	speed, depth := d.About(5.1, 0.12), d.About(0.0045, 0.4)
	wander := synth.NewSmooth(0.15)
	var dark, bright [3]*resonator
	for i := range dark {
		dark[i] = synth.NewResonator(synth.VowelOo[i][0]*d.About(1, 0.03), 7)
		bright[i] = synth.NewResonator(synth.VowelAh[i][0]*d.About(1, 0.03), 7)
	}
	for i := range n {
		x := float64(i) / rate
		env := math.Min(1, x/0.55)
		env *= env * (3 - 2*env)
		if x > length-0.1 {
			env *= math.Max(0, 1-(x-length+0.1)/1.0)
			env *= env
		}
		vib := 1 + depth*math.Sin(2*math.Pi*speed*x)*math.Min(1, x/0.8) + 0.15*wander.Next((2*d.Roll()-1)*0.02)
		v := o.Next(f*detune*vib) + 0.04*(2*d.Roll()-1)
		m := 0.25 + 0.35*math.Sin(math.Pi*math.Min(1, x/length))
		if open {
			m += 0.3
		}
		y := 0.0
		for k := range dark {
			y += (1-m)*synth.VowelOo[k][1]*dark[k].Next(v) + m*synth.VowelAh[k][1]*bright[k].Next(v)
		}
		t.Add(start+i, gain*env*y)
	}
}

// tideTable is a voice that reads times and heights aloud.
func tideTable(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0x71de}
	at := 0.3
	for at < s.seconds()-2.5 {
		at = t.ReadLine(&d, at)
		at += 0.75 + 0.5*d.Roll()
	}
	t.Level(-8)
	return t
}
