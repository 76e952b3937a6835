package synth

import "math"

// Vowel is three formants: frequency in Hz, gain.
type Vowel [3][2]float64

// The vowels that our voices have.
var (
	VowelAh = Vowel{{700, 1}, {1150, 0.55}, {2700, 0.18}}
	VowelOo = Vowel{{330, 1}, {720, 0.30}, {2400, 0.06}}
	VowelEh = Vowel{{540, 1}, {1750, 0.42}, {2550, 0.2}}
	VowelEe = Vowel{{290, 1}, {2150, 0.38}, {2950, 0.25}}
	VowelOh = Vowel{{470, 1}, {860, 0.5}, {2500, 0.1}}
)

var vowels = []Vowel{VowelAh, VowelOo, VowelEh, VowelEe, VowelOh}

// ReadLine adds a line of a table that is read aloud, and returns when it is over: not words, but syllables with formants,
// stops and hisses, in the rhythm of reading figures. Both halves of it are struck.
func (t *Take) ReadLine(d *Dice, at float64) float64 {
	t.Struck = append(t.Struck, at)
	syllables := 5 + int(d.Roll()*4)
	for i := range syllables {
		long := d.About(0.17, 0.3)
		if i == syllables-1 {
			long *= 1.6
		}
		pitch := 112 * (1.12 - 0.3*float64(i)/float64(syllables)) * d.About(1, 0.04)
		if d.Roll() < 0.45 {
			t.Hiss(d, at, 0.07, []float64{5200, 3100, 1800}[int(d.Roll()*3)])
			at += 0.055
		} else if d.Roll() < 0.5 {
			at += 0.035 // the silence of a stop
			t.Hiss(d, at, 0.014, 2400)
		}
		a, b := vowels[int(d.Roll()*5)], vowels[int(d.Roll()*5)]
		t.Speak(d, at, long, pitch, a, b)
		at += long + 0.03*d.Roll()
		if i == syllables/2 {
			at += 0.16
			t.Struck = append(t.Struck, at)
		}
	}
	return at
}

// Hiss adds a consonant: noise around a frequency in Hz, for so many seconds from a time on.
func (t *Take) Hiss(d *Dice, at, length, f float64) {
	start, n := int(at*Rate), int(length*Rate)
	r := NewResonator(f, 2.2)
	for i := range n {
		k := math.Sin(math.Pi * float64(i) / float64(n))
		t.Add(start+i, 0.16*k*r.Next(2*d.Roll()-1))
	}
}

// Speak adds a syllable at a pitch in Hz that goes from one vowel to another.
func (t *Take) Speak(d *Dice, at, length, pitch float64, a, b Vowel) {
	start, n := int(at*Rate), int((length+0.05)*Rate)
	var o Saw
	var ra, rb [3]*Resonator
	for k := range ra {
		ra[k], rb[k] = NewResonator(a[k][0], 6), NewResonator(b[k][0], 6)
	}
	creak := NewSmooth(0.02)
	for i := range n {
		x := float64(i) / Rate
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
