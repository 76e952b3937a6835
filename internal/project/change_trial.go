package project

import (
	"fmt"
	"slices"
)

// AddTrial keeps an alternative beside a channel's chain: a copy of one of them (of
// the chain itself when From is empty), with all that moves in it, and with its nodes in another order
// when Order names one.
type AddTrial struct {
	ID      string `json:"id"` // of the new trial; may be empty
	Channel string `json:"channel"`
	From    string `json:"from"`
	Order   []int  `json:"order,omitempty"`
	// Turn puts them in another order: the stage or fork that it names and its neighbour exchanged, or, where it
	// names none of them, all turned round.
	Turn *string `json:"turn,omitempty"`
	// End is a stage or fork that goes to the other end: the first one last, any other one first.
	End string `json:"end,omitempty"`
}

func (c *AddTrial) apply(p *Project, effects Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	if len(ch.Trials) >= MaxTrials {
		return nil, fmt.Errorf("%s has %d trials beside its chain already: drop one first", ch.Name, MaxTrials)
	}
	source := &ch.Chain
	if c.From != "" && c.From != ch.ID {
		i := slices.IndexFunc(ch.Trials, func(t *Trial) bool { return t.ID == c.From })
		if i < 0 {
			return nil, Gone("the trial")
		}
		source = &ch.Trials[i].Chain
	}
	order := c.Order
	if c.Turn != nil {
		order = turned(source.Nodes, *c.Turn)
	}
	if c.End != "" {
		i := slices.IndexFunc(source.Nodes, func(n *Node) bool { return n.ID() == c.End })
		if i < 0 {
			return nil, Gone("the stage")
		}
		order = atOtherEnd(len(source.Nodes), i)
	}
	nodes, err := reorder(source.Nodes, order)
	if err != nil {
		return nil, err
	}
	t := &Trial{ID: c.ID, Letter: ch.freeLetter(), Chain: Chain{Bypass: source.Bypass, Nodes: []*Node{}}}
	if t.ID == "" {
		t.ID = NewID()
	}
	var fresh map[string]string
	if len(nodes) > 0 {
		if t.Chain.Nodes, fresh, err = p.freshNodes(ch.ID, nodes, effects); err != nil {
			return nil, err
		}
	}
	ch.Trials = append(ch.Trials, t)
	p.moveCopies(fresh)
	return []Change{&DropTrial{t.ID}}, nil
}

// atOtherEnd is the order of n nodes in which the one at i stands first, or last where it stood first.
func atOtherEnd(n, i int) []int {
	order := make([]int, 0, n)
	for k := range n {
		if k != i {
			order = append(order, k)
		}
	}
	if i == 0 {
		return append(order, 0)
	}
	return slices.Insert(order, 0, i)
}

// turned is the order with a node and the one behind it exchanged, or the one before the last; all turned round
// where the node is not there.
func turned(nodes []*Node, id string) []int {
	order := make([]int, len(nodes))
	for i := range order {
		order[i] = i
	}
	i := slices.IndexFunc(nodes, func(n *Node) bool { return n.ID() == id })
	switch {
	case i < 0:
		slices.Reverse(order)
	case i+1 < len(order):
		order[i], order[i+1] = order[i+1], order[i]
	case i > 0:
		order[i], order[i-1] = order[i-1], order[i]
	}
	return order
}

// reorder lists nodes in another order; each place is named once.
func reorder(nodes []*Node, order []int) ([]*Node, error) {
	if len(order) == 0 {
		return nodes, nil
	}
	seen := map[int]bool{}
	var out []*Node
	for _, i := range order {
		if i < 0 || i >= len(nodes) || seen[i] {
			return nil, fmt.Errorf("the order must name each of the %d places once", len(nodes))
		}
		seen[i] = true
		out = append(out, nodes[i])
	}
	if len(out) != len(nodes) {
		return nil, fmt.Errorf("the order must name each of the %d places once", len(nodes))
	}
	return out, nil
}

func (c *Channel) freeLetter() string {
	for l := byte('A'); ; l++ {
		s := string(l)
		if c.Letter != s && !slices.ContainsFunc(c.Trials, func(t *Trial) bool { return t.Letter == s }) {
			return s
		}
	}
}

func (p *Project) findTrial(id string) (*Channel, int, bool) {
	for _, c := range p.Channels {
		for i, t := range c.Trials {
			if t.ID == id {
				return c, i, true
			}
		}
	}
	return nil, 0, false
}

// PutTrial puts a trial down as it is, in its place: how DropTrial is undone.
type PutTrial struct {
	Channel string `json:"channel"`
	Index   int    `json:"index"`
	Trial   *Trial `json:"trial"`
}

func (c *PutTrial) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	if c.Trial == nil {
		return nil, fmt.Errorf("there is no trial to put there")
	}
	t := Clone(c.Trial)
	if err := noHoles(&t.Chain, 0); err != nil {
		return nil, err
	}
	ch.Trials = insert(ch.Trials, c.Index, t)
	return []Change{&DropTrial{t.ID}}, nil
}

// DropTrial takes a trial away, with the lines on it.
type DropTrial struct {
	ID string `json:"id"`
}

func (c *DropTrial) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findTrial(c.ID)
	if !ok {
		return nil, Gone("the trial")
	}
	t := ch.Trials[i]
	undo := []Change{&PutTrial{ch.ID, i, t}}
	inside := map[string]bool{}
	for _, n := range t.Chain.Nodes {
		nodeIDs(n, inside)
	}
	undo = append(undo, p.dropLines(inside)...)
	undo = append(undo, p.retap(func(t *Tap) bool { return inside[t.Node] }, func(Tap) *Tap { return nil })...)
	undo = append(undo, resend(ch, inside, &Tap{Channel: ch.ID, Point: "input"})...)
	ch.Trials = slices.Delete(ch.Trials, i, i+1)
	return undo, nil
}

// TakeTrial makes a trial the chain. What was the chain becomes the trial; letters
// go with what they name. The waterline, which stood in the old chain, goes.
type TakeTrial struct {
	ID string `json:"id"`
}

func (c *TakeTrial) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findTrial(c.ID)
	if !ok {
		return nil, Gone("the trial")
	}
	t := ch.Trials[i]
	ch.Chain, t.Chain = t.Chain, ch.Chain
	ch.Letter, t.Letter = t.Letter, ch.Letter
	undo := []Change{&TakeTrial{c.ID}}
	if ch.Waterline != "" {
		w := ch.Waterline
		undo = append(undo, &SetChannel{ID: ch.ID, Waterline: &w})
		ch.Waterline = ""
	}
	return undo, nil
}
