package project

import (
	"fmt"
	"slices"
)

// EntersWayIn says of a clip that it comes into its row behind the way in: it was recorded through that. Where there is no
// mark any more, it comes in at the top.
const EntersWayIn = "wayIn"

// Entry is where a clip comes into its row as it is now: empty, EntersWayIn or EntersBehind.
func (c *Channel) Entry(x *Clip) string {
	if x.Enters == EntersWayIn && c.WayIn == "" {
		return ""
	}
	return x.Enters
}

// PutWayIn puts a row's mark behind a node of its chain, or behind the fork in which that stands: what stands before it is
// recorded, what stands behind it is only heard.
type PutWayIn struct {
	Node string `json:"node"`
}

func (c *PutWayIn) apply(p *Project, effects Effects) ([]Change, error) {
	for _, ch := range p.Channels {
		for _, n := range ch.Chain.Nodes {
			if !Owners([]*Node{n})[c.Node] {
				continue
			}
			if ch.Kind != Track {
				return nil, fmt.Errorf("%s is a %s: only tracks are recorded on", ch.Name, ch.Kind)
			}
			id := n.ID()
			return p.each(effects, &SetChannel{ID: ch.ID, WayIn: &id})
		}
	}
	return nil, Gone("the stage")
}

// Ways in which clips go on that came in behind a mark that is taken away.
const (
	ClipsUntouched = "untouched" // their untouched takes pass the whole chain
	ClipsBehind    = "behind"    // they come in behind the chain
	ClipsTop       = "top"       // they come in at the top, as they are
)

// RemoveWayIn takes a row's mark away, and says what becomes of the clips that came in there.
type RemoveWayIn struct {
	Row   string `json:"row"`
	Clips string `json:"clips"` // untouched, behind or top
}

func (c *RemoveWayIn) apply(p *Project, effects Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Row)
	if !ok {
		return nil, Gone("the row")
	}
	if ch.WayIn == "" {
		return nil, fmt.Errorf("%s has no way in", ch.Name)
	}
	if !slices.Contains([]string{ClipsUntouched, ClipsBehind, ClipsTop}, c.Clips) {
		return nil, fmt.Errorf("clips %q: they go on untouched, behind or at the top", c.Clips)
	}
	none := ""
	list := []Change{&SetChannel{ID: ch.ID, WayIn: &none}}
	for i, x := range ch.Clips {
		if x.Enters != EntersWayIn {
			continue
		}
		to := none
		if c.Clips == ClipsBehind {
			to = EntersBehind
		}
		t, known := p.TakeByID(x.Take)
		if c.Clips != ClipsUntouched || !known {
			list = append(list, &SetClip{ID: x.ID, Enters: &to})
			continue
		}
		bare, ok := t.untouchedFor(x)
		if !ok {
			return nil, fmt.Errorf("%s was recorded with a break: choose its untouched take first", x.Name)
		}
		list = append(list, &RemoveClip{x.ID}, &AddClip{ch.ID, i, bare})
	}
	return p.each(effects, list...)
}

// untouchedFor is a clip that plays what a treated one was made from, with all else of it; false: that is no single stretch.
func (t *Take) untouchedFor(x *Clip) (*Clip, bool) {
	from := t.From() + x.Offset // where it was recorded, which may not be where it lies
	for _, r := range t.Runs {
		if from >= r.Song && from+x.Frames <= r.Song+r.Frames {
			y := *x
			y.Audio, y.Offset, y.Enters = t.Untouched, r.Input+from-r.Song, ""
			y.Swell = x.swellMoved(y.Offset - x.Offset)
			return &y, true
		}
	}
	return nil, false
}

// treatedFor is the other way round.
func (t *Take) treatedFor(x *Clip) (*Clip, bool) {
	for _, r := range t.Runs {
		if x.Offset >= r.Input && x.Offset+x.Frames <= r.Input+r.Frames {
			y := *x
			y.Audio, y.Offset, y.Enters = t.Treated, r.Song-t.From()+x.Offset-r.Input, EntersWayIn
			y.Swell = x.swellMoved(y.Offset - x.Offset)
			return &y, true
		}
	}
	return nil, false
}

// swellMoved is a clip's swell over a sound in which everything lies later.
func (x *Clip) swellMoved(by int64) []Swell {
	out := slices.Clone(x.Swell)
	for i := range out {
		out[i].At += by
	}
	return out
}

// settleWaysIn keeps marks in their chains: where the node before one has left, it stands behind the one before that. What
// it returns undoes that.
func (p *Project) settleWaysIn(old *Project) (undo []Change) {
	for _, ch := range p.Channels {
		if ch.WayIn == "" || slices.ContainsFunc(ch.Chain.Nodes, func(n *Node) bool { return n.ID() == ch.WayIn }) {
			continue
		}
		was := ch.WayIn
		undo = append(undo, &SetChannel{ID: ch.ID, WayIn: &was})
		ch.WayIn = ch.nearest(was, old)
	}
	return undo
}

// nearest is the node of a chain's own that stands where one stood: the fork that holds it now, or the last before it.
func (c *Channel) nearest(id string, old *Project) string {
	for _, n := range c.Chain.Nodes {
		if Owners([]*Node{n})[id] {
			return n.ID()
		}
	}
	before, ok := old.Channel(c.ID)
	if !ok {
		return ""
	}
	i := slices.IndexFunc(before.Chain.Nodes, func(n *Node) bool { return n.ID() == id })
	for ; i >= 0; i-- {
		for _, n := range c.Chain.Nodes {
			if Owners([]*Node{n})[before.Chain.Nodes[i].ID()] {
				return n.ID()
			}
		}
	}
	return ""
}
