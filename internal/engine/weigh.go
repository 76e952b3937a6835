package engine

import (
	"context"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Weights is how loud a fork is at its points over a range, in LUFS; -120 where nothing was heard.
type Weights struct {
	In    float64
	Out   float64
	Paths map[string]float64 // behind level and mute
}

// weighStep measures the loudness of a buffer over a range of its own song frames.
type weighStep struct {
	buf      pair
	lag      int
	from, to int64
	loud     *dsp.Loudness
	power    float64
	frames   int64
}

func (s *weighStep) run(c *cursor, n int) {
	if at := c.songFrame(s.lag, 0); at < s.from || at >= s.to {
		return
	}
	l, r := s.buf.l[:n], s.buf.r[:n]
	s.loud.Feed(l, r)
	s.power += mean(l, r)
	s.frames += int64(n)
}

// lufs is the integrated loudness, or where the range is too short or too soft for that, the
// mean level.
func (s *weighStep) lufs() float64 {
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
	load Loader,
	progress func(float64),
) (*Weights, error) {
	f, ch, ok := doc.ForkByID(fork)
	if !ok {
		return nil, errGone
	}
	doc = heardIn(doc, ch, fork)
	job, rate := Job{Channel: ch.ID, From: from, To: to}, float64(doc.SampleRate)
	var in, out *weighStep
	paths := map[string]*weighStep{}
	with := func(p *plan) {
		weigh := func(buf pair, lag int) *weighStep {
			return &weighStep{buf: buf, lag: lag, from: from, to: to, loud: dsp.NewLoudness(rate, true)}
		}
		var steps []step
		for _, s := range p.steps {
			switch s := s.(type) {
			case *joinStep:
				if s.id == fork {
					in, out = weigh(s.buf, s.lag-s.dry.l.Frames()), weigh(s.buf, s.lag)
					steps = append(steps, in, s, out)
					continue
				}
			case *pathStep:
				for _, x := range f.Paths {
					if x.ID == s.id {
						paths[x.ID] = weigh(s.buf, s.lag)
						steps = append(steps, s, paths[x.ID])
					}
				}
				if paths[s.id] != nil {
					continue
				}
			}
			steps = append(steps, s)
		}
		p.steps = steps
	}
	err := offline(ctx, doc, lib, job, load, func(_, _ []float64) error { return nil }, progress, false, with)
	if err != nil {
		return nil, err
	}
	if in == nil {
		return nil, errGone
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
