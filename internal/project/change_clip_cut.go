package project

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// SplitClips cuts clips at places of the song: those with the ids, and all on the rows. The left part of each keeps its
// id. What is heard stays the same, sample for sample.
type SplitClips struct {
	IDs  []string `json:"ids,omitempty"`
	Rows []string `json:"rows,omitempty"`
	At   []int64  `json:"at"` // song frames
	Snap Snap     `json:"snap"`
}

func (c *SplitClips) apply(p *Project, effects Effects) (undo []Change, err error) {
	clock := p.Clock()
	at := make([]int64, len(c.At))
	for i, f := range c.At {
		at[i] = p.snapped(f, c.Snap, clock, func(*Clip) bool { return false })
	}
	where := ""
	for _, row := range p.Channels {
		all := slices.Contains(c.Rows, row.ID)
		if all {
			where = " of " + row.Name
		}
		for _, x := range slices.Clone(row.Clips) {
			if !all && !slices.Contains(c.IDs, x.ID) {
				continue
			}
			back, err := p.cutClip(row, x, at, clock, effects)
			if err != nil {
				return nil, err
			}
			undo = slices.Concat(back, undo)
		}
	}
	if len(undo) == 0 {
		if len(c.Rows) > 1 {
			where = " of these rows"
		}
		return nil, fmt.Errorf("there is nothing to cut: no clip%s lies across that place", where)
	}
	return undo, nil
}

// cutClip cuts a clip at those places of the song that lie inside it, the last first, so that the left part stays it.
func (p *Project) cutClip(row *Channel, x *Clip, at []int64, clock *Clock, effects Effects) (undo []Change, err error) {
	start := x.BeginsAt(clock)
	places := slices.Clone(at)
	slices.Sort(places)
	for _, f := range slices.Backward(places) {
		tick := int64(math.Round(clock.Tick(f)))
		if x.Follows { // its parts begin with ticks: there they meet exactly
			f = clock.Frame(tick)
		}
		if f <= start || f >= start+x.Frames {
			continue
		}
		right := x.part(f-start, x.Frames)
		right.ID, right.Start = NewID(), f
		if x.Follows {
			right.Start = tick
		}
		left := x.part(0, f-start)
		back, err := p.each(effects, &AddClip{row.ID, slices.Index(row.Clips, x) + 1, right}, x.become(left))
		if err != nil {
			return nil, err
		}
		undo = slices.Concat(back, undo)
	}
	return undo, nil
}

// become is the change that gives a clip the stretch and the fades of another.
func (x *Clip) become(n *Clip) *SetClip {
	return &SetClip{ID: x.ID, Start: &n.Start, Offset: &n.Offset, Frames: &n.Frames, FadeIn: &n.FadeIn, FadeOut: &n.FadeOut,
		InShape: &n.InShape, OutShape: &n.OutShape, InBend: &n.InBend, OutBend: &n.OutBend}
}

// JoinClips puts neighbours of one source together again, where the sound of one goes on in the next. The first keeps
// its id.
type JoinClips struct {
	IDs []string `json:"ids"`
}

func (c *JoinClips) apply(p *Project, effects Effects) (undo []Change, err error) {
	clock := p.Clock()
	var names []string
	for _, row := range p.Channels {
		var clips []*Clip
		for _, x := range row.Clips {
			if slices.Contains(c.IDs, x.ID) {
				clips, names = append(clips, x), append(names, x.Name)
			}
		}
		slices.SortStableFunc(clips, func(a, b *Clip) int { return compare(a.BeginsAt(clock), b.BeginsAt(clock)) })
		for i := 0; i+1 < len(clips); {
			a, b := clips[i], clips[i+1]
			if !a.goesOn(b, clock) {
				i++
				continue
			}
			n := *a
			n.Frames, n.FadeOut, n.OutShape, n.OutBend = a.Frames+b.Frames, b.FadeOut, b.OutShape, b.OutBend
			n.FadeIn = min(n.FadeIn, n.Frames-n.FadeOut)
			back, err := p.each(effects, a.become(&n), &RemoveClip{b.ID})
			if err != nil {
				return nil, err
			}
			undo = slices.Concat(back, undo)
			clips = slices.Delete(clips, i+1, i+2)
		}
	}
	if len(undo) == 0 {
		return nil, fmt.Errorf("%s cannot be joined: they are no neighbours in which one sound goes on at the same gain",
			strings.Join(names, " and "))
	}
	return undo, nil
}

// goesOn reports whether the sound of a clip goes on in another, so that both can be one.
func (x *Clip) goesOn(y *Clip, clock *Clock) bool {
	return x.Audio == y.Audio && x.BeginsAt(clock)+x.Frames == y.BeginsAt(clock) && x.Offset+x.Frames == y.Offset &&
		x.Follows == y.Follows && x.Gain == y.Gain && x.Mute == y.Mute && slices.Equal(x.Swell, y.Swell) &&
		x.Treatment == y.Treatment && x.Rings == y.Rings && x.sameExtent(y) && x.sameOrigin(y) && x.Enters == y.Enters
}
