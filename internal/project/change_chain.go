package project

import (
	"fmt"
	"slices"
)

// SetChain bypasses a whole chain, or brings it back. Owner is a channel or a path.
type SetChain struct {
	Owner  string `json:"owner"`
	Bypass *bool  `json:"bypass,omitempty"`
}

func (c *SetChain) apply(p *Project, _ Effects) ([]Change, error) {
	_, chain, ok := p.findChain(c.Owner)
	if !ok {
		return nil, Gone("the chain")
	}
	return []Change{&SetChain{c.Owner, swap(&chain.Bypass, c.Bypass)}}, nil
}

// AddNode puts a stage or a fork into a chain. A missing id is filled in.
type AddNode struct {
	Owner string `json:"owner"`
	Index int    `json:"index"`
	Node  *Node  `json:"node"`
	// Fresh says that the stage is a new one: where the dry signal is heard elsewhere, it comes in fully wet.
	Fresh bool `json:"fresh,omitempty"`
}

func (c *AddNode) apply(p *Project, effects Effects) ([]Change, error) {
	_, chain, ok := p.findChain(c.Owner)
	if !ok {
		return nil, Gone("the chain")
	}
	if c.Node == nil || (c.Node.Stage == nil) == (c.Node.Fork == nil) {
		return nil, fmt.Errorf("a node must be either a stage or a fork")
	}
	if err := noHoles(&Chain{Nodes: []*Node{c.Node}}, 0); err != nil {
		return nil, err
	}
	n := Clone(c.Node)
	if s := n.Stage; s != nil {
		if c.Fresh && p.Wet(c.Owner) {
			s.Mix, s.MixLaw = 100, "blend"
		}
		if s.ID == "" {
			s.ID = NewID()
		}
		if s.Params == nil {
			s.Params = map[string]float64{}
		}
		if s.Version == 0 {
			if info, ok := effects(s.Effect, 0); ok {
				s.Version = info.Version
			}
		}
	}
	chain.Nodes = insert(chain.Nodes, c.Index, n)
	return []Change{&RemoveNode{n.ID()}}, nil
}

// RemoveNode takes a stage or a fork out. In the same change its lines go, and
// taps behind it move to the point before it.
type RemoveNode struct {
	ID string `json:"id"`
}

func (c *RemoveNode) apply(p *Project, _ Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok {
		return nil, Gone("the stage")
	}
	undo := []Change{&AddNode{Owner: at.owner, Index: at.index, Node: at.node}}
	inside := map[string]bool{}
	nodeIDs(at.node, inside)
	undo = append(undo, p.dropLines(inside)...)
	before := at.before()
	undo = append(undo, p.retap(func(t *Tap) bool { return inside[t.Node] }, func(Tap) *Tap { k := *before; return &k })...)
	undo = append(undo, resend(at.channel, inside, before)...)
	if at.channel.Waterline == c.ID {
		undo = append(undo, &SetChannel{ID: at.channel.ID, Waterline: &c.ID})
		at.channel.Waterline = ""
		if at.index > 0 {
			at.channel.Waterline = at.chain.Nodes[at.index-1].ID()
		}
	}
	at.chain.Nodes = slices.Delete(at.chain.Nodes, at.index, at.index+1)
	return undo, nil
}

// MoveNode puts a node somewhere else, in its chain or another. Index counts
// in the chain as it is without the node.
type MoveNode struct {
	ID    string `json:"id"`
	Owner string `json:"owner"`
	Index int    `json:"index"`
}

func (c *MoveNode) apply(p *Project, _ Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok {
		return nil, Gone("the stage")
	}
	to, chain, ok := p.findChain(c.Owner)
	if !ok {
		return nil, Gone("the chain it was to go to")
	}
	inside := map[string]bool{}
	nodeIDs(at.node, inside)
	if inside[c.Owner] {
		return nil, fmt.Errorf("a fork cannot go inside itself")
	}
	undo, before := []Change{&MoveNode{c.ID, at.owner, at.index}}, at.before()
	if at.channel.Waterline == c.ID && (to != at.channel || c.Owner != at.channel.ID) {
		undo = append(undo, &SetChannel{ID: at.channel.ID, Waterline: &c.ID})
		at.channel.Waterline = ""
	}
	at.chain.Nodes = slices.Delete(at.chain.Nodes, at.index, at.index+1)
	chain.Nodes = insert(chain.Nodes, c.Index, at.node)
	if to != at.channel { // its taps move with it
		undo = append(undo, p.retap(func(t *Tap) bool { return inside[t.Node] }, func(t Tap) *Tap { t.Channel = to.ID; return &t })...)
		undo = append(undo, resend(at.channel, inside, before)...)
	}
	return undo, nil
}

// SetNode sets what is given of a stage's or fork's properties.
type SetNode struct {
	ID      string  `json:"id"`
	Name    *string `json:"name,omitempty"`
	Bypass  *bool   `json:"bypass,omitempty"`
	MixLaw  *string `json:"mixLaw,omitempty"`
	ActsOn  *string `json:"actsOn,omitempty"`
	RingOut *bool   `json:"ringOut,omitempty"`
	MixLock *bool   `json:"mixLock,omitempty"`
}

func (c *SetNode) apply(p *Project, _ Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok {
		return nil, Gone("the stage")
	}
	if f := at.node.Fork; f != nil {
		return []Change{
			&SetNode{ID: c.ID, Name: swap(&f.Name, c.Name), Bypass: swap(&f.Bypass, c.Bypass), MixLaw: swap(&f.MixLaw, c.MixLaw)},
		}, nil
	}
	s := at.node.Stage
	return []Change{
		&SetNode{
			ID:      c.ID,
			Name:    swap(&s.Name, c.Name),
			Bypass:  swap(&s.Bypass, c.Bypass),
			MixLaw:  swap(&s.MixLaw, c.MixLaw),
			ActsOn:  swap(&s.ActsOn, c.ActsOn),
			RingOut: swap(&s.RingOut, c.RingOut),
			MixLock: swap(&s.MixLock, c.MixLock),
		},
	}, nil
}

// ReplaceStage puts another effect where a stage stands. The stage keeps its
// id and so its taps; what two effects share (bypass, mix, key, what it acts on) stays
// when Keep is set.
type ReplaceStage struct {
	ID    string `json:"id"`
	Stage *Stage `json:"stage"`
	Keep  bool   `json:"keep"`
	// Preset takes over the parameters only, and mix and law unless they are locked.
	Preset bool `json:"preset,omitempty"`
}

func (c *ReplaceStage) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok || at.node.Stage == nil {
		return nil, Gone("the stage")
	}
	if c.Stage == nil {
		return nil, fmt.Errorf("there is no stage to put there")
	}
	old := at.node.Stage
	next := Clone(c.Stage)
	next.ID = c.ID
	if next.Params == nil {
		next.Params = map[string]float64{}
	}
	if next.Version == 0 {
		if info, ok := effects(next.Effect, 0); ok {
			next.Version = info.Version
		}
	}
	if c.Keep {
		next.Bypass, next.Mix, next.MixLaw, next.ActsOn = old.Bypass, old.Mix, old.MixLaw, old.ActsOn
		next.Key, next.RingOut, next.MixLock = old.Key, old.RingOut, old.MixLock
	}
	if c.Preset {
		next.Name, next.Bypass, next.ActsOn, next.Key = old.Name, old.Bypass, old.ActsOn, old.Key
		next.RingOut, next.MixLock = old.RingOut, old.MixLock
		if old.MixLock {
			next.Mix, next.MixLaw = old.Mix, old.MixLaw
		}
	}
	undo := []Change{&ReplaceStage{ID: c.ID, Stage: old}}
	if next.Effect != old.Effect {
		undo = append(undo, p.dropLines(map[string]bool{c.ID: true})...)
	}
	at.node.Stage = next
	return undo, nil
}

// DuplicateStage puts a copy of a stage right after it.
type DuplicateStage struct {
	ID string `json:"id"`
}

func (c *DuplicateStage) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok || at.node.Stage == nil {
		return nil, Gone("the stage")
	}
	s := Clone(at.node.Stage)
	s.ID = NewID()
	if s.Name == "" {
		if info, ok := effects(s.Effect, s.Version); ok {
			s.Name = info.Name
		}
	}
	s.Name += " 2"
	at.chain.Nodes = insert(at.chain.Nodes, at.index+1, &Node{Stage: s})
	p.moveCopies(map[string]string{c.ID: s.ID})
	return []Change{&RemoveNode{s.ID}}, nil
}

// SetKey sets what drives a stage; nil is its own signal.
type SetKey struct {
	ID  string `json:"id"`
	Key *Tap   `json:"key,omitempty"` // none: its own input
}

func (c *SetKey) apply(p *Project, _ Effects) ([]Change, error) {
	s, _, ok := p.StageByID(c.ID)
	if !ok {
		return nil, Gone("the stage")
	}
	undo := &SetKey{c.ID, s.Key}
	s.Key = c.Key
	return []Change{undo}, nil
}

// SetSound sets the sound that a stage uses; empty is none.
type SetSound struct {
	ID    string `json:"id"`
	Sound string `json:"sound"`
}

func (c *SetSound) apply(p *Project, _ Effects) ([]Change, error) {
	s, _, ok := p.StageByID(c.ID)
	if !ok {
		return nil, Gone("the stage")
	}
	undo := &SetSound{c.ID, s.Sound}
	s.Sound = c.Sound
	return []Change{undo}, nil
}
