package project

import "fmt"

// before is the point in front of a node.
func (at place) before() *Tap {
	t := &Tap{Channel: at.channel.ID, Point: "input"}
	if at.index > 0 {
		t.Point, t.Node = "after", at.chain.Nodes[at.index-1].ID()
		return t
	}
	if at.owner == at.channel.ID {
		return t
	}
	if f, _, ok := at.channel.forkOf(at.owner); ok { // first on a path: what enters the fork
		fork, _ := at.channel.find(f.ID)
		return fork.before()
	}
	return t
}

// retap gives every key and input whose tap is meant another one, or none, and returns
// what undoes it.
func (p *Project) retap(meant func(*Tap) bool, to func(Tap) *Tap) (undo []Change) {
	for i, m := range p.Movers {
		if m.Follow != nil && m.Follow.Tap != nil && meant(m.Follow.Tap) {
			undo = append(undo, &PutMover{Mover: m})
			p.Movers[i] = Clone(m)
			p.Movers[i].Follow.Tap = to(*m.Follow.Tap)
		}
	}
	for _, ch := range p.Channels {
		if ch.Input != nil && meant(ch.Input) {
			undo = append(undo, &SetInput{ch.ID, ch.Input})
			ch.Input = to(*ch.Input)
			if ch.Input != nil && ch.Input.Channel == ch.ID {
				ch.Input = nil // it would listen to itself
			}
		}
		ch.Walk(func(_ *Chain, _ int, n *Node) bool {
			if s := n.Stage; s != nil && s.Key != nil && meant(s.Key) {
				undo = append(undo, &SetKey{s.ID, s.Key})
				s.Key = to(*s.Key)
			}
			return true
		})
	}
	return undo
}

// resend lets the sends of a channel that were taken behind some nodes be taken before them.
func resend(ch *Channel, nodes map[string]bool, before *Tap) (undo []Change) {
	for _, s := range ch.Sends {
		if s.After == "" || !nodes[s.After] {
			continue
		}
		old := s.After
		undo = append(undo, &SetSend{ID: s.ID, After: &old})
		s.After = "input"
		if before.Point == "after" {
			s.After = before.Node
		}
	}
	return undo
}

// SetInput lets a channel take in the signal of a point in another one; nil ends it.
type SetInput struct {
	Channel string `json:"channel"`
	Input   *Tap   `json:"input,omitempty"` // none: nothing comes in
}

func (c *SetInput) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	if c.Input != nil {
		from, ok := p.Channel(c.Input.Channel)
		if !ok {
			return nil, Gone("the row it was to listen to")
		}
		if ch.Kind != Track {
			return nil, fmt.Errorf("only a track can take its input from a tap; %s is a %s", ch.Name, ch.Kind)
		}
		if from == ch {
			return nil, fmt.Errorf("%s cannot take its input from itself", ch.Name)
		}
	}
	undo := &SetInput{c.Channel, ch.Input}
	ch.Input = Clone(c.Input)
	return []Change{undo}, nil
}
