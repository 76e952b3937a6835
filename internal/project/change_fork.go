package project

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// MakeFork lets stages that stand side by side become a path of a new fork, beside an empty
// path that starts switched off: nothing jumps. Without stages the fork is empty and stands at
// Index of the chain.
type MakeFork struct {
	ID    string   `json:"id,omitempty"` // of the new fork
	Kind  string   `json:"kind"`
	Bands int      `json:"bands,omitempty"`
	Nodes []string `json:"nodes,omitempty"`
	Owner string   `json:"owner,omitempty"`
	Index int      `json:"index,omitempty"`
}

func (c *MakeFork) apply(p *Project, effects Effects) ([]Change, error) {
	f, err := NewFork(c.Kind, c.Bands)
	if err != nil {
		return nil, err
	}
	if c.ID != "" {
		f.ID = c.ID
	}
	if len(c.Nodes) == 0 {
		return p.each(effects, &AddNode{Owner: c.Owner, Index: c.Index, Node: &Node{Fork: f}})
	}
	if f.Kind != Copies {
		return nil, fmt.Errorf("stages go onto a path of copies; insert an empty fork of %s and move them onto its paths", f.KindInWords())
	}
	at, nodes, err := p.neighbours(c.Nodes)
	if err != nil {
		return nil, err
	}
	treated := f.Paths[1]
	treated.Name, treated.Mute, f.Paths[0].Mute = "Treated", false, true
	if s := nodes[0].Stage; len(nodes) == 1 && s != nil {
		treated.Name = s.Name
		if info, ok := effects(s.Effect, s.Version); ok && s.Name == "" {
			treated.Name = info.Name
		}
	}
	list := []Change{&AddNode{Owner: at.owner, Index: at.index, Node: &Node{Fork: f}}}
	for i, n := range nodes {
		list = append(list, &MoveNode{n.ID(), treated.ID, i})
	}
	if slices.ContainsFunc(nodes, func(n *Node) bool { return n.ID() == at.channel.Waterline }) {
		list = append(list, &SetChannel{ID: at.channel.ID, Waterline: &f.ID})
	}
	return p.each(effects, list...)
}

// neighbours finds nodes that stand next to one another in one chain, in their order.
func (p *Project) neighbours(ids []string) (first place, nodes []*Node, err error) {
	var places []place
	for _, id := range ids {
		at, ok := p.findNode(id)
		if !ok {
			return place{}, nil, Gone("a stage of the selection")
		}
		places = append(places, at)
	}
	slices.SortFunc(places, func(a, b place) int { return a.index - b.index })
	for i, at := range places {
		if at.owner != places[0].owner {
			return place{}, nil, fmt.Errorf("the stages stand in different chains: select neighbours in one")
		}
		if at.index != places[0].index+i {
			return place{}, nil, fmt.Errorf("between the stages stands another, which would change its place: select neighbours")
		}
		nodes = append(nodes, at.node)
	}
	return places[0], nodes, nil
}

// DissolveFork leaves one path's stages in the place of a fork; the other paths go, with what
// is on them. Without a path it is the one that holds something, if that is only one.
type DissolveFork struct {
	ID   string `json:"id"`
	Path string `json:"path,omitempty"`
}

func (c *DissolveFork) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok || at.node.Fork == nil {
		return nil, Gone("the fork")
	}
	keep, err := at.node.Fork.keeping(c.Path)
	if err != nil {
		return nil, err
	}
	var list []Change
	last := ""
	for i, n := range keep.Chain.Nodes {
		list = append(list, &MoveNode{n.ID(), at.owner, at.index + i})
		last = n.ID()
	}
	water := at.channel.Waterline == c.ID
	list = append(list, &RemoveNode{c.ID})
	if water && last != "" {
		list = append(list, &SetChannel{ID: at.channel.ID, Waterline: &last})
	}
	return p.each(effects, list...)
}

// keeping is the path that is left when the fork is dissolved.
func (f *Fork) keeping(path string) (*Path, error) {
	var full []*Path
	var names []string
	for _, x := range f.Paths {
		if x.ID == path {
			return x, nil
		}
		if len(x.Chain.Nodes) > 0 {
			full = append(full, x)
			names = append(names, x.Name)
		}
	}
	switch {
	case path != "":
		return nil, Gone("the path")
	case len(full) > 1:
		return nil, fmt.Errorf("%s hold something: select the one that is to be left, then dissolve", strings.Join(names, ", "))
	case len(full) == 1:
		return full[0], nil
	}
	return f.Paths[0], nil
}

// SetFork sets what is given of how a fork of bands divides.
type SetFork struct {
	ID     string `json:"id"`
	Slope  *int   `json:"slope,omitempty"`
	Linear *bool  `json:"linear,omitempty"`
}

func (c *SetFork) apply(p *Project, _ Effects) ([]Change, error) {
	f, _, ok := p.ForkByID(c.ID)
	if !ok {
		return nil, Gone("the fork")
	}
	if f.Kind != Bands {
		return nil, fmt.Errorf("only a fork of bands has slopes and phases")
	}
	undo := []Change{&SetFork{c.ID, swap(&f.Slope, c.Slope), swap(&f.Linear, c.Linear)}}
	lowest := float64(dsp.LowestLinear)
	for i, old := range f.Crossovers { // what stands too low for the kernel moves up
		if f.Linear && old < lowest {
			f.Crossovers[i] = lowest
			undo = append(undo, &SetParam{Owner: f.ID, Name: param.CrossoverName(i + 1), Value: old})
		}
		lowest = f.Crossovers[i] * dsp.Apart
	}
	return undo, nil
}
