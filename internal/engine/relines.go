package engine

import (
	"math"
	"reflect"

	"shoal/internal/project"
)

// onlyPoints reports whether two documents differ in the points of their lines, and in nothing else; none of
// them begins or ends to move its parameter. Then the plan need not be made anew.
func onlyPoints(a, b *project.Project) bool {
	if len(a.Lines) != len(b.Lines) {
		return false
	}
	differ, pieces := false, a.TreatmentOwners()
	for i, l := range a.Lines {
		m := b.Lines[i]
		if pieces[l.Owner] != nil && !l.SamePoints(m) {
			return false
		}
		if l.Owner != m.Owner || l.Name != m.Name || (len(l.Points) == 0) != (len(m.Points) == 0) {
			return false
		}
		differ = differ || !l.SamePoints(m)
	}
	if !differ {
		return false
	}
	x, y := *a, *b
	x.Lines, y.Lines = nil, nil
	return reflect.DeepEqual(&x, &y)
}

// relines takes over the points of lines that have changed. Where that moves a parameter at this moment, it
// goes to its new place in a few milliseconds.
func (p *plan) relines(doc *project.Project) {
	p.doc = doc
	byAddress := map[address]*project.Line{}
	for _, l := range doc.Lines {
		byAddress[address{l.Owner, l.Name}] = l
	}
	for i := range p.lined {
		s := p.lined[i].slot
		l := byAddress[address{s.owner, s.name}]
		if s.line == nil || l == nil || l.SamePoints(s.line.source) {
			continue
		}
		at := p.cursor.hold
		if p.cursor.rolling {
			at = p.cursor.songFrame(p.lined[i].lag, 0)
		}
		was := s.place(s.line.at(at, s)) + s.mend()
		s.line = newLine(l, s, p.time)
		if s.desc.Stepped() || s.taken {
			continue
		}
		if s.mended = was - s.place(s.line.at(at, s)); math.Abs(s.mended) < 1e-9 {
			continue
		}
		s.mending = gateFrames
		if s.stirred != nil {
			*s.stirred = true
		}
	}
}

// mend is by how much of the travel a changed line is still away from where it has been put.
func (s *slot) mend() float64 {
	if s.mending == 0 {
		return 0
	}
	return s.mended * float64(s.mending) / gateFrames
}
