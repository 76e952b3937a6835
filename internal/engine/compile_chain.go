package engine

import (
	"fmt"

	"shoal/internal/effect"
	"shoal/internal/engine/pages"
	"shoal/internal/param"
	"shoal/internal/project"
)

// sendsAfter builds the sends that are taken behind a node.
func (c *compiler) sendsAfter(ch *project.Channel, node string, at *gnode, buf pair) (wait []*gnode) {
	for _, s := range ch.Sends {
		if s.After == node {
			wait = append(wait, c.send(ch, s, at, buf))
		}
	}
	return wait
}

// chain builds the nodes of a chain in a buffer. wait are nodes that must run
// before the buffer is written again.
func (c *compiler) chain(ch *project.Channel, chain *project.Chain, bypassed bool, at *gnode, buf pair, wait []*gnode) (*gnode, []*gnode) {
	for _, n := range chain.Nodes {
		if n.Stage != nil {
			wait = append(wait, c.tapped("before "+n.Stage.ID, at, buf)...)
			at = c.stage(n.Stage, bypassed, at, buf, wait)
		} else {
			wait = append(wait, c.tapped("before "+n.Fork.ID, at, buf)...)
			at = c.fork(ch, n.Fork, bypassed, at, buf, wait)
		}
		if n.ID() == ch.WayIn && enter(ch, project.EntersWayIn) {
			at = c.enters(ch, project.EntersWayIn, "", at, buf, nil)
		}
		wait = append(c.tapped("after "+n.ID(), at, buf), c.sendsAfter(ch, n.ID(), at, buf)...)
		if n.ID() == c.point.Node && c.only == nil {
			wait = append(wait, c.listening(ch, n, at, buf))
		}
	}
	return at, wait
}

func valueOf(s *project.Stage, d *param.Param) float64 {
	if v, ok := s.Params[d.Name]; ok {
		return v
	}
	return d.Default
}

func (c *compiler) stage(s *project.Stage, bypassed bool, at *gnode, buf pair, wait []*gnode) *gnode {
	kind, ok := effect.Of(s.Effect, s.Version)
	if !ok {
		c.err = fmt.Errorf("there is no effect %q of version %d", s.Effect, s.Version)
		return at
	}
	rate := float64(c.doc.SampleRate)
	sound, ready := c.sound(s)
	n := c.g.add("stage", s.ID, "stage "+s.ID, at)
	n.says("is", s.Effect, s.Version, s.ActsOn, s.Sound, ready)
	values := make([]float64, len(kind.Params))
	for i := range kind.Params {
		d := &kind.Params[i]
		values[i] = valueOf(s, d)
		if d.Structural {
			n.says(d.Name, values[i])
		}
	}
	n.order = append(wait, c.waitFor[s.ID]...)
	if kind.Latency != nil {
		n.latency = kind.Latency(rate, values)
	}
	var keyNode *gnode
	if s.Key != nil {
		keyNode, n.keyed = c.points["key "+s.ID], s.ID
		n.after = append(n.after, keyNode)
	}
	c.noteOut(s.ID, bypassed)
	n.emit = func(n *gnode) []step {
		t := &stageStep{id: s.ID, kind: kind, buf: buf, lag: n.lagIn, clock: c.clock,
			add: s.MixLaw == "add", actsOn: s.ActsOn, dryBuf: c.tmp}
		if lead := c.lead(n, s.ID); lead != nil {
			lead.handOver(t)
		} else {
			t.proc, t.dry = kind.New(rate), newShift2(n.latency)
			if !ready {
				sound = nil
			}
			c.furnish(t, s, sound, values)
		}
		t.ringOut, t.listened = s.RingOut, s.ID == c.point.Node && c.point.Change
		if t.listened {
			t.input = newPair()
		}
		t.tail = tailFrames(kind, values, c.clock.Tempo(0), rate)
		for i := range kind.Params {
			p := c.slot(s.ID, kind.Params[i].Name, kind.Params[i], values[i], n.lagIn)
			p.stirred = &t.stirred
			t.slots = append(t.slots, p)
		}
		t.stirred, t.moving = true, make([]int, 0, len(kind.Params))
		t.mix = c.slot(s.ID, "mix", param.Mix, s.Mix, n.lagIn)
		t.span.Values = make([]effect.Value, len(kind.Params))
		t.values, t.rate, t.rest.silent = make([]float64, len(kind.Params)), rate, forever
		t.heard = c.bypass(s.ID, s.Bypass, bypassed, n.lagIn)
		if r, ok := t.proc.(effect.Reporter); ok {
			t.reporter, t.report = r, make([]float64, len(kind.Live))
		}
		c.plan.stages[s.ID] = t
		var steps []step
		if wait := n.lagIn - at.lag; wait > 0 {
			steps = append(steps, &delayStep{id: "into " + s.ID, buf: buf, shift: newShift2(wait)})
		}
		if keyNode != nil {
			t.keyBuf, t.span.Steered = c.where["key "+s.ID], s.Steered
			if wait := n.lagIn - keyNode.lag; wait > 0 {
				steps = append(steps, &delayStep{id: "key of " + s.ID, buf: t.keyBuf, shift: newShift2(wait)})
			}
		}
		t.meter = c.meter(Point{Kind: "after", Owner: s.ID}, buf, t) // the stage measures as it goes
		return append(steps, t)
	}
	return n
}

// furnish gives a new processor what it needs before it is run: room, an impulse response if there is one, and its values.
func (c *compiler) furnish(t *stageStep, s *project.Stage, sound *pages.Sound, values []float64) {
	if p, ok := t.proc.(effect.Borrower); ok {
		if first := c.rooms[t.kind]; first != nil {
			p.Borrow(first)
		} else {
			c.rooms[t.kind] = t.proc
		}
	}
	if p, ok := t.proc.(effect.ImpulseTaker); ok && sound != nil {
		p.TakeImpulse(s.Sound, sound.Sides)
	}
	if p, ok := t.proc.(effect.Preparer); ok {
		p.Prepare(values)
	}
}

// noteOut takes down whether a line that moves the bypass of a stage or fork counts: in a chain that is out it does not, and
// that makes another plan.
func (c *compiler) noteOut(owner string, chain bool) {
	if _, ok := c.lines[address{owner, param.Bypass.Name}]; ok || c.passes(owner, param.Bypass.Name) {
		fmt.Fprintf(&c.shape, "out %q %v\n", owner, chain)
	}
}

// bypass is the gate of a stage or fork: a line of its own moves it, unless its whole chain is out.
func (c *compiler) bypass(owner string, own, chain bool, lag int) gate {
	if chain {
		g := gate{}
		g.Set(0)
		return g
	}
	return c.gate(owner, param.Bypass, own, lag)
}
