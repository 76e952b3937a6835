package engine

import (
	"testing"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// behindLines puts a line at the end of every track's chain, with its print at hand.
func behindLines(s *song) *song {
	for _, ch := range s.doc.Channels {
		if ch.Kind != project.Track || len(ch.Chain.Nodes) == 0 {
			continue
		}
		ch.Waterline = ch.Chain.Nodes[len(ch.Chain.Nodes)-1].ID()
		w := WaterlineOf(s.doc, ch)
		sound := s.lib.Sound(w.Key, w.Frames(), 2)
		for i := range sound.Count() {
			side := make([]float32, min(pages.Frames, int(w.Frames())-i*pages.Frames))
			s.lib.Put(w.Key, i, pages.Page{side, side})
		}
		s.lib.Announce(w.Key)
		s.lib.Take(w.Key)
	}
	return s
}

// The session of BenchmarkSession with every track printed: what is left is returns, faders and sends.
func BenchmarkSessionBehindLines(b *testing.B) {
	perFrame(b, behindLines(session(24)).playing(b))
}

// What an edit costs where every track has a line: its makings are looked at.
func BenchmarkEditBehindLines(b *testing.B) {
	for name, s := range map[string]*song{"without": session(24), "with": behindLines(session(24))} {
		b.Run(name, func(b *testing.B) {
			e := s.playing(b)
			docs := [2]*project.Project{s.doc, project.Clone(s.doc)}
			docs[1].MainChannel().Fader = -3
			i := 0
			for b.Loop() {
				i++
				if err := e.SetDocument(docs[i%2]); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
