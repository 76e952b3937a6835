package project

import "fmt"

// PutWaterline puts a row's line behind a node of its chain, or behind the fork in which that stands: what stands before
// it is printed. Every row has one at most.
type PutWaterline struct {
	Node string `json:"node"`
}

func (c *PutWaterline) apply(p *Project, effects Effects) ([]Change, error) {
	if _, ok := p.TreatmentOf(c.Node); ok {
		return nil, fmt.Errorf("what is worked out of a piece is settled by its whole-sound steps: print a row as far as a stage, " +
			"or make the piece permanent")
	}
	for _, ch := range p.Channels {
		for _, n := range ch.Chain.Nodes {
			if Owners([]*Node{n})[c.Node] {
				id := n.ID()
				return p.each(effects, &SetChannel{ID: ch.ID, Waterline: &id})
			}
		}
		for _, t := range ch.Trials {
			if Owners(t.Chain.Nodes)[c.Node] {
				return nil, fmt.Errorf("trial %s of %s is kept to compare: make it the chain before it is printed", t.Letter, ch.Name)
			}
		}
	}
	return nil, Gone("the stage")
}
