package engine

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

// forkHertz and forkLevel are the axes of a fork's picture.
var (
	forkHertz = effect.Axis{
		Label: "frequency",
		Unit:  "Hz",
		Min:   20,
		Max:   20000,
		Log:   true,
		Ticks: []float64{50, 100, 200, 500, 1000, 2000, 5000, 10000},
	}
	forkLevel = effect.Axis{Label: "gain", Unit: "dB", Min: -36, Max: 12, Ticks: []float64{-30, -24, -18, -12, -6, 0, 6}}
)

const forkPoints = 180

// drawFork draws how a fork divides, with its values as they are now: for bands, each band
// at its level, and a handle at each crossover. What stands on the paths is not in it: that is
// measured (see Figures).
func (p *plan) drawFork(f *project.Fork, rate float64) effect.Picture {
	pic := p.drawBands(f, rate)
	if p.movedIn(f) {
		pic.Says += " As set by hand: lines, handles and movers are left out."
	}
	return pic
}

// movedIn reports whether something besides a hand moves a parameter in a fork.
func (p *plan) movedIn(f *project.Fork) bool {
	owners := project.Owners([]*project.Node{{Fork: f}})
	for a, s := range p.slots {
		if owners[a.owner] && s.moves() && (s.line != nil || s.hold != nil || s.pulled() || len(s.spans) > 0) {
			return true
		}
	}
	return false
}

func (p *plan) drawBands(f *project.Fork, rate float64) effect.Picture {
	pic := effect.Picture{
		Says:     "What the fork does as a whole, and each path's part of it.",
		X:        forkHertz,
		Y:        forkLevel,
		Curves:   []effect.Curve{},
		Spectrum: true,
	}
	if f.Kind != project.Bands {
		return pic
	}
	now := func(owner, name string, v float64) float64 {
		if s, ok := p.slots[address{owner, name}]; ok {
			return s.base()
		}
		return v
	}
	var hz []float64
	for i, x := range f.Crossovers {
		hz = append(hz, now(f.ID, param.CrossoverName(i+1), x))
	}
	dsp.KeepApart(hz, lowestCrossover, dsp.HighestCrossover(rate))
	for b, path := range f.Paths {
		level := now(path.ID, "level", path.Level)
		if path.Mute {
			level = dsp.Off
		}
		c := effect.Curve{Name: path.Name, Role: "ghost"}
		for i := range forkPoints {
			x := forkHertz.Min * math.Pow(forkHertz.Max/forkHertz.Min, float64(i)/(forkPoints-1))
			c.X = append(c.X, x)
			c.Y = append(c.Y, max(-60, 10*math.Log10(dsp.BandPower(x, rate, hz, b, f.Slope == 48)+1e-12)+level))
		}
		pic.Curves = append(pic.Curves, c)
	}
	for i, x := range hz {
		low, high := f.Room(i)
		pic.Handles = append(
			pic.Handles,
			effect.Handle{Label: fmt.Sprintf("%d, crossover", i+1), X: x, Y: -6, ParamX: param.CrossoverName(i + 1), MinX: low, MaxX: high},
		)
	}
	pic.Says = "The bands, and what the fork does as a whole. Drag a crossover."
	return pic
}
