package engine

import (
	"fmt"
	"runtime"
	"testing"

	"shoal/internal/project"
)

// manyPieces is a song of 1,000 clips of two seconds on 40 rows without chains, a third of them with a treatment of three
// stages each.
func manyPieces() *song {
	s := benchSong()
	for row := range 40 {
		ch := s.track(fmt.Sprint("row ", row), noise(2*rate, uint64(row)))
		first := ch.Clips[0]
		ch.Clips = nil
		for i := range 25 {
			x := *first
			x.ID, x.Start, x.Exact = project.NewID(), int64(i)*5*rate/2, false
			if (row+i)%3 == 0 {
				s.treat(&x, stage("equaliser", map[string]float64{"gain3": 3}), stage("compressor", nil), stage("delay", nil))
			}
			ch.Clips = append(ch.Clips, &x)
		}
	}
	return s
}

// What a frame costs while 40 pieces sound, 13 of them treated, and what an edit of a clip costs; memory stays flat.
func BenchmarkManyPieces(b *testing.B) {
	s := manyPieces()
	e := s.playing(b)
	e.Loop(0, 50*rate)
	var before, after runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	b.ReportAllocs()
	frames := 0
	for b.Loop() {
		if frames%(rate/10) < Block {
			e.Ahead(2 * rate)
		}
		n := e.Render(Block)
		frames += n
	}
	runtime.GC()
	runtime.ReadMemStats(&after)
	ns := float64(b.Elapsed().Nanoseconds()) / float64(frames)
	b.ReportMetric(ns, "ns/frame")
	b.ReportMetric(1e9/rate/ns, "x-realtime")
	b.ReportMetric(float64(int64(after.HeapAlloc)-int64(before.HeapAlloc))/1e6, "MB-more")
}

// The cost of a block must not grow with how many clips a row has.
func BenchmarkClips(b *testing.B) {
	for _, n := range []int{10, 100, 1000, 10000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			s := benchSong()
			ch := s.track("row", noise(50000, 1))
			first := ch.Clips[0]
			for i := range n - 1 {
				x := *first
				x.ID, x.Start = project.NewID(), int64(i+1)*60000
				ch.Clips = append(ch.Clips, &x)
			}
			perFrame(b, s.playing(b))
		})
	}
}

func BenchmarkEditAmongManyPieces(b *testing.B) {
	s := manyPieces()
	e := s.playing(b)
	e.Ahead(2 * rate)
	gain, id := 0.0, s.doc.Channels[7].Clips[3].ID
	for b.Loop() {
		gain--
		if gain < -20 {
			gain = 0
		}
		next, _, err := project.Apply(s.doc, []project.Change{&project.SetClip{ID: id, Gain: &gain}}, EffectInfo)
		if err != nil {
			b.Fatal(err)
		}
		if err := e.SetDocument(next); err != nil {
			b.Fatal(err)
		}
		s.doc = next
	}
	if e.plansMade > 0 {
		b.Fatal("an edit of a clip made a plan")
	}
}
