package engine

// Take lets a hand hold a parameter that has a line, or lets the line have it again. It starts from
// where the line is. It reports whether there is such a line.
func (e *Engine) Take(owner, name string, on bool) bool {
	found := false
	for _, p := range e.plans() {
		s, ok := p.slots[address{owner, name}]
		if !ok || s.line == nil {
			continue
		}
		found = true
		if on && !s.taken {
			at := p.cursor.frame
			if !p.cursor.rolling {
				at = p.cursor.hold
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
	return found
}

// LineValue is where a parameter with a line stands at a song frame.
type LineValue struct {
	Owner string  `json:"owner" required:"true"`
	Name  string  `json:"name" required:"true"`
	Value float64 `json:"value" required:"true"`
}

// LineValues tells where every parameter with a line stands at a song frame; those that a hand holds
// are where the hand is.
func (e *Engine) LineValues(frame int64) []LineValue {
	out := []LineValue{}
	for _, l := range e.latest().lined {
		s := l.slot
		v := s.want
		if !s.taken {
			v = s.line.at(frame, s)
		}
		out = append(out, LineValue{s.owner, s.name, v})
	}
	return out
}
