package figures

import (
	"context"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
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

// tape keeps assaySize frames of what passes from a frame on.
type tape struct {
	from  int64
	sides [2][]float64
}

// assayTape is what was heard of the input, the output and each path's end.
type assayTape struct {
	in, out *tape
	paths   []*tape
	latency int
}

// assaySize is how many frames are kept, a power of two.
const assaySize = 1 << 15

func (t *tape) hear(frame int64, l, r []float64) {
	from := int(max(0, min(int64(len(l)), t.from-frame)))
	n := min(len(l), from+assaySize-len(t.sides[0]))
	if from < n {
		t.sides[0], t.sides[1] = append(t.sides[0], l[from:n]...), append(t.sides[1], r[from:n]...)
	}
}

// play sends a signal through, by side and frame, and keeps what comes after so many frames.
func (b *assay) play(
	ctx context.Context,
	lib *pages.Library,
	load engine.Loader,
	signal func(side int, i int64) float64,
	settle int64,
) (*assayTape, error) {
	var ears []engine.Ear
	keep := func(at engine.Place) *tape {
		t := &tape{from: settle}
		ears = append(ears, engine.Ear{At: at, Hear: t.hear})
		return t
	}
	t := &assayTape{in: keep(engine.Place{IntoFork: b.fork.ID}), out: keep(engine.Place{OutOf: b.fork.ID})}
	for _, path := range b.fork.Paths {
		t.paths = append(t.paths, keep(engine.Place{Path: path.ID}))
	}
	at := int64(0)
	send := func(l, r []float64) {
		for i := range l {
			l[i], r[i] = signal(0, at), signal(1, at)
			at++
		}
	}
	var err error
	t.latency, err = engine.Overhear(ctx, b.doc, lib, engine.Stretch{Row: b.row.ID, To: settle + assaySize, Signal: send}, ears, load, nil)
	return t, err
}
