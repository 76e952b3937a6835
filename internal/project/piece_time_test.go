package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// lined gives the clip of aPiece a stage whose mix has a line: all of it, from 100 ticks in none.
func lined(t *testing.T) (p *Project, before *Project, undo []Change) {
	t.Helper()
	p, _ = aPiece(t)
	before, _ = make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: "trim"})
	points := []Point{{Tick: 0, Value: 100, Shape: Hold}, {Tick: 100, Value: 0, Shape: Hold}}
	p, undo = make1(t, before, &SetLine{Owner: step(before, "x"), Name: "mix", Points: points})
	return p, before, undo
}

// The time of a line begins where its piece begins when the line comes, and stays at that place of the sound.
func TestThePieceKeepsWhereItsLinesBegin(t *testing.T) {
	p, before, undo := lined(t)
	require.Equal(t, int64(2000), *clipOf(t, p, "x").Origin)
	back, _ := make1(t, p, undo...)
	require.JSONEq(t, asJSON(t, before), asJSON(t, back))

	begins := func(p *Project, id string) int64 {
		time, _, err := p.TimeOf(step(p, id), id, 0)
		require.NoError(t, err)
		return time.Frame(0)
	}
	require.InDelta(t, 48000, begins(p, "x"), 20)
	cut, _ := make1(t, p, &SplitClips{IDs: []string{"x"}, At: []int64{52000}})
	right := cut.Channels[0].Clips[1]
	require.InDelta(t, 48000, begins(cut, right.ID), 20, "the right half goes on where the cut is")
	whole, _ := make1(t, cut, &JoinClips{IDs: []string{"x", right.ID}})
	require.JSONEq(t, asJSON(t, p), asJSON(t, whole))
	to := int64(96000)
	moved, _ := make1(t, cut, &SetClip{ID: right.ID, Start: &to})
	require.InDelta(t, 96000-4000, begins(moved, right.ID), 20, "and takes its part of the line along")
	offset := int64(3000)
	slid, _ := make1(t, p, &SetClip{ID: "x", Offset: &offset})
	require.InDelta(t, 47000, begins(slid, "x"), 20, "it goes with the sound")
	none, back2 := make1(t, p, &GiveTreatment{Clips: []string{"x"}})
	require.Nil(t, clipOf(t, none, "x").Origin)
	require.Empty(t, none.LinesWithin(&Treatment{}))
	back, _ = make1(t, none, back2...)
	require.JSONEq(t, asJSON(t, p), asJSON(t, back))
}

// Gestures are given in song frames, on the song's grid, and are worked out in the time of the clip that is meant.
func TestGesturesOnALineOfAPiece(t *testing.T) {
	p, _, _ := lined(t)
	owner := step(p, "x")
	again := *clipOf(t, p, "x")
	again.ID, again.Start = "y", 96000
	p, _ = make1(t, p, &AddClip{p.Channels[0].ID, 1, &again})
	clock := p.Clock()
	at := func(frame int64, clip string) int64 {
		q, _ := make1(t, p, &PutPoint{Stretch: Stretch{Owner: owner, Name: "mix", From: frame, Snap: 240, Clip: clip}, Value: 50})
		l, _ := q.Line(owner, "mix")
		for _, pt := range l.Points {
			if pt.Value == 50 {
				return pt.Tick
			}
		}
		return -1
	}
	begin, later := clock.Snapped(48000, 0), clock.Snapped(96000, 0)
	require.Equal(t, clock.Snapped(52000, 240)-begin, at(52000, "x"))
	require.Equal(t, clock.Snapped(99000, 240)-later, at(99000, "y"))
	require.Equal(t, clock.Snapped(99000, 240)-later, at(99000, ""), "of the one that lies there")
	_, _, err := Apply(p, []Change{&PutPoint{Stretch: Stretch{Owner: owner, Name: "mix", From: 1, Clip: "z"}, Value: 5}}, fakeEffects)
	require.ErrorContains(t, err, "not treated by")
}

// Copies of a treatment have its lines; the last clip takes them along when it goes.
func TestLinesGoWithTheirTreatment(t *testing.T) {
	p, _, _ := lined(t)
	again := *clipOf(t, p, "x")
	again.ID, again.Start = "y", 96000
	p, _ = make1(t, p, &AddClip{p.Channels[0].ID, 1, &again})
	own, _ := make1(t, p, &OwnTreatment{Clips: []string{"y"}})
	require.Len(t, own.Lines, len(p.Lines)+1)
	l, _ := own.Line(step(own, "y"), "mix")
	require.NotNil(t, l)
	require.Len(t, l.Points, 2)
	repeated, _ := make1(t, p, &RepeatClip{ID: "x", Times: 2, Ticks: 4000, Param: &RepeatParam{step(p, "x"), "mix", -0.1}})
	require.Len(t, repeated.Lines, len(p.Lines)+2)
	gone, undo := make1(t, own, &RemoveClip{"y"})
	require.Len(t, gone.Lines, len(p.Lines))
	back, _ := make1(t, gone, undo...)
	require.JSONEq(t, asJSON(t, own), asJSON(t, back))

	x := *clipOf(t, p, "x")
	x.Made = nil
	tr, _ := p.TreatmentByID(x.Treatment)
	pasted, _ := make1(t, p, &PasteClips{Row: p.Channels[0].ID, At: 200000, Copied: Copied{Rate: p.SampleRate,
		Clips: []CopiedClip{{Clip: x}}, Treatments: []*Treatment{tr}, Lines: p.LinesWithin(tr)}})
	require.Len(t, pasted.Lines, len(p.Lines)+1)
}

// What is worked out as a whole cannot move, and says so; moving the whole-sound step before it frees it.
func TestOnlyWhatRunsLiveCanMove(t *testing.T) {
	p, _, _ := lined(t)
	_, _, err := Apply(p, []Change{&TreatClips{Clips: []string{"x"}, Effect: Backwards}}, fakeEffects)
	require.ErrorContains(t, err, "a line cannot move")
	require.ErrorContains(t, err, "Put it behind")
	tr := clipOf(t, p, "x").Treatment
	s, err := stageOf(Backwards, fakeEffects)
	require.NoError(t, err)
	q, _ := make1(t, p, &AddNode{Owner: tr, Index: 0, Node: &Node{Stage: s}})
	require.Equal(t, int64(2000), *clipOf(t, q, "x").Origin)
	require.NotNil(t, clipOf(t, q, "x").Extent)
}

// Time that is put into the song moves the pieces, and not what is in them.
func TestArrangingTheSongLeavesLinesOfPieces(t *testing.T) {
	p, _, _ := lined(t)
	owner := step(p, "x")
	p.Sections = []Section{{ID: "a", Name: "A", Tick: 0}, {ID: "b", Name: "B", Tick: 3840}}
	was, _ := p.Line(owner, "mix")
	q, _ := make1(t, p, &MoveSection{ID: "b", By: -1, Along: true})
	is, _ := q.Line(owner, "mix")
	require.Equal(t, was.Points, is.Points)
}
