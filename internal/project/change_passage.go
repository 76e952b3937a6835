package project

import (
	"fmt"
	"slices"
)

// PutPassage puts a passage down, or another in its place. What it needs must be there.
type PutPassage struct {
	Passage *Passage `json:"passage"`
	Index   *int     `json:"index,omitempty"`
}

func (c *PutPassage) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Passage == nil || slices.Contains(c.Passage.Courses, nil) {
		return nil, fmt.Errorf("there is no passage to put down")
	}
	x := Clone(c.Passage)
	if x.ID == "" {
		x.ID = NewID()
	}
	x.fill()
	if i := slices.IndexFunc(p.Passages, func(o *Passage) bool { return o.ID == x.ID }); i >= 0 {
		old := p.Passages[i]
		p.Passages[i] = x
		return []Change{&PutPassage{Passage: old}}, nil
	}
	at := len(p.Passages)
	if c.Index != nil {
		at = *c.Index
	}
	p.Passages = insert(p.Passages, at, x)
	return []Change{&takePassage{x.ID}}, nil
}

// fill puts empty lists and usual values where nothing is said.
func (x *Passage) fill() {
	if x.Rows == nil {
		x.Rows = []string{}
	}
	if x.Courses == nil {
		x.Courses = []*Course{}
	}
	if x.Brought == nil {
		x.Brought = []string{}
	}
	if x.Tail == "" {
		x.Tail = TailRing
	}
	if x.Fade == 0 {
		x.Fade = 2 * TicksPerQuarter
	}
	for _, c := range x.Courses {
		if c.Targets == nil {
			c.Targets = []CourseTarget{}
		}
	}
}

// takePassage takes a passage away and nothing else: it undoes PutPassage, which has not put more.
type takePassage struct {
	ID string `json:"id"`
}

func (c *takePassage) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Passages, func(x *Passage) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the passage")
	}
	undo := &PutPassage{p.Passages[i], &i}
	p.Passages = dropped(p.Passages, i)
	return []Change{undo}, nil
}

// RemovePassage takes a passage away, with the stages and sends that it has brought; those that another
// passage moves as well are that one's then.
type RemovePassage struct {
	ID string `json:"id"`
}

func (c *RemovePassage) apply(p *Project, effects Effects) ([]Change, error) {
	x, ok := p.PassageByID(c.ID)
	if !ok {
		return nil, Gone("the passage")
	}
	undo, err := (&takePassage{c.ID}).apply(p, effects)
	if err != nil {
		return nil, err
	}
	for _, id := range x.Brought {
		u, err := p.takeBrought(x, id, effects)
		if err != nil {
			return nil, err
		}
		undo = slices.Concat(u, undo)
	}
	return undo, nil
}

// takeBrought takes away what a passage has brought, or gives it to another that moves it.
func (p *Project) takeBrought(x *Passage, id string, effects Effects) ([]Change, error) {
	if heir := p.heir(x, id); heir != nil {
		return p.changePassage(heir.ID, effects, func(x *Passage) error {
			x.Brought = append(x.Brought, id)
			return nil
		})
	}
	if _, _, ok := p.findSend(id); ok {
		return (&RemoveSend{id}).apply(p, effects)
	}
	if _, ok := p.findNode(id); ok {
		return (&RemoveNode{id}).apply(p, effects)
	}
	return nil, nil
}

// heir is another passage that moves what belongs to an owner.
func (p *Project) heir(x *Passage, owner string) *Passage {
	for _, o := range p.Passages {
		if o != x && o.moves(owner) {
			return o
		}
	}
	return nil
}

func (x *Passage) moves(owner string) bool {
	return slices.ContainsFunc(x.Courses, func(c *Course) bool {
		return slices.ContainsFunc(c.Targets, func(t CourseTarget) bool { return t.Owner == owner })
	})
}

// SetPassage sets what is given: its name, whether it is off, and what happens to the tail.
type SetPassage struct {
	ID   string  `json:"id"`
	Name *string `json:"name,omitempty"`
	Off  *bool   `json:"off,omitempty"`
	Tail *string `json:"tail,omitempty"`
	Fade *int64  `json:"fade,omitempty"` // ticks
	// Reach: whether the tail rule reaches the returns
	Reach *bool `json:"reach,omitempty"`
}

func (c *SetPassage) apply(p *Project, effects Effects) ([]Change, error) {
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		swap(&x.Name, c.Name)
		swap(&x.Off, c.Off)
		swap(&x.Tail, c.Tail)
		swap(&x.Fade, c.Fade)
		swap(&x.Reach, c.Reach)
		return nil
	})
}

// changePassage puts a changed copy of a passage in its place.
func (p *Project) changePassage(id string, effects Effects, change func(x *Passage) error) ([]Change, error) {
	old, ok := p.PassageByID(id)
	if !ok {
		return nil, Gone("the passage")
	}
	x := Clone(old)
	if err := change(x); err != nil {
		return nil, err
	}
	return (&PutPassage{Passage: x}).apply(p, effects)
}

// RangePassage moves or stretches a passage: from one song frame to another, on a grid in ticks; or
// by ticks from where its ends are; or to places that are written as Clock.At reads them.
type RangePassage struct {
	ID     string `json:"id"`
	From   int64  `json:"from,omitempty"`
	To     int64  `json:"to,omitempty"`
	Snap   int64  `json:"snap,omitempty"`
	FromBy int64  `json:"fromBy,omitempty"`
	ToBy   int64  `json:"toBy,omitempty"`
	FromAt string `json:"fromAt,omitempty"`
	ToAt   string `json:"toAt,omitempty"`
}

func (c *RangePassage) apply(p *Project, effects Effects) ([]Change, error) {
	clock := p.Clock()
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		var err error
		switch {
		case c.FromAt != "" || c.ToAt != "":
			if c.FromAt != "" {
				x.From, err = clock.At(c.FromAt)
			}
			if c.ToAt != "" && err == nil {
				x.To, err = clock.At(c.ToAt)
			}
		case c.FromBy != 0 || c.ToBy != 0:
			x.From, x.To = max(0, x.From+c.FromBy), x.To+c.ToBy
		default:
			x.From, x.To = clock.Snapped(c.From, c.Snap), clock.Snapped(c.To, c.Snap)
		}
		if err == nil && x.To <= x.From {
			return fmt.Errorf("%s would end before it begins: give it at least one step of the grid", x.Name)
		}
		if err != nil {
			return err
		}
		return nil
	})
}

// CopyPassage copies a passage to another boundary: as far from the begin of a section as it is from the
// one that it stands at, or, where no section is given, so that it begins at a song frame. The copy uses
// the same stages.
type CopyPassage struct {
	ID      string `json:"id"`
	New     string `json:"new,omitempty"` // id of the copy
	Section string `json:"section,omitempty"`
	At      int64  `json:"at,omitempty"`
	Snap    int64  `json:"snap,omitempty"`
}

func (c *CopyPassage) apply(p *Project, effects Effects) ([]Change, error) {
	old, ok := p.PassageByID(c.ID)
	if !ok {
		return nil, Gone("the passage")
	}
	shift := p.Clock().Snapped(c.At, c.Snap) - old.From
	if c.Section != "" {
		i := slices.IndexFunc(p.Sections, func(s Section) bool { return s.ID == c.Section })
		if i < 0 {
			return nil, Gone("the section")
		}
		shift = p.Sections[i].Tick - p.boundary(old.To)
	}
	x := Clone(old)
	x.ID, x.Brought = c.New, []string{}
	if x.ID == "" {
		x.ID = NewID()
	}
	x.From, x.To = x.From+shift, x.To+shift
	if x.From < 0 {
		return nil, fmt.Errorf("%s would begin before the song", x.Name)
	}
	return p.each(effects, &PutPassage{Passage: x})
}

// boundary is where the section begins whose begin is nearest to a tick.
func (p *Project) boundary(tick int64) int64 {
	best := int64(0)
	for _, s := range p.Sections {
		if abs(s.Tick-tick) < abs(best-tick) {
			best = s.Tick
		}
	}
	return best
}

func abs(v int64) int64 { return max(v, -v) }

// dropFromPassages takes owners of parameters out of all passages, and rows that are no longer there, and
// returns what brings them back.
func (p *Project) dropFromPassages(owners map[string]bool) (undo []Change) {
	for i, x := range p.Passages {
		is := func(id string) bool { return owners[id] }
		touched := slices.ContainsFunc(x.Rows, is) || slices.ContainsFunc(x.Brought, is)
		for id := range owners {
			touched = touched || x.moves(id)
		}
		if !touched {
			continue
		}
		undo = append(undo, &PutPassage{Passage: x})
		n := Clone(x)
		n.Rows, n.Brought = slices.DeleteFunc(n.Rows, is), slices.DeleteFunc(n.Brought, is)
		for _, c := range n.Courses {
			c.Targets = slices.DeleteFunc(c.Targets, func(t CourseTarget) bool { return owners[t.Owner] })
		}
		p.Passages[i] = n
	}
	return undo
}

// passCopies lets passages move copies as they move what was copied.
func (p *Project) passCopies(fresh map[string]string) {
	for _, x := range p.Passages {
		for _, id := range slices.Clone(x.Rows) {
			if n, ok := fresh[id]; ok {
				x.Rows = append(x.Rows, n)
			}
		}
		for _, id := range slices.Clone(x.Brought) {
			if n, ok := fresh[id]; ok {
				x.Brought = append(x.Brought, n)
			}
		}
		for _, c := range x.Courses {
			for _, t := range slices.Clone(c.Targets) {
				if n, ok := fresh[t.Owner]; ok {
					t.Owner = n
					c.Targets = append(c.Targets, t)
				}
			}
		}
	}
}
