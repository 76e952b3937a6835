package engine

import (
	"context"
	"errors"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

var (
	errGone      = errors.New("the fork is no longer there")
	errNoPassage = errors.New("the passage is no longer there")
)

// assay is a project with nothing but a copy of one fork on a track, to send signals through.
type assay struct {
	doc  *project.Project
	row  *project.Channel
	fork *project.Fork
}

// newAssay copies a fork. What it takes from elsewhere, keys, is left away.
func newAssay(doc *project.Project, f *project.Fork) *assay {
	b := &assay{doc: project.New("Assay", doc.SampleRate, 120, 4, 4), fork: project.Clone(f)}
	b.doc.Tempo, b.doc.Meter, b.doc.Audio = doc.Tempo, doc.Meter, doc.Audio
	b.row = project.NewChannel(project.Track, "Assay", b.doc.MainChannel().ID)
	b.row.Chain.Nodes = []*project.Node{{Fork: b.fork}}
	b.row.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
		if n.Stage != nil {
			n.Stage.Key = nil
		}
		return true
	})
	b.doc.Channels = append([]*project.Channel{b.row}, b.doc.Channels...)
	return b
}

// assayTape is what came out: figureSize frames of the input, the output and each path's end.
type assayTape struct {
	in, out [2][]float64
	paths   [][2][]float64
	latency int
}

// play sends a signal through, by side and frame, and keeps what comes after so many frames.
func (b *assay) play(
	ctx context.Context,
	lib *pages.Library,
	load Loader,
	signal func(side int, i int64) float64,
	settle int,
) (*assayTape, error) {
	p, err := ready(ctx, b.doc, lib, &capture{channel: b.row.ID}, load)
	if err != nil {
		return nil, err
	}
	t := &assayTape{paths: make([][2][]float64, len(b.fork.Paths)), latency: p.latency}
	at := int64(0)
	// keep takes what belongs to the frames from settle on, of a signal that is so late
	keep := func(to *[2][]float64, l, r []float64, lag int) {
		from := max(0, min(len(l), settle+lag-int(at)))
		n := min(len(l), from+figureSize-len(to[0]))
		if from < n {
			to[0], to[1] = append(to[0], l[from:n]...), append(to[1], r[from:n]...)
		}
	}
	inject := func(l, r []float64) {
		for i := range l {
			l[i], r[i] = signal(0, at+int64(i)), signal(1, at+int64(i))
		}
		keep(&t.in, l, r, 0)
	}
	for _, s := range p.steps {
		if s, ok := s.(*sum); ok && s.id == b.row.ID {
			s.inject = inject
		}
	}
	p.cursor.rolling, p.cursor.jumped = true, true
	for len(t.out[0]) < figureSize {
		n := p.room(Block)
		p.run(n)
		keep(&t.out, p.out.l[:n], p.out.r[:n], p.latency)
		for k, path := range b.fork.Paths {
			s := p.paths[path.ID]
			keep(&t.paths[k], s.buf.l[:n], s.buf.r[:n], s.lag)
		}
		at += int64(n)
	}
	return t, nil
}
