package engine

import (
	"fmt"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

// compiler carries what is known while a plan is built.
type compiler struct {
	g     graph
	doc   *project.Project
	lib   *Library
	clock *project.Clock
	plan  *plan
	shape strings.Builder
	lines map[address]*project.Line

	bufs   map[string]pair     // channel's buffer by channel id
	input  map[string]*gnode   // channel's input sum
	points map[string]*gnode   // the node that leaves a tap's signal in the buffer, by tap name
	where  map[string]pair     // the buffer in which a tap's signal stands then
	taps   map[string][]*tapTo // who listens, by tap name
	feeds  map[string][]feed   // what flows into a channel
	only   *capture
	point  Listening
	heard  *gnode                      // what a listener listens to instead of the main output
	tmp    pair                        // for steps that need a pair only while they run
	rooms  map[string]effect.Processor // a processor of each effect, in whose room the others work
	last   []func()                    // what can be tied together only when all steps are there
	err    error
}

type tapTo struct {
	node *gnode
	buf  pair
}

type feed struct {
	from *gnode
	buf  pair
	name string
}

// capture names what a plan gives out: the main output, or a channel after
// its chain and before its fader.
type capture struct {
	channel string // empty: the main output
	all     bool   // what leads nowhere runs too
}

// compile builds the plan of a valid document: for a print when only is given, else
// for a listener, who may listen to one point.
func compile(doc *project.Project, lib *Library, only *capture, point Listening) (*plan, error) {
	c := &compiler{
		doc: doc, lib: lib, clock: doc.Clock(), only: only, point: point,
		lines: map[address]*project.Line{}, bufs: map[string]pair{}, input: map[string]*gnode{},
		points: map[string]*gnode{}, where: map[string]pair{}, taps: map[string][]*tapTo{}, feeds: map[string][]feed{},
		tmp: newPair(), rooms: map[string]effect.Processor{},
	}
	c.plan = &plan{doc: doc, clock: c.clock, twins: map[string]twin{}, slots: map[address]*slot{}, strips: map[string]*strip{}, flows: map[string]*outflow{},
		sends: map[string]*sendStep{}, stages: map[string]*stageStep{}, trials: map[string]*trialStep{}, joins: map[string]*joinStep{}, paths: map[string]*pathStep{}}
	for _, l := range doc.Lines {
		c.lines[address{l.Owner, l.Name}] = l
		fmt.Fprintf(&c.shape, "line %v;", *l)
	}
	fmt.Fprintf(&c.shape, "listen %v;", point)
	fmt.Fprintf(&c.shape, "time %d %v %v;", doc.SampleRate, doc.Tempo, doc.Meter)
	c.collectTaps()
	for _, ch := range doc.Channels {
		c.channelInput(ch)
	}
	outs := map[string]*gnode{}
	var captured *gnode
	for _, ch := range doc.Channels {
		pre, post := c.channelBody(ch, only != nil && only.channel == ch.ID)
		outs[ch.ID] = post
		if only != nil && only.channel == ch.ID {
			captured = pre
		}
	}
	main := doc.MainChannel()
	if only == nil || only.channel == "" {
		captured = outs[main.ID]
		c.plan.out = c.bufs[main.ID]
	}
	if c.heard != nil {
		captured, c.plan.out = c.heard, c.where["listening"]
	}
	if c.err != nil {
		return nil, c.err
	}
	for id, in := range c.input { // edges into sums are known only now
		for _, f := range c.feeds[id] {
			in.after = append(in.after, f.from)
		}
	}
	var wanted []*gnode
	if only != nil && !only.all {
		wanted = []*gnode{captured}
	}
	nodes, err := c.g.sorted(wanted...)
	if err != nil {
		return nil, err
	}
	for _, n := range nodes {
		for _, s := range n.emit(n) {
			c.plan.steps = append(c.plan.steps, s)
			if t, ok := s.(twin); ok {
				c.plan.twins[t.key()] = t
			}
		}
	}
	for _, f := range c.last {
		f()
	}
	c.plan.latency = captured.lag
	c.plan.late = late(captured)
	c.plan.shape = c.shape.String()
	return c.plan, nil
}

func tapName(t *project.Tap) string {
	switch t.Point {
	case "before", "after":
		return t.Point + " " + t.Node
	}
	return t.Point + " " + t.Channel
}

// collectTaps notes every key and every input from a tap before chains are built, so that
// each point knows who listens to it.
func (c *compiler) collectTaps() {
	for _, ch := range c.doc.Channels {
		if ch.Input != nil {
			t := c.tap("input of "+ch.ID, ch.Input)
			c.feeds[ch.ID] = append(c.feeds[ch.ID], feed{t.node, t.buf, "tap"})
			fmt.Fprintf(&c.shape, "tap %s %v;", ch.ID, *ch.Input)
		}
		ch.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil && n.Stage.Key != nil {
				t := c.tap("key of "+n.Stage.ID, n.Stage.Key)
				c.where["key "+n.Stage.ID] = t.buf
				c.points["key "+n.Stage.ID] = t.node
			}
			return true
		})
	}
}

func (c *compiler) tap(name string, at *project.Tap) *tapTo {
	t := &tapTo{c.g.add(name), newPair()}
	c.taps[tapName(at)] = append(c.taps[tapName(at)], t)
	return t
}

// tapped lets the listeners of a point copy it there, and returns the nodes
// that must have run before the buffer is written again.
func (c *compiler) tapped(name string, at *gnode, buf pair) []*gnode {
	var wait []*gnode
	for i, t := range c.taps[name] {
		t.node.after = []*gnode{at}
		id := fmt.Sprintf("%s/%d", name, i)
		to := t.buf
		t.node.emit = func(*gnode) []step {
			return []step{&copyStep{id: id, from: buf, to: to, shift: newShift2(0)}}
		}
		wait = append(wait, t.node)
	}
	return wait
}

func (c *compiler) slot(owner, name string, d param.Param, v float64, lag int) *slot {
	s := newSlot(owner, name, d, v)
	if l, ok := c.lines[address{owner, name}]; ok && len(l.Points) > 0 {
		s.line = newLine(l, s, c.clock)
		s.track = make([]float64, Block)
		c.plan.lined = append(c.plan.lined, linedSlot{s, lag})
	}
	c.plan.slots[address{owner, name}] = s
	return s
}

func (c *compiler) channelInput(ch *project.Channel) {
	fmt.Fprintf(&c.shape, "channel %s %s %v %s;", ch.ID, ch.Kind, ch.Stereo, ch.Output)
	buf := newPair()
	c.bufs[ch.ID] = buf
	n := c.g.add("the input of " + ch.Name)
	c.input[ch.ID] = n
	for _, x := range ch.Clips {
		fmt.Fprintf(&c.shape, "clip %v;", *x)
	}
	id := ch.ID
	var clips *player
	if len(ch.Clips) > 0 {
		clips = newPlayer(c.doc, ch, c.clock, c.lib)
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

func (c *compiler) meter(p Point, buf pair, reporting *stageStep) *meter {
	m := &meter{buf: buf, power: &c.plan.power}
	p.Report = -1
	if reporting != nil && reporting.reporter != nil {
		p.Report = 0
		for _, r := range c.plan.reports {
			p.Report += len(r.report)
		}
		c.plan.reports = append(c.plan.reports, reporting)
	}
	c.plan.points = append(c.plan.points, p)
	c.plan.meters = append(c.plan.meters, m)
	return m
}

// channelBody builds chain, strip and sends. pre is the node after the chain,
// post the one after the fader.
func (c *compiler) channelBody(ch *project.Channel, captured bool) (pre, post *gnode) {
	buf := c.bufs[ch.ID]
	at := c.input[ch.ID]
	wait := append(c.tapped("input "+ch.ID, at, buf), c.sendsAfter(ch, "input", at, buf)...)
	if len(ch.Trials) > 0 && c.only == nil {
		wait = append(wait, c.enterTrials(ch, at, buf)...)
	}
	at, wait = c.chain(ch, &ch.Chain, ch.Chain.Bypass, at, buf, wait)
	if len(ch.Trials) > 0 && c.only == nil {
		at, wait = c.trials(ch, at, buf, wait)
	}
	pre = at
	wait = append(wait, c.tapped("pre "+ch.ID, at, buf)...)
	if captured {
		hold := newPair()
		keep := c.g.add("the print of "+ch.Name, at)
		keep.emit = func(*gnode) []step { return []step{&copyStep{id: "print", from: buf, to: hold, shift: newShift2(0)}} }
		c.plan.out = hold
		pre = keep
	}
	for _, s := range ch.Sends {
		if s.Pre && s.After == "" {
			wait = append(wait, c.send(ch, s, at, buf))
		}
	}
	strp := c.g.add("the fader of "+ch.Name, at)
	strp.order = wait
	strp.emit = func(n *gnode) []step {
		s := &strip{id: ch.ID, buf: buf, stereo: ch.Stereo, lag: n.lagIn,
			fader: c.slot(ch.ID, "fader", param.Fader, ch.Fader, n.lagIn), pan: c.slot(ch.ID, "pan", param.Pan, ch.Pan, n.lagIn)}
		s.open.Set(boolGain(!ch.Mute))
		c.plan.strips[ch.ID] = s
		return []step{s}
	}
	wait = c.tapped("post "+ch.ID, strp, buf)
	for _, s := range ch.Sends {
		if !s.Pre && s.After == "" {
			wait = append(wait, c.send(ch, s, strp, buf))
		}
	}
	flow := c.g.add("the output of "+ch.Name, strp)
	flow.order = wait
	flow.emit = func(*gnode) []step {
		f := &outflow{id: ch.ID, buf: buf}
		f.gate.Set(1)
		c.plan.flows[ch.ID] = f
		return []step{f, c.meter(Point{Kind: "post", Owner: ch.ID}, buf, nil)}
	}
	if ch.Output != "" {
		c.feeds[ch.Output] = append(c.feeds[ch.Output], feed{flow, buf, ch.ID})
	}
	return pre, flow
}

func (c *compiler) send(ch *project.Channel, s *project.Send, at *gnode, buf pair) *gnode {
	fmt.Fprintf(&c.shape, "send %s %s %v %s;", s.ID, s.To, s.Pre, s.After)
	to := newPair()
	n := c.g.add("a send of "+ch.Name, at)
	n.emit = func(n *gnode) []step {
		t := &sendStep{id: s.ID, channel: ch.ID, target: s.To, from: buf, to: to, lag: n.lagIn,
			level: c.slot(s.ID, "level", param.Send, s.Level, n.lagIn), pan: c.slot(s.ID, "pan", param.Pan, s.Pan, n.lagIn)}
		t.open.Set(boolGain(sendOpen(ch, s)))
		t.gate.Set(1)
		c.plan.sends[s.ID] = t
		return []step{t, c.meter(Point{Kind: "send", Owner: s.ID}, to, nil)}
	}
	c.feeds[s.To] = append(c.feeds[s.To], feed{n, to, s.ID})
	return n
}

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
