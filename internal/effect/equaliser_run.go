package effect

import "shoal/internal/dsp"

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
