package project

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"slices"
)

// Key tells makings from all others from which another signal would come: names, tints and what else is for people only
// are no part of it, nor is the tempo where nothing is counted in notes or ticks.
func (m Makings) Key(effects Effects) string {
	q := m.bare(effects)
	q.ID, q.Passages = "", nil
	spans := slices.Clone(m.spans)
	for i := range spans {
		spans[i].Passage = ""
	}
	b, err := json.Marshal(struct {
		Project *Project
		Spans   []Span
	}{q, spans})
	if err != nil {
		panic(err) // plain data always marshals
	}
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:])
}

// bare is a project of what is heard of makings, and nothing that is for people only.
func (m Makings) bare(effects Effects) *Project {
	q := *m.Project
	q.Name = ""
	if !m.timed(effects) {
		q.Tempo, q.Meter = nil, nil
	}
	q.Channels = make([]*Channel, len(m.Channels))
	for i, c := range m.Channels {
		d := *c
		d.Name, d.Chain, d.Clips = "", bareChain(c.Chain), make([]*Clip, len(c.Clips))
		for k, x := range c.Clips {
			y := *x
			y.Name, y.Tint, y.Made, y.Take = "", 0, nil, ""
			d.Clips[k] = &y
		}
		q.Channels[i] = &d
	}
	q.Treatments = make([]*Treatment, len(m.Treatments))
	for i, t := range m.Treatments {
		q.Treatments[i] = &Treatment{ID: t.ID, Chain: bareChain(t.Chain)}
	}
	q.Audio = slices.Clone(m.Audio)
	for i := range q.Audio {
		q.Audio[i].Name = ""
	}
	q.Movers, q.Handles = bareMovers(m.Movers), bareHandles(m.Handles)
	q.Passages = make([]*Passage, len(m.Passages))
	for i, x := range m.Passages {
		y := *x
		y.Name, y.Kind, y.Brought = "", "", nil
		q.Passages[i] = &y
	}
	return &q
}

// timed reports whether anything of it is counted in notes or ticks.
func (m Makings) timed(effects Effects) bool {
	if len(m.Lines) > 0 || len(m.Movers) > 0 || len(m.Treatments) > 0 {
		return true
	}
	timed := false
	for _, c := range m.Channels {
		timed = timed || slices.ContainsFunc(c.Clips, func(x *Clip) bool { return x.Follows })
		c.Chain.Walk(func(_ *Chain, _ int, n *Node) bool {
			if n.Stage == nil {
				return true
			}
			info, ok := effects(n.Stage.Effect, n.Stage.Version)
			timed = timed || !ok || info.InNotes
			return true
		})
	}
	return timed
}

func bareChain(c Chain) Chain {
	nodes := make([]*Node, len(c.Nodes))
	for i, n := range c.Nodes {
		if n.Stage != nil {
			s := *n.Stage
			s.Name, s.MixLock = "", false
			nodes[i] = &Node{Stage: &s}
			continue
		}
		f := *n.Fork
		f.Name, f.Paths = "", make([]*Path, len(n.Fork.Paths))
		for k, path := range n.Fork.Paths {
			y := *path
			y.Name, y.Chain = "", bareChain(path.Chain)
			f.Paths[k] = &y
		}
		nodes[i] = &Node{Fork: &f}
	}
	return Chain{Bypass: c.Bypass, Nodes: nodes}
}

func bareMovers(list []*Mover) []*Mover {
	out := make([]*Mover, len(list))
	for i, x := range list {
		y := *x
		y.Name = ""
		out[i] = &y
	}
	return out
}

func bareHandles(list []*Handle) []*Handle {
	out := make([]*Handle, len(list))
	for i, x := range list {
		y := *x
		y.Name, y.Home, y.Shown = "", "", false
		out[i] = &y
	}
	return out
}
