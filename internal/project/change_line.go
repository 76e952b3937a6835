package project

import "slices"

// SetLine puts an automation line down, replaces it, or (with no points, nil)
// takes it away.
type SetLine struct {
	Owner  string  `json:"owner"`
	Name   string  `json:"name"`
	Points []Point `json:"points"`
	Index  *int    `json:"index,omitempty"`
}

func (c *SetLine) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Lines, func(l *Line) bool { return l.Owner == c.Owner && l.Name == c.Name })
	undo := &SetLine{Owner: c.Owner, Name: c.Name}
	if i >= 0 {
		undo.Points = p.Lines[i].Points
	}
	switch {
	case c.Points == nil && i >= 0:
		undo.Index = &i
		p.Lines = slices.Delete(p.Lines, i, i+1)
	case c.Points == nil:
	case i >= 0:
		p.Lines[i] = &Line{c.Owner, c.Name, slices.Clone(c.Points)}
	default:
		at := len(p.Lines)
		if c.Index != nil {
			at = *c.Index
		}
		p.Lines = insert(p.Lines, at, &Line{c.Owner, c.Name, slices.Clone(c.Points)})
	}
	return []Change{undo}, nil
}

// RemoveLine takes an automation line away.
type RemoveLine struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *RemoveLine) apply(p *Project, effects Effects) ([]Change, error) {
	return (&SetLine{Owner: c.Owner, Name: c.Name}).apply(p, effects)
}

// dropLines takes away every line of the owners and returns what puts them
// back, each in its place.
func (p *Project) dropLines(owners map[string]bool) (undo []Change) {
	for i := len(p.Lines) - 1; i >= 0; i-- {
		if l := p.Lines[i]; owners[l.Owner] {
			at := i
			undo = append(undo, &SetLine{l.Owner, l.Name, l.Points, &at})
			p.Lines = slices.Delete(p.Lines, i, i+1)
		}
	}
	slices.Reverse(undo)
	return append(undo, p.dropMoves(owners)...)
}

// Line finds a parameter's line, and its place among all.
func (p *Project) Line(owner, name string) (*Line, int) {
	i := slices.IndexFunc(p.Lines, func(l *Line) bool { return l.Owner == owner && l.Name == name })
	if i < 0 {
		return nil, -1
	}
	return p.Lines[i], i
}

// EditLine puts points in the place of all those between two ticks, both ends included. A line
// that is not there begins with it.
type EditLine struct {
	Owner  string  `json:"owner"`
	Name   string  `json:"name"`
	From   int64   `json:"from"`
	To     int64   `json:"to"`
	Points []Point `json:"points"`
}

func (c *EditLine) apply(p *Project, effects Effects) ([]Change, error) {
	if _, _, err := p.Describe(c.Owner, c.Name, effects); err != nil {
		return nil, err
	}
	l, _ := p.Line(c.Owner, c.Name)
	if l == nil {
		return p.each(effects, &SetLine{Owner: c.Owner, Name: c.Name, Points: append([]Point{}, c.Points...)})
	}
	i, j := l.Inside(c.From, c.To)
	undo := &EditLine{c.Owner, c.Name, c.From, c.To, slices.Clone(l.Points[i:j])}
	for _, pt := range c.Points { // undone, what lies outside would stay
		undo.From, undo.To = min(undo.From, pt.Tick), max(undo.To, pt.Tick)
	}
	if undo.From < c.From || undo.To > c.To {
		a, b := l.Inside(undo.From, undo.To)
		undo.Points = slices.Clone(l.Points[a:b])
		kept := slices.Concat(l.Points[a:i], c.Points, l.Points[j:b])
		slices.SortStableFunc(kept, func(x, y Point) int { return int(x.Tick - y.Tick) })
		l.Points = joined(l.Points[:a], kept, l.Points[b:])
		return []Change{undo}, nil
	}
	l.Points = joined(l.Points[:i], c.Points, l.Points[j:])
	return []Change{undo}, nil
}

// joined is never nil: a line without points is still a line.
func joined(parts ...[]Point) []Point { return append([]Point{}, slices.Concat(parts...)...) }
