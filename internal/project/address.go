package project

import (
	"fmt"
	"slices"

	"shoal/internal/param"
)

// field is a parameter of the document: what it is, and how it is read and set.
type field struct {
	param.Param
	get func() float64
	set func(v float64) float64 // returns the value that it has now
}

func number(d param.Param, at *float64) field {
	return field{d, func() float64 { return *at }, func(v float64) float64 { *at = v; return v }}
}

func toggle(d param.Param, at *bool) field {
	get := func() float64 {
		if *at {
			return 1
		}
		return 0
	}
	return field{d, get, func(v float64) float64 { *at = v != 0; return v }}
}

// Param is a parameter by the id of what owns it and its name, and the value that the document gives it.
func (p *Project) Param(owner, name string, effects Effects) (d param.Param, value float64, err error) {
	f, err := p.address(owner, name, effects)
	if err != nil {
		return param.Param{}, 0, err
	}
	return f.Param, f.get(), nil
}

// address finds a parameter by the id of what owns it and its name.
func (p *Project) address(owner, name string, effects Effects) (field, error) {
	what, fields := "", map[string]field{}
	if c, ok := p.Channel(owner); ok {
		what = "channel " + c.Name
		fields["fader"], fields["pan"], fields["mute"] = number(
			param.Fader,
			&c.Fader,
		), number(
			param.Pan,
			&c.Pan,
		), toggle(
			param.Mute,
			&c.Mute,
		)
	} else if c, i, ok := p.findSend(owner); ok {
		s := c.Sends[i]
		what = "a send"
		fields["level"], fields["pan"], fields["mute"] = number(
			param.Send,
			&s.Level,
		), number(
			param.Pan,
			&s.Pan,
		), toggle(
			param.Mute,
			&s.Mute,
		)
	} else if path, ok := p.findPath(owner); ok {
		what = "a path"
		fields["level"], fields["pan"], fields["width"] = number(
			param.Path,
			&path.Level,
		), number(
			param.Pan,
			&path.Pan,
		), number(
			param.Width,
			&path.Width,
		)
		fields["mute"] = toggle(param.Mute, &path.Mute)
	} else if i := slices.IndexFunc(p.Handles, func(h *Handle) bool { return h.ID == owner }); i >= 0 {
		what = "a handle"
		fields["value"] = number(param.Handle, &p.Handles[i].Value)
	} else if at, ok := p.findNode(owner); !ok {
		return field{}, fmt.Errorf("it is no longer there (somebody may have removed it)")
	} else if f := at.node.Fork; f != nil {
		what = "this fork"
		fields["mix"], fields["trim"], fields["bypass"] = number(
			param.Mix,
			&f.Mix,
		), number(
			param.Joined,
			&f.Trim,
		), toggle(
			param.Bypass,
			&f.Bypass,
		)
		if d, i, ok := f.crossoverParam(name); ok { // it keeps its distance
			fields[name] = field{d, func() float64 { return f.Crossovers[i] }, func(v float64) float64 {
				f.Crossovers[i] = f.keepApart(i, v)
				return f.Crossovers[i]
			}}
		}
	} else {
		s := at.node.Stage
		info, ok := effects(s.Effect, s.Version)
		if !ok {
			return field{}, fmt.Errorf("there is no effect %q", s.Effect)
		}
		what = info.Name
		fields["mix"], fields["bypass"] = number(param.Mix, &s.Mix), toggle(param.Bypass, &s.Bypass)
		if d, ok := info.Param(name); ok {
			fields[name] = s.field(d)
		}
	}
	if f, ok := fields[name]; ok {
		return f, nil
	}
	return field{}, fmt.Errorf("%s has no parameter %q", what, name)
}

// field is a parameter of a stage's effect: only what differs from the default is kept.
func (s *Stage) field(d param.Param) field {
	get := func() float64 {
		if v, ok := s.Params[d.Name]; ok {
			return v
		}
		return d.Default
	}
	return field{d, get, func(v float64) float64 {
		if v == d.Default {
			delete(s.Params, d.Name)
		} else {
			s.Params[d.Name] = v
		}
		return v
	}}
}

// Describe finds the description of a parameter by its address, and its
// present value.
func (p *Project) Describe(owner, name string, effects Effects) (param.Param, float64, error) {
	f, err := p.address(owner, name, effects)
	if err != nil {
		return param.Param{}, 0, err
	}
	return f.Param, f.get(), nil
}

// OwnerName is what an owner of parameters is called, and the channel that it belongs to.
func (p *Project) OwnerName(owner string, effects Effects) (name, channel string) {
	if c, ok := p.Channel(owner); ok {
		return c.Name, c.ID
	}
	if c, i, ok := p.findSend(owner); ok {
		to, _ := p.Channel(c.Sends[i].To)
		return "Send to " + to.Name, c.ID
	}
	if at, ok := p.placeOfPath(owner); ok {
		return "Path " + at.path().Name, at.channel.ID
	}
	for _, h := range p.Handles {
		if h.ID == owner {
			return h.Name, ""
		}
	}
	at, ok := p.findNode(owner)
	if !ok {
		return "", ""
	}
	if at.node.Fork != nil {
		return at.node.Fork.Title(), at.channel.ID
	}
	s := at.node.Stage
	if s.Name != "" {
		return s.Name, at.channel.ID
	}
	info, _ := effects(s.Effect, s.Version)
	return info.Name, at.channel.ID
}
