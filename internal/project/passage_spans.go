package project

import (
	"math"
	"slices"
)

// Span is what a passage does to one parameter, over frames of the song.
type Span struct {
	Passage string
	Owner   string
	Name    string
	From    int64 // frames; the parameter is its own again at To
	To      int64
	Points  []SpanPoint // how far it has gone from Start to End, 0 to 1
	AtOnce  bool        // it has its value at the first frame, where others come to it in a few milliseconds
	Here    bool        // it starts not at Start but where it stands
	Start   float64
	End     float64
}

// SpanPoint is a point of a course at its frame.
type SpanPoint struct {
	Frame int64
	Value float64
	Shape string
	Bend  float64
}

// never is a frame that no song reaches.
const never = math.MaxInt64 / 4

// Spans works out what all passages that are on do, in the order in which they begin: where two move one
// parameter at the same time, the later one has it.
func (p *Project) Spans() []Span {
	clock := p.Clock()
	list := slices.Clone(p.Passages)
	slices.SortStableFunc(list, func(a, b *Passage) int { return int(a.From - b.From) })
	var out []Span
	for _, x := range list {
		if !x.Off {
			out = append(out, p.spansOf(x, clock)...)
		}
	}
	return out
}

func (p *Project) spansOf(x *Passage, clock *Clock) []Span {
	from, to := clock.Frame(x.From), clock.Frame(x.To)
	ends := map[string]int64{} // of the tail rule, by row
	until := func(owner string) int64 {
		row := p.rowOf(owner)
		if _, ok := ends[row]; !ok {
			ends[row] = p.until(x, row, to, clock)
		}
		return ends[row]
	}
	seconds := float64(to-from) / float64(p.SampleRate)
	var out []Span
	for _, c := range x.Courses {
		points := make([]SpanPoint, 0, len(c.Points))
		for _, pt := range c.Points {
			at := from + int64(math.Round(float64(to-from)*float64(pt.Tick)/CourseParts))
			points = append(points, SpanPoint{at, pt.Value, pt.Shape, pt.Bend})
		}
		for _, t := range c.Targets {
			s := Span{
				Passage: x.ID,
				Owner:   t.Owner,
				Name:    t.Name,
				From:    from,
				To:      to,
				Points:  points,
				Here:    t.Here,
				Start:   t.From,
				End:     t.To,
			}
			if t.Length > 0 {
				s.AtOnce, s.Here, s.Start, s.End = true, false, seconds*t.Length, seconds*t.Length
			}
			if x.Tail == TailHold {
				s.To = max(to, until(t.Owner))
			}
			out = append(out, s)
		}
	}
	if x.Tail != TailCut && x.Tail != TailFade {
		return out
	}
	for _, row := range x.Rows {
		end := until(row)
		if end <= to {
			continue
		}
		fade := int64(p.SampleRate) / 200
		if x.Tail == TailFade {
			fade = clock.Frame(x.To+x.Fade) - to
		}
		if x.Reach {
			out = append(out, p.reachReturns(x, row, from, to, end)...)
		}
		points := []SpanPoint{{to, 0, Ramp, 0}, {to + max(fade, 1), 1, Hold, 0}}
		out = append(out, Span{Passage: x.ID, Owner: row, Name: "fader", From: to, To: end, Points: points, Here: true, End: -120})
	}
	return out
}

// reachReturns closes the sends of a row from the beginning of a passage on, so that the returns have rung down at its
// end: at once where the tail is cut, along the passage where it fades. Sends that the passage itself moves are its own.
func (p *Project) reachReturns(x *Passage, row string, from, to, end int64) (out []Span) {
	ch, _ := p.Channel(row)
	closed := from + int64(p.SampleRate)/200
	if x.Tail == TailFade {
		closed = to
	}
	for _, s := range ch.Sends {
		if x.movesParam(s.ID, "level") {
			continue
		}
		points := []SpanPoint{{from, 0, Ramp, 0}, {max(closed, from+1), 1, Hold, 0}}
		out = append(out, Span{Passage: x.ID, Owner: s.ID, Name: "level", From: from, To: end, Points: points, Here: true, End: -120})
	}
	return out
}

// movesParam reports whether a course of a passage moves a parameter.
func (x *Passage) movesParam(owner, name string) bool {
	return slices.ContainsFunc(x.Courses, func(c *Course) bool {
		return slices.ContainsFunc(c.Targets, func(t CourseTarget) bool { return t.Owner == owner && t.Name == name })
	})
}

// until is the frame to which a tail rule lasts on a row.
func (p *Project) until(x *Passage, row string, at int64, clock *Clock) int64 {
	rows := []string{row}
	if row == "" { // a handle: what it moves is on all rows of the passage
		rows = x.Rows
	}
	end := int64(never)
	for _, row := range rows {
		if f, ok := p.NextSound(row, at, clock); ok {
			end = min(end, f)
		}
	}
	return end
}

// rowOf is the channel that an owner of parameters belongs to; empty for a handle.
func (p *Project) rowOf(owner string) string {
	if _, ok := p.Channel(owner); ok {
		return owner
	}
	if c, _, ok := p.findSend(owner); ok {
		return c.ID
	}
	if at, ok := p.placeOfPath(owner); ok {
		return at.channel.ID
	}
	if at, ok := p.findNode(owner); ok {
		return at.channel.ID
	}
	return ""
}

// At is how far a span has gone at a frame, 0 to 1.
func (s *Span) At(frame int64) float64 {
	i, _ := slices.BinarySearchFunc(s.Points, frame, func(p SpanPoint, f int64) int {
		if p.Frame <= f {
			return -1
		}
		return 1
	})
	i-- // the last point at or before
	switch {
	case i < 0:
		return s.Points[0].Value
	case i+1 == len(s.Points) || s.Points[i].Value == s.Points[i+1].Value:
		return s.Points[i].Value
	}
	a, b := s.Points[i], s.Points[i+1]
	return a.Value + (b.Value-a.Value)*Bent(a.Shape, a.Bend, float64(frame-a.Frame)/float64(b.Frame-a.Frame))
}

// Steps is the span of a switch or choice: points at the frames where it has gone half way, or comes back,
// with 1 or 0.
func (s *Span) Steps() []SpanPoint {
	on := func(f int64) float64 { return math.Floor(s.At(f) + 0.5) }
	out := []SpanPoint{{s.From, on(s.From), Hold, 0}}
	step := func(f int64) {
		if v := on(f); v != out[len(out)-1].Value && f > s.From && f < s.To {
			out = append(out, SpanPoint{f, v, Hold, 0})
		}
	}
	for i, pt := range s.Points {
		step(pt.Frame)
		if i+1 == len(s.Points) {
			break
		}
		low, high := pt.Frame, s.Points[i+1].Frame
		if low >= high-1 || on(low) == on(high-1) { // every piece of a course only rises, or only falls
			continue
		}
		for high--; high-low > 1; {
			if mid := (low + high) / 2; on(mid) == on(low) {
				low = mid
			} else {
				high = mid
			}
		}
		step(high)
	}
	return out
}
