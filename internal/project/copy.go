package project

import (
	"maps"
	"slices"
)

// copy is a copy that can be changed without touching the document. What changes give anew and never alter where it is
// is shared: points of lines and of swells, of which there may be very many. What there is much of is copied by hand.
func (p *Project) copy() *Project {
	bare := *p
	bare.Lines, bare.Channels, bare.Treatments, bare.Audio, bare.Takes = nil, nil, nil, nil, nil
	next := Clone(&bare)
	next.Takes = copyTakes(p.Takes)
	next.Audio = slices.Clone(p.Audio)
	next.Lines = make([]*Line, len(p.Lines))
	for i, l := range p.Lines {
		c := *l
		next.Lines[i] = &c
	}
	next.Channels = make([]*Channel, len(p.Channels))
	for i, c := range p.Channels {
		next.Channels[i] = c.copy()
	}
	if p.Treatments != nil {
		next.Treatments = make([]*Treatment, len(p.Treatments))
		for i, t := range p.Treatments {
			next.Treatments[i] = &Treatment{ID: t.ID, Name: t.Name, Chain: t.Chain.copy()}
		}
	}
	return next
}

func (c *Channel) copy() *Channel {
	n := *c
	n.Chain = c.Chain.copy()
	n.Trials = copyEach(c.Trials, func(t Trial) *Trial {
		t.Chain = t.Chain.copy()
		return &t
	})
	n.Input = copyOf(c.Input)
	n.Sends = copyEach(c.Sends, func(s Send) *Send { return &s })
	n.Clips = copyEach(c.Clips, func(x Clip) *Clip { return &x })
	n.PrintOf = copyOf(c.PrintOf)
	n.Hand = copyOf(c.Hand)
	return &n
}

func (c *Chain) copy() Chain {
	return Chain{Bypass: c.Bypass, Nodes: copyEach(c.Nodes, func(n Node) *Node {
		return &Node{Stage: n.Stage.copy(), Fork: n.Fork.copy()}
	})}
}

func (s *Stage) copy() *Stage {
	n := copyOf(s)
	if n != nil {
		n.Params, n.Key = maps.Clone(s.Params), copyOf(s.Key)
	}
	return n
}

func (f *Fork) copy() *Fork {
	n := copyOf(f)
	if n != nil {
		n.Crossovers = slices.Clone(f.Crossovers)
		n.Paths = copyEach(f.Paths, func(p Path) *Path {
			p.Chain = p.Chain.copy()
			return &p
		})
	}
	return n
}

func copyOf[T any](v *T) *T {
	if v == nil {
		return nil
	}
	n := *v
	return &n
}

// copyEach copies a list and each of its elements; no list stays none.
func copyEach[T any](list []*T, one func(T) *T) []*T {
	if list == nil {
		return nil
	}
	out := make([]*T, len(list))
	for i, v := range list {
		out[i] = one(*v)
	}
	return out
}
