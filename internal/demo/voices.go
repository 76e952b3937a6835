package demo

import "math"

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
	t := newTake(s.seconds(), false)
	d := dice{seed: 0xc401}
	for b := s.from; b < s.to; b += 2 {
		bars := min(2, s.to-b)
		c := chordAt(b)
		for _, k := range []int{1, 2, 4} {
			for range 3 {
				sing(t, &d, float64(b-s.from)*bar+0.05*d.roll(), float64(bars)*bar, hz(c[k]), 0.3, partAt(b) == 3)
			}
		}
	}
	t.level(-12)
	return t
}

func sing(t *take, d *dice, at, length, f, gain float64, open bool) {
	start, n := int(at*rate), int((length+0.9)*rate)
	var o saw
	o.phase = d.roll()
	detune := d.about(1, 0.005)
	speed, depth := d.about(5.1, 0.12), d.about(0.0045, 0.4)
	wander := newSmooth(0.15)
	var dark, bright [3]*resonator
	for i := range dark {
		dark[i] = newResonator(vowelOo[i][0]*d.about(1, 0.03), 7)
		bright[i] = newResonator(vowelAh[i][0]*d.about(1, 0.03), 7)
	}
	for i := range n {
		x := float64(i) / rate
		env := math.Min(1, x/0.55)
		env *= env * (3 - 2*env)
		if x > length-0.1 {
			env *= math.Max(0, 1-(x-length+0.1)/1.0)
			env *= env
		}
		vib := 1 + depth*math.Sin(2*math.Pi*speed*x)*math.Min(1, x/0.8) + 0.15*wander.next((2*d.roll()-1)*0.02)
		v := o.next(f*detune*vib) + 0.04*(2*d.roll()-1)
		m := 0.25 + 0.35*math.Sin(math.Pi*math.Min(1, x/length))
		if open {
			m += 0.3
		}
		y := 0.0
		for k := range dark {
			y += (1-m)*vowelOo[k][1]*dark[k].next(v) + m*vowelAh[k][1]*bright[k].next(v)
		}
		t.add(start+i, gain*env*y)
	}
}

// tideTable is a voice that reads times and heights: not words, but syllables
// with formants, stops and hisses, in the rhythm of reading figures aloud.
func tideTable(s stretch) *take {
	t := newTake(s.seconds(), false)
	d := dice{seed: 0x71de}
	vowels := []vowel{vowelAh, vowelOo, vowelEh, vowelEe, vowelOh}
	at := 0.3
	for line := 0; at < s.seconds()-2.5; line++ {
		t.struck = append(t.struck, at)
		syllables := 5 + int(d.roll()*4)
		for i := range syllables {
			long := d.about(0.17, 0.3)
			if i == syllables-1 {
				long *= 1.6
			}
			pitch := 112 * (1.12 - 0.3*float64(i)/float64(syllables)) * d.about(1, 0.04)
			if d.roll() < 0.45 {
				hiss(t, &d, at, 0.07, []float64{5200, 3100, 1800}[int(d.roll()*3)])
				at += 0.055
			} else if d.roll() < 0.5 {
				at += 0.035 // the silence of a stop
				hiss(t, &d, at, 0.014, 2400)
			}
			a, b := vowels[int(d.roll()*5)], vowels[int(d.roll()*5)]
			speak(t, &d, at, long, pitch, a, b)
			at += long + 0.03*d.roll()
			if i == syllables/2 {
				at += 0.16
				t.struck = append(t.struck, at) // the second half of the line
			}
		}
		at += 0.75 + 0.5*d.roll()
	}
	t.level(-8)
	return t
}

func hiss(t *take, d *dice, at, length, f float64) {
	start, n := int(at*rate), int(length*rate)
	r := newResonator(f, 2.2)
	for i := range n {
		k := math.Sin(math.Pi * float64(i) / float64(n))
		t.add(start+i, 0.16*k*r.next(2*d.roll()-1))
	}
}

func speak(t *take, d *dice, at, length, pitch float64, a, b vowel) {
	start, n := int(at*rate), int((length+0.05)*rate)
	var o saw
	var ra, rb [3]*resonator
	for k := range ra {
		ra[k], rb[k] = newResonator(a[k][0], 6), newResonator(b[k][0], 6)
	}
	creak := newSmooth(0.02)
	for i := range n {
		x := float64(i) / rate
		env := math.Min(1, x/0.022) * math.Min(1, math.Max(0, (length+0.05-x)/0.06))
		m := math.Min(1, x/length)
		p := pitch * (1.04 - 0.08*m) * (1 + 0.6*creak.next((2*d.roll()-1)*0.05))
		v := o.next(p) + 0.05*(2*d.roll()-1)
		y := 0.0
		for k := range ra {
			y += (1-m)*a[k][1]*ra[k].next(v) + m*b[k][1]*rb[k].next(v)
		}
		t.add(start+i, 0.8*env*y)
	}
}
