package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// filter is a state-variable filter without delay in its loop (Zavalishin 2018),
// once (12 dB an octave) or twice in a row (24), that an oscillation or the hand
// can move at any speed. Drive goes through a saturator before it. At full resonance it
// rings by itself, bounded at +18 dBFS.
var filter = Kind{
	Info: Info{
		ID: "filter", Version: 1, Name: "Filter", Family: "Tone", Mix: 100, MixLaw: "blend",
		Says:     "Lets lows, highs or a band through, with resonance, and can be moved.",
		Synonyms: []string{"sweep", "cutoff", "low pass", "high pass", "band pass", "notch", "resonance", "vcf", "moving"},
		Plumbs:   []Plumb{{Param: "freq"}, {Param: "resonance"}},
		Params: append([]param.Param{
			{Name: "kind", Label: "Lets through", Says: "Which part of the spectrum passes.",
				Max: 3, Taper: param.Choice, Choices: []string{"lows", "highs", "a band", "all but a band"}},
			{Name: "slope", Label: "Slope", Unit: "dB/oct", Says: "How steeply the rest falls away.",
				Max: 1, Taper: param.Choice, Choices: []string{"12", "24"}},
			{Name: "freq", Label: "Frequency", Unit: "Hz", Says: "Where the filter turns.",
				Min: 20, Max: 20000, Default: 12000, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "resonance", Label: "Resonance", Unit: "%", Says: "How much it rings at its frequency; at 100 % by itself.",
				Min: 0, Max: 100, Default: 15, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "drive", Label: "Drive", Unit: "dB", Says: "How hard the signal is pushed into it.",
				Min: 0, Max: 36, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "depth", Label: "Movement", Unit: "oct", Says: "How far it moves to and fro by itself.",
				Min: 0, Max: 5, Taper: param.Linear, Step: 0.1, Digits: 2},
			{Sheet: "Movement", Name: "wave", Label: "Shape", Says: "The shape of the movement.",
				Max: float64(len(waveNames) - 1), Taper: param.Choice, Choices: waveNames},
			{Sheet: "Movement", Name: "sides", Label: "Sides apart", Unit: "°",
				Says: "How far the right side lags behind the left in the movement.",
				Min:  0, Max: 180, Taper: param.Linear, Step: 5, Digits: 0},
		}, onSheet("Movement", cycleParams(0.3, 11))...),
	},
	New:   func(rate float64) Processor { return &sweep{rate: rate} },
	Tail:  func(v []float64, _ float64) float64 { return 0.2 + 4*v[3]/100 },
	Rests: func(v []float64, _ float64) float64 { return 0.2 + v[3]/100 },
	Draw:  drawFilter,
}

type sweep struct {
	rate  float64
	cells [2][2]dsp.SVF // side, stage
	lfo   lfo
	hz    [2]float64 // octaves off the frequency, per side, at this grid point
	hzTo  [2]float64 // and at the next
	fresh bool
	g     [Grid]float64 // of a piece
}

// ringK is 1/Q for a resonance in percent: Butterworth at 0, none at 100.
func ringK(percent float64) float64 {
	r := 1 - percent/100
	return math.Sqrt2 * r * r
}

func (f *sweep) Process(s *Span) {
	var v [11]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !f.fresh {
			s.read(v[:], from)
			hz, q := cycle(v[8:])
			a, b := f.lfo.look(s, from, f.rate, hz, q)
			lag := v[7] / 360
			w := int(v[6])
			f.hz = [2]float64{v[5] * wave(w, a, 1), v[5] * wave(w, a-lag, 1)}
			f.hzTo = [2]float64{v[5] * wave(w, b, 1), v[5] * wave(w, b-lag, 1)}
			f.fresh = true
		}
		f.run(s, from, to)
		from = to
	}
	for i := range f.cells {
		f.cells[i][0].Flush()
		f.cells[i][1].Flush()
	}
}

func (f *sweep) run(s *Span, from, to int) {
	kind, steep := int(s.Values[0].At(from)), s.Values[1].At(from) != 0
	res, drive := &s.Values[3], &s.Values[4]
	k := ringK(res.Now)
	for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
		if drive.Now > 0 || drive.Track != nil {
			f.push(x, drive, from)
		}
		if side == 0 || f.hz[1] != f.hz[0] || f.hzTo[1] != f.hzTo[0] {
			f.tune(s, from, to, side)
		}
		cells := &f.cells[side]
		for i := range x {
			if res.Track != nil {
				k = ringK(res.Track[from+i])
			}
			u := pass(&cells[0], x[i], f.g[i], k, kind)
			if steep {
				u = pass(&cells[1], u, f.g[i], larger(k, 0.6), kind)
			}
			x[i] = u
		}
	}
}

// push drives a piece into a soft curve.
func (f *sweep) push(x []float64, drive *Value, from int) {
	push := dsp.Gain(drive.Now)
	for i, u := range x {
		if drive.Track != nil {
			push = dsp.Gain(drive.Track[from+i])
		}
		x[i] = push * u / math.Sqrt(1+push*push*u*u) / math.Sqrt(push)
	}
}

// tune works out the integrator gain at every frame of a piece, for a side.
func (f *sweep) tune(s *Span, from, to, side int) {
	freq, hz, step := &s.Values[2], f.hz[side], (f.hzTo[side]-f.hz[side])/Grid
	if freq.Track == nil && step == 0 {
		g := dsp.Warp(freq.Now*math.Exp2(hz), f.rate)
		for i := range f.g[:to-from] {
			f.g[i] = g
		}
		return
	}
	start := (s.Frame + int64(from)) & (Grid - 1)
	for i := range f.g[:to-from] {
		up := dsp.QuickExp((hz + step*float64(start+int64(i))) * math.Ln2)
		f.g[i] = dsp.Warp(larger(freq.At(from+i)*up, 10), f.rate)
	}
}

func pass(c *dsp.SVF, x, g, k float64, kind int) float64 {
	low, band, high := c.Next(x, g, k)
	switch kind {
	case 1:
		return high
	case 2:
		return band * larger(k, 0.2)
	case 3:
		return low + high
	}
	return low
}

func (f *sweep) Reset()               { *f = sweep{rate: f.rate} }
func (f *sweep) CopyFrom(o Processor) { *f = *o.(*sweep) }

// filterPower is the response that the picture shows and the tests measure.
func filterPower(v []float64, freq, rate float64) float64 {
	g := dsp.Warp(v[2], rate)
	one := func(k float64) float64 {
		low, band, high := dsp.SVFPower(freq, g, k, rate)
		switch int(v[0]) {
		case 1:
			return high
		case 2:
			m := max(k, 0.2)
			return band * m * m
		case 3:
			x := math.Tan(math.Pi*min(freq/rate, 0.4999)) / g
			d := (1-x*x)*(1-x*x) + k*k*x*x
			return (1 - x*x) * (1 - x*x) / d
		}
		return low
	}
	k := ringK(v[3])
	p := one(k)
	if v[1] != 0 {
		p *= one(max(k, 0.6))
	}
	return p
}

func drawFilter(rate, _ float64, v []float64) Picture {
	y := Axis{Label: "gain", Unit: "dB", Min: -48, Max: 24, Ticks: []float64{-36, -24, -12, 0, 12}}
	at := func(freq float64) func(f float64) float64 {
		w := append([]float64{}, v...)
		w[2] = freq
		return func(f float64) float64 {
			return max(-60, min(40, 10*math.Log10(filterPower(w, min(f, rate*0.49), rate)+1e-12)))
		}
	}
	p := Picture{Says: "Gain over frequency; thin lines are as far as it moves.", X: hertz, Y: y, Spectrum: true,
		Handles: []Handle{{Label: "Frequency", X: v[2], Y: at(v[2])(v[2]), ParamX: "freq", ParamY: "resonance"}}}
	if v[5] > 0 {
		p.Curves = append(
			p.Curves,
			hertz.curve("lowest", "part", at(max(20, v[2]*math.Exp2(-v[5])))),
			hertz.curve("highest", "part", at(min(20000, v[2]*math.Exp2(v[5])))),
		)
	}
	main := hertz.curve("response", "main", at(v[2]))
	main.Fill = true
	p.Curves = append(p.Curves, main)
	return p
}
