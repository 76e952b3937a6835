package engine

import (
	"shoal/internal/param"
	"shoal/internal/project"
)

func (c *compiler) channelInput(ch *project.Channel) {
	buf := newPair()
	c.bufs[ch.ID] = buf
	n := c.g.add("input", ch.ID, "the input of "+ch.Name)
	n.says("of a", ch.Kind, ch.Stereo)
	c.input[ch.ID] = n
	id := ch.ID
	var clips *player
	n.says("clips", enter(ch, ""))
	if enter(ch, "") { // which they are is no matter of the plan's: its list is swapped
		clips = newPlayer(c.doc, ch, "", c.treatments, c.clock, c.lib)
		c.plan.clips[entry{id, "", ""}] = clips
	}
	n.emit = func(n *gnode) []step {
		s := &sum{id: id, out: buf, clips: clips, clipIn: newShift2(n.lagIn), tmp: c.tmp}
		if clips != nil {
			c.plan.players = append(c.plan.players, clips)
		}
		for _, f := range c.feeds[id] {
			s.in = append(s.in, inflow{from: f.buf, shift: newShift2(n.lagIn - f.from.lag), name: f.name})
		}
		s.measured(c.plan)
		return append([]step{s}, c.meter(Point{Kind: "in", Owner: id}, buf, nil))
	}
}

// channelBody builds chain, strip and sends. pre is the node after the chain,
// post the one after the fader.
func (c *compiler) channelBody(ch *project.Channel, captured bool) (pre, post *gnode) {
	buf := c.bufs[ch.ID]
	at := c.input[ch.ID]
	wait := append(c.tapped("input "+ch.ID, at, buf), c.sendsAfter(ch, "input", at, buf)...)
	if ch.ID == c.point.Node && c.only == nil { // the row without its chain
		wait = append(wait, c.ear([]heardPath{{at, buf, ch}}, ""))
	}
	if len(ch.Trials) > 0 && c.only == nil {
		wait = append(wait, c.enterTrials(ch, at, buf)...)
	}
	at, buf, wait = c.aboveWater(ch, at, buf, wait)
	if len(ch.Trials) > 0 && c.only == nil {
		at, wait = c.trials(ch, at, buf, wait)
	}
	if enter(ch, project.EntersBehind) {
		at, wait = c.enters(ch, project.EntersBehind, "", at, buf, wait), nil
	}
	pre = at
	wait = append(wait, c.tapped("pre "+ch.ID, at, buf)...)
	if captured {
		hold := newPair()
		keep := c.g.add("print", ch.ID, "the print of "+ch.Name, at)
		keep.emit = func(*gnode) []step { return []step{&copyStep{id: "print", from: buf, to: hold, shift: newShift2(0)}} }
		c.plan.out = hold
		pre = keep
	}
	for _, s := range ch.Sends {
		if s.Pre && s.After == "" {
			wait = append(wait, c.send(ch, s, at, buf))
		}
	}
	strp := c.g.add("fader", ch.ID, "the fader of "+ch.Name, at)
	strp.order = append(wait, c.waitFor[ch.ID]...)
	strp.emit = func(n *gnode) []step {
		s := &strip{id: ch.ID, buf: buf, stereo: ch.Stereo, lag: n.lagIn,
			fader: c.slot(ch.ID, "fader", param.Fader, ch.Fader, n.lagIn), pan: c.slot(ch.ID, "pan", param.Pan, ch.Pan, n.lagIn)}
		s.open = c.gate(ch.ID, param.Mute, ch.Mute, n.lagIn)
		c.plan.strips[ch.ID] = s
		return []step{s}
	}
	wait = c.tapped("post "+ch.ID, strp, buf)
	for _, s := range ch.Sends {
		if !s.Pre && s.After == "" {
			wait = append(wait, c.send(ch, s, strp, buf))
		}
	}
	flow := c.g.add("output", ch.ID, "the output of "+ch.Name, strp)
	flow.order = wait
	flow.emit = func(n *gnode) []step {
		f := &outflow{id: ch.ID, buf: buf}
		f.gate.Set(1)
		c.plan.flows[ch.ID] = f
		return append([]step{f, c.meter(Point{Kind: "post", Owner: ch.ID}, buf, nil)}, c.passageEnds(ch.ID, buf, n.lag)...)
	}
	if ch.Output != "" {
		c.feeds[ch.Output] = append(c.feeds[ch.Output], feed{flow, buf, ch.ID})
	}
	return pre, flow
}

func (c *compiler) send(ch *project.Channel, s *project.Send, at *gnode, buf pair) *gnode {
	to := newPair()
	n := c.g.add("send", s.ID, "a send of "+ch.Name, at)
	n.order = c.waitFor[s.ID]
	n.emit = func(n *gnode) []step {
		t := &sendStep{id: s.ID, channel: ch.ID, target: s.To, from: buf, to: to, lag: n.lagIn,
			level: c.slot(s.ID, "level", param.Send, s.Level, n.lagIn), pan: c.slot(s.ID, "pan", param.Pan, s.Pan, n.lagIn)}
		t.open = c.gate(s.ID, param.Mute, !project.SendOpen(ch, s), n.lagIn)
		t.gate.Set(1)
		c.plan.sends[s.ID] = t
		return []step{t, c.meter(Point{Kind: "send", Owner: s.ID}, to, nil)}
	}
	c.feeds[s.To] = append(c.feeds[s.To], feed{n, to, s.ID})
	return n
}
