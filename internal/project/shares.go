package project

import "slices"

// Shares returns a document in which what some rows give to the sound is told apart: each row of rows, a track or a
// group, has a group of its own that takes in the row's output and all that the returns make of what the row, and the
// rows within it, send to them. For that each return that feeds main is there once more for each of them. What turns
// the level by what it hears (a compressor, a gate) is steered there by what comes into the return itself, from all
// rows, so that the shares sum to what the return gives; what does not sum by its nature, such as saturation, does not.
// The groups, by row, lead nowhere: they are to be tapped. The document is for rendering, and not valid for more.
func (p *Project) Shares(rows []string, effects Effects) (*Project, map[string]string) {
	out := Clone(p)
	groups := map[string]string{}
	for _, id := range rows {
		group := NewChannel(Group, id, "")
		group.Input = &Tap{Channel: id, Point: "post"}
		s := sharing{p: out, effects: effects, group: group.ID, within: out.comingTo(id),
			copies: map[string]*Channel{}, fresh: map[string]string{}}
		for _, ch := range slices.Clone(out.Channels) {
			if s.within[ch.ID] {
				s.sends(ch, ch)
			}
		}
		out.Channels = append(out.Channels, group)
		out.moveCopies(s.fresh)
		groups[id] = group.ID
	}
	return out, groups
}

// sharing is the work on one row.
type sharing struct {
	p       *Project
	effects Effects
	group   string
	within  map[string]bool // the rows whose signal it is
	copies  map[string]*Channel
	fresh   map[string]string // old ids with those of their copies
}

// sends lets each send of a row lead to the copy of its return too; a row that is itself a copy lets the others go.
func (s *sharing) sends(of, to *Channel) {
	list := slices.Clone(of.Sends)
	if to != of {
		to.Sends = nil
	}
	for _, x := range list {
		c := s.copyOf(x.To)
		if c == nil {
			continue
		}
		n := *x
		n.ID, n.To = NewID(), c.ID
		if to != of {
			if id, ok := s.fresh[n.After]; ok {
				n.After = id
			}
		}
		s.fresh[x.ID] = n.ID
		to.Sends = append(to.Sends, &n)
	}
}

// copyOf is this row's copy of a return that feeds main, nil for any other: what a return gives to a group, the group
// gives on.
func (s *sharing) copyOf(id string) *Channel {
	if c, ok := s.copies[id]; ok {
		return c
	}
	r, ok := s.p.Channel(id)
	if !ok || r.Kind != Return || r.Output != s.p.MainChannel().ID {
		return nil
	}
	c := Clone(r)
	c.Output, c.Waterline, c.Input, c.Trials = s.group, "", nil, nil
	for old, id := range freshIDs(c) {
		s.fresh[old] = id
	}
	s.steer(r, c)
	s.copies[id] = c
	s.p.Channels = append(s.p.Channels, c)
	s.sends(r, c)
	return c
}

// steer gives each stage of a copy the key of its original; where that listens to itself, what comes into it.
func (s *sharing) steer(r, c *Channel) {
	var stages []*Stage
	r.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil {
			stages = append(stages, n.Stage)
		}
		return true
	})
	copies := map[string]*Stage{}
	c.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil {
			copies[n.Stage.ID] = n.Stage
		}
		return true
	})
	for _, st := range stages {
		n := copies[s.fresh[st.ID]]
		if n == nil { // of a trial
			continue
		}
		if n.Key = st.Key; n.Key == nil && s.keyed(st) {
			n.Key, n.Steered = &Tap{Channel: r.ID, Point: "before", Node: st.ID}, true
		}
	}
}

func (s *sharing) keyed(st *Stage) bool {
	info, ok := s.effects(st.Effect, st.Version)
	return ok && info.Keyed
}

// comingTo are a row and all that come to it by their outputs.
func (p *Project) comingTo(id string) map[string]bool {
	in := map[string]bool{id: true}
	for again := true; again; {
		again = false
		for _, ch := range p.Channels {
			if !in[ch.ID] && in[ch.Output] {
				in[ch.ID], again = true, true
			}
		}
	}
	return in
}
