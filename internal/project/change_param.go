package project

import "fmt"

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
	f, err := p.address(c.Owner, c.Name, effects)
	if err != nil {
		return nil, fmt.Errorf("set %s: %w", c.Name, err)
	}
	if err := f.Check(c.Value); err != nil {
		return nil, err
	}
	old := f.get()
	if c.If != nil && *c.If != old {
		return nil, fmt.Errorf("%s has been changed again since, to %g %s", f.Label, old, f.Unit)
	}
	v := f.set(c.Value)
	return []Change{&SetParam{Owner: c.Owner, Name: c.Name, Value: old, If: &v}}, nil
}
