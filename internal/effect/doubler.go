package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const doublerVoices = 4

// doubler adds takes that were never sung: each is late by a time of its own that
// wanders (hashed smooth noise over song time), out of tune by that wandering and by
// a small fixed shift, and stands somewhere else. Delay in ms, tuning in cents.
var doubler = Kind{
	Info: Info{
		ID: "doubler", Version: 2, Name: "Doubler", Family: "Pitch", Mix: 50, MixLaw: "add",
		Says:     "Adds second takes that are never quite together with the first.",
		Synonyms: []string{"double", "unison", "second take", "thicken", "wide"},
		Plumbs:   []Plumb{{Param: "wander"}, {Param: "mix"}},
		Params: []param.Param{
			{Name: "voices", Label: "Takes", Says: "How many takes are added.",
				Min: 1, Max: doublerVoices, Default: 2, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "late", Label: "Late by", Unit: "ms", Says: "How late the takes are on average.",
				Min: 5, Max: 80, Default: 22, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "wander", Label: "Wander", Unit: "ms", Says: "How unsteady their timing is.",
				Min: 0, Max: 12, Default: 3, Taper: param.Linear, Step: 0.1, Digits: 1},
			{Name: "tune", Label: "Tuning", Unit: "cents", Says: "How far the takes are out of tune, every other one down.",
				Min: 0, Max: 40, Default: 6, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "spread", Label: "Spread", Unit: "%", Says: "How far apart the takes stand.",
				Min: 0, Max: 100, Default: 90, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "What the takes leave out at the bottom.",
				Min: 20, Max: 1000, Default: 180, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What the takes leave out at the top.",
				Min: 1000, Max: 20000, Default: 9000, Taper: param.Log, Step: 3, Digits: 0},
		},
	},
	New:  func(rate float64) Processor { return newTakes(rate, true) },
	Tail: func([]float64, float64) float64 { return 0.2 },
	Draw: drawDoubler,
}

// doubler1 lost highs, more where it was out of tune, and its cuts were never quite out.
var doubler1 = was(doubler, 1, func(rate float64) Processor { return newTakes(rate, false) })

type takes struct {
	rate        float64
	smooth      bool // read by the windowed sinc and spliced where it goes on alike, with cuts that can be out
	splice      [doublerVoices]splicer
	line        *dsp.DelayLine
	shift       [doublerVoices]shifter
	from, to    [doublerVoices]float64
	set         [2]float64 // voices and spread that the gains are of
	gains       [doublerVoices][2]float64
	slide       [doublerVoices]float64
	fresh       bool
	low, high   dsp.Section
	lowHz, hiHz float64
	zl, zh      dsp.Biquad
}

func newTakes(rate float64, smooth bool) *takes {
	t := &takes{rate: rate, smooth: smooth, line: dsp.NewDelayLine(int(0.12*rate) + 16)}
	for k := range t.shift {
		if smooth {
			t.splice[k] = newSplicer(0.04, rate)
		} else {
			t.shift[k] = newShifter(0.04, rate)
		}
	}
	return t
}

// takeLate is how late a take is, in ms, at a time in seconds.
func takeLate(k int, v []float64, seconds float64) float64 {
	own := 1 + 0.22*float64((k*5)%4-1) // takes are not equally late
	return max(1, v[1]*own+v[2]*dsp.Drift(uint64(k)*71+5, seconds*(0.9+0.17*float64(k))))
}

func (t *takes) Process(s *Span) {
	var v [7]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !t.fresh {
			s.read(v[:], from)
			t.look((s.Frame+int64(from))&^(Grid-1), v[:])
		}
		start := (s.Frame + int64(from)) & (Grid - 1)
		for i := from; i < to; i++ {
			u := t.zl.Next(&t.low, (s.L[i]+s.R[i])*0.5)
			t.line.Write(t.zh.Next(&t.high, u))
			f := float64(start+int64(i-from)) / Grid
			var l, r float64
			for k := range t.from {
				g := &t.gains[k]
				if g[0] == 0 && g[1] == 0 {
					break
				}
				x := t.take(k, t.from[k]+(t.to[k]-t.from[k])*f)
				l += g[0] * x
				r += g[1] * x
			}
			s.L[i], s.R[i] = l, r
		}
		from = to
	}
	t.zl.Flush()
	t.zh.Flush()
}

// take gives a sample of a take that is so late.
func (t *takes) take(k int, delay float64) float64 {
	if t.smooth {
		return t.splice[k].next(t.line.ReadSmooth(delay), t.slide[k])
	}
	return t.shift[k].next(t.line.ReadAt(delay), t.slide[k])
}

func (t *takes) look(grid int64, v []float64) {
	for k := range t.from {
		at := func(f int64) float64 { return max(2, takeLate(k, v, float64(f)/t.rate)*t.rate/1000) }
		if !t.fresh {
			t.to[k] = at(grid)
		}
		t.from[k], t.to[k] = t.to[k], at(grid+Grid)
		sign := 1.0
		if k%2 == 0 {
			sign = -1
		}
		t.slide[k] = slideOf(sign * v[3] * (1 + 0.15*float64(k/2)))
	}
	if set := [2]float64{v[0], v[4]}; !t.fresh || set != t.set {
		t.set = set
		for k := range t.gains {
			t.gains[k][0], t.gains[k][1] = crowdGains(k, v[0], v[4])
		}
	}
	if !t.fresh || v[5] != t.lowHz {
		t.lowHz, t.low = v[5], lowCutOf(t.smooth, v[5], t.rate)
	}
	if !t.fresh || v[6] != t.hiHz {
		t.hiHz, t.high = v[6], highCutOf(t.smooth, v[6], t.rate)
	}
	if !t.fresh && t.smooth {
		for k := range t.splice {
			t.splice[k].begin(grid, t.slide[k])
		}
	}
	t.fresh = true
}

func (t *takes) Reset() {
	t.line.Clear()
	for k := range t.shift {
		if t.smooth {
			t.splice[k].reset()
		} else {
			t.shift[k].reset()
		}
	}
	*t = takes{rate: t.rate, smooth: t.smooth, line: t.line, shift: t.shift, splice: t.splice}
}

func (t *takes) CopyFrom(o Processor) {
	p := o.(*takes)
	line, shift, splice := t.line, t.shift, t.splice
	*t = *p
	t.line, t.shift, t.splice = line, shift, splice
	t.line.CopyFrom(p.line)
	for k := range t.shift {
		if t.smooth {
			t.splice[k].copyFrom(&p.splice[k])
		} else {
			t.shift[k].copyFrom(&p.shift[k])
		}
	}
}

func drawDoubler(_, _ float64, v []float64) Picture {
	x := Axis{Label: "time", Unit: "s", Max: 4, Ticks: []float64{1, 2, 3}}
	top := math.Ceil((v[1]*1.5+v[2])/20) * 20
	y := Axis{Label: "late by", Unit: "ms", Max: top, Ticks: []float64{top / 4, top / 2, top * 3 / 4}}
	p := Picture{Says: "How late each take is, over four seconds of the song.", X: x, Y: y, Curves: []Curve{},
		Handles: []Handle{{Label: "Late", X: 2, Y: v[1], ParamY: "late"}}}
	for k := range int(math.Ceil(v[0])) {
		role := "part"
		if k == 0 {
			role = "main"
		}
		p.Curves = append(p.Curves, x.curve("take", role, func(t float64) float64 { return takeLate(k, v, t) }))
	}
	return p
}
