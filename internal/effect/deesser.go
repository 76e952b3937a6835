package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// deesser turns one band down while that band is loud. The band is cut out by a
// state-variable filter (Zavalishin 2018) and taken away from the signal by as much as
// the level in it calls for: y = x + (g - 1)·band. Band pass and high pass lie a quarter
// or half a cycle from the rest, so what is outside the band keeps its level. All above is turned down by a
// second-order shelf, y = x + (√g - 1)·√2·band + (g - 1)·high, which nowhere rises. Times
// are 63 %; the ratio above the threshold is 4 : 1, no deeper than the range.
var deesser = Kind{
	Info: Info{
		ID: "deesser", Version: 2, Name: "De-esser", Family: "Dynamics", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Softens sharp s and t sounds, and leaves the rest of the voice alone.",
		Plumbs:   []Plumb{{Param: "threshold"}, {Param: "range"}},
		Synonyms: []string{"sibilance", "ess", "harsh", "dynamic equaliser", "sharp", "voice"},
		Live:     []string{"in", "out", "reduction"},
		Params: []param.Param{
			{Name: "freq", Label: "Frequency", Unit: "Hz", Says: "Where the sharp sounds are.",
				Min: 1000, Max: 14000, Default: 6800, Taper: param.Log, Step: 2, Digits: 0},
			{Name: "q", Label: "Sharpness", Unit: "", Says: "How narrow the band is.",
				Min: 0.5, Max: 6, Default: 1.4, Taper: param.Log, Step: 3, Digits: 2},
			{Name: "kind", Label: "Band", Says: "Whether it treats a band, or all above the frequency.",
				Max: 1, Taper: param.Choice, Choices: []string{"a band", "all above"}},
			{Name: "threshold", Label: "Threshold", Unit: "dB", Says: "The level in the band above which it works.",
				Min: -60, Max: 0, Default: -30, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "range", Label: "Range", Unit: "dB", Says: "How far it turns the band down at most.",
				Min: -24, Max: 0, Default: -9, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "attack", Label: "Attack", Unit: "ms", Says: "How fast it turns down.",
				Min: 0.1, Max: 30, Default: 1, Taper: param.Log, Step: 5, Digits: 1},
			{Name: "release", Label: "Release", Unit: "ms", Says: "How fast it lets go.",
				Min: 5, Max: 500, Default: 45, Taper: param.Log, Step: 5, Digits: 0},
		},
	},
	New:   func(rate float64) Processor { return &hiss{rate: rate, shelf: true} },
	Rests: func(v []float64, _ float64) float64 { return 0.1 + faded(v[6]/1000) },
	Draw:  func(rate, _ float64, v []float64) Picture { return drawDeesser(rate, v, true) },
}

// deesser1 took its high pass away from the signal: what lay around its edge came out louder.
var deesser1 = func() Kind {
	k := was(deesser, 1, func(rate float64) Processor { return &hiss{rate: rate} })
	k.Draw = func(rate, _ float64, v []float64) Picture { return drawDeesser(rate, v, false) }
	return k
}()

// hissShelf is where the shelf of "all above" has its middle, as part of the frequency: there it does all of its work.
const hissShelf = 0.5

type hiss struct {
	rate          float64
	shelf         bool       // all above is turned down by a shelf
	shelves       [2]dsp.SVF // its cells
	side, key     [2]dsp.SVF
	red           float64
	in, out, most float64
}

func (h *hiss) Process(s *Span) {
	var v [7]float64
	for from := 0; from < len(s.L); {
		to, _ := s.piece(from)
		s.read(v[:], from)
		g, k := dsp.Warp(v[0], h.rate), 1/v[1]
		if v[2] != 0 {
			k = math.Sqrt2
		}
		attack, release := dsp.Decay(v[5]/1000, h.rate), dsp.Decay(v[6]/1000, h.rate)
		floor := dsp.Gain(v[3])
		shelved, low := h.shelf && v[2] != 0, dsp.Warp(v[0]*hissShelf, h.rate)
		l, r := s.L[from:to], s.R[from:to]
		for i := range l {
			bl, br := cutBand(&h.side[0], l[i], g, k, v[2]), cutBand(&h.side[1], r[i], g, k, v[2])
			var ml, mr, hl, hr float64
			if shelved {
				_, ml, hl = h.shelves[0].Next(l[i], low, math.Sqrt2)
				_, mr, hr = h.shelves[1].Next(r[i], low, math.Sqrt2)
			}
			kl, kr := bl, br
			if s.KeyL != nil {
				kl, kr = cutBand(&h.key[0], s.KeyL[from+i], g, k, v[2]), cutBand(&h.key[1], s.KeyR[from+i], g, k, v[2])
			}
			a := larger(math.Abs(kl), math.Abs(kr))
			h.in = larger(h.in, a)
			want := 0.0
			if a > floor {
				want = smaller(-v[4], 0.75*(dsp.QuickLog(a)*(20/math.Ln10)-v[3]))
			}
			c := release
			if want > h.red {
				c = attack
			}
			h.red = want + (h.red-want)*c
			if h.red < 1e-6 {
				h.out = larger(h.out, a)
				continue
			}
			cut := dsp.QuickExp(-h.red*(math.Ln10/20)) - 1
			if shelved {
				root := math.Sqrt(1+cut) - 1
				l[i] += root*math.Sqrt2*ml + cut*hl
				r[i] += root*math.Sqrt2*mr + cut*hr
			} else {
				l[i] += cut * bl
				r[i] += cut * br
			}
			h.out = larger(h.out, a*(1+cut))
		}
		h.most = max(h.most, h.red)
		h.red = dsp.Flush(h.red)
		for i := range h.side {
			h.side[i].Flush()
			h.shelves[i].Flush()
			h.key[i].Flush()
		}
		from = to
	}
}

func cutBand(c *dsp.SVF, x, g, k, kind float64) float64 {
	_, band, high := c.Next(x, g, k)
	if kind != 0 {
		return high
	}
	return band * k
}

func (h *hiss) Reset()               { *h = hiss{rate: h.rate, shelf: h.shelf} }
func (h *hiss) CopyFrom(o Processor) { *h = *o.(*hiss) }

// Report gives the band's peak in and out, and the deepest reduction since the last report, in dB.
func (h *hiss) Report(dst []float64) {
	dst[0], dst[1], dst[2] = dsp.Decibels(h.in), dsp.Decibels(h.out), h.most
	h.in, h.out, h.most = 0, 0, h.red
}

// deesserPower is the response while the band is turned down by so many dB.
func deesserPower(v []float64, down, f, rate float64, shelf bool) float64 {
	if shelf && v[2] != 0 { // (1 + √(2c) jx - cx²) / (1 + √2 jx - x²): monotonous, so that nothing rises
		x := math.Tan(math.Pi*min(f/rate, 0.4999)) / dsp.Warp(v[0]*hissShelf, rate)
		g := dsp.Gain(-2 * down)
		return (1 + g*x*x*x*x) / (1 + x*x*x*x)
	}
	g := dsp.Warp(v[0], rate)
	x := math.Tan(math.Pi*min(f/rate, 0.4999)) / g
	k := 1 / v[1]
	c := dsp.Gain(-down) - 1
	if v[2] != 0 { // 1 + c·(-x²)/(1 - x² + j√2x)
		re, im := 1-x*x, math.Sqrt2*x
		nr, ni := re-c*x*x, im
		return (nr*nr + ni*ni) / (re*re + im*im)
	}
	re, im := 1-x*x, k*x
	ni := im * (1 + c)
	return (re*re + ni*ni) / (re*re + im*im)
}

func drawDeesser(rate float64, v []float64, shelf bool) Picture {
	y := Axis{Label: "gain", Unit: "dB", Min: -24, Max: 6, Ticks: []float64{-18, -12, -6, 0}}
	at := func(down float64) func(float64) float64 {
		return func(f float64) float64 { return max(-40, 10*math.Log10(deesserPower(v, down, f, rate, shelf))) }
	}
	main := hertz.curve("at its deepest", "main", at(-v[4]))
	main.Fill = true
	return Picture{Says: "What it takes away at the most, and at half of it.", X: hertz, Y: y, Spectrum: true,
		Curves:  []Curve{hertz.curve("half", "part", at(-v[4]/2)), main},
		Handles: []Handle{{Label: "Frequency", X: v[0], Y: v[4], ParamX: "freq", ParamY: "range", ParamZ: "q"}},
		Live:    &Live{X: 0, Y: 1, Reduction: 2, Hidden: true}}
}
