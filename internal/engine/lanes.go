package engine

import "runtime"

// lane is a part of a plan that can run beside the others: rows that depend on each other in both ways, or on one alone.
// What lanes hand to each other goes over wires.
type lane struct {
	steps   []step
	players []*player
	ins     []*wire
	outs    []*wire
	cursor  cursor
	blocks  int // that have been run
}

// wire hands a signal from one lane to another, or, with no target, to whoever renders.
type wire struct {
	source, target *lane
	from, to       pair
	laps           [ahead][]float64 // left sides, then right sides
}

// apart reports whether lanes are of use: with one core they only cost.
func apart() bool { return runtime.GOMAXPROCS(0) > 1 }

// lanesOf says in which lane each node stands, and gives what crosses between lanes a wire, so that no two of them use
// one buffer. Without at least two lanes there are none.
func (c *compiler) lanesOf(nodes []*gnode) map[*gnode]int {
	leaves := c.leaves()
	rows := newComponents()
	for _, n := range nodes {
		rows.place(n.row)
		for _, list := range [2][]*gnode{n.after, n.order} {
			for _, m := range list {
				switch {
				case m.row == n.row:
				case leaves[m]:
					rows.leads(m.row, n.row)
				default: // what passes there is no buffer
					rows.join(m.row, n.row)
				}
			}
		}
	}
	number := rows.numbers()
	lanes := 0
	out := map[*gnode]int{}
	for _, n := range nodes {
		out[n] = number[n.row]
		lanes = max(lanes, number[n.row]+1)
	}
	if lanes < 2 {
		return nil
	}
	c.plan.lanes = make([]*lane, lanes)
	for i := range c.plan.lanes {
		c.plan.lanes[i] = &lane{}
	}
	c.wireFeeds(out)
	c.wireKeys(nodes, out)
	return out
}

// leaves are the nodes whose signal others read from a buffer of their own.
func (c *compiler) leaves() map[*gnode]bool {
	out := map[*gnode]bool{}
	for _, list := range c.feeds {
		for _, f := range list {
			out[f.from] = true
		}
	}
	for _, list := range c.taps {
		for _, t := range list {
			out[t.node] = true
		}
	}
	return out
}

// wireFeeds gives what flows into a row from another lane a wire.
func (c *compiler) wireFeeds(lanes map[*gnode]int) {
	for id, list := range c.feeds {
		to, there := lanes[c.input[id]]
		for i := range list {
			if from, ok := lanes[list[i].from]; there && ok && from != to {
				list[i].buf = c.wire(list[i].buf, from, to)
			}
		}
	}
}

// wireKeys gives keys that come from another lane a wire.
func (c *compiler) wireKeys(nodes []*gnode, lanes map[*gnode]int) {
	for _, n := range nodes {
		if n.keyed == "" {
			continue
		}
		key := "key " + n.keyed
		if from, to := lanes[c.points[key]], lanes[n]; from != to {
			c.where[key] = c.wire(c.where[key], from, to)
		}
	}
}

// wire connects two lanes; to the lane -1 is to whoever renders.
func (c *compiler) wire(buf pair, from, to int) pair {
	w := &wire{source: c.plan.lanes[from], from: buf, to: newPair()}
	for i := range w.laps {
		w.laps[i] = make([]float64, 2*lap)
	}
	w.source.outs = append(w.source.outs, w)
	if to >= 0 {
		w.target = c.plan.lanes[to]
		w.target.ins = append(w.target.ins, w)
	} else {
		c.plan.given = append(c.plan.given, w)
	}
	return w.to
}
