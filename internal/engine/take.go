package engine

import (
	"slices"

	"shoal/internal/project"
)

// Take lets a hand hold a parameter that has a line, or lets the line have it again. It starts from
// where the line is. It reports whether there is such a line.
func (e *Engine) Take(owner, name string, on bool) bool {
	found := false
	plans := e.plans()
	if _, ok := e.latest().doc.TreatmentOf(owner); ok {
		plans = e.pieces()
	}
	for _, p := range plans {
		all := slices.Clone(p.handles)
		if s, ok := p.slots[address{owner, name}]; ok {
			all = append(all, s)
		}
		for _, s := range all {
			if s.owner == owner && s.name == name && s.line != nil {
				s.take(&p.cursor, on)
				found = true
			}
		}
	}
	return found
}

func (s *slot) take(c *cursor, on bool) {
	if on && !s.taken {
		at := c.frame
		if !c.rolling {
			at = c.hold
		}
		s.want = s.line.at(at, s)
		s.hand.Set(s.place(s.want))
	}
	s.taken = on
	if s.track == nil {
		s.track = make([]float64, Block)
	}
	if s.stirred != nil {
		*s.stirred = true
	}
}

// LineValue is where a parameter that moves stands at a song frame.
type LineValue struct {
	Owner string  `json:"owner" required:"true"`
	Name  string  `json:"name" required:"true"`
	Value float64 `json:"value" required:"true"`
	// Low and High are the places along the travel between which it is moved; By is what gives it
	// its base: line, handle or passage, or mover where only those move it.
	Low  float64 `json:"low" required:"true"`
	High float64 `json:"high" required:"true"`
	By   string  `json:"by" required:"true" enum:"line,handle,mover,passage"`
}

// LineValues tells where every parameter that moves stands at a song frame: by its line, its handle
// and its movers; those that a hand holds are where the hand is.
func (e *Engine) LineValues(frame int64) []LineValue {
	out := []LineValue{}
	p := e.latest()
	seen := map[*slot]bool{}
	add := func(s *slot) {
		if !seen[s] {
			seen[s] = true
			low, high, by := s.reach(frame)
			out = append(out, LineValue{s.owner, s.name, s.valueAt(frame), low, high, by})
		}
	}
	for _, l := range p.lined {
		add(l.slot)
	}
	for _, s := range p.moved {
		add(s)
	}
	return append(out, pieceValues(p.doc, frame)...)
}

// pieceValues tells where the parameters of treatments stand that lines move: of the piece that lies at the frame.
func pieceValues(doc *project.Project, frame int64) (out []LineValue) {
	for _, l := range doc.Lines {
		if _, ok := doc.TreatmentOf(l.Owner); !ok || len(l.Points) == 0 {
			continue
		}
		d, base, err := doc.Describe(l.Owner, l.Name, EffectInfo)
		time, _, lost := doc.TimeOf(l.Owner, "", frame)
		if err != nil || lost != nil {
			continue
		}
		v := LineValue{Owner: l.Owner, Name: l.Name, Value: l.At(max(0, time.Tick(frame)), d, base), Low: 1, By: "line"}
		for _, p := range l.Points {
			v.Low, v.High = min(v.Low, d.Place(p.Value)), max(v.High, d.Place(p.Value))
		}
		out = append(out, v)
	}
	return out
}
