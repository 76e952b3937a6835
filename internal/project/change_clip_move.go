package project

import (
	"fmt"
	"math"
	"slices"

	"shoal/internal/param"
)

// MoveClip moves a clip on its row by frames, or by ticks, its begin to the grid of Snap ticks (0: none).
// With Along what lies between its ends on the lines of its row goes with it: there it takes the place of
// what was, and where it was each line keeps the value that it had before the clip. With Copy
// all of it is put down once more instead.
type MoveClip struct {
	ID    string `json:"id"`
	By    int64  `json:"by,omitempty"`
	Ticks int64  `json:"ticks,omitempty"`
	Snap  int64  `json:"snap,omitempty"`
	Along bool   `json:"along,omitempty"`
	Copy  string `json:"copy,omitempty"` // the id of the copy
	Row   string `json:"row,omitempty"`  // another track, to which it goes
	Near  int64  `json:"near,omitempty"` // frames within which edges and sections are met before the grid
}

func (c *MoveClip) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	clip, clock := row.Clips[i], p.Clock()
	old := clip.BeginsAt(clock)
	start := max(0, old+c.By)
	tick := clock.Tick(start)
	if c.Ticks != 0 {
		tick = max(0, math.Round(clock.Tick(old))+float64(c.Ticks))
		start = clock.Frame(int64(tick))
	}
	if c.Snap > 0 || c.Near > 0 {
		start = p.snapped(start, Snap{c.Snap, c.Near}, clock, func(x *Clip) bool { return x == clip })
		tick = clock.Tick(start)
	}
	to, err := p.rowFor(c.Row, row)
	if err != nil {
		return nil, err
	}
	there := int64(math.Round(tick))
	from, end := int64(math.Round(clock.Tick(old))), int64(math.Round(clock.Tick(old+clip.Frames)))
	if start == old && to == row {
		return nil, fmt.Errorf("%s stands there already", clip.Name)
	}
	next := start
	if clip.Follows {
		next = there
	}
	list := []Change{&SetClip{ID: c.ID, Start: &next}}
	n := *clip
	n.Start = next
	switch {
	case c.Copy != "":
		n.ID = c.Copy
		at := i + 1
		if to != row {
			at = len(to.Clips)
		}
		list = []Change{&AddClip{to.ID, at, &n}}
	case to != row:
		list = []Change{&RemoveClip{clip.ID}, &AddClip{to.ID, len(to.Clips), &n}}
	}
	if c.Along && to == row { // what moves another row's parameters is not this one's
		for _, l := range p.Lines {
			if p.rowOf(l.Owner) != row.ID {
				continue
			}
			d, base, err := p.Describe(l.Owner, l.Name, effects)
			if err != nil {
				return nil, err
			}
			if i, j := l.Inside(from, end); i < j {
				list = append(list, &SetLine{Owner: l.Owner, Name: l.Name, Points: l.carried(from, end, there-from, c.Copy != "", d, base)})
			}
		}
	}
	return p.each(effects, list...)
}

// rowFor is the track that a clip goes to: its own where none is named.
func (p *Project) rowFor(id string, own *Channel) (*Channel, error) {
	if id == "" {
		return own, nil
	}
	to, ok := p.Channel(id)
	if !ok {
		return nil, Gone("the row")
	}
	if to.Kind != Track {
		return nil, fmt.Errorf("%s is a %s: clips lie on tracks", to.Name, to.Kind)
	}
	return to, nil
}

// carried is the line with its part between two ticks moved by some. Where that was it keeps the value
// from before, or, with again, what it has.
func (l *Line) carried(from, to, by int64, again bool, d param.Param, base float64) []Point {
	type part struct {
		piece
		held bool
	}
	end := max(to, to+by) + 1
	if n := len(l.Points); n > 0 {
		end = max(end, l.Points[n-1].Tick+1)
	}
	moved := part{piece: piece{from: from, to: to, at: from + by}}
	parts := []part{moved}
	// what is left of the song around it: before, where it was, and behind
	keep := func(a, b int64, held bool) {
		if b <= a {
			return
		}
		for _, x := range []piece{{from: a, to: min(b, from+by)}, {from: max(a, to+by), to: b}} { // but for where it goes
			if x.to > x.from {
				x.at = x.from
				parts = append(parts, part{x, held})
			}
		}
	}
	keep(0, from, false)
	keep(from, to, !again)
	keep(to, end, false)
	slices.SortFunc(parts, func(a, b part) int { return int(a.at - b.at) })
	before := l.At(math.Max(0, float64(from)-1e-6), d, base)
	var out []Point
	for _, x := range parts {
		points := []Point{{x.at, before, Hold, 0}}
		if !x.held {
			points = l.cutOut(x.piece, d, base)
		}
		if n := len(out); n > 0 && len(points) > 0 && out[n-1].Value == points[0].Value && out[n-1].Tick == points[0].Tick {
			out = out[:n-1]
		}
		out = append(out, points...)
	}
	return out
}
