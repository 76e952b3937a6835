package project

import (
	"fmt"
	"slices"
)

// SetParam sets the value of a parameter by its address: a stage, fork, path,
// send or channel, and a name. When If is given and the value is no longer that,
// the change is refused: this is how an undo notices that somebody else has moved the
// same control since.
type SetParam struct {
	Owner string   `json:"owner"`
	Name  string   `json:"name"`
	Value float64  `json:"value"`
	If    *float64 `json:"if,omitempty"`
}

func (c *SetParam) apply(p *Project, effects Effects) ([]Change, error) {
	d, old, err := p.Describe(c.Owner, c.Name, effects)
	if err != nil {
		return nil, fmt.Errorf("set %s: %w", c.Name, err)
	}
	if err := d.Check(c.Value); err != nil {
		return nil, err
	}
	if c.If != nil && *c.If != old {
		return nil, fmt.Errorf("%s has been changed again since, to %g %s", d.Label, old, d.Unit)
	}
	v, err := p.put(c.Owner, c.Name, c.Value, effects)
	if err != nil {
		return nil, err
	}
	return []Change{&SetParam{Owner: c.Owner, Name: c.Name, Value: old, If: &v}}, nil
}

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
	return undo
}
