package engine

import (
	"math"

	"shoal/internal/dsp"
)

// What is listened to is muted where it goes beyond what ears and loudspeakers should get. A print never is.
const (
	tooLoud  = 4.0 // +12 dBFS
	calm     = 2.0 // +6 dBFS: below that for calmFor seconds it is heard again, as it would be had it never been too loud
	calmFor  = 3.0 // longer than music pauses, so that the ways out stay in reach
	eased    = 0.1 // -20 dB
	guardFor = 0.010
	headroom = 6.0 // dB that are left when it is turned down: what comes may be louder than what came
)

// guard mutes the output, or lets it be heard far down.
type guard struct {
	on    bool
	eased bool // somebody wants to hear it anyway
	gain  dsp.Glide
	row   string
	peak  float64 // of the last seconds: what was turned down is no longer as high as it was
	newer float64 // of those since the peak was last brought down, and for how many frames
	age   int
	quiet int // frames for which it has been calm
}

// Trip says why the output is muted: which row is the loudest of those that come together in it, and how high the
// output would go.
type Trip struct {
	Row   string  `json:"row" required:"true"`
	Peak  float64 `json:"peak" required:"true"`  // dBFS
	Eased bool    `json:"eased" required:"true"` // it is heard 20 dB down
	Fader float64 `json:"fader" required:"true"` // where the row's fader would bring it below full scale
}

// Trip reports whether the output is muted for protection, and why.
func (e *Engine) Trip() (Trip, bool) {
	t := Trip{Row: e.guard.row, Peak: dsp.Decibels(e.guard.peak), Eased: e.guard.eased}
	if ch, ok := e.latest().doc.Channel(t.Row); ok {
		t.Fader = max(dsp.Off, math.Floor(10*(ch.Fader-t.Peak-headroom))/10)
	}
	return t, e.guard.on
}

// HearAnyway lets what is muted for protection be heard 20 dB down, or not.
func (e *Engine) HearAnyway(on bool) {
	if e.guard.eased = on; e.guard.on {
		e.guard.gain.Aim(e.guard.wanted(), int(guardFor*e.rate))
	}
}

func (g *guard) wanted() float64 {
	switch {
	case !g.on:
		return 1
	case g.eased && g.peak*eased < tooLoud:
		return eased
	}
	return 0
}

// protect mutes a block from the first frame on that is too loud, and lets it be heard again when it has calmed down.
func (e *Engine) protect(l, r []float64, peak float64) {
	g := &e.guard
	if peak > tooLoud && !g.on {
		g.on, g.peak, g.newer, g.age, g.row = true, 0, 0, 0, e.loudestRow()
		g.gain.Set(g.wanted()) // at once
	}
	if !g.on && !g.gain.Moving() {
		return
	}
	if g.on {
		g.peak, g.newer = max(g.peak, peak), max(g.newer, peak)
		if g.age += len(l); g.age > int(calmFor*e.rate) {
			g.peak, g.newer, g.age = g.newer, 0, 0
		}
		if g.gain.Target() != g.wanted() {
			g.gain.Set(g.wanted())
		}
		if g.quiet += len(l); peak > calm {
			g.quiet = 0
		}
		if g.quiet > int(calmFor*e.rate) {
			g.on, g.eased, g.quiet = false, false, 0
			g.gain.Aim(1, int(guardFor*e.rate))
		}
	}
	for i := range l {
		k := g.gain.Next()
		l[i] *= k
		r[i] *= k
	}
}

// loudestRow is the row with the highest level behind its fader since levels were last read; the main output where no
// row is above full scale.
func (e *Engine) loudestRow() string {
	p := e.latest()
	main := p.doc.MainChannel().ID
	row, most := main, uint64(0)
	for i, m := range p.meters {
		if at := p.points[i]; at.Kind == "post" && at.Owner != main && max(m.l, m.r) > most &&
			p.flows[at.Owner] != nil && p.flows[at.Owner].gate.Target() > 0 {
			row, most = at.Owner, max(m.l, m.r)
		}
	}
	return row
}
