package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// shifter changes the pitch of one side by a ratio near 1: two reads of one
// line glide through a window, half of it apart, and take turns: most of the time one
// is heard alone, so that the frequency is exact, and each is silent when it jumps back.
// Good for ratios within a semitone.
type shifter struct {
	line  *dsp.DelayLine
	width float64 // of the window, frames
	place float64 // 0 to 1
}

func newShifter(seconds, rate float64) shifter {
	return shifter{line: dsp.NewDelayLine(int(seconds*rate) + 40), width: seconds * rate}
}

// next shifts one sample. slide is 1 - ratio.
func (p *shifter) next(x, slide float64) float64 {
	p.line.Write(x)
	p.place += slide / p.width
	p.place -= math.Floor(p.place)
	other := p.place + 0.5
	if other >= 1 {
		other--
	}
	w := turnTaking(p.place)
	return w*p.line.ReadAt(2+p.place*p.width) + (1-w)*p.line.ReadAt(2+other*p.width)
}

// turnTaking is the weight of a read at a place in its window; that of the other, half a
// window away, is the rest to 1.
func turnTaking(place float64) float64 {
	const edge = 0.14
	if place >= 0.5 {
		return 1 - turnTaking(place-0.5)
	}
	if place < edge {
		return 0.5 - 0.5*math.Cos(math.Pi/edge*place)
	}
	return 1
}

func (p *shifter) reset() { p.line.Clear(); p.place = 0 }

func (p *shifter) copyFrom(o *shifter) { p.line.CopyFrom(o.line); p.place = o.place }

// slideOf is 1 - ratio for an interval in cents.
func slideOf(cents float64) float64 { return 1 - dsp.Exp(cents*(math.Ln2/1200)) }

// detune shifts left and right by up to a semitone each (see splice.go). Its sound is late by half the window on average.
// From another start the phase of a tone may be another one; all else is the same.
var detune = Kind{
	Info: Info{
		ID: "detune", Version: 2, Name: "Detune", Family: "Pitch", Mix: 100, MixLaw: "blend",
		Says:     "Puts left and right a few cents out of tune.",
		Synonyms: []string{"pitch", "cents", "thicken", "wide", "tune"},
		Plumbs:   []Plumb{{Param: "left"}, {Param: "right"}},
		Params: []param.Param{
			{Name: "left", Label: "Left", Unit: "cents", Says: "How far the left side is tuned up or down.",
				Min: -100, Max: 100, Default: -8, Taper: param.Linear, Step: 1, Digits: 1},
			{Name: "right", Label: "Right", Unit: "cents", Says: "How far the right side is tuned up or down.",
				Min: -100, Max: 100, Default: 8, Taper: param.Linear, Step: 1, Digits: 1},
			{Name: "window", Label: "Window", Unit: "ms", Says: "Longer is smoother on long notes; shorter keeps beats tight.",
				Max: 2, Default: 1, Taper: param.Choice, Choices: []string{"25", "50", "90"}, Structural: true},
		},
	},
	New:  func(rate float64) Processor { return newSpliced(rate, 1) },
	Tail: func([]float64, float64) float64 { return 0.12 },
	Draw: drawDetune,
}

// detune1 had two heads that took turns, half of a window apart: where they met, tones went out.
var detune1 = was(detune, 1, func(rate float64) Processor { return newTwist(rate, 1) })

var detuneWindows = []float64{0.025, 0.05, 0.09}

type twist struct {
	rate   float64
	window int
	side   [2]shifter
}

func newTwist(rate float64, window int) *twist {
	s := detuneWindows[window]
	return &twist{rate: rate, window: window, side: [2]shifter{newShifter(s, rate), newShifter(s, rate)}}
}

// Prepare sizes the windows.
func (t *twist) Prepare(v []float64) {
	if w := int(v[2]); w != t.window {
		*t = *newTwist(t.rate, w)
	}
}

func (t *twist) Process(s *Span) {
	for k, x := range [2][]float64{s.L, s.R} {
		cents := &s.Values[k]
		slide := slideOf(cents.Now)
		p := &t.side[k]
		for i, u := range x {
			if cents.Track != nil {
				slide = slideOf(cents.Track[i])
			}
			x[i] = p.next(u, slide)
		}
	}
}

func (t *twist) Reset() {
	t.side[0].reset()
	t.side[1].reset()
}

func (t *twist) CopyFrom(o Processor) {
	p := o.(*twist)
	t.side[0].copyFrom(&p.side[0])
	t.side[1].copyFrom(&p.side[1])
}

func drawDetune(_, _ float64, v []float64) Picture {
	x := Axis{Label: "interval", Unit: "cents", Min: -100, Max: 100, Ticks: []float64{-75, -50, -25, 0, 25, 50, 75}}
	y := Axis{Label: "level", Unit: "dB", Min: -48, Max: 6, Ticks: []float64{-36, -24, -12, 0}}
	return Picture{Says: "Where left and right stand against the note, in cents.", X: x, Y: y,
		Curves:  []Curve{{Name: "the note", Role: "ghost", X: []float64{0, 0}, Y: []float64{-48, 0}}},
		Bars:    []Bar{{X: v[0], Y: -3, Side: -1}, {X: v[1], Y: -6, Side: 1}},
		Handles: []Handle{{Label: "Left", X: v[0], Y: -3, ParamX: "left"}, {Label: "Right", X: v[1], Y: -6, ParamX: "right"}}}
}

type spliced struct {
	rate   float64
	window int
	side   [2]splicer
	fresh  bool
}

func newSpliced(rate float64, window int) *spliced {
	s := detuneWindows[window]
	return &spliced{rate: rate, window: window, side: [2]splicer{newSplicer(s, rate), newSplicer(s, rate)}}
}

// Prepare sizes the windows.
func (b *spliced) Prepare(v []float64) {
	if w := int(v[2]); w != b.window {
		*b = *newSpliced(b.rate, w)
	}
}

func (b *spliced) Process(s *Span) {
	slides := [2]float64{slideOf(s.Values[0].At(0)), slideOf(s.Values[1].At(0))}
	if !b.fresh {
		for k := range b.side {
			b.side[k].begin(s.Frame, slides[k])
		}
		b.fresh = true
	}
	for i := range s.L {
		for k := range slides {
			if t := s.Values[k].Track; t != nil {
				slides[k] = slideOf(t[i])
			}
		}
		l, r := &b.side[0], &b.side[1]
		endL, endR := l.step(s.L[i], slides[0]), r.step(s.R[i], slides[1])
		switch {
		case endL && endR: // what stands in the middle stays there
			align(l, r)
		case endL:
			align(l)
		case endR:
			align(r)
		}
		s.L[i], s.R[i] = l.read(), r.read()
	}
}

func (b *spliced) Reset() {
	b.side[0].reset()
	b.side[1].reset()
	b.fresh = false
}

func (b *spliced) CopyFrom(o Processor) {
	p := o.(*spliced)
	b.side[0].copyFrom(&p.side[0])
	b.side[1].copyFrom(&p.side[1])
	b.fresh = p.fresh
}
