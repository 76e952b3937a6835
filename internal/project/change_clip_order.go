package project

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
)

// Ways in which clips are put in order.
const (
	OrderReverse = "reverse" // the last first
	OrderShuffle = "shuffle" // by chance
	OrderGrid    = "grid"    // each to the nearest place of the grid
)

// OrderClips puts clips of a row in another order, one behind the other from where the first begins; gaps stay behind
// the places where they were. Or it puts each to the nearest place of the grid.
type OrderClips struct {
	IDs  []string `json:"ids"`
	How  string   `json:"how" enum:"reverse,shuffle,grid"`
	Seed uint64   `json:"seed,omitempty"` // of chance
	Grid int64    `json:"grid,omitempty"` // ticks
}

func (c *OrderClips) apply(p *Project, effects Effects) (undo []Change, err error) {
	clock := p.Clock()
	var list []Change
	for _, row := range p.Channels {
		var clips []*Clip
		for _, x := range row.Clips {
			if slices.Contains(c.IDs, x.ID) {
				clips = append(clips, x)
			}
		}
		if len(clips) == 0 {
			continue
		}
		slices.SortStableFunc(clips, func(a, b *Clip) int { return compare(a.BeginsAt(clock), b.BeginsAt(clock)) })
		switch c.How {
		case OrderGrid:
			if c.Grid < 1 {
				return nil, fmt.Errorf("there is no grid to move to: choose one")
			}
			for _, x := range clips {
				tick := int64(math.Round(clock.Tick(x.BeginsAt(clock))/float64(c.Grid))) * c.Grid
				list = append(list, x.startingAt(clock.Frame(tick), clock)...)
			}
		case OrderReverse, OrderShuffle:
			list = append(list, c.ordered(clips, clock)...)
		default:
			return nil, fmt.Errorf("%q: clips are put in order by reverse, shuffle or grid", c.How)
		}
	}
	if len(list) == 0 {
		return nil, fmt.Errorf("they stand like that already")
	}
	return p.each(effects, list...)
}

// ordered lays clips out anew from where the first begins.
func (c *OrderClips) ordered(clips []*Clip, clock *Clock) (list []Change) {
	next := slices.Clone(clips)
	slices.Reverse(next)
	if c.How == OrderShuffle {
		r := rand.New(rand.NewPCG(c.Seed, 0x5f0a1))
		r.Shuffle(len(next), func(i, j int) { next[i], next[j] = next[j], next[i] })
	}
	at := clips[0].BeginsAt(clock)
	for i, x := range next {
		if x.Follows { // on the next tick, so that it does not begin over the one before it
			at = clock.Frame(int64(math.Ceil(clock.Tick(at) - 1e-9)))
		}
		list = append(list, x.startingAt(at, clock)...)
		at += x.Frames
		if i+1 < len(clips) { // what was between these two places stays between them
			at += max(0, clips[i+1].BeginsAt(clock)-clips[i].BeginsAt(clock)-clips[i].Frames)
		}
	}
	return list
}

// startingAt is the change that lets a clip begin at a frame; none, if it does.
func (x *Clip) startingAt(frame int64, clock *Clock) []Change {
	if x.BeginsAt(clock) == frame {
		return nil
	}
	if x.Follows {
		frame = int64(math.Round(clock.Tick(frame)))
	}
	return []Change{&SetClip{ID: x.ID, Start: &frame}}
}
