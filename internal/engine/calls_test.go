package engine

import (
	"math/rand/v2"
	"os"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
	"shoal/internal/project/view"
)

// Whatever a window asks of the engine, in whatever order, with ids that are there or not, while the song changes and
// pages are missing: nothing panics, for in a browser that ends the sound. SHOAL_LONG=n tries n songs.
func TestNoOrderOfCallsEndsTheEngine(t *testing.T) {
	songs := 8
	if n, err := strconv.Atoi(os.Getenv("SHOAL_LONG")); err == nil {
		songs = n
	}
	for seed := range songs {
		r := rand.New(rand.NewPCG(uint64(seed), 77))
		s := newSong(t)
		a, b := s.track("one", noise(rate/4, 1)), s.track("two", noise(2*pages.Frames, 2))
		s.ret("hall")
		a.Chain.Nodes = []*project.Node{
			stage("equaliser", nil),
			forked(project.Bands, project.NewPath("low"), project.NewPath("high", stage("reverb", nil))),
		}
		a.Chain.Nodes[1].Fork.Crossovers = []float64{400}
		b.Chain.Nodes = []*project.Node{stage("denoise", nil), stage("limiter", nil)}
		s.doc.Sections = []project.Section{{ID: project.NewID(), Name: "One"}, {ID: project.NewID(), Name: "Two", Tick: 9600}}
		e := s.engine()
		e.Clock(func() int64 { return r.Int64N(1 << 40) })
		levels := make([]float32, 8192)
		base := s.doc
		require.NotPanics(t, func() {
			for range 250 {
				call(t, r, s, e, &base, levels)
			}
		}, "seed %d", seed)
	}
}

// call makes one call of those that the worker makes.
func call(t *testing.T, r *rand.Rand, s *song, e *Engine, base **project.Project, levels []float32) {
	p := *base
	ids := []string{"", "nothing"}
	for _, c := range p.Channels {
		ids = append(ids, c.ID)
		for _, x := range c.Trials {
			ids = append(ids, x.ID)
		}
		for id := range project.Owners(c.Chain.Nodes) {
			ids = append(ids, id)
		}
	}
	id := func() string { return ids[r.IntN(len(ids))] }
	name := []string{"fader", "pan", "mix", "gain", "level", "mute", "x1", "bypass"}[r.IntN(8)]
	frame := []int64{0, -5, 1000, 48000, int64(rate) * 3600 * 24, r.Int64N(20000)}[r.IntN(6)]
	switch r.IntN(24) {
	case 0, 1, 2, 3:
		if next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, EffectInfo); err == nil {
			*base = next
			require.NoError(t, e.SetDocument(next))
		}
	case 4, 5, 6, 7:
		for range r.IntN(30) {
			e.Render(1 + r.IntN(Block))
		}
	case 8:
		e.Play()
	case 9:
		e.Stop()
	case 10:
		e.GoTo(frame)
	case 11:
		e.Loop(frame, frame+r.Int64N(5000)-100)
	case 12:
		_, _ = e.Draw(id())
	case 13:
		_, _ = e.Learn(id())
	case 14:
		e.Move(id(), name, r.NormFloat64()*50)
		e.Take(id(), name, r.IntN(2) == 0)
	case 15:
		_ = e.Listen(Listening{Node: id(), Change: r.IntN(2) == 0, Key: r.IntN(3) == 0, Paths: []string{id()}[:r.IntN(2)]})
	case 16:
		e.Trial(id(), id(), map[string]float64{id(): 3})
		e.RMS(r.IntN(2) == 0)
	case 17:
		e.Watch(id())
		e.Spectrum(levels)
	case 18:
		e.Hear(Hearing{Solo: map[string]bool{id(): true}, Dry: id(), Share: id(), Mono: r.IntN(2) == 0})
	case 19:
		e.Levels(levels)
		e.Costs()
		e.Survey()
		e.Waits()
		e.Layout()
	case 20:
		e.LineValues(frame)
		e.Ahead(frame)
		e.Spot(max(frame, 0))
	case 21:
		for _, a := range s.doc.Audio {
			if sound, ok := s.lib.Find(a.Hash); ok {
				s.lib.Drop(a.Hash, r.IntN(sound.Count())) // dropped, or not there yet
			}
		}
	case 22:
		if x, err := NewRehearsal(e.Document(), max(frame, 0)); err == nil {
			for range 5 {
				x.Run()
			}
		}
	case 23:
		e.HearAnyway(r.IntN(2) == 0)
		e.Trip()
		e.StopAtEnd(r.IntN(2) == 0)
		_, _ = view.Line(p, view.Seen{Owner: id(), Name: name, From: frame, To: frame + 1000, Steps: 20}, EffectInfo)
		_, _ = view.Movables(p, id(), EffectInfo)
	}
}
