package project

import (
	"fmt"
	"math"
	"slices"
)

// PutMover puts a mover down, or another in its place.
type PutMover struct {
	Mover *Mover `json:"mover"`
	Index *int   `json:"index,omitempty"`
}

func (c *PutMover) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Mover == nil {
		return nil, fmt.Errorf("there is no mover to put down")
	}
	m := Clone(c.Mover)
	if m.ID == "" {
		m.ID = NewID()
	}
	if m.Targets == nil {
		m.Targets = []MoverTarget{}
	}
	m.begin()
	if i := slices.IndexFunc(p.Movers, func(x *Mover) bool { return x.ID == m.ID }); i >= 0 {
		old := p.Movers[i]
		p.Movers[i] = m
		return []Change{&PutMover{Mover: old}}, nil
	}
	at := len(p.Movers)
	if c.Index != nil {
		at = *c.Index
	}
	p.Movers = insert(p.Movers, at, m)
	return []Change{&RemoveMover{m.ID}}, nil
}

// begin gives a mover what its shape needs to begin with.
func (m *Mover) begin() {
	if m.Shape == DrawnShape && len(m.Drawn) == 0 { // something to begin with
		m.Drawn = make([]float64, usualDrawn)
		for i := range m.Drawn {
			m.Drawn[i] = math.Round(1000*math.Sin(2*math.Pi*float64(i)/usualDrawn)) / 1000
		}
	}
	if m.Shape == LevelShape && m.Follow == nil { // quick up, gently down, over what is usually loud
		m.Follow, m.OneWay = &Follow{Attack: 10, Release: 150, Low: -40, High: -6}, true
	}
}

// RemoveMover takes a mover away.
type RemoveMover struct {
	ID string `json:"id"`
}

func (c *RemoveMover) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Movers, func(x *Mover) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the mover")
	}
	undo := &PutMover{p.Movers[i], &i}
	p.Movers = dropped(p.Movers, i)
	return []Change{undo}, nil
}

// PutHandle puts a handle down, or another in its place.
type PutHandle struct {
	Handle *Handle `json:"handle"`
	Index  *int    `json:"index,omitempty"`
}

func (c *PutHandle) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Handle == nil {
		return nil, fmt.Errorf("there is no handle to put down")
	}
	h := Clone(c.Handle)
	if h.ID == "" {
		h.ID = NewID()
	}
	if h.Targets == nil {
		h.Targets = []HandleTarget{}
	}
	if i := slices.IndexFunc(p.Handles, func(x *Handle) bool { return x.ID == h.ID }); i >= 0 {
		old := p.Handles[i]
		p.Handles[i] = h
		return []Change{&PutHandle{Handle: old}}, nil
	}
	at := len(p.Handles)
	if c.Index != nil {
		at = *c.Index
	}
	p.Handles = insert(p.Handles, at, h)
	return []Change{&RemoveHandle{h.ID}}, nil
}

// RemoveHandle takes a handle away, with its line; what hung on it stands where its own hand had left it.
type RemoveHandle struct {
	ID string `json:"id"`
}

func (c *RemoveHandle) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Handles, func(x *Handle) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the handle")
	}
	undo := []Change{&PutHandle{p.Handles[i], &i}}
	undo = append(undo, p.dropLines(map[string]bool{c.ID: true})...)
	p.Handles = dropped(p.Handles, i)
	return undo, nil
}

// moveCopies lets copies move as what was copied does: by lines of their own, by movers, handles and
// passages. fresh has the new id of each owner.
func (p *Project) moveCopies(fresh map[string]string) {
	for _, l := range slices.Clone(p.Lines) {
		if id, ok := fresh[l.Owner]; ok {
			p.Lines = append(p.Lines, &Line{id, l.Name, slices.Clone(l.Points)})
		}
	}
	for _, m := range p.Movers {
		for _, t := range slices.Clone(m.Targets) {
			if id, ok := fresh[t.Owner]; ok {
				m.Targets = append(m.Targets, MoverTarget{id, t.Name, t.Depth})
			}
		}
	}
	for _, h := range p.Handles {
		for _, t := range slices.Clone(h.Targets) {
			if id, ok := fresh[t.Owner]; ok {
				t.Owner = id
				h.Targets = append(h.Targets, t)
			}
		}
	}
	p.passCopies(fresh)
}

// moved reports whether anything besides a hand moves a parameter.
func (p *Project) moved(owner, name string) bool {
	_, _, handled := p.HandleOf(owner, name)
	return handled || p.hasLine(owner, name) || slices.ContainsFunc(p.Movers, func(m *Mover) bool {
		return slices.ContainsFunc(m.Targets, func(t MoverTarget) bool { return t.Owner == owner && t.Name == name })
	})
}

// dropMoves takes away what moves parameters of the owners, and returns what brings it back.
func (p *Project) dropMoves(owners map[string]bool) (undo []Change) {
	for i, m := range p.Movers {
		if slices.ContainsFunc(m.Targets, func(t MoverTarget) bool { return owners[t.Owner] }) {
			undo = append(undo, &PutMover{Mover: m})
			p.Movers[i] = Clone(m)
			p.Movers[i].Targets = slices.DeleteFunc(p.Movers[i].Targets, func(t MoverTarget) bool { return owners[t.Owner] })
		}
	}
	for i, h := range p.Handles {
		if owners[h.Home] || slices.ContainsFunc(h.Targets, func(t HandleTarget) bool { return owners[t.Owner] }) {
			undo = append(undo, &PutHandle{Handle: h})
			p.Handles[i] = Clone(h)
			if owners[h.Home] { // it is the project's from now on
				p.Handles[i].Home = ""
			}
			p.Handles[i].Targets = slices.DeleteFunc(p.Handles[i].Targets, func(t HandleTarget) bool { return owners[t.Owner] })
		}
	}
	return append(undo, p.dropFromPassages(owners)...)
}

// AddMover puts a mover on a parameter: calm, in time with the song, and not far.
type AddMover struct {
	ID    string `json:"id,omitempty"` // of the new mover
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *AddMover) apply(p *Project, effects Effects) ([]Change, error) {
	d, err := p.movable(c.Owner, c.Name, effects)
	if err != nil {
		return nil, err
	}
	of, _ := p.OwnerName(c.Owner, effects)
	return p.each(
		effects,
		&PutMover{
			Mover: &Mover{ID: c.ID, Name: fmt.Sprintf("Mover of %s of %s", d.Label, of), Shape: Shapes[0], Rate: 0.5, Quarters: 4, Seed: 1,
				Targets: []MoverTarget{{c.Owner, c.Name, 0.1}}},
		},
	)
}

// MoveApart moves left and right against each other: the stage is told to act on the left, a copy of
// it behind acts on the right, and what moves the parameter moves that of the copy the other way round.
// Where nothing does, a mover begins.
type MoveApart struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
	Copy  string `json:"copy,omitempty"` // id of the copy
}

func (c *MoveApart) apply(p *Project, effects Effects) ([]Change, error) {
	s, _, ok := p.StageByID(c.Owner)
	if !ok {
		return nil, fmt.Errorf("only a parameter of a stage can be moved apart")
	}
	if _, err := p.movable(c.Owner, c.Name, effects); err != nil {
		return nil, err
	}
	if s.ActsOn != "both" {
		return nil, fmt.Errorf("the stage acts on %s: let it act on both sides first", s.ActsOn)
	}
	of, _ := p.OwnerName(c.Owner, effects)
	right := Clone(s)
	if right.ID = c.Copy; c.Copy == "" {
		right.ID = NewID()
	}
	right.ActsOn, right.Name = "right", of+" right"
	at, _ := p.findNode(c.Owner)
	left, name := "left", of+" left"
	list := []Change{&SetNode{ID: c.Owner, Name: &name, ActsOn: &left},
		&AddNode{Owner: at.owner, Index: at.index + 1, Node: &Node{Stage: right}}}
	moved := false
	for _, m := range p.Movers {
		n := Clone(m)
		for _, t := range m.Targets {
			if t.Owner == c.Owner && t.Name == c.Name {
				n.Targets = append(n.Targets, MoverTarget{right.ID, t.Name, -t.Depth})
			}
		}
		if len(n.Targets) > len(m.Targets) {
			list, moved = append(list, &PutMover{Mover: n}), true
		}
	}
	if !moved {
		list = append(list, &PutMover{Mover: &Mover{Name: "Mover of " + of + " apart", Shape: Shapes[0], Rate: 0.5, Quarters: 4, Seed: 1,
			Targets: []MoverTarget{{c.Owner, c.Name, 0.15}, {right.ID, c.Name, -0.15}}}})
	}
	return p.each(effects, list...)
}

// Hang hangs a parameter on a handle, or on a new one that bears its name: from where its hand has left it
// to the end of its range.
type Hang struct {
	Handle string `json:"handle,omitempty"` // empty: a new one
	Owner  string `json:"owner"`
	Name   string `json:"name"`
}

func (c *Hang) apply(p *Project, effects Effects) ([]Change, error) {
	d, err := p.movable(c.Owner, c.Name, effects)
	if err != nil {
		return nil, err
	}
	h := &Handle{Name: d.Label, Targets: []HandleTarget{}}
	if c.Handle != "" {
		i := slices.IndexFunc(p.Handles, func(x *Handle) bool { return x.ID == c.Handle })
		if i < 0 {
			return nil, Gone("the handle")
		}
		h = Clone(p.Handles[i])
	}
	_, now, err := p.Describe(c.Owner, c.Name, effects)
	if err != nil {
		return nil, err
	}
	h.Targets = append(h.Targets, HandleTarget{Owner: c.Owner, Name: c.Name, From: now, To: d.Max})
	return p.each(effects, &PutHandle{Handle: h})
}

// LetGo takes a parameter off its handle; a handle on which nothing hangs goes.
type LetGo struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *LetGo) apply(p *Project, effects Effects) ([]Change, error) {
	h, _, ok := p.HandleOf(c.Owner, c.Name)
	if !ok {
		return nil, Gone("the handle")
	}
	left := Clone(h)
	left.Targets = slices.DeleteFunc(left.Targets, func(t HandleTarget) bool { return t.Owner == c.Owner && t.Name == c.Name })
	if len(left.Targets) == 0 {
		return p.each(effects, &RemoveHandle{h.ID})
	}
	return p.each(effects, &PutHandle{Handle: left})
}
