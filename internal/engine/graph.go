package engine

import "fmt"

// graph is what a document compiles to first: nodes with edges between them,
// from which the order of the plan and every delay follow.
type graph struct {
	nodes []*gnode
}

// gnode is one point of work. Its lag is how late its output is.
type gnode struct {
	name    string
	latency int      // its own
	after   []*gnode // must have run before: signals it takes in
	order   []*gnode // must have run before, though no signal comes from there
	lagIn   int      // the latest of its inputs
	lag     int      // lagIn + latency
	emit    func(n *gnode) []step
	state   int
}

func (g *graph) add(name string, after ...*gnode) *gnode {
	n := &gnode{name: name, after: after}
	g.nodes = append(g.nodes, n)
	return n
}

// sorted returns the nodes in an order in which every one comes after what it
// needs, staying as near as can be to the order in which they were added. Only nodes
// that lead to a wanted one are kept; with none wanted, all are.
func (g *graph) sorted(wanted ...*gnode) ([]*gnode, error) {
	out := make([]*gnode, 0, len(g.nodes))
	var visit func(n *gnode) error
	visit = func(n *gnode) error {
		switch n.state {
		case 2:
			return nil
		case 1:
			return fmt.Errorf("the signal would feed itself at %s", n.name)
		}
		n.state = 1
		for _, list := range [2][]*gnode{n.after, n.order} {
			for _, m := range list {
				if err := visit(m); err != nil {
					return err
				}
			}
		}
		n.state = 2
		n.lagIn = 0
		for _, m := range n.after {
			n.lagIn = max(n.lagIn, m.lag)
		}
		n.lag = n.lagIn + n.latency
		out = append(out, n)
		return nil
	}
	if len(wanted) == 0 {
		wanted = g.nodes
	}
	for _, n := range wanted {
		if err := visit(n); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// late lists the nodes with latency of their own on the way that decides how late n is, the
// first one first.
func late(n *gnode) []*gnode {
	var out []*gnode
	for n != nil {
		if n.latency > 0 {
			out = append([]*gnode{n}, out...)
		}
		var from *gnode
		for _, m := range n.after {
			if m.lag == n.lagIn && (from == nil || m.lag > from.lag) {
				from = m
			}
		}
		n = from
	}
	return out
}
