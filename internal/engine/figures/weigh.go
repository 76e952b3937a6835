package figures

import (
	"context"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Weights is how loud a fork is at its points over a range, in LUFS; -120 where nothing was heard.
type Weights struct {
	In    float64
	Out   float64
	Paths map[string]float64 // behind level and mute
}

// scale measures the loudness of what passes over a range of song frames.
type scale struct {
	from, to int64
	loud     *dsp.Loudness
	power    float64
	frames   int64
}

func (s *scale) hear(frame int64, l, r []float64) {
	if frame < s.from || frame >= s.to {
		return
	}
	s.loud.Feed(l, r)
	s.power += power(l, r)
	s.frames += int64(len(l))
}

// lufs is the integrated loudness, or where the range is too short or too soft for that, the
// mean level.
func (s *scale) lufs() float64 {
	if v := s.loud.Integrated(); v > -70 {
		return v
	}
	return max(dsp.Off, 10*math.Log10(s.power/float64(max(1, s.frames))+1e-12))
}

// Weigh plays a row as far as the end of a range and measures one of its forks over the range. progress, if not
// nil, is told the part done.
func Weigh(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	fork string,
	from, to int64,
	load engine.Loader,
	progress func(float64),
) (*Weights, error) {
	f, ch, ok := doc.ForkByID(fork)
	if !ok {
		return nil, errGone
	}
	doc = heardIn(doc, ch, fork)
	var ears []engine.Ear
	weigh := func(at engine.Place) *scale {
		s := &scale{from: from, to: to, loud: dsp.NewLoudness(float64(doc.SampleRate), true)}
		ears = append(ears, engine.Ear{At: at, Hear: s.hear})
		return s
	}
	in, out := weigh(engine.Place{IntoFork: fork}), weigh(engine.Place{OutOf: fork})
	paths := map[string]*scale{}
	for _, x := range f.Paths {
		paths[x.ID] = weigh(engine.Place{Path: x.ID})
	}
	if _, err := engine.Overhear(ctx, doc, lib, engine.Stretch{Row: ch.ID, To: to}, ears, load, progress); err != nil {
		return nil, err
	}
	w := &Weights{In: in.lufs(), Out: out.lufs(), Paths: map[string]float64{}}
	for id, s := range paths {
		w.Paths[id] = s.lufs()
	}
	return w, nil
}

// heardIn is the document with the trial as its row's chain on which a fork stands: a print
// knows only the chain.
func heardIn(doc *project.Project, ch *project.Channel, fork string) *project.Project {
	for _, t := range ch.Trials {
		found := false
		t.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			found = found || n.ID() == fork
			return !found
		})
		if found {
			doc = project.Clone(doc)
			x, _ := doc.Channel(ch.ID)
			x.Chain, x.Trials = project.Clone(t.Chain), nil
		}
	}
	return doc
}
