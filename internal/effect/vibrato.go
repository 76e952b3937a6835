package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// vibrato moves the pitch to and fro by a moving delay. A sine of depth d cents at f hertz goes from d below to
// d above, its mean is where it was: with k = d ln 2 / 1200 the delay is (sinh k sin 2πft - (cosh k - 1)/2 sin 4πft)
// / 2πf, and the ratio of pitches is one less its slope. The swing reaches up to the line's 50 ms; slower and
// deeper than that it moves less. A movement that wanders swings the delay by (2^(d/1200)-1)/(2πf).
var vibrato = vibratoOf(3)

func vibratoOf(version int) Kind {
	even := version > 1
	smooth := version > 2
	return Kind{
		Info: Info{
			ID: "vibrato", Version: version, Name: "Vibrato", Family: "Movement", Mix: 100, MixLaw: "blend",
			Says:     "Makes the pitch swing up and down.",
			Plumbs:   []Plumb{{Param: "depth"}, {Param: "rate"}, {Param: "note"}},
			Synonyms: []string{"pitch", "wow", "flutter", "warble", "unsteady", "tape"},
			Params: append([]param.Param{
				{Name: "depth", Label: "Depth", Unit: "cents", Says: "How far the pitch swings either way.",
					Min: 0, Max: 200, Default: 18, Taper: param.Linear, Step: 1, Digits: 0},
				{Name: "wave", Label: "Shape", Says: "The shape of the movement.",
					Max: 1, Taper: param.Choice, Choices: []string{"sine", "wander"}},
				{Name: "sides", Label: "Sides apart", Unit: "°", Says: "How far the right side lags behind the left.",
					Min: 0, Max: 180, Taper: param.Linear, Step: 5, Digits: 0},
			}, cycleParams(5, 4)...),
		},
		New:   func(rate float64) Processor { return newSway(rate, even, smooth) },
		Tail:  func([]float64, float64) float64 { return 0.11 },
		Rests: func([]float64, float64) float64 { return 0.3 },
		Draw:  func(_, tempo float64, v []float64) Picture { return drawVibrato(tempo, v, even) },
	}
}

// vibrato2 lost highs between frames, by 1 dB at 15 kHz; vibrato1 also swung further down than up: 200 cents up and 226
// down where 200 were asked.
var (
	vibrato1 = vibratoOf(1)
	vibrato2 = vibratoOf(2)
)

const swayMax = 0.05 // seconds either way

type sway struct {
	rate     float64
	even     bool // as far up as down
	smooth   bool // read by the windowed sinc
	line     [2]*dsp.DelayLine
	lfo      lfo
	fresh    bool
	from, to [2]float64
	delays   [Grid]float64
	asked    [3]float64 // what the swing was found for: depth, shape and pace
	moved    pitchSwing
}

func newSway(rate float64, even, smooth bool) *sway {
	dsp.Smooths()
	n := int(2.1*swayMax*rate) + 32
	return &sway{rate: rate, even: even, smooth: smooth, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

// pitchSwing is how the delay goes over the phase in cycles: in frames, or for a rate of 1 in seconds.
type pitchSwing struct {
	even          bool
	shape         int
	first, second float64
}

func swingOf(cents, hz, rate float64, wander, even bool) pitchSwing {
	if wander || !even {
		s := pitchSwing{first: min(swayMax, (math.Exp2(cents/1200)-1)/(2*math.Pi*hz)) * rate, shape: waveSine}
		if wander {
			s.shape = waveSmooth
		}
		return s
	}
	r := math.Exp2(cents / 1200) // sinh and cosh by it: the same bits on every machine
	s := pitchSwing{even: true, first: (r - 1/r) / (4 * math.Pi * hz), second: (2 - r - 1/r) / (8 * math.Pi * hz)}
	part := rate * min(1, swayMax/max(s.first-s.second, 1e-12))
	s.first, s.second = s.first*part, s.second*part
	return s
}

func (s *pitchSwing) at(phase float64) float64 {
	if !s.even {
		return s.first * (1 + wave(s.shape, phase, 3))
	}
	return s.first*(1+wave(waveSine, phase, 3)) - s.second*(1-wave(waveSine, 2*phase, 3))
}

func (w *sway) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !w.fresh {
			w.look(s, from)
		}
		start := (s.Frame + int64(from)) & (Grid - 1)
		if w.smooth {
			w.run(s.L[from:to], s.R[from:to], start)
		} else {
			w.runOlder(s.L[from:to], s.R[from:to], start)
		}
		from = to
	}
}

// look finds where the delays of both sides go until the grid's next frame.
func (w *sway) look(s *Span, from int) {
	var v [6]float64
	s.read(v[:], from)
	hz, q := cycle(v[3:])
	a, b := w.lfo.look(s, from, w.rate, hz, q)
	if q > 0 {
		hz = s.Tempo / 60 / q
	}
	if asked := [3]float64{v[0], v[1], hz}; !w.fresh || asked != w.asked {
		w.asked, w.moved = asked, swingOf(v[0], hz, w.rate, v[1] != 0, w.even)
	}
	nearest := 2.0
	if w.smooth {
		nearest = dsp.FractionMargin
	}
	sides := func(phase float64) [2]float64 {
		left := w.moved.at(phase) + nearest
		if v[2] == 0 {
			return [2]float64{left, left}
		}
		return [2]float64{left, w.moved.at(phase-v[2]/360) + nearest}
	}
	if !w.fresh {
		w.to = sides(a)
	}
	w.from, w.to, w.fresh = w.to, sides(b), true
}

// run reads one grid's frames; both sides at once where they move together.
func (w *sway) run(l, r []float64, start int64) {
	w.line[0].WriteBlock(l)
	w.line[1].WriteBlock(r)
	delays := w.delays[:len(l)]
	glideOver(delays, w.from[0], w.to[0], start)
	if w.from[0] == w.from[1] && w.to[0] == w.to[1] {
		dsp.ReadSmoothBlocks(w.line[0], w.line[1], l, r, delays)
		return
	}
	w.line[0].ReadSmoothBlock(l, delays)
	glideOver(delays, w.from[1], w.to[1], start)
	w.line[1].ReadSmoothBlock(r, delays)
}

func (w *sway) runOlder(l, r []float64, start int64) {
	for side, x := range [2][]float64{l, r} {
		line := w.line[side]
		for i, u := range x {
			line.Write(u)
			x[i] = line.ReadAt(w.from[side] + (w.to[side]-w.from[side])*float64(start+int64(i))/Grid)
		}
	}
}

// glideOver fills in where a figure stands that goes from one place to another over the grid, from a frame of it on.
func glideOver(dst []float64, from, to float64, start int64) {
	for i := range dst {
		dst[i] = from + (to-from)*float64(start+int64(i))/Grid
	}
}

func (w *sway) Reset() {
	w.line[0].Clear()
	w.line[1].Clear()
	w.lfo, w.fresh = lfo{}, false
}

func (w *sway) CopyFrom(o Processor) {
	p := o.(*sway)
	line := w.line
	*w = *p
	w.line = line
	w.line[0].CopyFrom(p.line[0])
	w.line[1].CopyFrom(p.line[1])
}

func drawVibrato(tempo float64, v []float64, even bool) Picture {
	y := Axis{Label: "pitch", Unit: "cents", Min: -200, Max: 200, Ticks: []float64{-150, -100, -50, 0, 50, 100, 150}}
	t := period(v[3:], tempo)
	moved := swingOf(v[0], 1/t, 1, v[1] != 0, even)
	cents := func(c float64) float64 { // the pitch is the slope of the delay
		const d = 1e-4
		return 1200 * math.Log2(max(1-(moved.at(c+d)-moved.at(c-d))/(2*d*t), 0.01))
	}
	return drawMovement(
		"How the pitch of left and right moves over two cycles.",
		y,
		t,
		func(c float64) (l, r float64) { return cents(c), cents(c - v[2]/360) },
	)
}
