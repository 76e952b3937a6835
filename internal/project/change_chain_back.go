package project

import (
	"fmt"
	"slices"
)

// PutChainBack lets a row's chain be as it was: what has gone since comes again, what has come goes, and what stayed has
// the values that it had. Lines, movers and handles stay.
type PutChainBack struct {
	Channel string  `json:"channel"`
	Nodes   []*Node `json:"nodes"`
}

func (c *PutChainBack) apply(p *Project, effects Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	kept := func(n *Node) (int, bool) { // one that holds the same: only its values differ
		i := slices.IndexFunc(c.Nodes, func(m *Node) bool { return m.ID() == n.ID() && sameOwners(m, n) })
		return i, i >= 0
	}
	if slices.ContainsFunc(c.Nodes, func(n *Node) bool { return n == nil || (n.Stage == nil) == (n.Fork == nil) }) {
		return nil, fmt.Errorf("the chain that was has a node that is neither a stage nor a fork")
	}
	var list []Change
	for _, n := range ch.Chain.Nodes {
		if _, ok := kept(n); !ok {
			list = append(list, &RemoveNode{n.ID()})
		}
	}
	undo, err := p.each(effects, list...)
	if err != nil {
		return nil, err
	}
	values := &SetValues{}
	for _, n := range ch.Chain.Nodes {
		k, _ := kept(n)
		values.Nodes = append(values.Nodes, c.Nodes[k])
	}
	before, err := p.each(effects, values)
	if err != nil {
		return nil, err
	}
	undo = slices.Concat(before, undo)
	for i, n := range c.Nodes {
		list = nil
		at := slices.IndexFunc(ch.Chain.Nodes, func(m *Node) bool { return m.ID() == n.ID() })
		switch {
		case at < 0:
			list = append(list, &AddNode{Owner: ch.ID, Index: i, Node: Clone(n)})
		case at != i:
			list = append(list, &MoveNode{ID: n.ID(), Owner: ch.ID, Index: i})
		}
		more, err := p.each(effects, list...)
		if err != nil {
			return nil, err
		}
		undo = slices.Concat(more, undo)
	}
	return undo, nil
}

func sameOwners(a, b *Node) bool {
	x, y := Owners([]*Node{a}), Owners([]*Node{b})
	if len(x) != len(y) {
		return false
	}
	for id := range x {
		if !y[id] {
			return false
		}
	}
	return true
}

// SetValues gives nodes of chains, with all that stands in them, the values that are given: of the same nodes.
type SetValues struct {
	Nodes []*Node `json:"nodes"`
}

func (c *SetValues) apply(p *Project, _ Effects) ([]Change, error) {
	undo := &SetValues{}
	for _, n := range c.Nodes {
		if n == nil || (n.Stage == nil) == (n.Fork == nil) {
			return nil, fmt.Errorf("a node is either a stage or a fork")
		}
		at, ok := p.findNode(n.ID())
		if !ok {
			return nil, Gone("the stage")
		}
		if !sameOwners(at.node, n) {
			return nil, fmt.Errorf("%s holds other stages now: its values cannot be set as a whole", nodeTitle(at.node))
		}
		undo.Nodes = append(undo.Nodes, at.node)
		at.chain.Nodes[at.index] = Clone(n)
	}
	return []Change{undo}, nil
}

func nodeTitle(n *Node) string {
	if n.Fork != nil {
		return n.Fork.Title()
	}
	return "the stage"
}
