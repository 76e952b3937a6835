package engine

import (
	"context"
	"errors"
	"fmt"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Ear hears what passes a place while a stretch is rendered.
type Ear struct {
	At Place
	// Hear is given what passes, in order, with the song frame of the first; below 0 nothing of the song has come yet.
	Hear func(frame int64, l, r []float64)
}

// Place is where something can be overheard. One of its fields is given.
type Place struct {
	IntoFork string // before it divides
	OutOf    string // behind a fork's mix and trim
	Path     string // the end of a path, behind its level and mute
	Row      string // behind its fader; only where rows are asked for
}

// Stretch is what is rendered to be overheard.
type Stretch struct {
	Row  string   // this row after its chain and all that it needs; empty: see Rows
	Rows []string // these behind their faders
	From int64    // song frames; nothing has sounded before
	To   int64
	// Signal, where it is given, is added to what comes into Row.
	Signal func(l, r []float64)
}

// Overhear renders a stretch and lets ears hear it. It returns how many frames late the last row is. progress, if not
// nil, is told the part done.
func Overhear(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	s Stretch,
	ears []Ear,
	load Loader,
	progress func(float64),
) (latency int, err error) {
	p, err := ready(ctx, doc, lib, &capture{channel: s.Row, rows: s.Rows}, load)
	if err != nil {
		return 0, err
	}
	if err := p.listenAt(ears, s.Rows); err != nil {
		return 0, err
	}
	if s.Signal != nil {
		p.feed(s.Row, s.Signal)
	}
	for _, pl := range p.players {
		pl.roll.Set(1)
	}
	p.cursor.frame, p.cursor.rolling, p.cursor.jumped = s.From, true, true
	end := s.To + int64(p.latency)
	for i := 0; p.cursor.frame < end; i++ {
		if i%64 == 0 {
			if err := ctx.Err(); err != nil {
				return 0, err
			}
			if progress != nil {
				progress(float64(p.cursor.frame-s.From) / float64(end-s.From))
			}
		}
		n := p.room(Block)
		if err := fetch(ctx, p, n, load); err != nil {
			return 0, err
		}
		p.run(n)
	}
	return p.latency, p.broken()
}

// errNotThere is the answer where a place is not in what is rendered.
var errNotThere = errors.New("what was to be measured is no longer there")

// listenAt puts ears into the plan.
func (p *plan) listenAt(ears []Ear, rows []string) error {
	var steps []step
	left := len(ears)
	add := func(at Place, buf pair, lag int) {
		for _, e := range ears {
			if e.At == at {
				steps = append(steps, &earStep{buf, lag, e.Hear})
				left--
			}
		}
	}
	for _, s := range p.steps {
		if j, ok := s.(*joinStep); ok {
			add(Place{IntoFork: j.id}, j.buf, j.lag-j.dry.l.Frames())
		}
		steps = append(steps, s)
		switch s := s.(type) {
		case *joinStep:
			add(Place{OutOf: s.id}, s.buf, s.lag)
		case *pathStep:
			add(Place{Path: s.id}, s.buf, s.lag)
		}
	}
	for i, row := range rows {
		add(Place{Row: row}, p.ends[i].buf, p.ends[i].lag)
	}
	if p.steps = steps; left > 0 {
		return errNotThere
	}
	return nil
}

// feed adds a signal to what comes into a row.
func (p *plan) feed(row string, signal func(l, r []float64)) {
	for _, s := range p.steps {
		if s, ok := s.(*sum); ok && s.id == row {
			s.inject = signal
		}
	}
}

// broken says which stage made something that is no number.
func (p *plan) broken() error {
	for _, s := range p.stages {
		if s.broken {
			return fmt.Errorf("stage %s (%s) made something that is no number; what came out is not usable", s.id, s.kind.Name)
		}
	}
	return nil
}

// earStep hears a buffer.
type earStep struct {
	buf  pair
	lag  int
	hear func(frame int64, l, r []float64)
}

func (s *earStep) run(c *cursor, n int) { s.hear(c.songFrame(s.lag, 0), s.buf.l[:n], s.buf.r[:n]) }
