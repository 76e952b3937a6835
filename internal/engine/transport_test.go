package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// A seek while the song plays fades out over 5 ms, and then is what a song that began there is: nothing of
// before is left, and what is late does not come late.
func TestASeekGoesOnAsIfItHadBegunThere(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(90000, 31))
	a.Chain.Nodes = []*project.Node{stage("reverb", map[string]float64{"decay": 2}), stage("limiter", map[string]float64{"input": 6})}
	e := s.engine()
	e.Play()
	play(t, e, 20000, Block)
	e.GoTo(50000)
	require.EqualValues(t, 50000, e.Position(), "it is said to stand there at once")
	l, _ := play(t, e, 12000, Block)
	fresh := s.engine()
	fresh.GoTo(50000)
	fresh.Play()
	want, _ := play(t, fresh, 12000, Block)
	const fade = 240 // 5 ms
	from := -1
	for at := fade; at < fade+300 && from < 0; at++ { // what is heard first is the end of before
		if worst(want[2*fade:8000], l[at+2*fade:at+8000]) < -120 {
			from = at
		}
	}
	require.GreaterOrEqual(t, from, fade, "after a fade it is the song from there on")
	require.Less(t, dsp.Decibels(math.Abs(l[from-1])), -30.0, "and the fade has come to its end")
	require.Equal(t, Playing, e.State())
}

func TestASeekWhileStoppedIsSilent(t *testing.T) {
	s := newSong(t)
	s.track("a", noise(90000, 32))
	e := s.engine()
	require.True(t, e.Quiet())
	e.GoTo(-5)
	require.Zero(t, e.Position())
	e.GoTo(700)
	require.EqualValues(t, 700, e.Position())
	l, _ := play(t, e, 1000, Block)
	require.Zero(t, dsp.Peak(l, l))
	require.Equal(t, Stopped, e.State())
	e.Play()
	require.False(t, e.Quiet())
}

// A change of structure while the song stands waits for its fade, but nothing is heard of it: the
// engine is at rest, and the time may be used to rehearse what has come.
func TestTheEngineIsAtRestThoughAFadeWaits(t *testing.T) {
	s := newSong(t)
	s.track("a", noise(90000, 33))
	e := s.engine()
	next := project.Clone(s.doc)
	next.Channels[0].Chain.Nodes = []*project.Node{stage("limiter", nil)}
	require.NoError(t, e.SetDocument(next))
	require.True(t, e.AtRest())
	require.False(t, e.Quiet())
	e.Play()
	require.False(t, e.AtRest())
}

// A place that is gone to while a change of structure waits for its fade is where Play begins.
func TestASeekWhileAFadeWaitsIsWhereItBegins(t *testing.T) {
	s := newSong(t)
	s.track("a", noise(90000, 34))
	e := s.engine()
	next := project.Clone(s.doc)
	next.Channels[0].Chain.Nodes = []*project.Node{stage("trim", nil)}
	require.NoError(t, e.SetDocument(next))
	e.GoTo(50000)
	e.Play()
	require.EqualValues(t, 50000, e.Position())
	l, _ := play(t, e, 4000, Block)
	fresh := s.engine()
	fresh.GoTo(50000)
	fresh.Play()
	want, _ := play(t, fresh, 4000, Block)
	require.Less(t, worst(want, l), -120.0)
}

// Loudness is measured from where it was begun anew.
func TestLoudnessIsMeasuredAnew(t *testing.T) {
	s := newSong(t)
	s.track("a", sine(4*48000, 997, -20))
	e := s.engine()
	e.Play()
	levels := make([]float32, 64)
	play(t, e, 2*48000, Block)
	e.Levels(levels)
	loud := levels[LevelIntegrated]
	require.InDelta(t, -20, loud, 0.1) // a sine of -20 dBFS on both sides, by ITU-R BS.1770
	e.MeasureAgain()
	e.Levels(levels)
	require.EqualValues(t, dsp.Off, levels[LevelIntegrated])
	play(t, e, 48000, Block)
	e.Levels(levels)
	require.InDelta(t, loud, levels[LevelIntegrated], 0.1)
}

// Every pair of levels belongs to the point that the layout says.
func TestLevelsStandWhereTheLayoutSays(t *testing.T) {
	s := newSong(t)
	a := s.track("a", sine(48000, 480, -12))
	a.Chain.Nodes = []*project.Node{
		stage("trim", map[string]float64{"gain": -6}),
		stage("compressor", map[string]float64{"threshold": -30, "ratio": 4, "knee": 0}),
	}
	a.Fader = -10
	e := s.engine()
	e.Play()
	levels := make([]float32, 256)
	play(t, e, 24000, Block)
	e.Levels(levels)
	play(t, e, 9600, Block)
	n := e.Levels(levels)
	find := func(kind, owner string) (float32, Point) {
		for i, p := range e.Layout() {
			if p.Kind == kind && p.Owner == owner {
				return levels[LevelFirst+2*i], p
			}
		}
		t.Fatalf("there is no point %s of %s", kind, owner)
		return 0, Point{}
	}
	in, _ := find("in", a.ID)
	trimmed, _ := find("after", a.Chain.Nodes[0].ID())
	squeezed, p := find("after", a.Chain.Nodes[1].ID())
	post, _ := find("post", a.ID)
	require.InDelta(t, -12, in, 0.1)
	require.InDelta(t, -18, trimmed, 0.1)
	require.Less(t, squeezed, trimmed-3)
	require.InDelta(t, squeezed-10, post, 0.1, "the fader")
	reports := LevelFirst + 2*len(e.Layout())
	require.GreaterOrEqual(t, p.Report, 0)
	require.Less(t, reports+p.Report, n)
	e.RMS(true)
	play(t, e, 9600, Block)
	require.Equal(t, n+2*len(e.Layout()), e.Levels(levels), "mean levels follow")
	require.InDelta(t, in-3.01, levels[n+2*indexOf(e.Layout(), "in", a.ID)], 0.1, "a sine's mean is 3 dB below its peak")
}

func indexOf(points []Point, kind, owner string) int {
	for i, p := range points {
		if p.Kind == kind && p.Owner == owner {
			return i
		}
	}
	return -1
}

// A hand that takes a line down begins where the line has it; let go, the line is followed again.
func TestAHandTakesALineFromWhereItStands(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(4*48000))
	s.doc.Lines = []*project.Line{{Owner: a.ID, Name: "fader", Points: []project.Point{point(0, -40, "ramp"), point(8*960, 0, "ramp")}}}
	e := s.engine()
	e.Play()
	l, _ := play(t, e, 48000, Block)
	require.True(t, e.Take(a.ID, "fader", true))
	m, _ := play(t, e, 9600, Block)
	require.InDelta(t, l[47999], m[0], 1e-4)
	require.InDelta(t, m[1000], m[9000], 1e-9, "it stands in the hand")
	require.True(t, e.Move(a.ID, "fader", -6))
	m, _ = play(t, e, 9600, Block)
	require.InDelta(t, ones(1)[0]*dsp.Gain(-6), m[9000], 1e-6)
	require.True(t, e.Take(a.ID, "fader", false))
	m, _ = play(t, e, 9600, Block)
	require.Greater(t, m[9500], m[9000], "and rises with the line again")
	require.False(t, e.Take(a.ID, "no such", true))
}

// While audio is still on its way the song can be moved elsewhere: it goes on there, and does not wait for what it has left.
func TestMovedWhileItWaitsTheSongGoesOnAtItsNewPlace(t *testing.T) {
	for _, there := range []bool{true, false} {
		s := newSong(t)
		x := sine(400000, 1000, -6)
		s.track("a", x)
		hash := projecttest.Hash("a")
		s.lib = pages.New(0)
		s.lib.Sound(hash, int64(len(x)), 1)
		page := func(i int) {
			var p []float32
			for _, v := range x[i*pages.Frames : min(len(x), (i+1)*pages.Frames)] {
				p = append(p, float32(v))
			}
			s.lib.Put(hash, i, pages.Page{p})
		}
		const to = 6*pages.Frames + 100
		if there {
			page(6)
		}
		e := s.engine()
		e.Play()
		require.Zero(t, e.Render(128))
		require.Equal(t, Waiting, e.State())
		e.GoTo(to)
		if !there {
			require.Zero(t, e.Render(128))
			asked := e.Ahead(128)
			require.Len(t, asked, 1)
			require.Equal(t, 6, asked[0].Page, "it asks for what it needs there")
			page(6)
		}
		require.Equal(t, int64(to), e.Position())
		l, _ := play(t, e, 4096, 128)
		require.InDelta(t, x[to+4095], l[4095], 1e-3)
		require.Equal(t, Playing, e.State())
	}
}
