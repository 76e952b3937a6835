package project

import (
	"fmt"

	"shoal/internal/param"
)

// address finds a parameter by the id of what owns it and its name: its description and
// where its value lies. A stage's own parameters lie in its map: for those, stage is given instead.
func (p *Project) address(owner, name string, effects Effects) (d param.Param, at *float64, stage *Stage, err error) {
	none := func(what string) (param.Param, *float64, *Stage, error) {
		return param.Param{}, nil, nil, fmt.Errorf("%s has no parameter %q", what, name)
	}
	if c, ok := p.Channel(owner); ok {
		switch name {
		case "fader":
			return param.Fader, &c.Fader, nil, nil
		case "pan":
			return param.Pan, &c.Pan, nil, nil
		}
		return none("channel " + c.Name)
	}
	if c, i, ok := p.findSend(owner); ok {
		switch name {
		case "level":
			return param.Send, &c.Sends[i].Level, nil, nil
		case "pan":
			return param.Pan, &c.Sends[i].Pan, nil, nil
		}
		return none("a send")
	}
	if path, ok := p.findPath(owner); ok {
		switch name {
		case "level":
			return param.Path, &path.Level, nil, nil
		case "pan":
			return param.Pan, &path.Pan, nil, nil
		case "width":
			return param.Width, &path.Width, nil, nil
		}
		return none("a path")
	}
	node, ok := p.findNode(owner)
	if !ok {
		return param.Param{}, nil, nil, fmt.Errorf("it is no longer there (somebody may have removed it)")
	}
	if f := node.node.Fork; f != nil {
		switch name {
		case "mix":
			return param.Mix, &f.Mix, nil, nil
		case "trim":
			return param.Joined, &f.Trim, nil, nil
		}
		if d, i, ok := f.crossoverParam(name); ok {
			return d, &f.Crossovers[i], nil, nil
		}
		return none("this fork")
	}
	s := node.node.Stage
	if name == "mix" {
		return param.Mix, &s.Mix, nil, nil
	}
	info, ok := effects(s.Effect)
	if !ok {
		return param.Param{}, nil, nil, fmt.Errorf("there is no effect %q", s.Effect)
	}
	if d, ok = info.Param(name); !ok {
		return none(info.Name)
	}
	return d, nil, s, nil
}

// Describe finds the description of a parameter by its address, and its
// present value.
func (p *Project) Describe(owner, name string, effects Effects) (param.Param, float64, error) {
	d, at, stage, err := p.address(owner, name, effects)
	switch {
	case err != nil:
		return d, 0, err
	case at != nil:
		return d, *at, nil
	}
	if v, ok := stage.Params[name]; ok {
		return d, v, nil
	}
	return d, d.Default, nil
}

// put sets a parameter, and returns the value that it has now: a crossover keeps its distance.
func (p *Project) put(owner, name string, v float64, effects Effects) (float64, error) {
	d, at, stage, err := p.address(owner, name, effects)
	switch {
	case err != nil:
		return 0, err
	case at == nil && v == d.Default:
		delete(stage.Params, name)
		return v, nil
	case at == nil:
		stage.Params[name] = v
		return v, nil
	}
	if node, ok := p.findNode(owner); ok && node.node.Fork != nil {
		if _, i, ok := node.node.Fork.crossoverParam(name); ok {
			v = node.node.Fork.keepApart(i, v)
		}
	}
	*at = v
	return v, nil
}
