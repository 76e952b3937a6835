package effect

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const (
	eqBands  = 8
	eqFields = 6 // on, shape, freq, gain, q, slope
)

const (
	eqBell = iota
	eqLowShelf
	eqHighShelf
	eqLowCut
	eqHighCut
	eqNotch
	eqBandPass
)

var eqOrders = []int{1, 2, 3, 4, 6, 8}

// equaliser has eight bands of matched second-order sections (Vicanek 2016, see
// dsp/fit.go). For f0 up to 16 kHz and Q from 0.5 the response is within
// 0.5 dB of the analogue prototype where that is above -40 dB, at 48 kHz; cuts are exact
// reciprocals of boosts. Frequencies in Hz, gains in dB; cuts fall by 6 to 48
// dB an octave, and their Q (to 2) counts at 12 dB an octave only.
var equaliser = Kind{
	Info: Info{
		ID:      "equaliser",
		Version: 3,
		Name:    "Equaliser",
		Family:  "Tone",
		Mix:     100,
		MixLaw:  "blend",
		Says:    "Raises and lowers parts of the spectrum with up to eight bands.",
		Plumbs:  []Plumb{{Param: "gain3", Named: "freq3"}, {Param: "gain5", Named: "freq5"}},
		Synonyms: []string{
			"eq",
			"equalizer",
			"tone",
			"bell",
			"shelf",
			"high pass",
			"low pass",
			"low cut",
			"high cut",
			"notch",
			"bright",
			"dark",
		},
		Params: eqParams(),
	},
	Linear:  true,
	New:     func(rate float64) Processor { return newEQ(rate, eqBoth) },
	Tail:    eqTail,
	Rests:   func([]float64, float64) float64 { return 0.3 },
	Telling: tellingBands,
	Draw:    func(rate, _ float64, v []float64) Picture { return drawEQ(rate, v, eqBoth) },
}

// equaliser1 had cuts of 6 and 18 dB an octave and wide notches that were off near half the rate.
var equaliser1 = fittedEQ(1, eqPlain)

// equaliser2 had wide notches that were up to 2 dB off near half the rate.
var equaliser2 = fittedEQ(2, eqCuts)

// eqFit is how near to the analogue ones cuts and notches are.
type eqFit int

const (
	eqPlain eqFit = iota
	eqCuts        // cuts of uneven orders are fitted, and notches at half the rate
	eqBoth        // notches at both of their edges as well
)

func fittedEQ(version int, fit eqFit) Kind {
	k := was(equaliser, version, func(rate float64) Processor { return newEQ(rate, fit) })
	k.Draw = func(rate, _ float64, v []float64) Picture { return drawEQ(rate, v, fit) }
	return k
}

// eqTail is how long its slowest poles take to fall by 100 dB, those of the two slowest sections one after the other, in
// seconds; the rate matters little for what rings for long.
func eqTail(v []float64, _ float64) float64 {
	const rate = 48000
	var longest, second float64
	for b := range eqBands {
		e := readEQ(v, b)
		if !e.on {
			continue
		}
		var s [4]dsp.Section
		for i := range e.sections(&s, rate, eqBoth) {
			t := -100 / (dsp.Decibels(s[i].Radius()) * rate)
			second = max(second, min(t, longest))
			longest = max(longest, t)
		}
	}
	return min(60, 0.1+longest+second)
}

func eqParams() []param.Param {
	start := [eqBands]struct{ shape, freq, on float64 }{
		{eqLowCut, 30, 0}, {eqLowShelf, 110, 1}, {eqBell, 300, 1}, {eqBell, 800, 1},
		{eqBell, 2000, 1}, {eqBell, 4500, 0}, {eqHighShelf, 8000, 1}, {eqHighCut, 16000, 0},
	}
	var ps []param.Param
	for b := range eqBands {
		n, g, d := fmt.Sprint(b+1), fmt.Sprintf("Band %d", b+1), start[b]
		ps = append(ps, eqBandParams(n, g, d.on, d.shape, d.freq)...)
	}
	return ps
}

// eqBandParams are those of one band: its number, its group, and what it begins with.
func eqBandParams(n, g string, on, shape, freq float64) []param.Param {
	shapes := []string{"bell", "low shelf", "high shelf", "low cut", "high cut", "notch", "band pass"}
	slopes := []string{"6", "12", "18", "24", "36", "48"}
	return []param.Param{
		{Name: "on" + n, Group: g, Label: "On", Says: "Whether the band works.", Max: 1, Default: on, Taper: param.Switch},
		{
			Name:    "shape" + n,
			Group:   g,
			Label:   "Shape",
			Says:    "What the band does around its frequency.",
			Max:     float64(len(shapes) - 1),
			Default: shape,
			Taper:   param.Choice,
			Choices: shapes,
		},
		{
			Name:    "freq" + n,
			Group:   g,
			Label:   "Frequency",
			Unit:    "Hz",
			Says:    "Where the band works.",
			Min:     16,
			Max:     20000,
			Default: freq,
			Taper:   param.Log,
			Step:    2,
			Digits:  0,
		},
		param.Param{
			Name:   "gain" + n,
			Group:  g,
			Label:  "Gain",
			Unit:   "dB",
			Says:   "How much the band raises or lowers.",
			Min:    -24,
			Max:    24,
			Taper:  param.Linear,
			Step:   0.5,
			Digits: 1,
		}.Only("shape"+n, eqBell, eqLowShelf, eqHighShelf),
		{
			Name:    "q" + n,
			Group:   g,
			Label:   "Q",
			Says:    "How narrow the band is; for shelves, how steep, up to 1.",
			Min:     0.3,
			Max:     20,
			Default: math.Sqrt2 / 2,
			Taper:   param.Log,
			Step:    5,
			Digits:  2,
		},
		param.Param{
			Name:    "slope" + n,
			Group:   g,
			Label:   "Slope",
			Unit:    "dB/oct",
			Says:    "How fast a low or high cut falls.",
			Max:     float64(len(slopes) - 1),
			Default: 1,
			Taper:   param.Choice,
			Choices: slopes,
		}.Only("shape"+n, eqLowCut, eqHighCut),
	}
}

// tellingBands are the bands that do most, in their order: those that raise or lower most, then cuts, then two to
// begin with.
func tellingBands(v []float64) []Plumb {
	bands := make([]int, eqBands)
	weight := make([]float64, eqBands)
	for b := range bands {
		e := readEQ(v, b)
		bands[b] = b
		switch cut := e.shape == eqLowCut || e.shape == eqHighCut; {
		case e.on && cut:
			weight[b] = 0.4 // less than what can be heard of a gain
		case e.on && (e.shape == eqBell || e.shape == eqLowShelf || e.shape == eqHighShelf):
			weight[b] = math.Abs(e.gain)
		}
		if b == 2 || b == 4 {
			weight[b] = max(weight[b], 0.01)
		}
	}
	slices.SortStableFunc(bands, func(a, b int) int { return cmp.Compare(weight[b], weight[a]) })
	bands = bands[:hung]
	slices.Sort(bands)
	out := make([]Plumb, hung)
	for i, b := range bands {
		n := strconv.Itoa(b + 1)
		if e := readEQ(v, b); e.shape == eqLowCut || e.shape == eqHighCut {
			out[i] = Plumb{Param: "freq" + n, Named: "shape" + n}
		} else {
			out[i] = Plumb{Param: "gain" + n, Named: "freq" + n}
		}
	}
	return out
}
