package project

import (
	"fmt"
	"time"
)

// LongestHand is for how long a row can be in somebody's hand, in minutes.
const LongestHand = 12 * 60

// TakeInHand takes a row in hand for some minutes, or (0) lets go of it, whoever had it.
type TakeInHand struct {
	ID      string `json:"id"`
	Minutes int    `json:"minutes"`
	said
}

func (c *TakeInHand) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.ID)
	if !ok {
		return nil, Gone("the row")
	}
	if c.Minutes < 0 || c.Minutes > LongestHand {
		return nil, fmt.Errorf("a row is in somebody's hand for at most %d hours, not for %d minutes", LongestHand/60, c.Minutes)
	}
	undo := []Change{&setHand{c.ID, ch.Hand}}
	ch.Hand = nil
	if c.Minutes > 0 {
		from, err := time.Parse(time.RFC3339, c.Time)
		if err != nil || c.speaker().ID == "" {
			return nil, fmt.Errorf("nobody takes %s in hand", ch.Name)
		}
		ch.Hand = &Hand{c.speaker(), from.Add(time.Duration(c.Minutes) * time.Minute).UTC().Format(time.RFC3339)}
	}
	return undo, nil
}

// setHand undoes one.
type setHand struct {
	ID   string `json:"id"`
	Hand *Hand  `json:"hand,omitempty"`
}

func (c *setHand) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.ID)
	if !ok {
		return nil, Gone("the row")
	}
	undo := []Change{&setHand{c.ID, ch.Hand}}
	ch.Hand = copyOf(c.Hand)
	return undo, nil
}
