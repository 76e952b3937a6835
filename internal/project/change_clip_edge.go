package project

import (
	"fmt"
	"math"
)

// TrimClip moves an edge of a clip by frames; the sound stays where it is. With Both the edge of a neighbour that
// stands at the same place goes along. An edge goes as far as there is sound.
type TrimClip struct {
	ID   string `json:"id"`
	Edge string `json:"edge" enum:"begin,end"`
	By   int64  `json:"by"`
	Both bool   `json:"both,omitempty"`
	Snap Snap   `json:"snap"`
}

func (c *TrimClip) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	if c.Edge != "begin" && c.Edge != "end" {
		return nil, fmt.Errorf("edge %q: a clip has a begin and an end", c.Edge)
	}
	clock := p.Clock()
	x := row.Clips[i]
	at := x.edgeAt(c.Edge, clock)
	var other *Clip
	far := map[string]string{"begin": "end", "end": "begin"}[c.Edge]
	for _, y := range row.Clips {
		if c.Both && y != x && y.edgeAt(far, clock) == at {
			other = y
		}
	}
	to := p.snapped(at+c.By, c.Snap, clock, func(y *Clip) bool { return y == x || y == other })
	to = p.within(x, c.Edge, to, clock, effects)
	if other != nil {
		to = p.within(other, far, to, clock, effects)
	}
	if to == at {
		return nil, fmt.Errorf("the %s of %s stands there already, or has no sound left to go on", c.Edge, x.Name)
	}
	list := []Change{x.become(x.trimmed(c.Edge, to, clock, p.begins(x, clock, effects)))}
	if other != nil {
		list = append(list, other.become(other.trimmed(far, to, clock, p.begins(other, clock, effects))))
	}
	return p.each(effects, list...)
}

// edgeAt is the song frame at which an edge stands.
func (x *Clip) edgeAt(edge string, clock *Clock) int64 {
	if edge == "begin" {
		return x.BeginsAt(clock)
	}
	return x.BeginsAt(clock) + x.Frames
}

// within is the place nearest to one that an edge of a clip can have: a frame is left, and there is sound.
func (p *Project) within(x *Clip, edge string, at int64, clock *Clock, effects Effects) int64 {
	start := x.BeginsAt(clock)
	before, behind := p.reach(x, effects)
	if edge == "begin" {
		return min(max(at, start-before, 0), start+x.Frames-1)
	}
	return max(min(at, start+x.Frames+behind), start+1)
}

// begins is the song frame at which a clip could begin at the earliest.
func (p *Project) begins(x *Clip, clock *Clock, effects Effects) int64 {
	before, _ := p.reach(x, effects)
	return x.BeginsAt(clock) - before
}

// trimmed is the clip with an edge at a song frame; there is no sound before another. Fades give way where they no
// longer fit.
func (x *Clip) trimmed(edge string, at int64, clock *Clock, earliest int64) *Clip {
	n := *x
	start := x.BeginsAt(clock)
	if edge == "end" {
		n.Frames = at - start
		n.FadeOut = min(n.FadeOut, n.Frames)
		n.FadeIn = min(n.FadeIn, n.Frames-n.FadeOut)
		return &n
	}
	if n.Start = at; x.Follows {
		n.Start = int64(math.Round(clock.Tick(at)))
		at = clock.Frame(n.Start)
		if at < earliest {
			n.Start++
			at = clock.Frame(n.Start)
		}
	}
	n.Offset, n.Frames = x.Offset+at-start, x.Frames-(at-start)
	n.FadeIn = min(n.FadeIn, max(0, n.Frames))
	n.FadeOut = min(n.FadeOut, n.Frames-n.FadeIn)
	return &n
}

// SlipClip slides the content of a clip inside its edges by frames of its audio: above 0 it comes later.
type SlipClip struct {
	ID string `json:"id"`
	By int64  `json:"by"`
}

func (c *SlipClip) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	before, behind := p.reach(x, effects)
	to := x.Offset - min(max(c.By, -behind), before)
	if to == x.Offset {
		return nil, fmt.Errorf("%s shows all of its sound there: there is no more to slide in", x.Name)
	}
	return p.each(effects, &SetClip{ID: x.ID, Offset: &to})
}
