package demo

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// playIn takes the harbour's filter down from a hand, as the board does while it plays: a value every
// thirtieth of a second, from a hand that aims here and there, arrives late and trembles a little.
func playIn(p *project.Project) (*project.Project, error) {
	owner := ""
	for _, c := range p.Channels {
		if c.Name == "Harbour" {
			owner = c.Chain.Nodes[1].ID()
		}
	}
	d, _, err := p.Describe(owner, "freq", engine.EffectInfo)
	if err != nil {
		return nil, fmt.Errorf("play the harbour's filter: %w", err)
	}
	clock := p.Clock()
	aims := []struct {
		bar int
		hz  float64
	}{{0, 1400}, {2, 3000}, {4, 5200}, {7, 4100}, {8, 6800}, {11, 4400}, {14, 2600}, {20, 3400}, {24, 5200}}
	from, to := clock.Frame(clock.Bar(0)), clock.Frame(clock.Bar(25))
	taken := &project.TakenDown{Stretch: project.Stretch{Owner: owner, Name: "freq", From: from, To: to}, Glide: int64(p.SampleRate)}
	step := int64(p.SampleRate / 30)
	place, speed := d.Place(aims[0].hz), 0.0
	for f, k := from, 0; f < to; f += step {
		for k+1 < len(aims) && f >= clock.Frame(clock.Bar(aims[k+1].bar)) {
			k++
		}
		// a weight on a spring, slightly more than critically damped
		pull := 7*(d.Place(aims[k].hz)-place) - 5.5*speed
		speed += pull / 30
		place += speed / 30
		tremble := 0.0012 * dsp.Drift(3, float64(f)/float64(step)/4)
		taken.Frames = append(taken.Frames, f)
		taken.Values = append(taken.Values, d.At(math.Max(0, math.Min(1, place+tremble))))
	}
	next, _, err := project.Apply(p, []project.Change{taken}, engine.EffectInfo)
	if err != nil {
		return nil, fmt.Errorf("play the harbour's filter: %w", err)
	}
	return next, nil
}
