package engine

import (
	"reflect"
	"slices"

	"shoal/internal/project"
)

// prepared is what SetDocument will want, made before it is asked: the graph of a revision and, where its structure is another, its
// plan; and what held when it was made.
type prepared struct {
	c    *compiler
	plan *plan // nil where only values differ
	old  *plan
	was  *project.Project // that old played
}

// Prepare makes what SetDocument will want of a revision. That is about half of its work, and the sound can go on between the two.
// Nothing that is heard changes; a revision that cannot be compiled is refused by SetDocument.
func (e *Engine) Prepare(doc *project.Project) {
	e.prepared = nil
	rows := e.liveRows(doc)
	if doc.SampleRate != int(e.rate) || e.next != nil || e.turned || !slices.Equal(rows, e.point.live) || e.lighter(doc) {
		return // it waits for a fade, or is the smaller part of the work
	}
	c, err := draw(doc, e.lib, nil, e.point)
	if err != nil {
		return
	}
	p := &prepared{c: c, old: e.now, was: e.now.doc}
	if c.plan.shape != e.now.shape {
		c.old = e.now
		if p.plan, err = c.build(); err != nil {
			return
		}
	}
	e.prepared = p
}

// lighter reports whether a revision differs in what is exchanged without a graph: points of lines, or clips.
func (e *Engine) lighter(doc *project.Project) bool {
	return e.now.sameWater(doc) && (onlyPoints(e.now.doc, doc) || !e.now.stale() && onlyClips(e.now.doc, doc))
}

// graphOf is the graph of a revision: the one that was prepared, where all is as it was then.
func (e *Engine) graphOf(doc *project.Project, p *prepared) (*compiler, *plan, error) {
	if p != nil && p.c.doc == doc && p.old == e.now && p.was == e.now.doc && reflect.DeepEqual(p.c.point, e.point) &&
		(p.plan == nil || !p.plan.leadsBroken()) {
		return p.c, p.plan, nil
	}
	c, err := draw(doc, e.lib, nil, e.point)
	return c, nil, err
}

// leadsBroken reports whether a stage that hands itself over has been silenced since.
func (p *plan) leadsBroken() bool {
	for _, s := range p.stages {
		if s.lead != nil && s.lead.broken {
			return true
		}
	}
	return false
}
