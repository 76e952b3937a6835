package demo

import (
	"fmt"

	"shoal/internal/engine"
	"shoal/internal/passage"
	"shoal/internal/project"
)

// pass adds two passages: before the Flood all that is struck and sung slows to a stop, while the harbour
// goes on; and at the end the piece washes out into the hall.
func pass(p *project.Project) (*project.Project, error) {
	clock := p.Clock()
	half := p.Meter[0].BarTicks() / 2
	for _, x := range []struct {
		kind, name string
		from, to   int64
		rows       []string
	}{
		{"stop", "Held breath", clock.Bar(28), clock.Bar(29) + half, []string{"Marimba", "Handbells", "Choir"}},
		{"wash", "Out with the tide", clock.Bar(61), clock.Bar(66), []string{"Marimba", "Low horn", "Choir"}},
	} {
		spec := passage.Spec{ID: project.NewID(), Kind: x.kind, From: clock.Frame(x.from), To: clock.Frame(x.to), Snap: half}
		for _, name := range x.rows {
			for _, c := range p.Channels {
				if c.Name == name {
					spec.Rows = append(spec.Rows, c.ID)
				}
			}
		}
		list, _, err := passage.Make(p, spec)
		if err == nil {
			p, _, err = project.Apply(p, append(list, &project.SetPassage{ID: spec.ID, Name: &x.name}), engine.EffectInfo)
		}
		if err != nil {
			return nil, fmt.Errorf("make the passage %s: %w", x.name, err)
		}
	}
	return p, nil
}
