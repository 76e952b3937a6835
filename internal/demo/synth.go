package demo

import (
	"math"

	"shoal/internal/dsp"
)

const (
	rate   = 48000
	tempo  = 88.0
	eighth = 60 / tempo / 2 // seconds
	bar    = 6 * eighth
)

// take is a stretch of mono or stereo sound at a place in the song.
type take struct {
	l, r   []float64 // r is nil for mono
	struck []float64 // when something was struck, in seconds
}

func newTake(seconds float64, stereo bool) *take {
	t := &take{l: make([]float64, int(seconds*rate))}
	if stereo {
		t.r = make([]float64, len(t.l))
	}
	return t
}

// add puts a sample in, where there is room for it.
func (t *take) add(i int, v float64) {
	if i >= 0 && i < len(t.l) {
		t.l[i] += v
	}
}

// level brings the peak to db.
func (t *take) level(db float64) {
	peak := 0.0
	for _, ch := range [][]float64{t.l, t.r} {
		for _, v := range ch {
			peak = max(peak, math.Abs(v))
		}
	}
	if peak == 0 {
		return
	}
	k := dsp.Gain(db) / peak
	for _, ch := range [][]float64{t.l, t.r} {
		for i := range ch {
			ch[i] *= k
		}
	}
}

// dice is a seeded series of chances.
type dice struct {
	seed uint64
	n    int64
}

// roll is even in 0..1.
func (d *dice) roll() float64 {
	d.n++
	return (dsp.White(d.seed, d.n) + 1) / 2
}

// about is v, give or take a part of it.
func (d *dice) about(v, part float64) float64 { return v * (1 + part*(2*d.roll()-1)) }

// hz is the frequency of a note; 69 is a' at 440 Hz.
func hz(note float64) float64 { return 440 * math.Exp2((note-69)/12) }

// mode is one partial of something struck.
type mode struct {
	ratio, gain, decay float64 // of the fundamental; decay in seconds to -60 dB
}

// strike adds a struck bar or bell: decaying partials from a time on.
func (t *take) strike(at, freq, gain float64, modes []mode) {
	start := int(at * rate)
	for _, m := range modes {
		f := freq * m.ratio
		if f > rate*0.45 {
			continue
		}
		n := int(m.decay * rate * 1.1)
		// a resonator turned by a complex step: no sine in the loop
		w := 2 * math.Pi * f / rate
		d := math.Pow(0.001, 1/(m.decay*rate))
		c, s := math.Cos(w)*d, math.Sin(w)*d
		x, y := 0.0, gain*m.gain
		for i := range n {
			rise := 1.0
			if i < 48 {
				rise = float64(i) / 48
			}
			t.add(start+i, x*rise)
			x, y = x*c+y*s, y*c-x*s
		}
	}
}

// resonator is a two-pole formant filter.
type resonator struct {
	s dsp.Section
	b dsp.Biquad
}

func newResonator(freq, q float64) *resonator {
	return &resonator{s: dsp.BandPass(freq, q, rate)}
}

func (r *resonator) next(x float64) float64 { return r.b.Next(&r.s, x) }

// smooth is a one-pole low pass for control curves.
type smooth struct{ now, k float64 }

func newSmooth(seconds float64) smooth { return smooth{k: 1 - dsp.Decay(seconds, rate)} }

func (s *smooth) next(v float64) float64 {
	s.now += (v - s.now) * s.k
	return s.now
}

// saw is a band-limited sawtooth (two-point polynomial step, Välimäki 2005).
type saw struct{ phase float64 }

func (o *saw) next(freq float64) float64 {
	dt := freq / rate
	o.phase += dt
	if o.phase >= 1 {
		o.phase--
	}
	v := 2*o.phase - 1
	switch {
	case o.phase < dt:
		x := o.phase / dt
		v -= x + x - x*x - 1
	case o.phase > 1-dt:
		x := (o.phase - 1) / dt
		v -= x*x + x + x + 1
	}
	return v
}
