package engine

import (
	"fmt"

	"shoal/internal/effect"
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
	kind, ok := effect.Find(s.Effect)
	if !ok {
		c.err = fmt.Errorf("there is no effect %q", s.Effect)
		return at
	}
	rate := float64(c.doc.SampleRate)
	sound, ready := c.sound(s)
	fmt.Fprintf(&c.shape, "stage %s %s %d %s %v %s %v;", s.ID, s.Effect, s.Version, s.ActsOn, s.Key, s.Sound, ready)
	values := make([]float64, len(kind.Params))
	for i := range kind.Params {
		d := &kind.Params[i]
		values[i] = valueOf(s, d)
		if d.Structural {
			fmt.Fprintf(&c.shape, "%s %g;", d.Name, values[i])
		}
	}
	n := c.g.add("stage "+s.ID, at)
	n.order = wait
	if kind.Latency != nil {
		n.latency = kind.Latency(rate, values)
	}
	var keyNode *gnode
	if s.Key != nil {
		keyNode = c.points["key "+s.ID]
		n.after = append(n.after, keyNode)
	}
	n.emit = func(n *gnode) []step {
		t := &stageStep{id: s.ID, kind: kind, proc: kind.New(rate), buf: buf, lag: n.lagIn, clock: c.clock,
			add: s.MixLaw == "add", actsOn: s.ActsOn, dry: newShift2(n.latency), dryBuf: c.tmp}
		if p, ok := t.proc.(effect.Borrower); ok {
			if first := c.rooms[kind.ID]; first != nil {
				p.Borrow(first)
			} else {
				c.rooms[kind.ID] = t.proc
			}
		}
		if p, ok := t.proc.(effect.ImpulseTaker); ok && ready {
			p.TakeImpulse(s.Sound, sound.sides)
		}
		if p, ok := t.proc.(effect.Preparer); ok {
			p.Prepare(values)
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
		t.stirred = true
		t.mix = c.slot(s.ID, "mix", param.Mix, s.Mix, n.lagIn)
		t.span.Values = make([]effect.Value, len(kind.Params))
		t.heard.Set(boolGain(!s.Bypass && !bypassed))
		if r, ok := t.proc.(effect.Reporter); ok {
			t.reporter, t.report = r, make([]float64, len(kind.Live))
		}
		c.plan.stages[s.ID] = t
		var steps []step
		if wait := n.lagIn - at.lag; wait > 0 {
			steps = append(steps, &delayStep{id: "into " + s.ID, buf: buf, shift: newShift2(wait)})
		}
		if keyNode != nil {
			t.keyBuf = c.where["key "+s.ID]
			if wait := n.lagIn - keyNode.lag; wait > 0 {
				steps = append(steps, &delayStep{id: "key of " + s.ID, buf: t.keyBuf, shift: newShift2(wait)})
			}
		}
		t.meter = c.meter(Point{Kind: "after", Owner: s.ID}, buf, t) // the stage measures as it goes
		return append(steps, t)
	}
	return n
}

func (c *compiler) fork(ch *project.Channel, f *project.Fork, bypassed bool, at *gnode, buf pair, wait []*gnode) *gnode {
	fmt.Fprintf(&c.shape, "fork %s %s;", f.ID, f.Kind)
	type branch struct {
		end *gnode
		buf pair
		id  string
	}
	var branches []branch
	for i, path := range f.Paths {
		fmt.Fprintf(&c.shape, "path %s %v;", path.ID, path.Invert)
		pb := newPair()
		kind := f.Kind
		switch f.Kind {
		case "leftright":
			kind = []string{"left", "right"}[i]
		case "midside":
			kind = []string{"mid", "side"}[i]
		}
		split := c.g.add("path "+path.Name, at)
		split.emit = func(*gnode) []step { return []step{&splitStep{from: buf, to: pb, kind: kind}} }
		end, pathWait := c.chain(ch, &path.Chain, path.Chain.Bypass, split, pb, nil)
		gain := c.g.add("path "+path.Name, end)
		gain.order = pathWait
		gain.emit = func(n *gnode) []step {
			s := &pathStep{id: path.ID, buf: pb, lag: n.lagIn, invert: path.Invert,
				level: c.slot(path.ID, "level", param.Path, path.Level, n.lagIn), pan: c.slot(path.ID, "pan", param.Pan, path.Pan, n.lagIn)}
			s.open.Set(boolGain(!path.Mute))
			s.gate.Set(1)
			c.plan.paths[path.ID] = s
			return []step{s, c.meter(Point{Kind: "path", Owner: path.ID}, pb, nil)}
		}
		branches = append(branches, branch{gain, pb, path.ID})
	}
	join := c.g.add("the join of "+f.ID, at)
	for _, b := range branches {
		join.after = append(join.after, b.end)
	}
	join.order = wait
	join.emit = func(n *gnode) []step {
		s := &joinStep{id: f.ID, buf: buf, dry: newShift2(n.lagIn - at.lag), lag: n.lagIn, add: f.MixLaw == "add",
			mix: c.slot(f.ID, "mix", param.Mix, f.Mix, n.lagIn), wet: newPair(), tmp: c.tmp}
		s.heard.Set(boolGain(!f.Bypass && !bypassed))
		for _, b := range branches {
			s.paths = append(s.paths, inflow{from: b.buf, shift: newShift2(n.lagIn - b.end.lag), name: b.id})
		}
		c.plan.joins[f.ID] = s
		return []step{s, c.meter(Point{Kind: "after", Owner: f.ID}, buf, nil)}
	}
	return join
}
