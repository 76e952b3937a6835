package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/project"
)

// Hearing is what one listener hears of the mix. It never enters the document.
type Hearing struct {
	Solo map[string]bool // soloed channels; none: all are heard
	// Dry is a row that is heard without its sends: only its own way to the main output. Of a return it
	// is what goes into it, heard without it.
	Dry string
	// Share is a row of which only what comes back from the returns is heard; of a return what it brings back.
	Share string
	Mono  bool // both sides of the main output are their sum

	straight map[string]bool // rows that are heard by another way, but for what they send
}

// doors says which outputs and which sends are open.
type doors struct {
	out, sends map[string]bool
}

// open works out what is open for a listener. Solo silences the output of the others and
// all of their sends, pre-fader ones too; keys and taps still flow. What stays open: the soloed
// channels, whatever carries their signal onward, what feeds a soloed group or track, channels
// that are solo safe, and sends into a soloed return, without the dry signal of its sources.
func (h *Hearing) open(doc *project.Project) doors {
	d := doors{map[string]bool{}, map[string]bool{}}
	switch {
	case isReturn(doc, h.Dry):
		d.into(doc, h.Dry)
		return d
	case h.Dry != "":
		d.only(doc, h.Dry)
		for id := range d.sends {
			d.sends[id] = false
		}
		return d
	case h.Share != "":
		d.only(doc, h.Share)
		d.out[h.Share] = isReturn(doc, h.Share)
		return d
	case len(h.Solo) > 0:
		d.solo(doc, h.Solo)
		return d
	}
	for _, ch := range doc.Channels {
		d.all(ch, true)
	}
	return d
}

// left closes what is heard by another way.
func (d doors) left(straight map[string]bool) {
	for id := range straight {
		d.out[id] = false
	}
}

// all opens or closes a channel's output and its sends.
func (d doors) all(ch *project.Channel, on bool) {
	d.out[ch.ID] = on
	for _, s := range ch.Sends {
		d.sends[s.ID] = on
	}
}

// only opens one channel, what feeds it and what carries its signal onward; others are closed, solo
// safe or not, except returns, groups and the main output, which carry nothing of theirs.
func (d doors) only(doc *project.Project, id string) {
	for _, ch := range doc.Channels {
		d.all(ch, ch.Kind != project.Track && ch.ID != id)
	}
	d.sources(doc, id, nil, map[string]bool{})
	if ch, ok := doc.Channel(id); ok {
		d.all(ch, true)
		d.onward(doc, ch, map[string]bool{})
	}
}

func isReturn(doc *project.Project, id string) bool {
	ch, ok := doc.Channel(id)
	return ok && ch.Kind == project.Return
}

// into opens what is sent to a return as it is heard by its own ways, and nothing that it gives. Sends
// stay open only into returns that themselves send to it.
func (d doors) into(doc *project.Project, id string) {
	for _, ch := range doc.Channels {
		d.all(ch, ch.Kind != project.Track)
	}
	feeds := feeding(doc, id)
	for _, ch := range doc.Channels {
		if feeds[ch.ID] {
			d.out[ch.ID] = true
			d.sources(doc, ch.ID, feeds, map[string]bool{})
		}
	}
	passed := map[string]bool{}
	passes(doc, id, passed)
	for _, ch := range doc.Channels {
		for _, s := range ch.Sends {
			d.sends[s.ID] = d.sends[s.ID] && s.To != id && passed[s.To]
		}
	}
	d.out[id] = false
}

// passes gathers every row whose signal comes to a return through sends, however many.
func passes(doc *project.Project, id string, seen map[string]bool) {
	for row := range feeding(doc, id) {
		if !seen[row] {
			seen[row] = true
			passes(doc, row, seen)
		}
	}
}

// feeding is every row with a send to a return.
func feeding(doc *project.Project, id string) map[string]bool {
	rows := map[string]bool{}
	for _, ch := range doc.Channels {
		for _, s := range ch.Sends {
			if s.To == id {
				rows[ch.ID] = true
			}
		}
	}
	return rows
}

func (d doors) solo(doc *project.Project, solo map[string]bool) {
	for _, ch := range doc.Channels {
		d.all(ch, solo[ch.ID] || ch.SoloSafe || ch.Kind == project.Main)
	}
	carrying := map[string]bool{}
	for _, ch := range doc.Channels {
		if solo[ch.ID] {
			d.onward(doc, ch, carrying)
		}
	}
	seen := map[string]bool{}
	for id := range solo {
		d.sources(doc, id, carrying, seen)
	}
}

// onward opens everything that a channel's signal passes on its way to the main output.
func (d doors) onward(doc *project.Project, ch *project.Channel, seen map[string]bool) {
	if seen[ch.ID] {
		return
	}
	seen[ch.ID] = true // the soloed ones too: they are never only sources
	visit := func(id string) {
		if next, ok := doc.Channel(id); ok && next.Kind != project.Main {
			d.all(next, true)
			d.onward(doc, next, seen)
		}
	}
	visit(ch.Output)
	for _, s := range ch.Sends {
		visit(s.To)
	}
}

// sources opens what flows into a channel: the outputs of what goes there, with all of theirs,
// and the sends that lead there. What only feeds it so is not heard itself: a track's output stays
// as it is, and a return's is closed unless it carries what is soloed.
func (d doors) sources(doc *project.Project, id string, carrying, seen map[string]bool) {
	if seen[id] {
		return
	}
	seen[id] = true
	for _, ch := range doc.Channels {
		if ch.Output == id {
			d.all(ch, true)
			d.sources(doc, ch.ID, carrying, seen)
		}
		for _, s := range ch.Sends {
			if s.To != id {
				continue
			}
			d.sends[s.ID] = true
			if ch.Kind == project.Return && !carrying[ch.ID] {
				d.out[ch.ID] = false
			}
			if ch.Kind != project.Track { // a return or group must be fed to feed
				d.sources(doc, ch.ID, carrying, seen)
			}
		}
	}
}

// hear lets a plan give what a listener hears, over so many frames.
func (p *plan) hear(h *Hearing, frames int) {
	d := h.open(p.doc)
	d.left(h.straight)
	set := func(g *dsp.Glide, on bool) {
		if frames == 0 {
			g.Set(boolGain(on))
		} else {
			g.Aim(boolGain(on), frames)
		}
	}
	main := p.doc.MainChannel().ID
	for id, f := range p.flows {
		set(&f.gate, d.out[id])
		f.mono = id == main && h.Mono
	}
	for id, s := range p.sends {
		set(&s.gate, d.sends[id])
	}
}

// Solo sets which channels are soloed; none means all are heard.
func (e *Engine) Solo(ids []string) {
	h := e.hearing
	h.Solo, h.Dry, h.Share = map[string]bool{}, "", ""
	for _, id := range ids {
		h.Solo[id] = true
	}
	e.Hear(h)
}

// Hear sets what this listener hears of the mix.
func (e *Engine) Hear(h Hearing) {
	h.straight = map[string]bool{}
	for id, x := range e.inputs {
		if x.Returns {
			h.straight[id] = true
		}
	}
	e.hearing = h
	for _, p := range e.plans() {
		p.hear(&e.hearing, gateFrames)
	}
}
