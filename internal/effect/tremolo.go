package effect

import (
	"shoal/internal/dsp"
	"shoal/internal/param"
)

// tremolo moves the level to and fro; with its sides half a cycle apart it moves
// the sound from left to right. At depth 100 % the level goes to silence; it never
// goes above what came in.
var tremolo = Kind{
	Info: Info{
		ID: "tremolo", Version: 1, Name: "Tremolo", Family: "Movement", Mix: 100, MixLaw: "blend",
		Says:     "Makes the level swing, or the sound wander from side to side.",
		Synonyms: []string{"auto pan", "panner", "pulse", "chop", "wobble", "swing", "rotary"},
		Plumbs:   []Plumb{{Param: "depth"}, {Param: "rate"}, {Param: "note"}},
		Params: append([]param.Param{
			{Name: "depth", Label: "Depth", Unit: "%", Says: "How far the level falls.",
				Min: 0, Max: 100, Default: 45, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "wave", Label: "Shape", Says: "The shape of the movement.",
				Max: float64(len(waveNames) - 1), Taper: param.Choice, Choices: waveNames},
			{
				Name:   "sides",
				Label:  "Sides apart",
				Unit:   "°",
				Says:   "How far the right side lags: 0 both swing together, 180 from side to side.",
				Min:    0,
				Max:    360,
				Taper:  param.Linear,
				Step:   5,
				Digits: 0,
			},
		}, cycleParams(4, 5)...),
	},
	New:   func(rate float64) Processor { return &swing{rate: rate} },
	Rests: func([]float64, float64) float64 { return 0.1 },
	Draw:  drawTremolo,
}

type swing struct {
	rate     float64
	lfo      lfo
	fresh    bool
	from, to [2]float64
}

func swingGain(depth float64, shape int, phase float64) float64 {
	return 1 - depth/100*(0.5-0.5*wave(shape, phase, 2))
}

func (t *swing) Process(s *Span) {
	var v [6]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !t.fresh {
			s.read(v[:], from)
			hz, q := cycle(v[3:])
			a, b := t.lfo.look(s, from, t.rate, hz, q)
			lag := v[2] / 360
			next := [2]float64{swingGain(v[0], int(v[1]), b), swingGain(v[0], int(v[1]), b-lag)}
			if !t.fresh {
				t.to = [2]float64{swingGain(v[0], int(v[1]), a), swingGain(v[0], int(v[1]), a-lag)}
			}
			t.from, t.to, t.fresh = t.to, next, true
		}
		start := (s.Frame + int64(from)) & (Grid - 1)
		for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
			for i := range x {
				x[i] *= t.from[side] + (t.to[side]-t.from[side])*float64(start+int64(i))/Grid
			}
		}
		from = to
	}
}

func (t *swing) Reset()               { *t = swing{rate: t.rate} }
func (t *swing) CopyFrom(o Processor) { *t = *o.(*swing) }

func drawTremolo(_, tempo float64, v []float64) Picture {
	y := Axis{Label: "level", Unit: "dB", Min: -36, Max: 6, Ticks: []float64{-24, -12, -6, 0}}
	return drawMovement("How the level of left and right moves over two cycles.", y, period(v[3:], tempo), func(c float64) (l, r float64) {
		return max(-36, dsp.Decibels(swingGain(v[0], int(v[1]), c))), max(-36, dsp.Decibels(swingGain(v[0], int(v[1]), c-v[2]/360)))
	})
}
