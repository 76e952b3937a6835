package demo

import (
	"math"

	"shoal/internal/synth"
)

// vowel is three formants: frequency in Hz, gain.
type vowel [3][2]float64

var (
	vowelAh = vowel{{700, 1}, {1150, 0.55}, {2700, 0.18}}
	vowelOo = vowel{{330, 1}, {720, 0.30}, {2400, 0.06}}
	vowelEh = vowel{{540, 1}, {1750, 0.42}, {2550, 0.2}}
	vowelEe = vowel{{290, 1}, {2150, 0.38}, {2950, 0.25}}
	vowelOh = vowel{{470, 1}, {860, 0.5}, {2500, 0.1}}
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
		dark[i] = synth.NewResonator(vowelOo[i][0]*d.About(1, 0.03), 7)
		bright[i] = synth.NewResonator(vowelAh[i][0]*d.About(1, 0.03), 7)
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
			y += (1-m)*vowelOo[k][1]*dark[k].Next(v) + m*vowelAh[k][1]*bright[k].Next(v)
		}
		t.Add(start+i, gain*env*y)
	}
}

// tideTable is a voice that reads times and heights: not words, but syllables
// with formants, stops and hisses, in the rhythm of reading figures aloud.
func tideTable(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0x71de}
	vowels := []vowel{vowelAh, vowelOo, vowelEh, vowelEe, vowelOh}
	at := 0.3
	for line := 0; at < s.seconds()-2.5; line++ {
		t.Struck = append(t.Struck, at)
		syllables := 5 + int(d.Roll()*4)
		for i := range syllables {
			long := d.About(0.17, 0.3)
			if i == syllables-1 {
				long *= 1.6
			}
			pitch := 112 * (1.12 - 0.3*float64(i)/float64(syllables)) * d.About(1, 0.04)
			if d.Roll() < 0.45 {
				hiss(t, &d, at, 0.07, []float64{5200, 3100, 1800}[int(d.Roll()*3)])
				at += 0.055
			} else if d.Roll() < 0.5 {
				at += 0.035 // the silence of a stop
				hiss(t, &d, at, 0.014, 2400)
			}
			a, b := vowels[int(d.Roll()*5)], vowels[int(d.Roll()*5)]
			speak(t, &d, at, long, pitch, a, b)
			at += long + 0.03*d.Roll()
			if i == syllables/2 {
				at += 0.16
				t.Struck = append(t.Struck, at) // the second half of the line
			}
		}
		at += 0.75 + 0.5*d.Roll()
	}
	t.Level(-8)
	return t
}

func hiss(t *take, d *dice, at, length, f float64) {
	start, n := int(at*rate), int(length*rate)
	r := synth.NewResonator(f, 2.2)
	for i := range n {
		k := math.Sin(math.Pi * float64(i) / float64(n))
		t.Add(start+i, 0.16*k*r.Next(2*d.Roll()-1))
	}
}

func speak(t *take, d *dice, at, length, pitch float64, a, b vowel) {
	start, n := int(at*rate), int((length+0.05)*rate)
	var o saw
	var ra, rb [3]*resonator
	for k := range ra {
		ra[k], rb[k] = synth.NewResonator(a[k][0], 6), synth.NewResonator(b[k][0], 6)
	}
	creak := synth.NewSmooth(0.02)
	for i := range n {
		x := float64(i) / rate
		env := math.Min(1, x/0.022) * math.Min(1, math.Max(0, (length+0.05-x)/0.06))
		m := math.Min(1, x/length)
		p := pitch * (1.04 - 0.08*m) * (1 + 0.6*creak.Next((2*d.Roll()-1)*0.05))
		v := o.Next(p) + 0.05*(2*d.Roll()-1)
		y := 0.0
		for k := range ra {
			y += (1-m)*a[k][1]*ra[k].Next(v) + m*b[k][1]*rb[k].Next(v)
		}
		t.Add(start+i, 0.8*env*y)
	}
}
