package project

import "slices"

// Moves are the movers and handles that go with nodes to another place, as in a preset. Row is the id that the row had
// where they come from: what speaks of it speaks of the new row there.
type Moves struct {
	Row     string    `json:"row,omitempty"`
	Movers  []*Mover  `json:"movers,omitempty"`
	Handles []*Handle `json:"handles,omitempty"`
}

// MovesOf is what moves parameters of some owners on a row: of each mover and handle only that part.
func (p *Project) MovesOf(row string, owners map[string]bool) Moves {
	m := Moves{Row: row}
	for _, x := range p.Movers {
		part := Clone(x)
		part.Targets = slices.DeleteFunc(part.Targets, func(t MoverTarget) bool { return !owners[t.Owner] })
		if len(part.Targets) > 0 {
			m.Movers = append(m.Movers, part)
		}
	}
	for _, x := range p.Handles {
		part := Clone(x)
		part.Targets = slices.DeleteFunc(part.Targets, func(t HandleTarget) bool { return !owners[t.Owner] })
		if len(part.Targets) > 0 {
			m.Handles = append(m.Handles, part)
		}
	}
	return m
}

// Owners are the ids of all that stands in nodes and can own parameters.
func Owners(nodes []*Node) map[string]bool {
	ids := map[string]bool{}
	for _, n := range nodes {
		nodeIDs(n, ids)
	}
	return ids
}

// putMoves lets what goes with nodes work on a row, under ids of its own. fresh has the new id of each owner. What this
// program or row does not have is left out.
func (p *Project) putMoves(m *Moves, row string, fresh map[string]string, effects Effects) (undo []Change) {
	if m == nil {
		return nil
	}
	owner := func(id string) string {
		if id == m.Row {
			return row
		}
		return fresh[id]
	}
	for _, x := range m.Movers {
		x = Clone(x)
		x.ID = NewID()
		targets := x.Targets
		x.Targets = []MoverTarget{}
		for _, t := range targets {
			if t.Owner = owner(t.Owner); t.Owner != "" {
				if _, err := p.movable(t.Owner, t.Name, effects); err == nil {
					x.Targets = append(x.Targets, t)
				}
			}
		}
		if x.Follow != nil && x.Follow.Tap != nil {
			x.Follow.Tap = p.carriedTap(*x.Follow.Tap, m.Row, row, fresh)
		}
		if len(x.Targets) > 0 && p.checkMover(x, effects) == nil {
			p.Movers = append(p.Movers, x)
			undo = append(undo, &RemoveMover{x.ID})
		}
	}
	for _, x := range m.Handles {
		x = Clone(x)
		x.ID, x.Home = NewID(), owner(x.Home)
		targets := x.Targets
		x.Targets = []HandleTarget{}
		for _, t := range targets {
			if t.Owner = owner(t.Owner); t.Owner == "" {
				continue
			}
			_, _, taken := p.HandleOf(t.Owner, t.Name)
			if _, err := p.movable(t.Owner, t.Name, effects); err == nil && !taken {
				x.Targets = append(x.Targets, t)
			}
		}
		if len(x.Targets) > 0 {
			p.Handles = append(p.Handles, x)
			undo = append(undo, &RemoveHandle{x.ID})
		}
	}
	return undo
}

// carriedTap is where a tap lies after its row's nodes have been put on another row; nil: there is no such place.
func (p *Project) carriedTap(t Tap, from, row string, fresh map[string]string) *Tap {
	if t.Channel == from {
		t.Channel = row
		if t.Node != "" {
			t.Node = fresh[t.Node]
		}
	}
	if p.checkTap(&t) != nil {
		return nil
	}
	return &t
}

// ReplaceFork puts another fork in a fork's place, as a preset does: under its id, so that what is tapped behind it
// stays. With Keep it is put as it is, ids and all, which is how it is undone.
type ReplaceFork struct {
	ID    string `json:"id"`
	Fork  *Fork  `json:"fork"`
	Moves *Moves `json:"moves,omitempty"`
	Keep  bool   `json:"keep,omitempty"`
}

func (c *ReplaceFork) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok || at.chain.Nodes[at.index].Fork == nil || c.Fork == nil {
		return nil, Gone("the fork")
	}
	old := at.chain.Nodes[at.index]
	undo := []Change{&ReplaceFork{ID: c.ID, Fork: old.Fork, Keep: true}}
	leaving := Owners([]*Node{old})
	if c.Keep {
		for id := range Owners([]*Node{{Fork: c.Fork}}) {
			delete(leaving, id)
		}
	}
	undo = append(undo, p.dropLines(leaving)...)
	delete(leaving, c.ID)
	undo = append(undo, p.retap(
		func(t *Tap) bool { return leaving[t.Node] },
		func(t Tap) *Tap { return &Tap{Channel: t.Channel, Point: "after", Node: c.ID} },
	)...)
	for _, x := range p.Channels {
		undo = append(undo, resend(x, leaving, &Tap{Channel: x.ID, Point: "after", Node: c.ID})...)
	}
	if c.Keep {
		at.chain.Nodes[at.index] = &Node{Fork: Clone(c.Fork)}
		return undo, nil
	}
	nodes, fresh, err := p.freshNodes(at.channel.ID, []*Node{{Fork: c.Fork}}, effects)
	if err != nil {
		return nil, err
	}
	fresh[c.Fork.ID] = c.ID
	nodes[0].Fork.ID = c.ID
	at.chain.Nodes[at.index] = nodes[0]
	return append(p.putMoves(c.Moves, at.channel.ID, fresh, effects), undo...), nil
}
