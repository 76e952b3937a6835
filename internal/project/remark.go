package project

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"
)

// Remark is something said about a place in the song, with what was answered, until it is settled.
type Remark struct {
	ID   string `json:"id" required:"true"`
	At   Spot   `json:"at" required:"true"`
	Said []Said `json:"said" required:"true"` // at least one
	// Settled says who settled it; nil: it is open.
	Settled *Settled `json:"settled,omitempty"`
}

// Spot is the place that a remark is about: something that has an id, one of its lines, a range of the song, or both.
type Spot struct {
	ID    string `json:"on,omitempty"`    // of a row, stage, fork, path, send or clip; empty: the song
	Param string `json:"param,omitempty"` // the parameter whose line is meant
	From  int64  `json:"from,omitempty"`  // ticks; to is 0: no range
	To    int64  `json:"to,omitempty"`
	// Called is what it was called when the remark was made: a place that was removed is still known by it.
	Called string `json:"called" required:"true"`
}

// Said is one thing that somebody said.
type Said struct {
	ID   string    `json:"id" required:"true"`
	By   Speaker   `json:"by" required:"true"`
	Time string    `json:"time" required:"true"` // RFC 3339
	Text string    `json:"text" required:"true"`
	To   []Speaker `json:"to,omitempty"` // who is to be told
}

// Speaker is a person, by the name that they had.
type Speaker struct {
	ID   string `json:"person" required:"true"`
	Name string `json:"name" required:"true"`
}

// Settled is who settled a remark, and when.
type Settled struct {
	By   Speaker `json:"by" required:"true"`
	Time string  `json:"time" required:"true"`
}

// How much is said.
const (
	MaxRemark  = 2000 // letters of one thing said
	maxRemarks = 2000
	maxSaid    = 200 // of one remark
	maxTold    = 50  // people told by one
)

func (p *Project) remark(id string) (*Remark, error) {
	for _, r := range p.Remarks {
		if r.ID == id {
			return r, nil
		}
	}
	return nil, Gone("the remark")
}

func (p *Project) checkRemarks() error {
	if len(p.Remarks) > maxRemarks {
		return fmt.Errorf("a project holds at most %d remarks", maxRemarks)
	}
	for _, r := range p.Remarks {
		if err := r.check(); err != nil {
			return fmt.Errorf("the remark on %s: %w", r.At.Called, err)
		}
	}
	return nil
}

func (r *Remark) check() error {
	switch {
	case len(r.Said) == 0:
		return errors.New("nothing is said in it")
	case len(r.Said) > maxSaid:
		return fmt.Errorf("at most %d things are said in one; begin another", maxSaid)
	case r.At.From < 0 || r.At.To < 0 || r.At.To > 0 && r.At.To <= r.At.From || r.At.To > maxTick:
		return errors.New("its range must lie in the song and be longer than nothing")
	case strings.TrimSpace(r.At.Called) == "" || !withinLetters(r.At.Called, 4*maxName):
		return errors.New("its place needs a name")
	}
	for _, s := range r.Said {
		if err := s.check(); err != nil {
			return err
		}
	}
	return nil
}

func (s Said) check() error {
	switch {
	case strings.TrimSpace(s.Text) == "":
		return errors.New("nothing is said: write something")
	case !withinLetters(s.Text, MaxRemark):
		return fmt.Errorf("at most %d letters are said at once", MaxRemark)
	case s.ID == "" || s.By.ID == "" || !ValidName(s.By.Name):
		return errors.New("nobody said it")
	case len(s.To) > maxTold:
		return fmt.Errorf("at most %d people are told at once", maxTold)
	}
	if _, err := time.Parse(time.RFC3339, s.Time); err != nil {
		return fmt.Errorf("%q is no time", s.Time)
	}
	return nil
}

// Waits reports whether a remark waits for somebody: it is open, they were told, and have not said anything since.
func (r *Remark) Waits(person string) bool {
	if r.Settled != nil || person == "" {
		return false
	}
	waits := false
	for _, s := range r.Said {
		if s.By.ID == person {
			waits = false
		} else if slices.ContainsFunc(s.To, func(x Speaker) bool { return x.ID == person }) {
			waits = true
		}
	}
	return waits
}

// Place is what has an id, in words.
type Place struct {
	Called string // such as "Choir: Equaliser"
	Row    string // the row that it belongs to; empty: a piece's
	Node   string // what is to be on the bench: a stage, fork, path or send; empty: the row itself
	Clip   string
}

// PlaceOf finds what has an id, and what it is called; an empty id is the song.
func (p *Project) PlaceOf(id, param string, effects Effects) (Place, bool) {
	at, ok := p.spotOf(id, effects)
	if ok && param != "" {
		at.Called += ", its line of " + p.labelOf(id, param, effects)
	}
	return at, ok
}

func (p *Project) spotOf(id string, effects Effects) (Place, bool) {
	if id == "" {
		return Place{Called: "The song"}, true
	}
	if c, ok := p.Channel(id); ok {
		return Place{Called: c.Name, Row: id}, true
	}
	if at, ok := p.findNode(id); ok {
		return Place{Called: at.channel.Name + ": " + nodeName(at.node, effects), Row: at.channel.ID, Node: id}, true
	}
	if at, ok := p.placeOfPath(id); ok {
		path := at.path()
		return Place{Called: at.channel.Name + ": path " + path.Name, Row: at.channel.ID, Node: id}, true
	}
	if c, i, ok := p.findSend(id); ok {
		to, _ := p.Channel(c.Sends[i].To)
		return Place{Called: c.Name + ": send to " + to.Name, Row: c.ID, Node: id}, true
	}
	if c, i, ok := p.findClip(id); ok {
		return Place{Called: c.Name + ": clip " + c.Clips[i].Name, Row: c.ID, Clip: id}, true
	}
	return Place{}, false
}

// labelOf is what a parameter is called, where it is an effect's.
func (p *Project) labelOf(owner, name string, effects Effects) string {
	if at, ok := p.findNode(owner); ok && at.node.Stage != nil {
		if info, ok := effects(at.node.Stage.Effect, at.node.Stage.Version); ok {
			if x, ok := info.Param(name); ok {
				return x.Label
			}
		}
	}
	return name
}

func nodeName(n *Node, effects Effects) string {
	if n.Fork != nil {
		if n.Fork.Name == "" {
			return "fork"
		}
		return n.Fork.Name
	}
	if n.Stage.Name != "" {
		return n.Stage.Name
	}
	info, _ := effects(n.Stage.Effect, n.Stage.Version)
	return info.Name
}
