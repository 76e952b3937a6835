package project

import (
	"maps"
	"slices"
)

// Makings are what the signal at a point of a channel is made from: a project in which nothing is left that has no part
// in it, and the ids of all in it whose parameters count. Where the point lies in a fork, all of that fork is taken.
type Makings struct {
	*Project
	Owners map[string]bool // channels (for fader, pan and mute), nodes, paths, sends and handles
	spans  []Span          // what passages do to them
}

// made is how much of a channel has a part in what is asked for.
type parts struct {
	input  bool // what comes into it
	nodes  int  // of its chain
	behind bool // what enters behind the chain
	strip  bool // fader, pan and mute
}

// maker finds what has a part.
type maker struct {
	p      *Project
	of     map[string]*parts // by channel
	owners map[string]bool
}

// MakingsOf finds what the signal at a point is made from; false: the point is not there.
func (p *Project) MakingsOf(at Tap) (Makings, bool) {
	m := &maker{p, map[string]*parts{}, map[string]bool{}}
	if !m.tap(&at) {
		return Makings{}, false
	}
	for m.followed() {
	}
	return m.makings(), true
}

func (m *maker) part(ch *Channel) *parts {
	x, ok := m.of[ch.ID]
	if !ok {
		x = &parts{}
		m.of[ch.ID] = x
	}
	return x
}

func (m *maker) tap(t *Tap) bool {
	ch, ok := m.p.Channel(t.Channel)
	if !ok {
		return false
	}
	switch t.Point {
	case "input":
		m.input(ch)
	case "pre":
		m.pre(ch)
	case "post":
		m.post(ch)
	default:
		return m.inChain(ch, t.Node, t.Point == "before")
	}
	return true
}

// input takes what flows into a channel.
func (m *maker) input(ch *Channel) {
	if m.part(ch).input {
		return
	}
	m.part(ch).input = true
	if ch.Input != nil {
		m.tap(ch.Input)
	}
	for _, c := range m.p.Channels {
		if c.Output == ch.ID {
			m.post(c)
		}
		for _, s := range c.Sends {
			if s.To == ch.ID {
				m.send(c, s)
			}
		}
	}
}

func (m *maker) send(ch *Channel, s *Send) {
	m.owners[s.ID] = true
	switch {
	case s.After == "input":
		m.input(ch)
	case s.After != "":
		m.inChain(ch, s.After, false)
	case s.Pre:
		m.pre(ch)
	default:
		m.post(ch)
	}
	m.owners[ch.ID] = true // its mute may close it
	m.part(ch).strip = true
}

func (m *maker) pre(ch *Channel) {
	m.part(ch).behind = true
	m.nodes(ch, len(ch.Chain.Nodes))
}

func (m *maker) post(ch *Channel) {
	m.owners[ch.ID] = true
	m.part(ch).strip = true
	m.pre(ch)
}

// inChain takes a channel's chain as far as a node or path, with all of the fork that it lies in.
func (m *maker) inChain(ch *Channel, id string, before bool) bool {
	for i, n := range ch.Chain.Nodes {
		if n.ID() == id && before {
			m.nodes(ch, i)
			return true
		}
		if n.ID() == id || n.Fork != nil && Owners([]*Node{n})[id] {
			m.nodes(ch, i+1)
			return true
		}
	}
	return false
}

// nodes takes the first nodes of a channel's chain.
func (m *maker) nodes(ch *Channel, count int) {
	m.input(ch)
	x := m.part(ch)
	if count <= x.nodes {
		return
	}
	fresh := ch.Chain.Nodes[x.nodes:count]
	x.nodes = count
	maps.Copy(m.owners, Owners(fresh))
	part := Chain{Nodes: fresh}
	part.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil && n.Stage.Key != nil {
			m.tap(n.Stage.Key)
		}
		return true
	})
}

// followed takes handles that move what has a part, and what is followed by movers of that. It reports whether there
// was anything new.
func (m *maker) followed() (more bool) {
	for _, h := range m.p.Handles {
		if !m.owners[h.ID] && slices.ContainsFunc(h.Targets, func(t HandleTarget) bool { return m.owners[t.Owner] }) {
			m.owners[h.ID], more = true, true
		}
	}
	for _, x := range m.p.Movers {
		if !m.owners[x.ID] && slices.ContainsFunc(x.Targets, func(t MoverTarget) bool { return m.owners[t.Owner] }) {
			m.owners[x.ID], more = true, true
			if x.Follows() {
				m.tap(x.Follow.Tap)
			}
		}
	}
	return more
}

// makings is the project of all that has a part.
func (m *maker) makings() Makings {
	p := m.p
	out := &Project{Version: p.Version, ID: p.ID, Name: p.Name, SampleRate: p.SampleRate, Tempo: p.Tempo, Meter: p.Meter,
		Sections: []Section{}, Channels: []*Channel{}, Lines: []*Line{}, Audio: []Audio{}}
	sounds, treatments := map[string]bool{}, map[string]bool{}
	for _, ch := range p.Channels {
		if x, ok := m.of[ch.ID]; ok {
			c := m.channel(ch, x)
			out.Channels = append(out.Channels, c)
			usedBy(c, sounds, treatments)
		}
	}
	for _, t := range p.Treatments {
		if treatments[t.ID] {
			out.Treatments = append(out.Treatments, t)
			maps.Copy(m.owners, Owners(t.Chain.Nodes))
			usedIn(&t.Chain, sounds)
		}
	}
	for _, a := range p.Audio {
		if sounds[a.Hash] {
			out.Audio = append(out.Audio, a)
		}
	}
	m.moved(out)
	made := Makings{Project: out, Owners: m.owners}
	for _, s := range p.Spans() {
		if m.owners[s.Owner] {
			made.spans = append(made.spans, s)
		}
	}
	return made
}

// channel is the part of a channel that counts.
func (m *maker) channel(ch *Channel, x *parts) *Channel {
	c := &Channel{ID: ch.ID, Kind: ch.Kind, Name: ch.Name, Stereo: ch.Stereo, Letter: ch.Letter, Trials: []*Trial{},
		Chain: Chain{Bypass: ch.Chain.Bypass, Nodes: ch.Chain.Nodes[:x.nodes:x.nodes]}, Sends: []*Send{}, Clips: []*Clip{}}
	if x.strip {
		c.Fader, c.Pan, c.Mute, c.MutePre, c.Output = ch.Fader, ch.Pan, ch.Mute, ch.MutePre, ch.Output
	}
	for _, s := range ch.Sends {
		if m.owners[s.ID] {
			c.Sends = append(c.Sends, s)
		}
	}
	if x.input {
		c.Input, c.Overlaps = ch.Input, ch.Overlaps
		c.Clips, c.WayIn = ch.Clips, ch.WayIn
		if !slices.ContainsFunc(c.Chain.Nodes, func(n *Node) bool { return n.ID() == ch.WayIn }) {
			c.WayIn, c.Clips = "", besideWayIn(ch)
		}
	}
	return c
}

// besideWayIn are a row's clips for a part of its chain that ends before the way in: what enters there enters behind that
// part.
func besideWayIn(ch *Channel) []*Clip {
	if ch.WayIn == "" {
		return ch.Clips
	}
	list := slices.Clone(ch.Clips)
	for i, x := range list {
		if x.Enters == EntersWayIn {
			y := *x
			y.Enters = EntersBehind
			list[i] = &y
		}
	}
	return list
}

// usedBy notes the sounds and treatments that a channel uses.
func usedBy(c *Channel, sounds, treatments map[string]bool) {
	for _, x := range c.Clips {
		sounds[x.Audio] = true
		treatments[x.Treatment] = true
	}
	usedIn(&c.Chain, sounds)
}

func usedIn(c *Chain, sounds map[string]bool) {
	c.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil {
			sounds[n.Stage.Sound] = true
		}
		return true
	})
}

// moved takes what moves the parameters that count.
func (m *maker) moved(out *Project) {
	p := m.p
	for _, l := range p.Lines {
		if m.owners[l.Owner] {
			out.Lines = append(out.Lines, l)
		}
	}
	for _, x := range p.Movers {
		if m.owners[x.ID] {
			y := *x
			y.Targets = slices.DeleteFunc(slices.Clone(x.Targets), func(t MoverTarget) bool { return !m.owners[t.Owner] })
			out.Movers = append(out.Movers, &y)
		}
	}
	for _, x := range p.Handles {
		if m.owners[x.ID] {
			y := *x
			y.Targets = slices.DeleteFunc(slices.Clone(x.Targets), func(t HandleTarget) bool { return !m.owners[t.Owner] })
			out.Handles = append(out.Handles, &y)
		}
	}
	for _, x := range p.Passages {
		if y := m.passage(x); y != nil {
			out.Passages = append(out.Passages, y)
		}
	}
}

// passage is the part of a passage that moves what counts; nil: none.
func (m *maker) passage(x *Passage) *Passage {
	y := *x
	y.Courses = nil
	for _, c := range x.Courses {
		d := *c
		d.Targets = slices.DeleteFunc(slices.Clone(c.Targets), func(t CourseTarget) bool { return !m.owners[t.Owner] })
		if len(d.Targets) > 0 {
			y.Courses = append(y.Courses, &d)
		}
	}
	y.Rows = slices.DeleteFunc(slices.Clone(x.Rows), func(id string) bool { return m.of[id] == nil || !m.of[id].strip })
	if len(y.Courses) == 0 && len(y.Rows) == 0 {
		return nil
	}
	return &y
}
