package project

import (
	"errors"
	"slices"
)

// errHole says that a part of a project is missing where one must stand.
var errHole = errors.New("a part of the project is empty where one must stand")

// Whole refuses a part of a project, such as makings, in which there is nothing where something must stand. Whether it
// makes sense is not looked at.
func (p *Project) Whole() error {
	if len(p.Tempo) == 0 || len(p.Meter) == 0 || slices.Contains(p.Channels, nil) || slices.Contains(p.Lines, nil) ||
		slices.Contains(p.Movers, nil) || slices.Contains(p.Handles, nil) || slices.Contains(p.Passages, nil) ||
		slices.Contains(p.Treatments, nil) {
		return errHole
	}
	for _, c := range p.Channels {
		if slices.Contains(c.Clips, nil) || slices.Contains(c.Sends, nil) {
			return errHole
		}
		if err := wholeChain(&c.Chain); err != nil {
			return err
		}
	}
	for _, t := range p.Treatments {
		if err := wholeChain(&t.Chain); err != nil {
			return err
		}
	}
	for _, x := range p.Passages {
		if slices.Contains(x.Courses, nil) {
			return errHole
		}
	}
	return nil
}

func wholeChain(c *Chain) error {
	for _, n := range c.Nodes {
		if n == nil || (n.Stage == nil) == (n.Fork == nil) {
			return errHole
		}
		if n.Fork == nil {
			continue
		}
		for _, path := range n.Fork.Paths {
			if path == nil {
				return errHole
			}
			if err := wholeChain(&path.Chain); err != nil {
				return err
			}
		}
	}
	return nil
}
