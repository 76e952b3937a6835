package engine

import (
	"encoding/json"
	"fmt"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/engine/pages"
	"shoal/internal/param"
	"shoal/internal/project"
)

// compiler carries what is known while a plan is built.
type compiler struct {
	g     graph
	old   *plan // that plays, and that this one will take over from; nil: there is none
	doc   *project.Project
	lib   *pages.Library
	clock *project.Clock
	plan  *plan
	shape strings.Builder // what is fixed of the whole document; what is of a node, the node says
	lines map[address]*project.Line
	// passing is what passages do, the later ones last
	passing []project.Span
	// followers are the levels that movers follow, by mover, and waitFor the nodes that must have run
	// before an owner's parameters are filled
	followers  map[string]*followStep
	levels     map[string]*gnode // that measure them
	treatments map[string]*project.Treatment
	waitFor    map[string][]*gnode

	bufs       map[string]pair     // channel's buffer by channel id
	input      map[string]*gnode   // channel's input sum
	points     map[string]*gnode   // the node that leaves a tap's signal in the buffer, by tap name
	where      map[string]pair     // the buffer in which a tap's signal stands then
	taps       map[string][]*tapTo // who listens, by tap name
	feeds      map[string][]feed   // what flows into a channel
	only       *capture
	point      Listening
	outs       map[string]*gnode                 // what leaves a channel
	captured   *gnode                            // what the plan gives out
	heard      *gnode                            // what a listener listens to instead of the main output
	heardPaths []heardPath                       // those of it that are paths
	tmp        pair                              // for steps that need a pair only while they run
	rooms      map[*effect.Kind]effect.Processor // a processor of each effect, in whose room the others work
	stemTaps   []*tapTo                          // the points that a pass gives out
	lanes      map[*gnode]int                    // by node; nil: there are none
	last       []func()                          // what can be tied together only when all steps are there
	err        error
}

type feed struct {
	from *gnode
	buf  pair
	name string
}

// capture names what a plan gives out: the main output, or a channel after
// its chain and before its fader.
type capture struct {
	channel string        // empty: the main output
	all     bool          // what leads nowhere runs too
	rows    []string      // these behind their faders, in place of the main output
	taps    []project.Tap // these points, in place of the main output
	time    lineTime      // of lines; nil: the song's
	apart   bool          // in lanes that can run at the same time
}

// compile builds the plan of a valid document: for a print when only is given, else
// for a listener, who may listen to one point.
func compile(doc *project.Project, lib *pages.Library, only *capture, point Listening) (*plan, error) {
	c, err := draw(doc, lib, only, point)
	if err != nil {
		return nil, err
	}
	return c.build()
}

// draw makes the graph of a plan and finds its shape; build makes what runs. Most revisions differ in values only, which the
// shape tells, and the processors of stages are nearly all of a plan's memory.
func draw(doc *project.Project, lib *pages.Library, only *capture, point Listening) (*compiler, error) {
	c := &compiler{
		doc: doc, lib: lib, clock: doc.Clock(), treatments: treatments(doc), only: only, point: point,
		lines: map[address]*project.Line{}, bufs: map[string]pair{}, input: map[string]*gnode{},
		points: map[string]*gnode{}, where: map[string]pair{}, taps: map[string][]*tapTo{}, feeds: map[string][]feed{},
		tmp: newPair(), rooms: map[*effect.Kind]effect.Processor{}, followers: map[string]*followStep{},
		levels: map[string]*gnode{}, waitFor: map[string][]*gnode{}, outs: map[string]*gnode{},
	}
	c.plan = &plan{
		doc: doc, clock: c.clock, end: songEnd(doc), twins: map[string]twin{}, slots: map[address]*slot{},
		strips: map[string]*strip{}, flows: map[string]*outflow{}, sends: map[string]*sendStep{}, stages: map[string]*stageStep{},
		trials: map[string]*trialStep{}, joins: map[string]*joinStep{}, paths: map[string]*pathStep{}, clips: map[entry]*player{}, lib: lib,
		water: map[string]string{}, printed: map[string]*printed{},
	}
	c.plan.time = c.clock
	if only != nil && only.time != nil {
		c.plan.time = only.time
		fmt.Fprintf(&c.shape, "lines from %d\n", only.time.Frame(0))
	}
	c.note(point)
	c.collectTaps()
	c.stems()
	c.collectFollowers()
	for _, ch := range doc.Channels {
		c.g.row = ch.ID
		c.channelInput(ch)
	}
	for _, ch := range doc.Channels {
		c.g.row = ch.ID
		pre, post := c.channelBody(ch, only != nil && only.channel == ch.ID)
		c.outs[ch.ID] = post
		if only != nil && only.channel == ch.ID {
			c.captured = pre
		}
	}
	main := doc.MainChannel()
	if only == nil || only.channel == "" {
		c.captured = c.outs[main.ID]
		c.plan.out = c.bufs[main.ID]
	}
	if len(c.heardPaths) > 0 {
		c.ear(c.heardPaths, "")
	}
	if c.heard != nil {
		c.captured, c.plan.out = c.heard, c.where["listening"]
	}
	if c.err != nil {
		return nil, c.err
	}
	for id, in := range c.input { // edges into sums are known only now
		for _, f := range c.feeds[id] {
			in.after = append(in.after, f.from)
		}
	}
	c.plan.shape = c.shape.String() + string(c.g.shape())
	return c, nil
}

// build makes the steps of the plan that was drawn.
func (c *compiler) build() (*plan, error) {
	captured, err := c.emit()
	if err != nil {
		return nil, err
	}
	if len(c.plan.ends) == 0 {
		c.plan.out = c.given(c.plan.out, captured)
	}
	c.plan.latency = captured.lag
	c.plan.late = late(captured)
	c.old = nil // else each plan would keep the one before it, and that one its own
	return c.plan, nil
}

// note takes down what moves parameters, and what of it and of the listener makes a plan another one.
func (c *compiler) note(point Listening) {
	doc := c.doc
	pieces := doc.TreatmentOwners()
	for _, l := range doc.Lines {
		if pieces[l.Owner] != nil {
			continue // the strips of pieces have it
		}
		c.lines[address{l.Owner, l.Name}] = l
		fmt.Fprintf(&c.shape, "line %q %q %d %x\n", l.Owner, l.Name, len(l.Points), digest(l))
	}
	c.passing = doc.Spans()
	for _, x := range doc.Passages {
		b, _ := json.Marshal(x)
		fmt.Fprintf(&c.shape, "passage %s\n", b)
	}
	for _, m := range doc.Movers {
		b, _ := json.Marshal(m)
		fmt.Fprintf(&c.shape, "mover %s\n", b)
	}
	for _, h := range doc.Handles {
		fmt.Fprintf(&c.shape, "handle %q %#v\n", h.ID, h.Targets)
	}
	fmt.Fprintf(&c.shape, "listen %#v\n", point)
	fmt.Fprintf(&c.shape, "time %d %#v %#v\n", doc.SampleRate, doc.Tempo, doc.Meter)
}

// emit puts what is wanted of the graph in order and makes its steps; with only some rows wanted, the last of
// them is what is captured.
func (c *compiler) emit() (*gnode, error) {
	captured := c.captured
	var wanted []*gnode
	if c.only != nil && !c.only.all {
		wanted = []*gnode{captured}
	}
	if c.only != nil && len(c.only.rows) > 0 {
		wanted = nil
		for _, id := range c.only.rows {
			wanted = append(wanted, c.outs[id])
		}
	}
	if len(c.stemTaps) > 0 {
		wanted = nil
		for _, t := range c.stemTaps {
			wanted = append(wanted, t.node)
		}
	}
	nodes, err := c.g.sorted(wanted...)
	if err != nil {
		return nil, err
	}
	c.alike(nodes)
	c.emitAll(nodes)
	for _, f := range c.last {
		f()
	}
	for i, n := range wanted {
		if len(c.only.rows) > 0 {
			c.plan.ends = append(c.plan.ends, rowEnd{c.given(c.bufs[c.only.rows[i]], n), n.lag})
			captured = n
		}
	}
	for i, t := range c.stemTaps {
		c.plan.ends = append(c.plan.ends, rowEnd{c.given(t.buf, t.node), t.node.lag})
		if i == 0 || t.node.lag > captured.lag {
			captured = t.node
		}
	}
	return captured, nil
}

// emitAll makes the steps of all nodes, each in its lane where there are lanes.
func (c *compiler) emitAll(nodes []*gnode) {
	if c.only != nil && c.only.apart {
		c.lanes = c.lanesOf(nodes)
	}
	rooms := make([]map[*effect.Kind]effect.Processor, len(c.plan.lanes))
	tmps := make([]pair, len(c.plan.lanes))
	for _, n := range nodes {
		var in *lane
		if at, ok := c.lanes[n]; ok { // what steps share, they share with those of their lane only
			if rooms[at] == nil {
				rooms[at], tmps[at] = map[*effect.Kind]effect.Processor{}, newPair()
			}
			in, c.rooms, c.tmp = c.plan.lanes[at], rooms[at], tmps[at]
		}
		players := len(c.plan.players)
		steps := n.emit(n)
		c.plan.steps = append(c.plan.steps, steps...)
		for _, s := range steps {
			if t, ok := s.(twin); ok {
				c.plan.twins[t.key()] = t
			}
		}
		if in != nil {
			in.steps = append(in.steps, steps...)
			in.players = append(in.players, c.plan.players[players:]...)
		}
	}
}

// given is the buffer in which whoever renders finds what a node leaves in one.
func (c *compiler) given(buf pair, at *gnode) pair {
	if lane, ok := c.lanes[at]; ok {
		return c.wire(buf, lane, -1)
	}
	return buf
}

// songEnd is where a song's last clip ends; without clips it has no end.
func songEnd(doc *project.Project) int64 {
	for _, ch := range doc.Channels {
		if len(ch.Clips) > 0 {
			return doc.End()
		}
	}
	return 0
}

func (c *compiler) slot(owner, name string, d param.Param, v float64, lag int) *slot {
	s := newSlot(owner, name, d, v)
	c.moves(s, lag)
	if l, ok := c.lines[address{owner, name}]; ok && len(l.Points) > 0 && s.hold == nil { // a handle suspends it
		s.line = newLine(l, s, c.plan.time)
		s.track = make([]float64, Block)
		c.plan.lined = append(c.plan.lined, linedSlot{s, lag})
	}
	c.spans(s, lag)
	c.plan.slots[address{owner, name}] = s
	return s
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
