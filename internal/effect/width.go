package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// width turns the side signal up or down, for lows and highs apart, and folds the bass
// to the middle. Only the side is treated: the mid passes to the bit as (L+R)/2, up to
// the rounding of putting it back together. The crossover is first order, so that
// lows and highs of the side sum back exactly.
var width = Kind{
	Info: Info{
		ID: "width", Version: 1, Name: "Width", Family: "Stereo", Mix: 100, MixLaw: "blend",
		Says:     "Makes the stereo picture wider or narrower, bass and rest apart.",
		Plumbs:   []Plumb{{Param: "width"}},
		Synonyms: []string{"stereo", "mid side", "narrow", "wide", "mono bass", "image"},
		Live:     []string{"correlation", "side"},
		Params: []param.Param{
			{Name: "width", Label: "Width", Unit: "dB", Says: "The level of the side signal.",
				Min: -120, Max: 12, Default: 2, Taper: param.Level, Step: 0.5, Digits: 1},
			{Name: "low", Label: "Width of lows", Unit: "dB", Says: "The level of the side signal below the edge, on top of that.",
				Min: -120, Max: 12, Default: -6, Taper: param.Level, Step: 0.5, Digits: 1},
			{Name: "edge", Label: "Edge", Unit: "Hz", Says: "Where lows end and the rest begins.",
				Min: 60, Max: 4000, Default: 240, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "mono", Label: "Mono below", Unit: "Hz", Says: "Below this there is no side at all. At 20 Hz it is out.",
				Min: 20, Max: 500, Default: 20, Taper: param.Log, Step: 3, Digits: 0},
		},
	},
	Linear: true,
	New:    func(rate float64) Processor { return &wide{rate: rate} },
	Rests:  func([]float64, float64) float64 { return 0.5 },
	Draw:   drawWidth,
}

type wide struct {
	rate        float64
	fresh       bool
	edge, mono  float64
	split       dsp.Section
	cut         [2]dsp.Section
	z           dsp.Biquad
	zc          [2]dsp.Biquad
	lr, ll, rr  float64 // since the last report
	mids, sides float64
}

func (w *wide) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !w.fresh {
			edge, mono := s.Values[2].At(from), s.Values[3].At(from)
			if !w.fresh || edge != w.edge {
				w.edge, w.split = edge, dsp.LowPass1(edge, w.rate)
			}
			if !w.fresh || mono != w.mono {
				w.mono = mono
				dsp.Butterworth(w.cut[:], true, 4, mono, 0.7, w.rate)
			}
			w.fresh = true
		}
		gain, low := &s.Values[0], &s.Values[1]
		a, b := dsp.Gain(gain.Now), dsp.Gain(low.Now)
		for i := from; i < to; i++ {
			if gain.Track != nil || low.Track != nil {
				a, b = dsp.Gain(gain.At(i)), dsp.Gain(low.At(i))
			}
			l, r := s.L[i], s.R[i]
			m, d := (l+r)*0.5, (l-r)*0.5
			under := w.z.Next(&w.split, d)
			d = a * (d + (b-1)*under)
			if w.mono > 20 {
				d = w.zc[1].Next(&w.cut[1], w.zc[0].Next(&w.cut[0], d))
			}
			l, r = m+d, m-d
			s.L[i], s.R[i] = l, r
			w.lr += l * r
			w.ll += l * l
			w.rr += r * r
			w.mids += m * m
			w.sides += d * d
		}
		w.z.Flush()
		w.zc[0].Flush()
		w.zc[1].Flush()
		from = to
	}
}

// Report gives the correlation of the sides, -1 to 1, and the side's level over the mid's in dB.
func (w *wide) Report(dst []float64) {
	dst[0], dst[1] = 1, dsp.Off
	if e := math.Sqrt(w.ll * w.rr); e > 1e-12 {
		dst[0] = w.lr / e
	}
	if w.mids > 1e-12 {
		dst[1] = dsp.Decibels(math.Sqrt(w.sides / w.mids))
	}
	w.lr, w.ll, w.rr, w.mids, w.sides = 0, 0, 0, 0, 0
}

func (w *wide) Reset()               { *w = wide{rate: w.rate} }
func (w *wide) CopyFrom(o Processor) { *w = *o.(*wide) }

// widthPower is the response of the side signal.
func widthPower(v []float64, f, rate float64) float64 {
	s := dsp.LowPass1(v[2], rate)
	// 1 + (b-1)·low, low as a complex number
	w := 2 * math.Pi * f / rate
	c, si := math.Cos(w), -math.Sin(w)
	nr, ni := s.B0+s.B1*c, s.B1*si
	dr, di := 1+s.A1*c, s.A1*si
	d := dr*dr + di*di
	k := dsp.Gain(v[1]) - 1
	re, im := 1+k*(nr*dr+ni*di)/d, k*(ni*dr-nr*di)/d
	p := dsp.Gain(v[0]) * dsp.Gain(v[0]) * (re*re + im*im)
	if v[3] > 20 {
		var cut [2]dsp.Section
		dsp.Butterworth(cut[:], true, 4, v[3], 0.7, rate)
		p *= cut[0].Power(f, rate) * cut[1].Power(f, rate)
	}
	return p
}

func drawWidth(rate, _ float64, v []float64) Picture {
	y := Axis{Label: "side", Unit: "dB", Min: -36, Max: 12, Ticks: []float64{-24, -12, 0}}
	main := hertz.curve("side", "main", func(f float64) float64 {
		return max(-60, 10*math.Log10(widthPower(v, min(f, rate*0.49), rate)+1e-12))
	})
	main.Fill = true
	return Picture{
		Says:     "The level of the side signal; the middle is the level line.",
		X:        hertz,
		Y:        y,
		Spectrum: true,
		Curves:   []Curve{hertz.curve("mid", "ghost", func(float64) float64 { return 0 }), main},
		Handles: []Handle{
			{Label: "Width", X: 4000, Y: max(-36, v[0]), ParamY: "width"},
			{Label: "Low", X: v[2], Y: max(-36, v[0]+v[1]), ParamX: "edge", ParamY: "low"},
		},
	}
}
