package project

import (
	"fmt"
	"slices"

	"shoal/internal/param"
)

func (p *Project) checkChain(c *Chain, effects Effects, depth int) error {
	if depth > maxDepth {
		return fmt.Errorf("forks are nested more than %d deep", maxDepth)
	}
	for _, n := range c.Nodes {
		switch {
		case (n.Stage == nil) == (n.Fork == nil):
			return fmt.Errorf("a node must be either a stage or a fork")
		case n.Stage != nil:
			if err := n.Stage.check(effects); err != nil {
				return err
			}
			if err := p.checkSound(n.Stage, effects); err != nil {
				return fmt.Errorf("stage %s: %w", n.Stage.ID, err)
			}
			if err := p.checkTap(n.Stage.Key); err != nil {
				return fmt.Errorf("the key of stage %s: %w", n.Stage.Effect, err)
			}
		default:
			if err := p.checkFork(n.Fork, effects, depth); err != nil {
				return fmt.Errorf("%s: %w", n.Fork.Title(), err)
			}
		}
	}
	return nil
}

func (p *Project) checkFork(f *Fork, effects Effects, depth int) error {
	if err := f.check(); err != nil {
		return err
	}
	for _, path := range f.Paths {
		if err := path.check(); err != nil {
			return fmt.Errorf("path %s: %w", path.Name, err)
		}
		if err := p.checkChain(&path.Chain, effects, depth+1); err != nil {
			return fmt.Errorf("path %s: %w", path.Name, err)
		}
	}
	return nil
}

// checkSound refuses a sound that is not in the project, or that the effect cannot use.
func (p *Project) checkSound(s *Stage, effects Effects) error {
	if s.Sound == "" {
		return nil
	}
	if info, _ := effects(s.Effect, s.Version); info.Sound == "" {
		return fmt.Errorf("%s uses no sound", info.Name)
	}
	if _, ok := p.AudioByHash(s.Sound); !ok {
		return fmt.Errorf("its sound %.12s is not in the project's audio", s.Sound)
	}
	return nil
}

func checkMix(mix float64, law string) error {
	if err := param.Mix.Check(mix); err != nil {
		return err
	}
	if law != "blend" && law != "add" {
		return fmt.Errorf("unknown mix law %q: it must be blend or add", law)
	}
	return nil
}

// CheckChain checks a chain on its own, as a file may hold one.
func CheckChain(c *Chain, effects Effects) error {
	p := New("chain", 48000, 120, 4, 4)
	if len(c.Wholes(effects, false)) > 0 { // it is one of a piece's treatment
		p.Treatments = []*Treatment{{ID: NewID(), Chain: *c}}
	} else {
		p.Channels[0].Chain = *c
	}
	return p.Validate(effects)
}

func (s *Stage) check(effects Effects) error {
	newest, ok := effects(s.Effect, 0)
	if !ok {
		return fmt.Errorf("stage %s: there is no effect %q", s.ID, s.Effect)
	}
	info, ok := effects(s.Effect, s.Version)
	if !ok || s.Version < 1 {
		return fmt.Errorf("stage %s: version %d of %s is not known here (newest: %d)", s.ID, s.Version, s.Effect, newest.Newest)
	}
	for name, v := range s.Params {
		p, ok := info.Param(name)
		if !ok {
			return fmt.Errorf("stage %s: %s has no parameter %q", s.ID, info.Name, name)
		}
		if err := p.Check(v); err != nil {
			return fmt.Errorf("stage %s: %s: %w", s.ID, info.Name, err)
		}
	}
	if !slices.Contains([]string{"both", "left", "right", "mid", "side"}, s.ActsOn) {
		return fmt.Errorf("stage %s: it cannot act on %q", s.ID, s.ActsOn)
	}
	if err := checkMix(s.Mix, s.MixLaw); err != nil {
		return fmt.Errorf("stage %s: %w", s.ID, err)
	}
	return nil
}

func (p *Project) checkTap(t *Tap) error {
	if t == nil {
		return nil
	}
	c, ok := p.Channel(t.Channel)
	if !ok {
		return fmt.Errorf("channel %q does not exist", t.Channel)
	}
	switch t.Point {
	case "input", "pre", "post":
		return nil
	case "before", "after":
		if at, ok := c.find(t.Node); !ok || at.node == nil {
			return fmt.Errorf("%s has no stage %q", c.Name, t.Node)
		}
		return nil
	case "path":
		if !c.hasPath(t.Node) {
			return fmt.Errorf("%s has no path %q", c.Name, t.Node)
		}
		return nil
	}
	return fmt.Errorf("unknown point %q", t.Point)
}
