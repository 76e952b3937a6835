package effect

import (
	"shoal/internal/dsp"
	"shoal/internal/param"
)

// trim changes level and little else: gain, polarity, mono, sides swapped and a
// filter against a constant offset (first-order high pass at 5 Hz). With the
// filter out it is exact: the output is the input times the gain.
var trim = Kind{
	Info: Info{
		ID: "trim", Version: 1, Name: "Trim", Family: "Level", Mix: 100, MixLaw: "blend",
		Says:     "Turns the signal up or down, flips it, swaps or sums its sides.",
		Synonyms: []string{"gain", "volume", "level", "polarity", "phase", "invert", "mono", "swap", "dc"},
		Plumbs:   []Plumb{{Param: "gain"}},
		Params: []param.Param{
			{Name: "gain", Label: "Gain", Unit: "dB", Says: "How much louder or softer.",
				Min: -120, Max: 36, Default: 0, Taper: param.Level, Step: 0.5, Digits: 1},
			{Name: "polarity", Label: "Polarity", Says: "Which sides are turned upside down.",
				Max: 3, Taper: param.Choice, Choices: []string{"as it is", "flip left", "flip right", "flip both"}},
			{Name: "sides", Label: "Sides", Says: "What becomes of left and right.",
				Max: 4, Taper: param.Choice, Choices: []string{"as they are", "swapped", "mono", "left on both", "right on both"}},
			{Name: "offset", Label: "Remove offset", Says: "Takes away a constant offset below 5 Hz.", Max: 1, Taper: param.Switch},
		},
	},
	Linear: true,
	New:    func(rate float64) Processor { return &trimmer{high: dsp.HighPass1(5, rate)} },
	Rests:  func([]float64, float64) float64 { return 0.2 },
	Draw:   drawTrim,
}

type trimmer struct {
	high   dsp.Section
	l, r   dsp.Biquad
	matrix [4]dsp.Glide // ll lr rl rr, so that choices fade instead of clicking
	set    bool
	gain   [MaxFrames]float64
}

func (t *trimmer) Process(s *Span) {
	var want [4]float64
	switch int(s.Values[2].At(0)) {
	case 1:
		want = [4]float64{0, 1, 1, 0}
	case 2:
		want = [4]float64{0.5, 0.5, 0.5, 0.5}
	case 3:
		want = [4]float64{1, 0, 1, 0}
	case 4:
		want = [4]float64{0, 1, 0, 1}
	default:
		want = [4]float64{1, 0, 0, 1}
	}
	p := int(s.Values[1].At(0))
	if p&1 != 0 {
		want[0], want[1] = -want[0], -want[1]
	}
	if p&2 != 0 {
		want[2], want[3] = -want[2], -want[3]
	}
	moving := false
	for i := range t.matrix {
		if !t.set || s.Values[1].Step || s.Values[2].Step {
			t.matrix[i].Set(want[i])
		} else {
			t.matrix[i].Aim(want[i], 480)
		}
		moving = moving || t.matrix[i].Moving()
	}
	t.set = true
	if moving || want != [4]float64{1, 0, 0, 1} {
		for i, l := range s.L {
			r := s.R[i]
			s.L[i] = t.matrix[0].Next()*l + t.matrix[1].Next()*r
			s.R[i] = t.matrix[2].Next()*l + t.matrix[3].Next()*r
		}
	}
	if s.Values[3].At(0) != 0 {
		dsp.RunStereo(&t.high, &t.l, &t.r, s.L, s.R)
		t.l.Flush()
		t.r.Flush()
	}
	g := &s.Values[0]
	if g.Track == nil {
		k := dsp.Gain(g.Now)
		dsp.Scale(s.L, k)
		dsp.Scale(s.R, k)
		return
	}
	gain := t.gain[:len(s.L)]
	g.Gains(gain)
	dsp.Multiply(s.L, gain)
	dsp.Multiply(s.R, gain)
}

func (t *trimmer) Reset() { t.l, t.r, t.set = dsp.Biquad{}, dsp.Biquad{}, false }

func (t *trimmer) CopyFrom(o Processor) {
	x := o.(*trimmer)
	t.l, t.r, t.matrix, t.set = x.l, x.r, x.matrix, x.set
}

func drawTrim(_, _ float64, v []float64) Picture {
	level := Axis{Unit: "dB", Min: -60, Max: 6, Ticks: []float64{-48, -36, -24, -12, 0}}
	x, y := level, level
	x.Label, y.Label = "in", "out"
	return Picture{Says: "Output against input level: a straight line moved by the gain.", X: x, Y: y,
		Curves: []Curve{
			x.curve("unchanged", "ghost", func(in float64) float64 { return in }),
			x.curve("out", "main", func(in float64) float64 { return in + v[0] }),
		},
		Handles: []Handle{{Label: "Gain", X: -24, Y: -24 + v[0], ParamY: "gain"}},
	}
}
