package project

import "math"

// Snap is how a place that a hand gives finds one that is meant: the nearest edge of a clip or begin of a section
// within Near frames, else the grid of Grid ticks. Zero leaves that out.
type Snap struct {
	Grid int64 `json:"grid,omitempty"`
	Near int64 `json:"near,omitempty"`
}

// snapped finds the place for a frame. Clips of which but speaks do not count.
func (p *Project) snapped(at int64, s Snap, clock *Clock, but func(*Clip) bool) int64 {
	at = max(0, at)
	best, far := at, s.Near+1
	try := func(f int64) {
		if d := max(f-at, at-f); d < far {
			best, far = f, d
		}
	}
	if s.Near > 0 {
		for _, x := range p.Sections {
			try(clock.Frame(x.Tick))
		}
		for _, c := range p.Channels {
			for _, x := range c.Clips {
				if !but(x) {
					start := x.BeginsAt(clock)
					try(start)
					try(start + x.Frames)
				}
			}
		}
	}
	if s.Grid > 0 {
		f := clock.Frame(int64(math.Round(clock.Tick(at)/float64(s.Grid))) * s.Grid)
		if far > s.Near { // nothing else is near
			return f
		}
		try(f)
	}
	return best
}

// NextOnGrid is the first place of a grid, in ticks, at a song frame or after it.
func (p *Project) NextOnGrid(at, grid int64) int64 {
	clock := p.Clock()
	return clock.Frame(int64(math.Ceil(clock.Tick(max(0, at))/float64(grid))) * grid)
}
