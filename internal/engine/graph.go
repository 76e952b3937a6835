package engine

import (
	"fmt"
	"slices"
	"strconv"
)

// graph is what a document compiles to first: nodes with edges between them,
// from which the order of the plan and every delay follow.
type graph struct {
	nodes []*gnode
	row   string // whose nodes are being added
}

// gnode is one point of work. Its lag is how late its output is.
type gnode struct {
	name    string   // for people
	row     string   // the channel that it belongs to
	keyed   string   // the stage that it is, where that has a key
	fixed   []byte   // which node it is, and what about it only a new plan can change
	at      int      // its place among all
	latency int      // its own
	after   []*gnode // must have run before: signals it takes in
	order   []*gnode // must have run before, though no signal comes from there
	lagIn   int      // the latest of its inputs
	lag     int      // lagIn + latency
	spare   bool     // runs only where somebody needs what comes out of it
	how     uint64   // a digest of it and of all that leads to it
	same    bool     // what comes out of it is what comes out of it in the plan before
	emit    func(n *gnode) []step
	state   int
}

// add puts a node into the graph: kind and id tell it from all others, name is what people call it.
func (g *graph) add(kind, id, name string, after ...*gnode) *gnode {
	n := &gnode{name: name, row: g.row, after: after, at: len(g.nodes)}
	n.says(kind, id)
	g.nodes = append(g.nodes, n)
	return n
}

// says notes what is fixed about a node: texts are quoted, so that nothing can be taken for something else.
func (n *gnode) says(what string, values ...any) {
	n.fixed = append(append(n.fixed, what...), ' ')
	for _, v := range values {
		switch v := v.(type) {
		case string:
			n.fixed = strconv.AppendQuote(n.fixed, v)
		case int:
			n.fixed = strconv.AppendInt(n.fixed, int64(v), 10)
		case int64:
			n.fixed = strconv.AppendInt(n.fixed, v, 10)
		case float64:
			n.fixed = strconv.AppendFloat(n.fixed, v, 'g', -1, 64)
		case bool:
			n.fixed = strconv.AppendBool(n.fixed, v)
		default:
			n.fixed = fmt.Appendf(n.fixed, "%#v", v)
		}
		n.fixed = append(n.fixed, ' ')
	}
}

// shape tells graphs from each other that need plans of their own: every node with what is fixed about it, its
// latency, and the nodes from which its signals come, in their order. Between equal shapes only values differ.
func (g *graph) shape() []byte {
	var b []byte
	for _, n := range g.nodes {
		b = append(b, n.fixed...)
		b = append(strconv.AppendInt(append(b, "late "...), int64(n.latency), 10), " after"...)
		b = append(edges(b, n.after), " behind"...)
		b = append(edges(b, n.order), '\n')
	}
	return b
}

func edges(b []byte, from []*gnode) []byte {
	for _, m := range from {
		b = strconv.AppendInt(append(b, ' '), int64(m.at), 10)
	}
	return b
}

// sorted returns the nodes in an order in which every one comes after what it
// needs, staying as near as can be to the order in which they were added. Only nodes
// that lead to a wanted one are kept; with none wanted, all are but those that are spare.
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
		wanted = slices.DeleteFunc(slices.Clone(g.nodes), func(n *gnode) bool { return n.spare })
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
