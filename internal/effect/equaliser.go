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

// eqSetting is one band's values at one moment.
type eqSetting struct {
	on            bool
	shape, slope  int
	freq, gain, q float64
}

func readEQ(v []float64, b int) eqSetting {
	f := v[b*eqFields:]
	return eqSetting{on: f[0] != 0, shape: int(f[1]), freq: f[2], gain: f[3], q: f[4], slope: int(f[5])}
}

// sections fills dst and returns how many it used.
func (e eqSetting) sections(dst *[4]dsp.Section, rate float64, fit eqFit) int {
	f := min(e.freq, rate*0.48)
	switch e.shape {
	case eqBell:
		dst[0] = dsp.Bell(f, e.gain, max(e.q, 0.3), rate)
	case eqLowShelf, eqHighShelf:
		dst[0] = dsp.Shelf(e.shape == eqHighShelf, f, e.gain, min(e.q, 1), rate)
	case eqLowCut, eqHighCut:
		if fit != eqPlain {
			return dsp.ButterworthFine(dst[:], e.shape == eqLowCut, eqOrders[e.slope], f, min(e.q, 2), rate)
		}
		return dsp.Butterworth(dst[:], e.shape == eqLowCut, eqOrders[e.slope], f, min(e.q, 2), rate)
	case eqNotch:
		dst[0] = eqNotches[fit](f, e.q, rate)
	case eqBandPass:
		dst[0] = dsp.BandPass(f, e.q, rate)
	}
	return 1
}

var eqNotches = [...]func(freq, q, rate float64) dsp.Section{dsp.Notch, dsp.NotchFine, dsp.NotchBetween}

// eqBand is the running state of one band. Frequency, gain and Q move the
// coefficients in straight lines from grid point to grid point; a change of
// shape or slope fades the band out and in again.
type eqBand struct {
	now         eqSetting
	n           int
	from, to    [4]dsp.Section
	ramp        bool
	l, r        [4]dsp.Biquad
	heard       dsp.Glide // 0 to 1
	initialised bool
	flat        bool // it changes nothing, and its state is empty
}

type eq struct {
	rate           float64
	fit            eqFit
	bands          [eqBands]eqBand
	values         []float64
	dryL, dryR     [Grid]float64
	fadeFrames     int
	fresh, settled bool
}

func newEQ(rate float64, fit eqFit) *eq {
	return &eq{rate: rate, fit: fit, values: make([]float64, eqBands*eqFields), fadeFrames: int(rate * 0.005), fresh: true}
}

func (e *eq) Process(s *Span) {
	if e.settled && s.Still {
		e.runSettled(s)
		return
	}
	jump := e.fresh || s.stepped()
	moving := jump
	for i := range s.Values {
		v := &s.Values[i]
		if v.Track != nil || v.Now != e.values[i] {
			moving = true
		}
	}
	if moving {
		e.settled = false
	}
	if e.settled {
		e.runSettled(s)
		return
	}
	var live [eqBands]bool // the others are as they are for the whole span
	for b := range live {
		live[b] = jump || e.stirs(s, b)
	}
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || (from == 0 && jump) {
			for b := range e.bands {
				if !live[b] {
					continue
				}
				for i := b * eqFields; i < (b+1)*eqFields; i++ {
					e.values[i] = s.Values[i].At(from)
				}
				e.bands[b].look(readEQ(e.values, b), e.rate, e.fit, from == 0 && jump, e.fadeFrames)
			}
		}
		for b := range e.bands {
			e.run(&e.bands[b], s, from, to)
		}
		from = to
	}
	e.fresh = false
	e.settled = !moving
	for b := range e.bands {
		band := &e.bands[b]
		if band.ramp || band.heard.Moving() || band.now.shape != readEQ(e.values, b).shape || band.now.slope != readEQ(e.values, b).slope {
			e.settled = false
		}
	}
	for b := range e.bands {
		band := &e.bands[b]
		band.flat = e.settled && band.n == 1 && band.to[0] == dsp.Through && band.l[0] == dsp.Biquad{} && band.r[0] == dsp.Biquad{}
	}
	for i := range s.Values { // a hand that stopped between grid points is not settled yet
		if s.Values[i].At(len(s.L)-1) != e.values[i] {
			e.settled = false
		}
	}
}

// stirs reports whether a band may have to be looked at within a span.
func (e *eq) stirs(s *Span, b int) bool {
	band := &e.bands[b]
	if band.ramp || band.heard.Moving() {
		return true
	}
	for i := b * eqFields; i < (b+1)*eqFields; i++ {
		if v := &s.Values[i]; v.Track != nil || v.Now != e.values[i] {
			return true
		}
	}
	want := readEQ(e.values, b)
	return want != band.now || want.on != (band.heard.Target() > 0)
}

// runSettled runs all working sections, two at a time.
func (e *eq) runSettled(s *Span) {
	var one *dsp.Section
	var l, r *dsp.Biquad
	for b := range e.bands {
		band := &e.bands[b]
		if !band.now.on || band.flat {
			continue
		}
		for i := 0; i < band.n; i++ {
			if one == nil {
				one, l, r = &band.to[i], &band.l[i], &band.r[i]
				continue
			}
			dsp.RunStereo2(one, &band.to[i], l, r, &band.l[i], &band.r[i], s.L, s.R)
			one = nil
		}
	}
	if one != nil {
		dsp.RunStereo(one, l, r, s.L, s.R)
	}
	for b := range e.bands {
		band := &e.bands[b]
		for i := 0; i < band.n; i++ {
			band.l[i].Flush()
			band.r[i].Flush()
		}
	}
}

// look compares the settings wanted with those running, at a grid point.
func (b *eqBand) look(want eqSetting, rate float64, fit eqFit, jump bool, fade int) {
	if jump || !b.initialised {
		b.now, b.initialised = want, true
		b.n = want.sections(&b.to, rate, fit)
		b.ramp = false
		b.heard.Set(boolFloat(want.on))
		return
	}
	if want.shape != b.now.shape || want.slope != b.now.slope {
		if b.heard.Now() > 0 { // first let the old shape go
			b.heard.Aim(0, fade)
			return
		}
		b.now = want
		b.n = want.sections(&b.to, rate, fit)
		b.l, b.r = [4]dsp.Biquad{}, [4]dsp.Biquad{}
		b.ramp = false
		b.heard.Aim(boolFloat(want.on), fade)
		return
	}
	if want.on != (b.heard.Target() > 0) {
		b.heard.Aim(boolFloat(want.on), fade)
	}
	if want.freq != b.now.freq || want.gain != b.now.gain || want.q != b.now.q {
		b.from = b.to
		b.n = want.sections(&b.to, rate, fit)
		b.ramp = true
	} else if b.ramp {
		b.ramp = false
	}
	b.now = want
}

func (e *eq) run(b *eqBand, s *Span, from, to int) {
	if !b.heard.Moving() && b.heard.Now() == 0 {
		return
	}
	l, r := s.L[from:to], s.R[from:to]
	fading := b.heard.Moving()
	if fading {
		copy(e.dryL[:], l)
		copy(e.dryR[:], r)
	}
	at := int((s.Frame + int64(from)) & (Grid - 1))
	for i := 0; i < b.n; i++ {
		if b.ramp {
			dsp.RunStereoTo(&b.from[i], &b.to[i], at+1, Grid, &b.l[i], &b.r[i], l, r)
		} else {
			dsp.RunStereo(&b.to[i], &b.l[i], &b.r[i], l, r)
		}
		b.l[i].Flush()
		b.r[i].Flush()
	}
	if fading {
		for i := range l {
			h := b.heard.Next()
			l[i] = e.dryL[i] + (l[i]-e.dryL[i])*h
			r[i] = e.dryR[i] + (r[i]-e.dryR[i])*h
		}
	}
}

func (e *eq) Reset() {
	for b := range e.bands {
		e.bands[b] = eqBand{}
	}
	e.fresh, e.settled = true, false
}

func (e *eq) CopyFrom(o Processor) {
	p := o.(*eq)
	e.bands = p.bands
	copy(e.values, p.values)
	e.fresh, e.settled = p.fresh, p.settled
}

func boolFloat(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

func drawEQ(rate float64, v []float64, fit eqFit) Picture {
	p := Picture{
		Says: "Gain over frequency; each numbered point is a band.", X: hertz, Spectrum: true,
		Y: Axis{Label: "gain", Unit: "dB", Min: -24, Max: 24, Ticks: []float64{-18, -12, -6, 0, 6, 12, 18}},
	}
	type drawn struct {
		sec [4]dsp.Section
		n   int
	}
	var active []drawn
	response := func(d *drawn, f float64) float64 {
		db := 0.0
		for i := 0; i < d.n; i++ {
			db += max(10*math.Log10(max(d.sec[i].Power(min(f, rate*0.499), rate), 1e-12)), -120)
		}
		return db
	}
	for b := range eqBands {
		set := readEQ(v, b)
		var d drawn
		d.n = set.sections(&d.sec, rate, fit)
		n := fmt.Sprint(b + 1)
		h := Handle{Label: n, X: set.freq, ParamX: "freq" + n, ParamZ: "q" + n, Quiet: !set.on}
		if set.shape <= eqHighShelf {
			h.Y, h.ParamY = set.gain, "gain"+n
		}
		p.Handles = append(p.Handles, h)
		if set.on {
			active = append(active, d)
			if set.shape > eqHighShelf || set.gain != 0 {
				p.Curves = append(p.Curves, hertz.curve("band "+n, "part", func(f float64) float64 { return response(&d, f) }))
			}
		}
	}
	main := hertz.curve("response", "main", func(f float64) float64 {
		db := 0.0
		for i := range active {
			db += response(&active[i], f)
		}
		return db
	})
	main.Fill = true
	p.Curves = append(p.Curves, main)
	return p
}
