package project

import (
	"fmt"
	"slices"

	"shoal/internal/param"
)

// Passage is a transition as one thing: a range of time, the parameters that move in it, and what
// happens to the tail at its end. While it lasts it gives its parameters their base, in place of hand,
// line and handle; before and after they are what they were.
type Passage struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
	Kind string `json:"kind" required:"true"` // the kind that it was made as; empty: by hand
	From int64  `json:"from" required:"true"` // ticks
	To   int64  `json:"to" required:"true"`
	// Rows are the channels that it works on.
	Rows    []string  `json:"rows" required:"true"`
	Off     bool      `json:"off" required:"true"`
	Courses []*Course `json:"courses" required:"true"`
	Tail    string    `json:"tail" required:"true" enum:"ring,cut,fade,hold"`
	Fade    int64     `json:"fade" required:"true"` // ticks that a fade of the tail takes
	// Reach lets a tail that is cut or faded reach the returns that its rows feed: their sends close when the passage
	// begins, or along it. What other rows have in those returns stays.
	Reach bool `json:"reach,omitempty"`
	// Brought are the stages and sends that it has put down, and takes with it when it goes.
	Brought []string `json:"brought" required:"true"`
}

// What a passage does to the tail at its end. Cut, fade and hold last until the next clip begins on
// the row, or on one that feeds it.
const (
	TailRing = "ring" // nothing: it rings on
	TailCut  = "cut"  // the rows are silent from the end on
	TailFade = "fade" // the rows fade from the end on
	TailHold = "hold" // all that moved stays where it ended
)

// CourseParts is into how many parts a course divides its passage.
const CourseParts = 10000

// Course is one movement of a passage, over any number of parameters: points at parts of its length,
// with values from 0 to 1.
type Course struct {
	Name    string         `json:"name" required:"true"`
	Points  []Point        `json:"points" required:"true"` // Tick counts CourseParts, 0 to CourseParts
	Targets []CourseTarget `json:"targets" required:"true"`
}

// CourseTarget is a parameter that goes from From to To, in its own unit, while its course goes from 0 to 1.
type CourseTarget struct {
	Owner string  `json:"owner" required:"true"`
	Name  string  `json:"name" required:"true"`
	From  float64 `json:"from" required:"true"`
	To    float64 `json:"to" required:"true"`
	// Here: it goes not from From but from where it stands.
	Here bool `json:"here,omitempty"`
	// Length, above 0: its value is this part of how long the passage lasts, in seconds, whatever its
	// course does.
	Length float64 `json:"length,omitempty"`
}

// PassageByID finds a passage.
func (p *Project) PassageByID(id string) (*Passage, bool) {
	i := slices.IndexFunc(p.Passages, func(x *Passage) bool { return x.ID == id })
	if i < 0 {
		return nil, false
	}
	return p.Passages[i], true
}

// maxPassages bounds what one document holds.
const maxPassages = 500

func (p *Project) checkPassages(effects Effects) error {
	if len(p.Passages) > maxPassages {
		return fmt.Errorf("there are more than %d passages", maxPassages)
	}
	for _, x := range p.Passages {
		if err := p.checkPassage(x, effects); err != nil {
			return fmt.Errorf("passage %s: %w", x.Name, err)
		}
	}
	return nil
}

func (p *Project) checkPassage(x *Passage, effects Effects) error {
	switch {
	case !ValidName(x.Name):
		return fmt.Errorf("it needs a name of 1 to 80 letters")
	case x.From < 0 || x.To <= x.From:
		return fmt.Errorf("it ends before it begins")
	case !slices.Contains([]string{TailRing, TailCut, TailFade, TailHold}, x.Tail):
		return fmt.Errorf("unknown tail rule %q", x.Tail)
	case x.Fade < 1 || x.Fade > 256*TicksPerQuarter:
		return fmt.Errorf("a fade of %d ticks: it must be 1 to %d", x.Fade, 256*TicksPerQuarter)
	}
	for _, id := range x.Rows {
		if _, ok := p.Channel(id); !ok {
			return fmt.Errorf("one of its rows is not there")
		}
	}
	for _, c := range x.Courses {
		if err := p.checkCourse(c, effects); err != nil {
			return fmt.Errorf("%s: %w", c.Name, err)
		}
	}
	return nil
}

func (p *Project) checkCourse(c *Course, effects Effects) error {
	if len(c.Points) == 0 || len(c.Points) > 1000 {
		return fmt.Errorf("a course has 1 to 1000 points, not %d", len(c.Points))
	}
	for i, pt := range c.Points {
		switch {
		case pt.Tick < 0 || pt.Tick > CourseParts:
			return fmt.Errorf("a point at part %d: it must be 0 to %d", pt.Tick, CourseParts)
		case i > 0 && pt.Tick < c.Points[i-1].Tick:
			return fmt.Errorf("its points are not in order")
		case !(pt.Value >= 0 && pt.Value <= 1):
			return fmt.Errorf("a value of %g: it must be 0 to 1", pt.Value)
		}
		if err := checkShape(pt); err != nil {
			return err
		}
	}
	for _, t := range c.Targets {
		d, err := p.address(t.Owner, t.Name, effects)
		switch {
		case err != nil:
			return err
		case d.Structural:
			return fmt.Errorf("%s cannot be moved: it changes latency or memory", d.Label)
		}
		if !(t.Length >= 0 && t.Length <= 1) {
			return fmt.Errorf("%g of the length: it must be 0 to 1", t.Length)
		}
		for _, v := range []float64{t.From, t.To} {
			if err := d.Check(v); err != nil {
				return err
			}
		}
	}
	return nil
}

// At is the course's value at a part of its length, 0 to 1.
func (c *Course) At(part float64) float64 {
	l := Line{Points: c.Points}
	return l.At(part*CourseParts, unit, 0)
}

// unit is a plain number from 0 to 1.
var unit = param.Param{Name: "part", Label: "Part", Max: 1, Taper: param.Linear}

// feeders are the rows whose signal reaches a row: those that go out to it, send to it or are tapped by
// it, and theirs, and itself.
func (p *Project) feeders(row string) map[string]bool {
	in := map[string]bool{}
	var visit func(id string)
	visit = func(id string) {
		if in[id] {
			return
		}
		in[id] = true
		for _, c := range p.Channels {
			if c.Output == id || slices.ContainsFunc(c.Sends, func(s *Send) bool { return s.To == id }) {
				visit(c.ID)
			}
			if c.ID == id && c.Input != nil {
				visit(c.Input.Channel)
			}
		}
	}
	visit(row)
	return in
}

// NextSound is the first frame from at on where a clip begins that reaches a row; ok is false where none
// does.
func (p *Project) NextSound(row string, at int64, clock *Clock) (frame int64, ok bool) {
	in := p.feeders(row)
	for _, c := range p.Channels {
		if !in[c.ID] {
			continue
		}
		for _, x := range c.Clips {
			if f := x.BeginsAt(clock); !x.Mute && f >= at && (!ok || f < frame) {
				frame, ok = f, true
			}
		}
	}
	return frame, ok
}
