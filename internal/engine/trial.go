package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/project"
)

// Every trial of a chain runs beside it, from the same input and padded to the
// longest latency, so that changing from one to another is a short cross-fade between sounds
// that are both there. A print knows only the chain.

// trialStep lets one of the alternatives through: the chain stands in buf, the
// trials in buffers of their own.
type trialStep struct {
	id    string
	buf   pair
	own   shift2 // the chain waits for the slowest trial
	alts  []inflow
	gates []dsp.Glide // of the chain, then of each trial; its level match included
	tmp   pair
}

func (s *trialStep) run(_ *cursor, n int) {
	s.own.process(s.buf, n)
	scale(s.buf.l[:n], s.buf.r[:n], &s.gates[0])
	for i := range s.alts {
		a := &s.alts[i]
		copy(s.tmp.l, a.from.l[:n])
		copy(s.tmp.r, a.from.r[:n])
		a.shift.process(s.tmp, n)
		l, r := s.tmp.l[:n], s.tmp.r[:n]
		scale(l, r, &s.gates[i+1])
		dsp.AddScaled(s.buf.l[:n], l, 1)
		dsp.AddScaled(s.buf.r[:n], r, 1)
	}
}

func scale(l, r []float64, g *dsp.Glide) {
	if !g.Moving() {
		switch k := g.Now(); k {
		case 1:
		case 0:
			clear(l)
			clear(r)
		default:
			for i := range l {
				l[i] *= k
				r[i] *= k
			}
		}
		return
	}
	for i := range l {
		k := g.Next()
		l[i] *= k
		r[i] *= k
	}
}

func (s *trialStep) key() string { return "trials " + s.id }

func (s *trialStep) reset() {
	s.own.clear()
	for _, a := range s.alts {
		a.shift.clear()
	}
}

func (s *trialStep) copyFrom(o twin) {
	old := o.(*trialStep)
	s.own.copyFrom(old.own)
	for _, a := range s.alts {
		for _, b := range old.alts {
			if a.name == b.name {
				a.shift.copyFrom(b.shift)
			}
		}
	}
}

// choose lets one alternative through, by its trial's id; empty is the chain. frames is
// how long the cross-fade takes.
func (s *trialStep) choose(trial string, match map[string]float64, frames int) {
	chosen := 0
	for i, a := range s.alts {
		if a.name == trial {
			chosen = i + 1
		}
	}
	for i := range s.gates {
		want := 0.0
		if i == chosen {
			want = dsp.Gain(match[trial])
		}
		if frames == 0 {
			s.gates[i].Set(want)
		} else {
			s.gates[i].Aim(want, frames)
		}
	}
}

// enterTrials copies a channel's input for each trial, before the chain treats it.
func (c *compiler) enterTrials(ch *project.Channel, at *gnode, buf pair) []*gnode {
	var wait []*gnode
	for _, t := range ch.Trials {
		to := newPair()
		c.where["trial "+t.ID] = to
		n := c.g.add("trial", t.ID, "trial "+t.Letter+" of "+ch.Name, at)
		n.emit = func(*gnode) []step {
			return []step{&copyStep{id: "trial " + t.ID, from: buf, to: to, shift: newShift2(0)}}
		}
		c.points["trial "+t.ID] = n
		wait = append(wait, n)
	}
	return wait
}

// trials builds the trials' chains and the choice between them and the chain.
func (c *compiler) trials(ch *project.Channel, at *gnode, buf pair, wait []*gnode) (*gnode, []*gnode) {
	type end struct {
		node *gnode
		buf  pair
		id   string
	}
	var ends []end
	join := c.g.add("choice", ch.ID, "the choice of a trial of "+ch.Name, at)
	join.order = wait
	for _, t := range ch.Trials {
		tb := c.where["trial "+t.ID]
		head := c.points["trial "+t.ID]
		if enter(ch, project.EntersWayIn) { // the mark is in the chain only: here it comes in at the top
			head = c.enters(ch, project.EntersWayIn, t.ID, head, tb, nil)
		}
		last, waits := c.chain(ch, &t.Chain, t.Chain.Bypass, head, tb, nil)
		join.after = append(join.after, last)
		join.order = append(join.order, waits...)
		ends = append(ends, end{last, tb, t.ID})
	}
	join.emit = func(n *gnode) []step {
		s := &trialStep{id: ch.ID, buf: buf, own: newShift2(n.lagIn - at.lag), gates: make([]dsp.Glide, len(ends)+1), tmp: c.tmp}
		for _, e := range ends {
			s.alts = append(s.alts, inflow{from: e.buf, shift: newShift2(n.lagIn - e.node.lag), name: e.id})
		}
		s.gates[0].Set(1)
		c.plan.trials[ch.ID] = s
		return []step{s}
	}
	return join, nil
}
