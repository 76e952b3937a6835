package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// stepped gives a song one clip of full scale, treated by a trim whose line goes from 0 to -20 dB at a tick of the piece.
func stepped(t *testing.T, start, tick int64) (s *song, row, owner string) {
	t.Helper()
	s = newSong(t)
	ch, x := s.piece("full", full(2*rate))
	x.Start, x.Exact = start, true
	gain := stage("trim", nil)
	s.treat(x, gain)
	s.change(&project.SetLine{Owner: gain.ID(), Name: "gain", Points: []project.Point{
		{Tick: 0, Value: 0, Shape: project.Hold}, {Tick: tick, Value: -20, Shape: project.Hold}}})
	return s, ch.ID, gain.ID()
}

// stepOf is the frame from which on a tenth is heard of what was full, and nothing else.
func stepOf(t *testing.T, l []float64) int64 {
	t.Helper()
	at := int64(-1)
	for i, v := range l {
		switch {
		case math.Abs(v-0.1) < 1e-9 && at < 0:
			at = int64(i)
		case at >= 0:
			require.InDelta(t, 0.1, v, 1e-9)
		}
	}
	return at
}

// A step of a line in a treatment lands on its frame, counted from where the piece begins, wherever that lies; and the
// half of a piece that is moved away takes its part of the line along.
func TestALineInATreatmentRunsInTheTimeOfThePiece(t *testing.T) {
	for _, start := range []int64{0, 48000, 31000} {
		s, row, _ := stepped(t, start, 960)
		clock := s.doc.Clock()
		origin := int64(math.Round(clock.Tick(start)))
		want := clock.Frame(origin + 960)
		got := s.heard(int(start) + 2*rate)
		require.Equal(t, want, stepOf(t, got))

		s.change(&project.SplitClips{Rows: []string{row}, At: []int64{start + 20000}})
		same(t, got, s.heard(int(start)+2*rate), "a cut is not heard")

		right := s.doc.Channels[0].Clips[1]
		to := start + 60000
		s.change(&project.SetClip{ID: right.ID, Start: &to})
		require.InDelta(t, want+40000, stepOf(t, s.heard(int(to) + rate)[start+20000:])+start+20000, 13, "within half a tick")
		s.change(&project.RemoveClip{ID: right.ID})
		require.Equal(t, want-start >= 20000, stepOf(t, s.heard(int(start)+20000)) < 0)
	}
}

// A line that is changed while its piece runs is heard from then on, without a break and without another plan; a hand
// has it as long as it holds it; and what it is at a frame is told.
func TestALineInATreatmentIsHeardAsItIsDrawn(t *testing.T) {
	s, _, owner := stepped(t, 0, 96000)
	e := s.engine()
	e.Play()
	l, _ := play(t, e, rate/2, Block)
	require.InDelta(t, 1, l[len(l)-1], 1e-9)
	s.change(&project.SetLine{Owner: owner, Name: "gain", Points: []project.Point{{Tick: 0, Value: -20, Shape: project.Hold}}})
	require.NoError(t, e.SetDocument(s.doc))
	require.Zero(t, e.plansMade)
	l, _ = play(t, e, rate/4, Block)
	for i := 1; i < len(l); i++ {
		require.Less(t, math.Abs(l[i]-l[i-1]), 0.01, "it does not click")
	}
	require.InDelta(t, 0.1, l[len(l)-1], 1e-6)

	require.True(t, e.Take(owner, "gain", true))
	e.Move(owner, "gain", -6.0205999)
	l, _ = play(t, e, rate/8, Block)
	require.InDelta(t, 0.5, l[len(l)-1], 1e-4)
	e.Take(owner, "gain", false)
	l, _ = play(t, e, Block, Block)
	require.InDelta(t, 0.1, l[len(l)-1], 0.5)

	values := e.LineValues(1000)
	require.Len(t, values, 1)
	require.Equal(t, owner, values[0].Owner)
	require.InDelta(t, -20, values[0].Value, 1e-9)
}
