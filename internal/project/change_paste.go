package project

import "fmt"

// PasteNodes puts copies of nodes into a chain, from this project or another. They
// get new ids; keys that listened to something among them follow, others that are not
// in this project are let go.
type PasteNodes struct {
	Owner string  `json:"owner"`
	Index int     `json:"index"`
	Nodes []*Node `json:"nodes"`
}

func (c *PasteNodes) apply(p *Project, effects Effects) ([]Change, error) {
	at, chain, ok := p.findChain(c.Owner)
	if !ok {
		return nil, Gone("the chain")
	}
	if len(c.Nodes) == 0 {
		return nil, fmt.Errorf("there is nothing to paste")
	}
	nodes, _, err := p.freshNodes(at.ID, c.Nodes, effects)
	if err != nil {
		return nil, err
	}
	var undo []Change
	for i, n := range nodes {
		chain.Nodes = insert(chain.Nodes, c.Index+i, n)
		undo = append(undo, &RemoveNode{n.ID()})
	}
	return undo, nil
}

// freshNodes copies nodes for a channel, with new ids and what is missing filled in. It gives the new id
// of everything on them by the old one.
func (p *Project) freshNodes(channel string, nodes []*Node, effects Effects) ([]*Node, map[string]string, error) {
	holder := &Channel{ID: channel, Chain: Chain{Nodes: nodes}}
	if err := noHoles(&holder.Chain, 0); err != nil {
		return nil, nil, err
	}
	holder = Clone(holder)
	fresh := freshIDs(holder)
	delete(fresh, channel)
	inside := map[string]bool{}
	for _, id := range fresh {
		inside[id] = true
	}
	holder.Walk(func(_ *Chain, _ int, n *Node) bool {
		s := n.Stage
		if s == nil {
			return true
		}
		if s.Params == nil {
			s.Params = map[string]float64{}
		}
		if info, ok := effects(s.Effect, 0); ok && s.Version == 0 {
			s.Version = info.Version
		}
		if _, ok := p.AudioByHash(s.Sound); !ok {
			s.Sound = ""
		}
		if k := s.Key; k != nil {
			if inside[k.Node] {
				k.Channel = channel
			} else if p.checkTap(k) != nil {
				s.Key = nil
			}
		}
		return true
	})
	return holder.Chain.Nodes, fresh, nil
}

// PutChain replaces all that stands in a chain, as a preset does. Lines of what goes
// away go with it; the waterline is taken away. With Keep the nodes are put as they
// are, ids and all, which is how it is undone.
type PutChain struct {
	Owner  string  `json:"owner"`
	Bypass bool    `json:"bypass"`
	Nodes  []*Node `json:"nodes"`
	Moves  *Moves  `json:"moves,omitempty"` // what moves the nodes where they come from
	Keep   bool    `json:"keep,omitempty"`
}

func (c *PutChain) apply(p *Project, effects Effects) ([]Change, error) {
	ch, chain, ok := p.findChain(c.Owner)
	if !ok {
		return nil, Gone("the chain")
	}
	undo := []Change{&PutChain{Owner: c.Owner, Bypass: chain.Bypass, Nodes: chain.Nodes, Keep: true}}
	old := map[string]bool{}
	for _, n := range chain.Nodes {
		nodeIDs(n, old)
	}
	staying := map[string]bool{}
	if err := noHoles(&Chain{Nodes: c.Nodes}, 0); err != nil {
		return nil, err
	}
	for _, n := range c.Nodes {
		if c.Keep {
			nodeIDs(n, staying)
		}
	}
	leaving := map[string]bool{}
	for id := range old {
		if !staying[id] {
			leaving[id] = true
		}
	}
	undo = append(undo, p.dropLines(leaving)...)
	undo = append(
		undo,
		p.retap(func(t *Tap) bool { return leaving[t.Node] }, func(t Tap) *Tap { return &Tap{Channel: t.Channel, Point: "input"} })...)
	for _, x := range p.Channels {
		undo = append(undo, resend(x, leaving, &Tap{Channel: x.ID, Point: "input"})...)
	}
	if leaving[ch.Waterline] {
		w := ch.Waterline
		undo = append(undo, &SetChannel{ID: ch.ID, Waterline: &w})
		ch.Waterline = ""
	}
	nodes, fresh := Clone(c.Nodes), map[string]string{}
	if !c.Keep {
		var err error
		if nodes, fresh, err = p.freshNodes(ch.ID, c.Nodes, effects); err != nil {
			return nil, err
		}
	}
	if nodes == nil {
		nodes = []*Node{}
	}
	chain.Nodes, chain.Bypass = nodes, c.Bypass
	return append(p.putMoves(c.Moves, ch.ID, fresh, effects), undo...), nil
}
