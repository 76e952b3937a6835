package engine

import (
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

// Precedence, in one place: a hand, a line, or one handle gives a parameter its base (a handle
// suspends the line); while a passage lasts, it gives the base in their place; movers add around it in
// taper units; then the range clamps.

// moverGrid is after how many frames movers are looked at anew; between, they go straight.
const moverGrid = effect.Grid

// mover is a document's mover, ready to run.
type mover struct {
	*project.Mover
	shape int
	clock *project.Clock
	rate  float64
}

// at is where a mover is at a song frame: -1 to 1, or 0 to 1 when it goes one way only.
func (m *mover) at(frame int64) float64 {
	cycles := float64(frame) / m.rate * m.Rate
	if m.Quarters > 0 {
		cycles = m.clock.Tick(frame) / project.TicksPerQuarter / m.Quarters
	}
	var v float64
	if m.Shape == project.DrawnShape {
		v = m.DrawnAt(cycles + m.Phase)
	} else {
		v = effect.Wave(m.shape, cycles+m.Phase, uint64(m.Seed))
	}
	if m.OneWay {
		return 0.5 + 0.5*v
	}
	return v
}

// pull is a mover on one parameter.
type pull struct {
	*mover
	depth float64
}

// hold is a handle on one parameter. Each has a slot of the handle's value for itself, for each looks
// at it at its own time.
type hold struct {
	slot   *slot
	target project.HandleTarget
}

// moves finds what moves a parameter besides its hand and line.
func (c *compiler) moves(s *slot, lag int) {
	for _, m := range c.doc.Movers {
		for _, t := range m.Targets {
			switch {
			case t.Owner != s.owner || t.Name != s.name || t.Depth == 0:
			case m.Shape == project.LevelShape:
				if f := c.followers[m.ID]; f != nil {
					s.follows = append(s.follows, followed{f, t.Depth, m.OneWay})
				}
			default:
				s.pulls = append(
					s.pulls,
					pull{&mover{m, slices.Index(effect.WaveNames(), m.Shape), c.clock, float64(c.doc.SampleRate)}, t.Depth},
				)
			}
		}
	}
	if h, t, ok := c.doc.HandleOf(s.owner, s.name); ok {
		own := newSlot(h.ID, handleName, handleParam, h.Value)
		if l, ok := c.lines[address{h.ID, handleName}]; ok && len(l.Points) > 0 {
			own.line, own.track = newLine(l, own, c.plan.time), make([]float64, Block)
			c.plan.lined = append(c.plan.lined, linedSlot{own, lag})
		}
		c.spans(own, lag)
		s.hold = &hold{own, t}
		c.plan.handles = append(c.plan.handles, own)
	}
	if s.hold != nil || s.pulled() {
		s.track = make([]float64, Block)
		c.plan.moved = append(c.plan.moved, s)
	}
}

// fillMoved gives the value of a parameter that is moved over the next n frames. Places beyond the ends of
// the travel become values within the range.
func (s *slot) fillMoved(c *cursor, lag, n int) effect.Value {
	base := s.fillBase(c, lag, n)
	if !s.pulled() {
		return base
	}
	v := effect.Value{Step: base.Step, Track: s.track[:n]}
	still := base.Track == nil && len(s.follows) == 0
	for i := 0; i < n; {
		f := c.songFrame(lag, i)
		off := int(((f % moverGrid) + moverGrid) % moverGrid)
		to := min(n, i+moverGrid-off)
		a, b := s.pull(f-int64(off)), s.pull(f-int64(off)+moverGrid)
		step := (b - a) / moverGrid
		if still {
			s.straight(v.Track[i:to], s.place(base.Now)+a, step, off)
			i = to
			continue
		}
		for k := i; k < to; k++ {
			x := s.place(base.At(k)) + a + step*float64(off+k-i)
			for j := range s.follows {
				x += s.follows[j].by(s.follows[j].at(lag, k, n))
			}
			s.track[k] = s.value(x)
		}
		i = to
	}
	v.Now = s.track[0]
	return v
}

// straight gives the values, from frame off of the grid on, of a place that goes on by step a
// frame. Along a logarithmic travel each value is the one before times the same; it is counted from
// the grid, so that a block's beginning does not change it.
func (s *slot) straight(dst []float64, place, step float64, off int) {
	end := place + step*moverGrid
	if s.desc.Taper == param.Log && min(place, end) >= 0 && max(place, end) <= 1 {
		v, ratio := s.desc.At(place), dsp.Exp(step*math.Log(s.desc.Max/s.desc.Min))
		for range off {
			v *= ratio
		}
		for k := range dst {
			dst[k] = v
			v *= ratio
		}
		return
	}
	for k := range dst {
		dst[k] = s.value(place + step*float64(off+k))
	}
}

// pulled reports whether movers move it.
func (s *slot) pulled() bool { return len(s.pulls) > 0 || len(s.follows) > 0 }

// pull is by how much of the travel all movers that do not follow a level move it at a frame.
func (s *slot) pull(frame int64) float64 {
	sum := 0.0
	for i := range s.pulls {
		sum += s.pulls[i].depth * s.pulls[i].at(frame)
	}
	return sum
}

// fillHeld gives the base that a handle gives.
func (s *slot) fillHeld(c *cursor, lag, n int) effect.Value {
	h := s.hold.slot.fill(c, lag, n)
	if h.Track == nil {
		return effect.Value{Now: s.hold.target.At(h.Now/100, s.desc), Step: h.Step}
	}
	for i := range s.track[:n] {
		s.track[i] = s.hold.target.At(h.Track[i]/100, s.desc)
	}
	return effect.Value{Now: s.track[0], Track: s.track[:n], Step: h.Step}
}

// valueAt is the value at a song frame, whoever gives it.
func (s *slot) valueAt(frame int64) float64 {
	v := s.want
	switch {
	case s.hold != nil:
		v = s.hold.target.At(s.hold.slot.valueAt(frame)/100, s.desc)
	case s.line != nil && !s.taken && len(s.line.frames) > 0:
		v = s.line.at(frame, s)
	}
	if x := s.spanAt(frame); x != nil {
		v = s.value(x.place(frame, s.place(v)))
	}
	if !s.pulled() {
		return v
	}
	x := s.place(v) + s.pull(frame)
	for i := range s.follows {
		x += s.follows[i].by(s.follows[i].now())
	}
	return s.value(math.Max(0, math.Min(1, x)))
}

// reach is between which places it is moved at a frame, and by what.
func (s *slot) reach(frame int64) (low, high float64, by string) {
	low, high, by = s.place(s.want), s.place(s.want), "mover"
	switch {
	case s.hold != nil:
		a, b := s.place(s.hold.target.From), s.place(s.hold.target.To)
		low, high, by = min(a, b), max(a, b), "handle"
	case s.line != nil:
		low, high, by = s.line.low, s.line.high, "line"
	}
	if x := s.spanAt(frame); x != nil {
		low, high, by = x.reach(s.place(s.want))
	}
	for i := range s.pulls {
		d := math.Abs(s.pulls[i].depth)
		low, high = low-d, high+d
	}
	for i := range s.follows {
		a, b := s.follows[i].by(0), s.follows[i].by(1)
		low, high = low+min(a, b), high+max(a, b)
	}
	return max(0, low), min(1, high), by
}
