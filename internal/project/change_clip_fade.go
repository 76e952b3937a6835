package project

import (
	"fmt"
	"math"
)

// FadeClip lets an edge of a clip fade for a note length, as long as the song makes it there. A fade gives way to the one
// at the other edge.
type FadeClip struct {
	ID    string `json:"id"`
	Edge  string `json:"edge" enum:"begin,end"`
	Ticks int64  `json:"ticks"`
}

func (c *FadeClip) apply(p *Project, effects Effects) ([]Change, error) {
	x, ok := p.ClipByID(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	if c.Ticks < 0 || c.Ticks > maxTick {
		return nil, fmt.Errorf("a fade of %d ticks: choose a note length", c.Ticks)
	}
	clock := p.Clock()
	at := x.edgeAt(c.Edge, clock)
	tick := int64(math.Round(clock.Tick(at)))
	switch c.Edge {
	case "begin":
		frames := min(clock.Frame(tick+c.Ticks)-clock.Frame(tick), x.Frames-x.FadeOut)
		return p.each(effects, &SetClip{ID: x.ID, FadeIn: &frames})
	case "end":
		frames := min(clock.Frame(tick)-clock.Frame(max(0, tick-c.Ticks)), x.Frames-x.FadeIn)
		return p.each(effects, &SetClip{ID: x.ID, FadeOut: &frames})
	}
	return nil, fmt.Errorf("edge %q: a clip has a begin and an end", c.Edge)
}
