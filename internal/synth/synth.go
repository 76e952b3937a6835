// Package synth has what sounds of our own are made of: the demo's players, and what stands on the shelf. The same seed
// always gives the same sound.
package synth

import (
	"math"

	"shoal/internal/dsp"
)

// Rate is the sample rate of all that is made here, in Hz.
const Rate = 48000

// Take is a stretch of mono or stereo sound.
type Take struct {
	L, R   []float64 // R is nil for mono
	Struck []float64 // when something was struck, in seconds
}

// NewTake is silence of a length.
func NewTake(seconds float64, stereo bool) *Take {
	t := &Take{L: make([]float64, int(seconds*Rate))}
	if stereo {
		t.R = make([]float64, len(t.L))
	}
	return t
}

// Add puts a sample in, where there is room for it.
func (t *Take) Add(i int, v float64) {
	if i >= 0 && i < len(t.L) {
		t.L[i] += v
	}
}

// Level brings the peak to db.
func (t *Take) Level(db float64) {
	peak := 0.0
	for _, ch := range [][]float64{t.L, t.R} {
		for _, v := range ch {
			peak = max(peak, math.Abs(v))
		}
	}
	if peak == 0 {
		return
	}
	k := dsp.Gain(db) / peak
	for _, ch := range [][]float64{t.L, t.R} {
		for i := range ch {
			ch[i] *= k
		}
	}
}

// Dice is a seeded series of chances.
type Dice struct {
	Seed uint64
	n    int64
}

// Roll is even in 0..1.
func (d *Dice) Roll() float64 {
	d.n++
	return (dsp.White(d.Seed, d.n) + 1) / 2
}

// About is v, give or take a part of it.
func (d *Dice) About(v, part float64) float64 { return v * (1 + part*(2*d.Roll()-1)) }

// Hz is the frequency of a note; 69 is a' at 440 Hz.
func Hz(note float64) float64 { return 440 * math.Exp2((note-69)/12) }

// Mode is one partial of something struck: its ratio to the fundamental, its gain, and in how many seconds it decays to
// -60 dB.
type Mode [3]float64

// Strike adds a struck bar or bell: decaying partials from a time on.
func (t *Take) Strike(at, freq, gain float64, modes []Mode) {
	start := int(at * Rate)
	for _, m := range modes {
		ratio, loud, decay := m[0], m[1], m[2]
		f := freq * ratio
		if f > Rate*0.45 {
			continue
		}
		n := int(decay * Rate * 1.1)
		// a resonator turned by a complex step: no sine in the loop
		w := 2 * math.Pi * f / Rate
		d := math.Pow(0.001, 1/(decay*Rate))
		c, s := math.Cos(w)*d, math.Sin(w)*d
		x, y := 0.0, gain*loud
		for i := range n {
			rise := 1.0
			if i < 48 {
				rise = float64(i) / 48
			}
			t.Add(start+i, x*rise)
			x, y = x*c+y*s, y*c-x*s
		}
	}
}

// Resonator is a two-pole formant filter.
type Resonator struct {
	s dsp.Section
	b dsp.Biquad
}

// NewResonator is a band-pass at a frequency in Hz.
func NewResonator(freq, q float64) *Resonator {
	return &Resonator{s: dsp.BandPass(freq, q, Rate)}
}

// Next is the answer to one sample.
func (r *Resonator) Next(x float64) float64 { return r.b.Next(&r.s, x) }

// Smooth is a one-pole low pass for control curves.
type Smooth struct{ Now, k float64 }

// NewSmooth follows within so many seconds.
func NewSmooth(seconds float64) Smooth { return Smooth{k: 1 - dsp.Decay(seconds, Rate)} }

// Next goes on towards v by one sample.
func (s *Smooth) Next(v float64) float64 {
	s.Now += (v - s.Now) * s.k
	return s.Now
}

// Saw is a band-limited sawtooth (two-point polynomial step, Välimäki 2005).
type Saw struct{ Phase float64 }

// Next is one sample at a frequency in Hz.
func (o *Saw) Next(freq float64) float64 {
	dt := freq / Rate
	o.Phase += dt
	if o.Phase >= 1 {
		o.Phase--
	}
	v := 2*o.Phase - 1
	switch {
	case o.Phase < dt:
		x := o.Phase / dt
		v -= x + x - x*x - 1
	case o.Phase > 1-dt:
		x := (o.Phase - 1) / dt
		v -= x*x + x + x + 1
	}
	return v
}
