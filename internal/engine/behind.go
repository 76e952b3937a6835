package engine

import (
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// entry is a place of a row at which clips come in, of its chain or of a trial of that.
type entry struct{ channel, enters, trial string }

// enter reports whether any clip of a row comes in at a place.
func enter(ch *project.Channel, place string) bool {
	return slices.ContainsFunc(ch.Clips, func(x *project.Clip) bool { return ch.Entry(x) == place })
}

// behindStep adds clips that enter a row behind its way in, or behind its chain, as late as what comes there.
type behindStep struct {
	at    entry
	buf   pair
	clips *player
	late  shift2
	tmp   pair
}

func (s *behindStep) run(c *cursor, n int) {
	l, r := s.tmp.l[:n], s.tmp.r[:n]
	clear(l)
	clear(r)
	s.clips.run(c, n, s.tmp)
	s.late.process(s.tmp, n)
	dsp.AddScaled(s.buf.l[:n], l, 1)
	dsp.AddScaled(s.buf.r[:n], r, 1)
}

func (s *behindStep) key() string { return s.at.enters + " " + s.at.channel + " " + s.at.trial }

func (s *behindStep) reset() {
	s.clips.reset()
	s.late.clear()
}

func (s *behindStep) copyFrom(o twin) {
	old := o.(*behindStep)
	s.late.copyFrom(old.late)
	s.clips.roll = old.clips.roll
}

// enters builds what comes into a row behind a part of its chain.
func (c *compiler) enters(ch *project.Channel, place, trial string, at *gnode, buf pair, wait []*gnode) *gnode {
	n := c.g.add(place, ch.ID+trial, "what enters "+ch.Name+" "+place, at)
	n.order = wait
	clips := newPlayer(c.doc, ch, place, c.treatments, c.clock, c.lib)
	key := entry{ch.ID, place, trial}
	c.plan.clips[key] = clips
	n.emit = func(n *gnode) []step {
		c.plan.players = append(c.plan.players, clips)
		return []step{&behindStep{at: key, buf: buf, clips: clips, late: newShift2(n.lagIn), tmp: c.tmp}}
	}
	return n
}
