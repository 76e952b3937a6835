package project

import (
	"fmt"
	"slices"
)

// AddSend adds a send to a row. A missing id is filled in.
type AddSend struct {
	Channel string `json:"channel"`
	Index   int    `json:"index"`
	Send    *Send  `json:"send"`
}

func (c *AddSend) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	if c.Send == nil {
		return nil, fmt.Errorf("there is no send to add")
	}
	if to, ok := p.Channel(c.Send.To); !ok {
		return nil, Gone("the return")
	} else if to.Kind != Return {
		return nil, fmt.Errorf("a send must go to a return; %s is a %s", to.Name, to.Kind)
	}
	s := *c.Send
	if s.ID == "" {
		s.ID = NewID()
	}
	ch.Sends = insert(ch.Sends, c.Index, &s)
	return []Change{&RemoveSend{s.ID}}, nil
}

// RemoveSend removes a send and its lines.
type RemoveSend struct {
	ID string `json:"id"`
}

func (c *RemoveSend) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findSend(c.ID)
	if !ok {
		return nil, Gone("the send")
	}
	undo := []Change{&AddSend{ch.ID, i, ch.Sends[i]}}
	undo = append(undo, p.dropLines(map[string]bool{c.ID: true})...)
	ch.Sends = slices.Delete(ch.Sends, i, i+1)
	return undo, nil
}

// SetSend sets what is given of a send's properties; level and pan are parameters.
type SetSend struct {
	ID    string  `json:"id"`
	Pre   *bool   `json:"pre,omitempty"`
	Mute  *bool   `json:"mute,omitempty"`
	After *string `json:"after,omitempty"`
}

func (c *SetSend) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findSend(c.ID)
	if !ok {
		return nil, Gone("the send")
	}
	s := ch.Sends[i]
	return []Change{&SetSend{c.ID, swap(&s.Pre, c.Pre), swap(&s.Mute, c.Mute), swap(&s.After, c.After)}}, nil
}
