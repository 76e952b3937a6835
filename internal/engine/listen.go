package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/project"
)

// Listening is a point that somebody listens to instead of the main output: the
// signal behind a stage or fork, or only what it changes. The zero value is the
// main output.
type Listening struct {
	Node   string
	Change bool // what it adds or takes away: its output less its input, at the same time
	Key    bool // what drives it
}

// listenStep puts what is listened to aside, at the level of the channel's and the
// main fader, so that nothing jumps in level.
type listenStep struct {
	from, to    pair
	stage       *stageStep // its input is taken off; nil: nothing is
	fader, main *slot
	gain        dsp.Glide
	set         bool
}

func (s *listenStep) run(_ *cursor, n int) {
	g := dsp.Gain(s.fader.base()) * dsp.Gain(s.main.base())
	if !s.set {
		s.gain.Set(g)
		s.set = true
	}
	s.gain.Aim(g, gateFrames)
	for i, l := range s.from.l[:n] {
		r := s.from.r[i]
		if s.stage != nil {
			l, r = l-s.stage.input.l[i], r-s.stage.input.r[i]
		}
		k := s.gain.Next()
		s.to.l[i], s.to.r[i] = l*k, r*k
	}
}

// listening adds the step for a node of a channel.
func (c *compiler) listening(ch *project.Channel, node *project.Node, at *gnode, buf pair) *gnode {
	to := newPair()
	c.where["listening"] = to
	if key, ok := c.where["key "+node.ID()]; ok && c.point.Key {
		at, buf = c.points["key "+node.ID()], key
	}
	n := c.g.add("listening to "+ch.Name, at)
	n.emit = func(*gnode) []step {
		main := c.doc.MainChannel()
		s := &listenStep{from: buf, to: to}
		c.last = append(c.last, func() { // the faders' steps come later
			s.fader, s.main = c.plan.slots[address{ch.ID, "fader"}], c.plan.slots[address{main.ID, "fader"}]
		})
		if node.Stage != nil && c.point.Change {
			s.stage = c.plan.stages[node.Stage.ID]
		}
		return []step{s}
	}
	c.heard = n
	return n
}
