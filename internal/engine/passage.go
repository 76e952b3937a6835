package engine

import (
	"math"
	"slices"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// span is what a passage does to a slot, in frames.
type span struct {
	*project.Span
	start float64 // places along the travel; values for switches and choices
	end   float64
	steps []project.SpanPoint // of a switch or choice: 1 from where it is at end
	now   int                 // the point last used
}

// spans finds what passages do to a parameter, and gives its slot room for it.
func (c *compiler) spans(s *slot, lag int) {
	for i := range c.passing {
		x := &c.passing[i]
		if x.Owner != s.owner || x.Name != s.name {
			continue
		}
		sp := &span{Span: x, start: s.place(s.desc.Clamp(x.Start)), end: s.place(s.desc.Clamp(x.End))}
		if s.desc.Stepped() {
			sp.steps = x.Steps()
		}
		s.spans = append(s.spans, sp)
	}
	if len(s.spans) > 0 {
		s.over = make([]float64, Block)
		c.plan.lined = append(c.plan.lined, linedSlot{s, lag})
	}
}

// passes reports whether a passage moves a parameter.
func (c *compiler) passes(owner, name string) bool {
	return slices.ContainsFunc(c.passing, func(x project.Span) bool { return x.Owner == owner && x.Name == name })
}

// spanAt finds the span that has a parameter at a frame: the one that begins last.
func (s *slot) spanAt(f int64) *span {
	for i := len(s.spans) - 1; i >= 0; i-- {
		if x := s.spans[i]; x.From <= f && f < x.To {
			return x
		}
	}
	return nil
}

// seek finds the last of points at or before a frame, from the one that it found before; -1: none.
func (x *span) seek(points []project.SpanPoint, f int64) int {
	i := min(x.now, len(points)-1)
	for i >= 0 && points[i].Frame > f {
		i--
	}
	for i+1 < len(points) && points[i+1].Frame <= f {
		i++
	}
	x.now = max(i, 0)
	return i
}

// place is where it moves its parameter at a frame; base is where that would stand.
func (x *span) place(f int64, base float64) float64 {
	start := x.start
	if x.Here {
		start = base
	}
	if x.steps != nil {
		if i := x.seek(x.steps, f); i >= 0 && x.steps[i].Value == 0 {
			return start
		}
		return x.end
	}
	return start + (x.end-start)*x.gone(f)
}

// gone is how far it is, 0 to 1.
func (x *span) gone(f int64) float64 {
	i := x.seek(x.Points, f)
	switch {
	case i < 0:
		return x.Points[0].Value
	case i+1 == len(x.Points):
		return x.Points[i].Value
	}
	a, b := &x.Points[i], &x.Points[i+1]
	if a.Value == b.Value {
		return a.Value
	}
	return a.Value + (b.Value-a.Value)*project.Bent(a.Shape, a.Bend, float64(f-a.Frame)/float64(b.Frame-a.Frame))
}

// next is how many frames from f on the next edge or jump is, or a large number.
func (x *span) next(f int64) int64 {
	n := int64(Block)
	at := func(edge int64) {
		if edge > f {
			n = min(n, edge-f)
		}
	}
	at(x.From)
	at(x.To)
	if f+Block < x.From || f > x.To {
		return n
	}
	for _, p := range x.steps {
		at(p.Frame)
	}
	for i, p := range x.Points {
		if i > 0 && (x.Points[i-1].Shape == project.Hold || x.Points[i-1].Frame == p.Frame) {
			at(p.Frame)
		}
	}
	return n
}

// fillOver is the base over the next n frames, with what passages make of it. What begins or ends
// elsewhere than where the parameter stands is reached in a few milliseconds.
func (s *slot) fillOver(c *cursor, lag, n int) effect.Value {
	base := s.fillUnder(c, lag, n)
	if !c.rolling {
		s.left = 0
		if x := s.spanAt(c.hold); x != nil {
			base = effect.Value{Now: s.value(x.place(c.hold, s.place(base.Now)))}
		}
		s.was = s.place(base.Now)
		return base
	}
	x := s.spanAt(c.songFrame(lag, 0)) // no block has an edge inside it
	changed := x != s.passed
	if changed && !c.jumped && !s.desc.Stepped() && !(x != nil && x.AtOnce) {
		first := s.place(base.At(0))
		if x != nil {
			first = x.place(c.songFrame(lag, 0), first)
		}
		s.off, s.left = s.was-first, gateFrames
	}
	if c.jumped {
		s.left = 0
	}
	s.passed = x
	if x == nil && s.left == 0 {
		base.Step = base.Step || changed
		s.was = s.place(base.At(n - 1))
		return base
	}
	v := effect.Value{Step: base.Step || c.jumped || changed && s.desc.Stepped(), Track: s.over[:n]}
	last := s.was
	for i := range v.Track {
		p := s.place(base.At(i))
		if x != nil {
			p = x.place(c.songFrame(lag, i), p)
		}
		if s.left > 0 {
			s.left--
			p += s.off * float64(s.left) / gateFrames
		}
		if i == 0 && math.Abs(p-last) > jump {
			v.Step = true
		}
		last = p
		v.Track[i] = s.value(p)
	}
	s.was = last
	v.Now = v.Track[0]
	return v
}

// jump is a part of the travel that no ramp covers in a frame.
const jump = 0.02

// reach is between which places it moves a parameter.
func (x *span) reach(base float64) (low, high float64, by string) {
	start := x.start
	if x.Here {
		start = base
	}
	return min(start, x.end), max(start, x.end), "passage"
}
