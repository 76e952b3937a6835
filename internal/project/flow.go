package project

// flow is which rows feed which, by their places on the board: much less than all points, and where no row feeds itself,
// be it by way of others or by a tap of its own, no point can.
type flow struct {
	at    map[string]int // a row's place by its id
	to    [][]int
	feeds []int // by how many others a row is fed
}

func (f *flow) edge(from, to string) {
	a, there := f.at[from]
	b, goes := f.at[to]
	if !there || !goes {
		return
	}
	f.to[a] = append(f.to[a], b)
	f.feeds[b]++
}

// flowsDown reports that no signal can feed itself, where the rows alone tell that; otherwise it has to be looked at more closely.
func (p *Project) flowsDown() bool {
	n := len(p.Channels)
	f := &flow{at: make(map[string]int, n), to: make([][]int, n), feeds: make([]int, n)}
	for i, c := range p.Channels {
		f.at[c.ID] = i
	}
	for _, c := range p.Channels {
		f.row(c)
	}
	for _, m := range p.Movers {
		if !m.Follows() {
			continue
		}
		for _, t := range m.Targets {
			if row, ok := p.rowHearing(t.Owner); ok {
				f.edge(m.Follow.Tap.Channel, row)
			}
		}
	}
	return f.ends()
}

// row notes what a row feeds and is fed by.
func (f *flow) row(c *Channel) {
	f.edge(c.ID, c.Output)
	for _, s := range c.Sends {
		f.edge(c.ID, s.To)
	}
	if c.Input != nil {
		f.edge(c.Input.Channel, c.ID)
	}
	for _, o := range c.chains() {
		o.chain.Walk(func(_ *Chain, _ int, n *Node) bool {
			if n.Stage != nil && n.Stage.Key != nil {
				f.edge(n.Stage.Key.Channel, c.ID)
			}
			return true
		})
	}
}

// rowHearing is the row in which a parameter works: a send's is the one that it goes to.
func (p *Project) rowHearing(owner string) (id string, ok bool) {
	if c, i, ok := p.findSend(owner); ok {
		return c.Sends[i].To, true
	}
	at, ok := p.spotOf(owner, noEffects)
	return at.Row, ok
}

// noEffects is for questions that no name of an effect matters to.
func noEffects(string, int) (EffectInfo, bool) { return EffectInfo{}, false }

// ends reports whether all rows can be put in an order in which each feeds only later ones.
func (f *flow) ends() bool {
	var next []int
	for i, n := range f.feeds {
		if n == 0 {
			next = append(next, i)
		}
	}
	for k := 0; k < len(next); k++ {
		for _, to := range f.to[next[k]] {
			if f.feeds[to]--; f.feeds[to] == 0 {
				next = append(next, to)
			}
		}
	}
	return len(next) == len(f.feeds)
}
