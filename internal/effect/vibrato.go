package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// vibrato moves the pitch to and fro by a moving delay. A sine of depth d cents
// at f hertz needs a delay that swings by (2^(d/1200)-1)/(2πf) seconds, up to the
// line's 50 ms; slower and deeper than that it moves less.
var vibrato = Kind{
	Info: Info{
		ID: "vibrato", Version: 1, Name: "Vibrato", Family: "Movement", Mix: 100, MixLaw: "blend",
		Says:     "Makes the pitch swing up and down.",
		Synonyms: []string{"pitch", "wow", "flutter", "warble", "unsteady", "tape"},
		Params: append([]param.Param{
			{Name: "depth", Label: "Depth", Unit: "cents", Says: "How far the pitch swings either way.", Min: 0, Max: 200, Default: 18, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "wave", Label: "Shape", Says: "The shape of the movement.", Max: 1, Taper: param.Choice, Choices: []string{"sine", "wander"}},
			{Name: "sides", Label: "Sides apart", Unit: "°", Says: "How far the right side lags behind the left.", Min: 0, Max: 180, Taper: param.Linear, Step: 5, Digits: 0},
		}, cycleParams(5, 4)...),
	},
	New:   func(rate float64) Processor { return newSway(rate) },
	Tail:  func([]float64, float64) float64 { return 0.11 },
	Rests: func([]float64, float64) float64 { return 0.3 },
	Draw:  drawVibrato,
}

const swayMax = 0.05 // seconds either way

type sway struct {
	rate     float64
	line     [2]*dsp.DelayLine
	lfo      lfo
	fresh    bool
	from, to [2]float64
}

func newSway(rate float64) *sway {
	n := int(2.1*swayMax*rate) + 16
	return &sway{rate: rate, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

// swayReach is the swing of the delay in seconds.
func swayReach(cents, hz float64) float64 {
	return min(swayMax, (math.Exp2(cents/1200)-1)/(2*math.Pi*hz))
}

func (w *sway) Process(s *Span) {
	var v [6]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !w.fresh {
			s.read(v[:], from)
			hz, q := cycle(v[3:])
			a, b := w.lfo.look(s, from, w.rate, hz, q)
			if q > 0 {
				hz = s.Tempo / 60 / q
			}
			reach := swayReach(v[0], hz) * w.rate
			shape, lag := waveSine, v[2]/360
			if v[1] != 0 {
				shape = waveSmooth
			}
			at := func(phase float64) float64 { return reach*(1+wave(shape, phase, 3)) + 2 }
			if !w.fresh {
				w.to = [2]float64{at(a), at(a - lag)}
			}
			w.from, w.to, w.fresh = w.to, [2]float64{at(b), at(b - lag)}, true
		}
		start := (s.Frame + int64(from)) & (Grid - 1)
		for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
			line := w.line[side]
			for i, u := range x {
				line.Write(u)
				x[i] = line.ReadAt(w.from[side] + (w.to[side]-w.from[side])*float64(start+int64(i))/Grid)
			}
		}
		from = to
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

func drawVibrato(_, tempo float64, v []float64) Picture {
	y := Axis{Label: "pitch", Unit: "cents", Min: -200, Max: 200, Ticks: []float64{-150, -100, -50, 0, 50, 100, 150}}
	t := period(v[3:], tempo)
	reach := swayReach(v[0], 1/t)
	shape := waveSine
	if v[1] != 0 {
		shape = waveSmooth
	}
	cents := func(c float64) float64 { // the pitch is the slope of the delay
		const d = 1e-4
		slope := reach * (wave(shape, c+d, 3) - wave(shape, c-d, 3)) / (2 * d * t)
		return 1200 * math.Log2(max(1-slope, 0.01))
	}
	return drawMovement("How the pitch of left and right moves over two cycles.", y, t, func(c float64) (l, r float64) { return cents(c), cents(c - v[2]/360) })
}
