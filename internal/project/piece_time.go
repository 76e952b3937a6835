package project

import (
	"fmt"
	"math"
	"slices"
)

// LineTime is the time that a line's points are counted in: the song's, or that of a piece, whose tick 0 lies at a tick
// of the song. It runs with the tempo of the song from there.
type LineTime struct {
	*Clock
	origin int64
}

// Frame is the song frame of a line's tick.
func (t LineTime) Frame(tick int64) int64 { return t.Clock.Frame(t.origin + tick) }

// Tick is the line's tick at a song frame, with parts of ticks.
func (t LineTime) Tick(frame int64) float64 { return t.Clock.Tick(frame) - float64(t.origin) }

// Snapped is the line's tick at a song frame, on the song's grid of so many ticks; 0: none. None lies before tick 0.
func (t LineTime) Snapped(frame, grid int64) int64 {
	return max(0, t.Clock.Snapped(frame, grid)-t.origin)
}

// PieceTime is the time of the lines of a clip's treatment: it begins at the clip's origin, wherever that lies.
func PieceTime(x *Clip, clock *Clock) LineTime {
	begin := x.BeginsAt(clock)
	if x.Origin != nil {
		begin += *x.Origin - x.Offset
	}
	return LineTime{clock, int64(math.Round(clock.Tick(begin)))}
}

// TimeOf is the time in which the points of an owner's lines are counted, and, where that is the time of a piece, the
// clip: the one that is named, else the one of those it treats that lies at a song frame, else the first of them.
func (p *Project) TimeOf(owner, clip string, frame int64) (LineTime, *Clip, error) {
	clock := p.Clock()
	t, ok := p.TreatmentOf(owner)
	if !ok {
		return LineTime{Clock: clock}, nil, nil
	}
	clips := p.TreatedBy(t.ID)
	i := slices.IndexFunc(clips, func(x *Clip) bool { return x.ID == clip })
	if i < 0 && clip != "" {
		return LineTime{}, nil, fmt.Errorf("this clip is not treated by %s (any more): select one that is", t.Title())
	}
	if i < 0 {
		i = slices.IndexFunc(clips, func(x *Clip) bool {
			start := x.BeginsAt(clock)
			return frame >= start && frame < start+x.Frames
		})
	}
	if len(clips) == 0 {
		return LineTime{}, nil, Gone("the clip")
	}
	x := clips[max(i, 0)]
	return PieceTime(x, clock), x, nil
}

// TreatmentOwners are the owners of parameters that stand in treatments, with the treatment of each, for whoever tells
// lines of pieces from those of rows: nil where there are no lines at all.
func (p *Project) TreatmentOwners() map[string]*Treatment {
	if len(p.Treatments) == 0 || len(p.Lines) == 0 {
		return nil
	}
	m := map[string]*Treatment{}
	for _, t := range p.Treatments {
		for id := range Owners(t.Chain.Nodes) {
			m[id] = t
		}
	}
	return m
}

// LinesWithin are the lines that move what stands in a treatment.
func (p *Project) LinesWithin(t *Treatment) (lines []*Line) {
	if len(p.Lines) == 0 {
		return nil
	}
	ids := Owners(t.Chain.Nodes)
	for _, l := range p.Lines {
		if ids[l.Owner] {
			lines = append(lines, l)
		}
	}
	return lines
}

// settleOrigins lets every clip whose treatment has lines know where their time begins: where it begins itself when
// the first of them comes. So cutting, trimming and sliding it leaves them where they are in the sound.
func (p *Project) settleOrigins() (undo []Change) {
	lined, owners := map[string]bool{}, p.TreatmentOwners()
	if owners != nil {
		for _, l := range p.Lines {
			if t := owners[l.Owner]; t != nil {
				lined[t.ID] = true
			}
		}
	}
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			if lined[x.Treatment] == (x.Origin != nil) {
				continue
			}
			undo = append(undo, x.window())
			x.Origin = nil
			if lined[x.Treatment] {
				at := x.Offset
				x.Origin = &at
			}
		}
	}
	return undo
}

// sameOrigin reports whether the lines of two clips' treatment begin at the same frame of the sound.
func (x *Clip) sameOrigin(y *Clip) bool {
	return x.Origin == nil && y.Origin == nil || x.Origin != nil && y.Origin != nil && *x.Origin == *y.Origin
}

// lastWhole is where the last whole-sound step of a chain stands, acting or not; -1: there is none.
func (c *Chain) lastWhole(effects Effects) int {
	for i := len(c.Nodes) - 1; i >= 0; i-- {
		if s := c.Nodes[i].Stage; s != nil {
			if info, ok := effects(s.Effect, s.Version); ok && info.Whole {
				return i
			}
		}
	}
	return -1
}

// Live is what of a treatment runs live whatever is bypassed: what stands behind its last whole-sound step.
func (t *Treatment) Live(effects Effects) *Chain {
	return &Chain{Nodes: t.Chain.Nodes[t.Chain.lastWhole(effects)+1:]}
}

// linedOnlyLive refuses lines on what is worked out: only what runs live behind the last whole-sound step can move.
func (p *Project) linedOnlyLive(effects Effects) error {
	for _, t := range p.Treatments {
		lines := p.LinesWithin(t)
		if len(lines) == 0 {
			continue
		}
		last := t.Chain.lastWhole(effects)
		worked := Owners(t.Chain.Nodes[:last+1])
		for _, l := range lines {
			if worked[l.Owner] {
				name, _ := p.OwnerName(l.Owner, effects)
				whole := t.Chain.Nodes[last].Stage.Effect
				info, _ := effects(whole, 0)
				return fmt.Errorf("a line cannot move %s: it is worked out as a whole, with all that stands before %s. "+
					"Put it behind %s, or remove its line", name, info.Name, info.Name)
			}
		}
	}
	return nil
}
