package engine

import (
	"fmt"
	"testing"
	"time"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// perFrame reports what a frame of the whole costs: on average, and in the best of many short
// stretches, which says more on a machine that is shared with others.
func perFrame(b *testing.B, e *Engine) {
	frames, blocks, best := 0, 0, 0.0
	b.ReportAllocs()
	begun, from := time.Now(), 0
	for b.Loop() {
		frames += e.Render(Block)
		if blocks++; blocks%16 == 0 {
			now := time.Now()
			if ns := float64(now.Sub(begun).Nanoseconds()) / float64(frames-from); best == 0 || ns < best {
				best = ns
			}
			begun, from = now, frames
		}
	}
	ns := float64(b.Elapsed().Nanoseconds()) / float64(frames)
	b.ReportMetric(ns, "ns/frame")
	b.ReportMetric(best, "best-ns/frame")
	b.ReportMetric(1e9/rate/ns, "x-realtime")
}

func benchSong() *song { return &song{doc: project.New("Bench", rate, 120, 4, 4), lib: pages.New(0)} }

func (s *song) playing(b *testing.B) *Engine {
	e, err := New(s.doc, s.lib)
	if err != nil {
		b.Fatal(err)
	}
	e.Loop(0, 40000)
	e.Play()
	return e
}

// The chain that the aim of 90 ns a frame is set for.
func BenchmarkChain(b *testing.B) {
	s := benchSong()
	a := s.track("a", noise(50000, 1))
	a.Chain.Nodes = []*project.Node{
		stage("equaliser", map[string]float64{"on1": 1, "shape1": 0, "gain1": 2, "gain2": 3, "gain3": -4, "gain4": 2, "on5": 0, "on7": 0}),
		stage("compressor", nil), stage("delay", nil), stage("limiter", nil)}
	perFrame(b, s.playing(b))
}

func BenchmarkEmptyTrack(b *testing.B) {
	s := benchSong()
	s.track("a", noise(50000, 1))
	perFrame(b, s.playing(b))
}

// 24 tracks of 6 stages and 4 returns.
func BenchmarkSession(b *testing.B) {
	perFrame(b, session(24).playing(b))
}

func session(tracks int) *song {
	s := benchSong()
	var returns []*project.Channel
	for i := range 4 {
		r := s.ret(fmt.Sprint("return ", i))
		r.Chain.Nodes = []*project.Node{stage("reverb", nil), stage("equaliser", map[string]float64{"gain3": -3, "gain5": 2})}
		returns = append(returns, r)
	}
	for i := range tracks {
		a := s.track(fmt.Sprint("track ", i), noise(50000, uint64(i)))
		a.Chain.Nodes = []*project.Node{
			stage("trim", map[string]float64{"gain": -20}),
			stage("equaliser", map[string]float64{"on1": 1, "gain3": -3, "gain5": 2}),
			stage("compressor", nil),
			stage("equaliser", map[string]float64{"gain4": 2}),
			stage("delay", nil),
			stage("limiter", nil),
		}
		a.Sends = []*project.Send{{ID: project.NewID(), To: returns[i%4].ID, Level: -10}}
	}
	return s
}

// A value that is set while it plays: what a session is made of is made for it once, and not again.
func BenchmarkEditOfAValue(b *testing.B) {
	s := session(24)
	e := s.playing(b)
	low, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: s.doc.Channels[5].ID, Name: "fader", Value: -3}}, EffectInfo)
	if err != nil {
		b.Fatal(err)
	}
	docs := [2]*project.Project{low, s.doc}
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		if err := e.SetDocument(docs[i%2]); err != nil {
			b.Fatal(err)
		}
	}
}

// A stage that comes or goes while it plays: what has not changed must not be made anew, and the ring is not filled meanwhile.
func BenchmarkEditOfTheStructure(b *testing.B) {
	s := session(24)
	e := s.playing(b)
	more, _, err := project.Apply(s.doc, []project.Change{&project.AddNode{Owner: s.doc.Channels[5].ID, Node: stage("trim", nil)}}, EffectInfo)
	if err != nil {
		b.Fatal(err)
	}
	docs := [2]*project.Project{more, s.doc}
	b.ReportAllocs()
	var inBlocks time.Duration
	for i := 0; b.Loop(); i++ {
		if err := e.SetDocument(docs[i%2]); err != nil {
			b.Fatal(err)
		}
		begun := time.Now()
		for range 12 { // the fade
			e.Render(Block)
		}
		inBlocks += time.Since(begun)
	}
	b.ReportMetric(float64(inBlocks.Nanoseconds())/float64(b.N), "fade-ns/op")
}

func BenchmarkTracks(b *testing.B) {
	for _, n := range []int{8, 16, 32, 64, 128} {
		b.Run(fmt.Sprint(n), func(b *testing.B) { perFrame(b, session(n).playing(b)) })
	}
}

// The cost of a block must not grow with the points of a line.
func BenchmarkAutomation(b *testing.B) {
	for _, n := range []int{10, 1000, 100000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			s := benchSong()
			a := s.track("a", noise(50000, 1))
			l := &project.Line{Owner: a.ID, Name: "fader"}
			for i := range n {
				l.Points = append(l.Points, project.Point{Tick: int64(i * 40), Value: -float64(i % 7), Shape: project.Ramp})
			}
			s.doc.Lines = []*project.Line{l}
			perFrame(b, s.playing(b))
		})
	}
}

// A fork costs its paths and its split, nothing else: a straight line.
func BenchmarkForkPaths(b *testing.B) {
	for _, n := range []int{1, 2, 4, 8, 16} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			s := benchSong()
			a := s.track("a", noise(50000, 1))
			var paths []*project.Path
			for range n {
				paths = append(paths, project.NewPath("path", stage("compressor", nil)))
			}
			a.Chain.Nodes = []*project.Node{forked(project.Copies, paths...)}
			perFrame(b, s.playing(b))
		})
	}
}

func BenchmarkBands(b *testing.B) {
	for n := 2; n <= project.MaxBands; n++ {
		for _, how := range []string{"24", "48", "linear"} {
			b.Run(fmt.Sprint(n, "/", how), func(b *testing.B) {
				s := benchSong()
				a := s.track("a", noise(50000, 1))
				f, err := project.NewFork(project.Bands, n)
				if err != nil {
					b.Fatal(err)
				}
				f.Linear = how == "linear"
				if how == "48" {
					f.Slope = 48
				}
				a.Chain.Nodes = []*project.Node{{Fork: f}}
				perFrame(b, s.playing(b))
			})
		}
	}
}

// 100,000 points on 200 lines that all move at once, on ten tracks of six stages.
func BenchmarkLines(b *testing.B) {
	for _, lines := range []int{0, 50, 200} {
		b.Run(fmt.Sprint(lines), func(b *testing.B) {
			s := session(10)
			var at []*project.Line
			for _, c := range s.doc.Channels {
				if c.Kind != project.Track {
					continue
				}
				eq, squeeze, echo := c.Chain.Nodes[1].Stage, c.Chain.Nodes[2].Stage, c.Chain.Nodes[4].Stage
				for _, x := range []struct {
					owner, name string
					low, high   float64
				}{
					{c.ID, "fader", -12, 0}, {c.ID, "pan", -0.5, 0.5}, {c.Sends[0].ID, "level", -30, -6}, {c.Sends[0].ID, "pan", -1, 1},
					{eq.ID, "freq3", 200, 900}, {eq.ID, "gain3", -9, 9}, {eq.ID, "q3", 0.5, 4},
					{eq.ID, "freq4", 700, 2000}, {eq.ID, "gain4", -6, 6}, {eq.ID, "gain5", -3, 6},
					{squeeze.ID, "threshold", -40, -20}, {squeeze.ID, "ratio", 1.5, 8}, {squeeze.ID, "makeup", 0, 6}, {squeeze.ID, "mix", 40, 100},
					{echo.ID, "feedback", 10, 60}, {echo.ID, "width", 20, 100}, {echo.ID, "mix", 5, 40}, {echo.ID, "highcut", 2000, 9000},
					{c.Chain.Nodes[0].Stage.ID, "gain", -24, -16}, {c.Chain.Nodes[5].Stage.ID, "input", 0, 6},
				} {
					l := &project.Line{Owner: x.owner, Name: x.name}
					for i := range 500 {
						l.Points = append(
							l.Points,
							project.Point{Tick: int64(i * 160), Value: x.low + (x.high-x.low)*float64(i*7%10)/9, Shape: project.Ramp},
						)
					}
					at = append(at, l)
				}
			}
			s.doc.Lines = at[:lines]
			perFrame(b, s.playing(b))
		})
	}
}
