package project

// Channel finds a channel by id.
func (p *Project) Channel(id string) (*Channel, bool) {
	for _, c := range p.Channels {
		if c.ID == id {
			return c, true
		}
	}
	return nil, false
}

// MainChannel returns the main output.
func (p *Project) MainChannel() *Channel {
	for _, c := range p.Channels {
		if c.Kind == Main {
			return c
		}
	}
	return nil
}

// AudioByHash finds an entry of the audio list.
func (p *Project) AudioByHash(hash string) (Audio, bool) {
	for _, a := range p.Audio {
		if a.Hash == hash {
			return a, true
		}
	}
	return Audio{}, false
}

// ID returns the node's id.
func (n *Node) ID() string {
	if n.Stage != nil {
		return n.Stage.ID
	}
	return n.Fork.ID
}

// Walk calls f for every node of the chain and of the paths inside it, with
// the chain it stands in. It stops when f returns false.
func (c *Chain) Walk(f func(in *Chain, i int, n *Node) bool) bool {
	for i, n := range c.Nodes {
		if !f(c, i, n) {
			return false
		}
		if n.Fork != nil {
			for _, path := range n.Fork.Paths {
				if !path.Chain.Walk(f) {
					return false
				}
			}
		}
	}
	return true
}

// chains lists the chain and the trials' chains, each with its owner's id.
func (c *Channel) chains() []ownedChain {
	list := []ownedChain{{c.ID, &c.Chain}}
	for _, t := range c.Trials {
		list = append(list, ownedChain{t.ID, &t.Chain})
	}
	return list
}

type ownedChain struct {
	owner string
	chain *Chain
}

// Walk calls f for every node of the channel, also of its trials, until f returns false.
func (c *Channel) Walk(f func(in *Chain, i int, n *Node) bool) bool {
	for _, o := range c.chains() {
		if !o.chain.Walk(f) {
			return false
		}
	}
	return true
}

// place is where a node stands.
type place struct {
	channel *Channel
	chain   *Chain
	owner   string // id of the channel or path whose chain it is
	index   int
	node    *Node
}

// findNode looks for a node in every chain.
func (p *Project) findNode(id string) (place, bool) {
	for _, c := range p.Channels {
		if at, ok := c.find(id); ok {
			return at, true
		}
	}
	for _, t := range p.Treatments {
		if at, ok := findIn(t.ID, &t.Chain, id); ok {
			at.channel = t.row()
			return at, true
		}
	}
	return place{}, false
}

// walkAll calls f for every node there is, also of trials and treatments, until f returns false.
func (p *Project) walkAll(f func(in *Chain, i int, n *Node) bool) {
	for _, c := range p.Channels {
		if !c.Walk(f) {
			return
		}
	}
	for _, t := range p.Treatments {
		if !t.Chain.Walk(f) {
			return
		}
	}
}

// find looks for a node in the channel's chains.
func (c *Channel) find(id string) (place, bool) {
	for _, o := range c.chains() {
		if at, ok := findIn(o.owner, o.chain, id); ok {
			at.channel = c
			return at, true
		}
	}
	return place{}, false
}

func findIn(owner string, c *Chain, id string) (place, bool) {
	for i, n := range c.Nodes {
		if n.ID() == id {
			return place{chain: c, owner: owner, index: i, node: n}, true
		}
		if n.Fork == nil {
			continue
		}
		for _, path := range n.Fork.Paths {
			if at, ok := findIn(path.ID, &path.Chain, id); ok {
				return at, true
			}
		}
	}
	return place{}, false
}

// findChain finds the chain of a channel or path.
func (p *Project) findChain(owner string) (*Channel, *Chain, bool) {
	for _, c := range p.Channels {
		for _, o := range c.chains() {
			if o.owner == owner {
				return c, o.chain, true
			}
		}
		if f, k, ok := c.forkOf(owner); ok {
			return c, &f.Paths[k].Chain, true
		}
	}
	for _, t := range p.Treatments {
		if t.ID == owner {
			return t.row(), &t.Chain, true
		}
		if f, k, ok := t.Chain.forkOf(owner); ok {
			return t.row(), &f.Paths[k].Chain, true
		}
	}
	return nil, nil, false
}

// ChainByOwner finds the chain of a channel, trial or path, and the channel it belongs to.
func (p *Project) ChainByOwner(owner string) (*Channel, *Chain, bool) { return p.findChain(owner) }

// StageByID finds a stage and the channel it belongs to.
func (p *Project) StageByID(id string) (*Stage, *Channel, bool) {
	at, ok := p.findNode(id)
	if !ok || at.node.Stage == nil {
		return nil, nil, false
	}
	return at.node.Stage, at.channel, true
}

// pathPlace is where a path stands.
type pathPlace struct {
	channel *Channel
	fork    *Fork
	index   int
}

func (at pathPlace) path() *Path { return at.fork.Paths[at.index] }

// placeOfPath looks for a path in every fork.
func (p *Project) placeOfPath(id string) (pathPlace, bool) {
	for _, c := range p.Channels {
		if f, i, ok := c.forkOf(id); ok {
			return pathPlace{c, f, i}, true
		}
	}
	for _, t := range p.Treatments {
		if f, i, ok := t.Chain.forkOf(id); ok {
			return pathPlace{t.row(), f, i}, true
		}
	}
	return pathPlace{}, false
}

// forkOf finds the fork that a path belongs to, and its place there.
func (c *Channel) forkOf(path string) (fork *Fork, index int, ok bool) {
	for _, o := range c.chains() {
		if fork, index, ok = o.chain.forkOf(path); ok {
			return fork, index, true
		}
	}
	return nil, 0, false
}

func (c *Chain) forkOf(path string) (fork *Fork, index int, ok bool) {
	c.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Fork != nil {
			for i, x := range n.Fork.Paths {
				if x.ID == path {
					fork, index, ok = n.Fork, i, true
				}
			}
		}
		return !ok
	})
	return fork, index, ok
}

func (c *Channel) hasPath(id string) bool {
	_, _, ok := c.forkOf(id)
	return ok
}

func (p *Project) findPath(id string) (*Path, bool) {
	at, ok := p.placeOfPath(id)
	if !ok {
		return nil, false
	}
	return at.path(), true
}

// ForkByID finds a fork and the channel it belongs to.
func (p *Project) ForkByID(id string) (*Fork, *Channel, bool) {
	at, ok := p.findNode(id)
	if !ok || at.node.Fork == nil {
		return nil, nil, false
	}
	return at.node.Fork, at.channel, true
}

func (p *Project) findSend(id string) (*Channel, int, bool) {
	for _, c := range p.Channels {
		for i, s := range c.Sends {
			if s.ID == id {
				return c, i, true
			}
		}
	}
	return nil, 0, false
}

func (p *Project) findClip(id string) (*Channel, int, bool) {
	for _, c := range p.Channels {
		for i, x := range c.Clips {
			if x.ID == id {
				return c, i, true
			}
		}
	}
	return nil, 0, false
}

// RowOfClip finds a clip, and the row that it lies on.
func (p *Project) RowOfClip(id string) (*Channel, *Clip, bool) {
	row, i, ok := p.findClip(id)
	if !ok {
		return nil, nil, false
	}
	return row, row.Clips[i], true
}

// ClipByID finds a clip.
func (p *Project) ClipByID(id string) (*Clip, bool) {
	c, i, ok := p.findClip(id)
	if !ok {
		return nil, false
	}
	return c.Clips[i], true
}

// ids collects every id in use.
func (p *Project) ids() map[string]int {
	size := 64
	for _, c := range p.Channels {
		size += 1 + len(c.Sends) + len(c.Clips) + len(c.Chain.Nodes)
	}
	m := make(map[string]int, size)
	for _, s := range p.Sections {
		m[s.ID]++
	}
	for _, x := range p.Movers {
		m[x.ID]++
	}
	for _, x := range p.Handles {
		m[x.ID]++
	}
	for _, x := range p.Passages {
		m[x.ID]++
	}
	for _, t := range p.Treatments {
		m[t.ID]++
	}
	for _, t := range p.Takes {
		m[t.ID]++
	}
	for _, r := range p.Remarks {
		m[r.ID]++
		for _, s := range r.Said {
			m[s.ID]++
		}
	}
	for _, c := range p.Channels {
		m[c.ID]++
		for _, s := range c.Sends {
			m[s.ID]++
		}
		for _, x := range c.Clips {
			m[x.ID]++
		}
		for _, t := range c.Trials {
			m[t.ID]++
		}
	}
	p.walkAll(func(_ *Chain, _ int, n *Node) bool {
		m[n.ID()]++
		if n.Fork != nil {
			for _, path := range n.Fork.Paths {
				m[path.ID]++
			}
		}
		return true
	})
	return m
}
