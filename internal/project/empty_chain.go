package project

import (
	"fmt"
	"slices"
)

// canEmpty refuses to take a row's chain away behind a print of clips where something else passes it, or hangs on it.
func (p *Project) canEmpty(row *Channel, printed []*Clip) error {
	const instead = "print what is printed behind the chain, or put the row's line there (P on its last stage)"
	for _, x := range row.Clips {
		if x.Enters == "" && !x.Mute && !slices.Contains(printed, x) {
			return fmt.Errorf("%s passes the chain of %s, too, and is not printed: print all that does, or %s", x.Name, row.Name, instead)
		}
	}
	if row.Input != nil {
		return fmt.Errorf("%s takes in what another row gives, which passes its chain: %s", row.Name, instead)
	}
	for _, c := range p.Channels {
		if c.Output == row.ID || slices.ContainsFunc(c.Sends, func(s *Send) bool { return s.To == row.ID }) {
			return fmt.Errorf("%s feeds %s, and passes its chain: %s", c.Name, row.Name, instead)
		}
	}
	owners := Owners(row.Chain.Nodes)
	hangs := func(t *Tap) bool { return t != nil && t.Node != "" && owners[t.Node] }
	for _, s := range row.Sends {
		if owners[s.After] {
			return fmt.Errorf("a send of %s is taken within its chain: %s", row.Name, instead)
		}
	}
	for _, c := range p.Channels {
		if hangs(c.Input) {
			return fmt.Errorf("%s listens within the chain of %s: %s", c.Name, row.Name, instead)
		}
		keyed := ""
		c.Chain.Walk(func(_ *Chain, _ int, n *Node) bool {
			if n.Stage != nil && hangs(n.Stage.Key) && !owners[n.Stage.ID] {
				keyed = c.Name
			}
			return true
		})
		if keyed != "" {
			return fmt.Errorf("a stage on %s is driven from within the chain of %s: %s", keyed, row.Name, instead)
		}
	}
	for _, m := range p.Movers {
		if m.Follow != nil && hangs(m.Follow.Tap) {
			return fmt.Errorf("the mover %s follows a level within the chain of %s: %s", m.Name, row.Name, instead)
		}
	}
	return nil
}
