package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// wah is a narrow peak that travels between two frequencies: held by hand, moved by
// an oscillation, or opened by the level of the signal or its key. State-variable
// band pass (Zavalishin 2018) over a little of the untouched signal.
var wah = Kind{
	Info: Info{
		ID: "wah", Version: 2, Name: "Wah", Family: "Movement", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Moves a vocal peak up and down: by hand, to and fro, or with the level.",
		Synonyms: []string{"envelope filter", "auto wah", "vowel", "quack", "touch", "follower"},
		Plumbs:   []Plumb{{Param: "place"}, {Param: "amount"}, {Param: "rate"}, {Param: "note"}},
		Live:     []string{"place"},
		Params: append([]param.Param{
			{Name: "mode", Label: "Moved by", Says: "What moves the peak.",
				Max: 2, Default: 2, Taper: param.Choice, Choices: []string{"hand", "oscillation", "level"}},
			{Name: "place", Label: "Place", Unit: "%", Says: "Where the peak stands between its ends, or rests.",
				Min: 0, Max: 100, Default: 20, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "low", Label: "Lower end", Unit: "Hz", Says: "How low the peak goes.",
				Min: 80, Max: 2000, Default: 350, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "high", Label: "Upper end", Unit: "Hz", Says: "How high the peak goes.",
				Min: 400, Max: 8000, Default: 2200, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "q", Label: "Sharpness", Unit: "", Says: "How narrow the peak is.",
				Min: 0.7, Max: 12, Default: 2.5, Taper: param.Log, Step: 3, Digits: 2},
			param.Param{Name: "amount", Label: "Movement", Unit: "%", Says: "How far level or oscillation move it; below 0 the other way.",
				Min: -100, Max: 100, Default: 80, Taper: param.Linear, Step: 1, Digits: 0}.Only("mode", 1, 2),
			param.Param{Sheet: "Follow", Name: "sense", Label: "Sensitivity", Unit: "dB", Says: "The level at which it is moved all the way.",
				Min: -60, Max: 0, Default: -14, Taper: param.Linear, Step: 0.5, Digits: 1}.Only("mode", 2),
			param.Param{Sheet: "Follow", Name: "attack", Label: "Attack", Unit: "ms", Says: "How fast it follows a rising level.",
				Min: 1, Max: 200, Default: 8, Taper: param.Log, Step: 3, Digits: 0}.Only("mode", 2),
			param.Param{Sheet: "Follow", Name: "release", Label: "Release", Unit: "ms", Says: "How fast it falls back.",
				Min: 10, Max: 2000, Default: 160, Taper: param.Log, Step: 3, Digits: 0}.Only("mode", 2),
			{Name: "dry", Label: "Body", Unit: "dB", Says: "How much of the untouched signal stays under the peak.",
				Min: -120, Max: 0, Default: -4, Taper: param.Level, Step: 0.5, Digits: 1},
		}, cycleParams(1.2, 8)...),
	},
	New:   func(rate float64) Processor { return &quack{rate: rate, gain: wahGain} },
	Tail:  func([]float64, float64) float64 { return 0.3 },
	Rests: func(v []float64, _ float64) float64 { return 0.2 + faded(v[8]/1000) },
	Draw:  func(rate, _ float64, v []float64) Picture { return drawWah(rate, v, wahGain) },
}

// wahGain makes it about as loud as what goes in: 3 dB.
const wahGain = math.Sqrt2

// wah1 was softer.
var wah1 = func() Kind {
	k := was(wah, 1, func(rate float64) Processor { return &quack{rate: rate, gain: 1} })
	k.Draw = func(rate, _ float64, v []float64) Picture { return drawWah(rate, v, 1) }
	return k
}()

type quack struct {
	rate, gain float64
	cells      [2]dsp.SVF
	lfo        lfo
	level      float64
	from, to   float64 // place at this grid point and the next, 0 to 1
	g0, g1, k  float64
	fresh      bool
	keep       float64
}

func (w *quack) Process(s *Span) {
	var v [13]float64
	keyL, keyR := s.KeyL, s.KeyR
	if keyL == nil {
		keyL, keyR = s.L, s.R
	}
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !w.fresh {
			s.read(v[:], from)
			w.look(s, from, v[:])
		}
		up, down := dsp.Decay(s.Values[7].At(from)/1000, w.rate), dsp.Decay(s.Values[8].At(from)/1000, w.rate)
		level := w.level
		for i := from; i < to; i++ {
			a := larger(math.Abs(keyL[i]), math.Abs(keyR[i]))
			c := down
			if a > level {
				c = up
			}
			level = a + (level-a)*c
		}
		w.level = dsp.Flush(level)
		start := (s.Frame + int64(from)) & (Grid - 1)
		for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
			c := &w.cells[side]
			for i, u := range x {
				g := w.g0 + (w.g1-w.g0)*float64(start+int64(i))/Grid
				_, band, _ := c.Next(u, g, w.k)
				x[i] = w.gain * (band*w.k*1.6 + w.keep*u)
			}
			c.Flush()
		}
		from = to
	}
}

func (w *quack) look(s *Span, i int, v []float64) {
	hz, q := cycle(v[10:])
	a, b := w.lfo.look(s, i, w.rate, hz, q)
	place := func(phase float64) float64 {
		p := v[1] / 100
		switch v[0] {
		case 1:
			p += v[5] / 100 * (0.5 + 0.5*wave(waveSine, phase, 0))
		case 2:
			p += v[5] / 100 * min(1, w.level/dsp.Gain(v[6]))
		}
		return max(0, min(1, p))
	}
	if !w.fresh {
		w.to = place(a)
	}
	w.from, w.to = w.to, place(b)
	w.fresh = true
	low, high := v[2], max(v[3], v[2])
	at := func(p float64) float64 { return dsp.Warp(low*dsp.Exp(p*math.Log(high/low)), w.rate) }
	w.g0, w.g1, w.k, w.keep = at(w.from), at(w.to), 1/v[4], dsp.Gain(v[9])
}

func (w *quack) Reset()               { *w = quack{rate: w.rate, gain: w.gain} }
func (w *quack) CopyFrom(o Processor) { *w = *o.(*quack) }

// Report gives the place of the peak, 0 to 1.
func (w *quack) Report(dst []float64) { dst[0] = w.to }

func drawWah(rate float64, v []float64, gain float64) Picture {
	y := Axis{Label: "gain", Unit: "dB", Min: -36, Max: 12, Ticks: []float64{-24, -12, 0}}
	low, high := v[2], max(v[3], v[2])
	at := func(place float64) func(float64) float64 {
		g := dsp.Warp(low*math.Pow(high/low, place), rate)
		return func(f float64) float64 {
			x := math.Tan(math.Pi*min(f/rate, 0.499)) / g
			k := 1 / v[4]
			// band over the body: both as complex numbers over (1 - x² + jkx)
			re, im, keep := 1-x*x, k*x, dsp.Gain(v[9])
			bandRe, bandIm := 0.0, 1.6*k*x
			d := re*re + im*im
			hr := (bandRe*re+bandIm*im)/d + keep
			hi := (bandIm*re - bandRe*im) / d
			return max(-60, 10*math.Log10(gain*gain*(hr*hr+hi*hi)+1e-12))
		}
	}
	main := hertz.curve("at rest", "main", at(v[1]/100))
	main.Fill = true
	return Picture{
		Says:     "The peak at rest, and at the ends of its travel.",
		X:        hertz,
		Y:        y,
		Spectrum: true,
		Curves:   []Curve{hertz.curve("lower end", "part", at(0)), hertz.curve("upper end", "part", at(1)), main},
		Handles: []Handle{
			{Label: "Low", X: low, Y: at(0)(low), ParamX: "low", ParamZ: "q"},
			{Label: "High", X: high, Y: at(1)(high), ParamX: "high", ParamZ: "q"},
			{Label: "Place", X: low * math.Pow(high/low, v[1]/100), Y: 0, ParamY: "place"},
		},
	}
}
