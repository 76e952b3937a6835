package engine

import (
	"reflect"
	"slices"

	"shoal/internal/project"
)

// places are where clips can come into their rows.
var places = []string{"", project.EntersWayIn, project.EntersBehind}

// onlyClips reports whether two documents differ in clips and their treatments, and in nothing else; no row begins or
// ends to have any. Then the plan need not be made anew: its players' lists are swapped.
func onlyClips(a, b *project.Project) bool {
	if len(a.Channels) != len(b.Channels) || !sameLines(rowLines(a), rowLines(b)) {
		return false
	}
	for i, c := range a.Channels {
		d := b.Channels[i]
		if slices.ContainsFunc(places, func(at string) bool { return enter(c, at) != enter(d, at) }) {
			return false
		}
		x, y := *c, *d
		x.Clips, y.Clips, x.Overlaps, y.Overlaps = nil, nil, "", ""
		if !reflect.DeepEqual(&x, &y) {
			return false
		}
	}
	x, y := *a, *b
	for _, p := range []*project.Project{&x, &y} {
		p.Channels, p.Treatments, p.Lines, p.Audio, p.Takes = nil, nil, nil, nil, nil
	}
	return reflect.DeepEqual(&x, &y)
}

// rowLines are the lines of a document that do not move what stands in treatments.
func rowLines(p *project.Project) []*project.Line {
	pieces := p.TreatmentOwners()
	if len(pieces) == 0 {
		return p.Lines
	}
	var lines []*project.Line
	for _, l := range p.Lines {
		if pieces[l.Owner] == nil {
			lines = append(lines, l)
		}
	}
	return lines
}

func sameLines(a, b []*project.Line) bool {
	return slices.EqualFunc(a, b, func(l, m *project.Line) bool { return l.Owner == m.Owner && l.Name == m.Name && l.SamePoints(m) })
}

// reclips takes over the clips and treatments of a document, on the rows where they have changed.
func (p *plan) reclips(doc *project.Project) {
	old := p.doc
	p.doc, p.end = doc, songEnd(doc)
	before, now := treatments(old), treatments(doc)
	same := map[string]bool{}
	for id, t := range now {
		same[id] = reflect.DeepEqual(before[id], t) && sameLines(old.LinesWithin(t), doc.LinesWithin(t))
	}
	for at, pl := range p.clips {
		ch, _ := doc.Channel(at.channel)
		if was, ok := old.Channel(at.channel); ok && ch.Overlaps == was.Overlaps && sameClips(was.Clips, ch.Clips, same) {
			continue
		}
		pl.swap(playList(doc, ch, at.enters, now, p.clock, p.lib), p.cursor.rolling)
	}
}

func treatments(doc *project.Project) map[string]*project.Treatment {
	m := make(map[string]*project.Treatment, len(doc.Treatments))
	for _, t := range doc.Treatments {
		m[t.ID] = t
	}
	return m
}

// sameClips reports whether clips are as they were, and their treatments too.
func sameClips(a, b []*project.Clip, same map[string]bool) bool {
	if len(a) != len(b) {
		return false
	}
	for i, x := range a {
		if !reflect.DeepEqual(x, b[i]) || x.Treatment != "" && !same[x.Treatment] {
			return false
		}
	}
	return true
}
