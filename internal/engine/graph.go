package engine

import (
	"fmt"
	"strings"
)

// graph is what a document compiles to first: nodes with edges between them,
// from which the order of the plan and every delay follow.
type graph struct {
	nodes []*gnode
}

// gnode is one point of work. Its lag is how late its output is.
type gnode struct {
	name    string   // for people
	fixed   string   // which node it is, and what about it only a new plan can change
	latency int      // its own
	after   []*gnode // must have run before: signals it takes in
	order   []*gnode // must have run before, though no signal comes from there
	lagIn   int      // the latest of its inputs
	lag     int      // lagIn + latency
	emit    func(n *gnode) []step
	state   int
}

// add puts a node into the graph: kind and id tell it from all others, name is what people call it.
func (g *graph) add(kind, id, name string, after ...*gnode) *gnode {
	n := &gnode{name: name, fixed: fmt.Sprintf("%s %q", kind, id), after: after}
	g.nodes = append(g.nodes, n)
	return n
}

// says notes what is fixed about a node, in the words of fmt.Sprint with texts quoted.
func (n *gnode) says(what string, values ...any) {
	n.fixed += fmt.Sprintf(" %s %#v", what, values)
}

// shape tells graphs from each other that need plans of their own: every node with what is fixed about it, its
// latency, and the nodes from which its signals come, in their order. Between equal shapes only values differ.
func (g *graph) shape() string {
	at := make(map[*gnode]int, len(g.nodes))
	for i, n := range g.nodes {
		at[n] = i
	}
	var b strings.Builder
	for _, n := range g.nodes {
		fmt.Fprintf(&b, "%s late %d after", n.fixed, n.latency)
		for _, m := range n.after {
			fmt.Fprintf(&b, " %d", at[m])
		}
		b.WriteString(" behind")
		for _, m := range n.order {
			fmt.Fprintf(&b, " %d", at[m])
		}
		b.WriteByte('\n')
	}
	return b.String()
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
