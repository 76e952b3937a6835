package project

import (
	"fmt"
	"strings"
)

// MakeRemark says something about a place.
type MakeRemark struct {
	ID    string    `json:"id,omitempty"`
	At    string    `json:"at,omitempty"`    // the id of what it is about; empty: the song
	Param string    `json:"param,omitempty"` // whose line
	From  int64     `json:"from,omitempty"`  // song frames; to is 0: no range
	To    int64     `json:"to,omitempty"`
	Text  string    `json:"text"`
	Told  []Speaker `json:"told,omitempty"`
	said
}

// AnswerRemark says something more.
type AnswerRemark struct {
	Remark string    `json:"remark"`
	ID     string    `json:"id,omitempty"` // of what is said
	Text   string    `json:"text"`
	Told   []Speaker `json:"told,omitempty"`
	said
}

// SettleRemark settles a remark, or opens it again.
type SettleRemark struct {
	Remark  string `json:"remark"`
	Settled bool   `json:"settled"`
	said
}

// said is who says something, and when: Shoal's own server fills it in, whatever was sent.
type said struct {
	By   *Speaker `json:"by,omitempty"`
	Time string   `json:"time,omitempty"` // RFC 3339
}

func (s *said) spoken(by Speaker, time string) { s.By, s.Time = &by, time }

// speaker is who says it; nobody, where that was not filled in.
func (s *said) speaker() Speaker {
	if s.By == nil {
		return Speaker{}
	}
	return *s.By
}

// Speak lets changes be somebody's who say something, and reports whether all of them do: whoever hears a project may remark.
func Speak(batch []Change, by Speaker, time string) (all bool) {
	all = true
	for _, c := range batch {
		switch c.(type) {
		case *TakeInHand, *SetMeant: // whoever only hears has nothing in hand, and decides nothing
			all = false
		}
		if s, speaks := c.(interface{ spoken(Speaker, string) }); speaks {
			s.spoken(by, time)
		} else {
			all = false
		}
	}
	return all
}

func (c *MakeRemark) apply(p *Project, effects Effects) ([]Change, error) {
	at, err := p.Spot(About{c.At, c.Param, c.From, c.To}, effects)
	if err != nil {
		return nil, err
	}
	r := &Remark{ID: orNew(c.ID), At: at, Said: []Said{{orNew(""), c.speaker(), c.Time, strings.TrimSpace(c.Text), c.Told}}}
	p.Remarks = append(p.Remarks, r)
	return []Change{&RemoveRemark{r.ID}}, nil
}

// About is what a remark would be about.
type About struct {
	At    string `json:"at" required:"true"`    // an id; empty: the song
	Param string `json:"param" required:"true"` // whose line; empty: none
	From  int64  `json:"from" required:"true"`  // song frames; to is 0: no range
	To    int64  `json:"to" required:"true"`
}

// Spot is what a remark would be about, by the name that it has now.
func (p *Project) Spot(a About, effects Effects) (Spot, error) {
	at, ok := p.PlaceOf(a.At, a.Param, effects)
	if !ok {
		return Spot{}, Gone("what this is about")
	}
	s := Spot{ID: a.At, Param: a.Param, Called: at.Called}
	if a.To > 0 {
		clock := p.Clock()
		s.From, s.To = int64(clock.Tick(max(a.From, 0))), int64(clock.Tick(a.To))
		s.Called = fmt.Sprintf("%s, %s to %s", at.Called, clock.Where(s.From), clock.Where(s.To))
	}
	return s, nil
}

func (c *AnswerRemark) apply(p *Project, _ Effects) ([]Change, error) {
	r, err := p.remark(c.Remark)
	if err != nil {
		return nil, err
	}
	s := Said{orNew(c.ID), c.speaker(), c.Time, strings.TrimSpace(c.Text), c.Told}
	r.Said = append(r.Said[:len(r.Said):len(r.Said)], s)
	return []Change{&unsay{c.Remark, s.ID}}, nil
}

func (c *SettleRemark) apply(p *Project, _ Effects) ([]Change, error) {
	r, err := p.remark(c.Remark)
	if err != nil {
		return nil, err
	}
	old := r.Settled
	r.Settled = nil
	if c.Settled {
		r.Settled = &Settled{c.speaker(), c.Time}
	}
	return []Change{&setSettled{c.Remark, old}}, nil
}

// RemoveRemark takes a remark away, with all that was said.
type RemoveRemark struct {
	Remark string `json:"remark"`
}

func (c *RemoveRemark) apply(p *Project, _ Effects) ([]Change, error) {
	for i, r := range p.Remarks {
		if r.ID == c.Remark {
			p.Remarks = dropped(p.Remarks, i)
			return []Change{&putRemark{r, i}}, nil
		}
	}
	return nil, Gone("the remark")
}

// putRemark undoes the removing of one.
type putRemark struct {
	Remark *Remark `json:"remark"`
	Index  int     `json:"index"`
}

func (c *putRemark) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Remark == nil {
		return nil, fmt.Errorf("there is no remark to put back")
	}
	p.Remarks = insert(p.Remarks, c.Index, Clone(c.Remark))
	return []Change{&RemoveRemark{c.Remark.ID}}, nil
}

// unsay undoes an answer.
type unsay struct {
	Remark string `json:"remark"`
	Said   string `json:"said"`
}

func (c *unsay) apply(p *Project, _ Effects) ([]Change, error) {
	r, err := p.remark(c.Remark)
	if err != nil {
		return nil, err
	}
	for i, s := range r.Said {
		if s.ID == c.Said && i > 0 {
			r.Said = dropped(r.Said, i)
			a := &AnswerRemark{Remark: c.Remark, ID: s.ID, Text: s.Text, Told: s.To}
			a.spoken(s.By, s.Time)
			return []Change{a}, nil
		}
	}
	return nil, Gone("what was said")
}

// setSettled undoes a settling.
type setSettled struct {
	Remark  string   `json:"remark"`
	Settled *Settled `json:"settled,omitempty"`
}

func (c *setSettled) apply(p *Project, _ Effects) ([]Change, error) {
	r, err := p.remark(c.Remark)
	if err != nil {
		return nil, err
	}
	old := r.Settled
	r.Settled = copyOf(c.Settled)
	return []Change{&setSettled{c.Remark, old}}, nil
}

// Inner reports whether a batch holds what only undo and redo do: it would put words into somebody's mouth, or take them out.
func Inner(batch []Change) bool {
	for _, c := range batch {
		switch c.(type) {
		case *setHand, *putRemark, *unsay, *setSettled:
			return true
		}
	}
	return false
}
