package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// aPiece is a project with one clip, of frames 2000 to 12000 of its sound, at frame 48000 of the song.
func aPiece(t *testing.T) (*Project, *Clip) {
	t.Helper()
	p := sample(t)
	row := p.Channels[0]
	p.Audio[0].Frames = 40000
	row.Clips = []*Clip{{ID: "x", Name: "Bell", Audio: aSound, Start: 48000, Offset: 2000, Frames: 10000}}
	require.NoError(t, p.Validate(fakeEffects))
	return p, row.Clips[0]
}

func make1(t *testing.T, p *Project, list ...Change) (*Project, []Change) {
	t.Helper()
	next, undo, err := Apply(p, list, fakeEffects)
	require.NoError(t, err)
	return next, undo
}

// step is the id of the newest step of a clip's treatment.
func step(p *Project, id string) string {
	x, _ := p.ClipByID(id)
	t, _ := p.TreatmentByID(x.Treatment)
	return t.Chain.Nodes[len(t.Chain.Nodes)-1].ID()
}

func clipOf(t *testing.T, p *Project, id string) *Clip {
	t.Helper()
	x, ok := p.ClipByID(id)
	require.True(t, ok)
	return x
}

func TestAWholeSoundStepGivesTheClipAnExtent(t *testing.T) {
	p, _ := aPiece(t)
	q, undo := make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: Backwards})
	x := clipOf(t, q, "x")
	require.Equal(t, &Extent{2000, 12000, 10000}, x.Extent)
	require.Equal(t, [3]int64{48000, 2000, 10000}, [3]int64{x.Start, x.Offset, x.Frames})
	back, _ := make1(t, q, undo...)
	require.JSONEq(t, asJSON(t, p), asJSON(t, back))
}

func TestWhatBecomesLongerTakesItsClipAlongAndBack(t *testing.T) {
	p, _ := aPiece(t)
	q, _ := make1(t, p, &SetClip{ID: "x", Swell: &[]Swell{{At: 4000, Gain: -6}}})
	q, _ = make1(t, q, &TreatClips{Clips: []string{"x"}, Effect: LengthStep})
	long, undo := make1(t, q, &SetParam{Owner: step(q, "x"), Name: "percent", Value: 250})
	x := clipOf(t, long, "x")
	require.Equal(t, &Extent{2000, 12000, 25000}, x.Extent)
	require.Equal(t, [3]int64{48000, 2000, 25000}, [3]int64{x.Start, x.Offset, x.Frames})
	require.Equal(t, int64(2000+5000), x.Swell[0].At, "a swell is stretched with its sound")
	back, _ := make1(t, long, undo...)
	require.JSONEq(t, asJSON(t, q), asJSON(t, back))
	off := true
	short, _ := make1(t, long, &SetNode{ID: step(long, "x"), Bypass: &off})
	require.Equal(t, int64(10000), clipOf(t, short, "x").Frames)
	plain, _ := make1(t, long, &GiveTreatment{Clips: []string{"x"}})
	x = clipOf(t, plain, "x")
	require.Nil(t, x.Extent)
	require.Equal(t, [3]int64{48000, 2000, 10000}, [3]int64{x.Start, x.Offset, x.Frames})
}

// The halves of a cut piece look into the same, and stay side by side when it becomes longer.
func TestHalvesStaySideBySide(t *testing.T) {
	p, _ := aPiece(t)
	q, _ := make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: LengthStep})
	q, _ = make1(t, q, &SplitClips{IDs: []string{"x"}, At: []int64{52000}})
	long, undo := make1(t, q, &SetParam{Owner: step(q, "x"), Name: "percent", Value: 150})
	a, b := long.Channels[0].Clips[0], long.Channels[0].Clips[1]
	require.True(t, a.sameExtent(b))
	require.Equal(t, [3]int64{48000, 2000, 6000}, [3]int64{a.Start, a.Offset, a.Frames})
	require.Equal(t, [3]int64{54000, 8000, 9000}, [3]int64{b.Start, b.Offset, b.Frames})
	back, _ := make1(t, long, undo...)
	require.JSONEq(t, asJSON(t, q), asJSON(t, back))
	whole, _ := make1(t, long, &JoinClips{IDs: []string{a.ID, b.ID}})
	require.Len(t, whole.Channels[0].Clips, 1)
}

// An edge that is dragged beyond the extent enlarges it; what was heard stays where it was.
func TestAnEdgeEnlargesTheExtent(t *testing.T) {
	p, _ := aPiece(t)
	q, _ := make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: LengthStep})
	q, _ = make1(t, q, &SetParam{Owner: step(q, "x"), Name: "percent", Value: 200})
	wide, _ := make1(t, q, &TrimClip{ID: "x", Edge: "begin", By: -1000})
	x := clipOf(t, wide, "x")
	require.Equal(t, &Extent{1500, 12000, 21000}, x.Extent)
	require.Equal(t, [3]int64{47000, 1500, 21000}, [3]int64{x.Start, x.Offset, x.Frames})
	far, _ := make1(t, q, &TrimClip{ID: "x", Edge: "begin", By: -40000})
	x = clipOf(t, far, "x")
	require.Equal(t, int64(0), x.Extent.From, "as far as there is sound")
	require.Equal(t, int64(44000), x.Start)
	// backwards it is the end of the source that comes to the left
	q, _ = make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: Backwards})
	turned, _ := make1(t, q, &TrimClip{ID: "x", Edge: "begin", By: -700})
	x = clipOf(t, turned, "x")
	require.Equal(t, &Extent{2000, 12700, 10700}, x.Extent)
	require.Equal(t, [3]int64{47300, 2000, 10700}, [3]int64{x.Start, x.Offset, x.Frames})
	turned, _ = make1(t, q, &TrimClip{ID: "x", Edge: "end", By: 500})
	x = clipOf(t, turned, "x")
	require.Equal(t, &Extent{1500, 12000, 10500}, x.Extent)
	require.Equal(t, [3]int64{48000, 1500, 10500}, [3]int64{x.Start, x.Offset, x.Frames})
}

func TestALengthCanFollowTheTempoOfTheSong(t *testing.T) {
	p, _ := aPiece(t)
	require.InDelta(t, 90, p.Clock().Tempo(0), 1e-9)
	q, _ := make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: LengthStep})
	id := step(q, "x")
	q, _ = make1(t, q, &SetParam{Owner: id, Name: "tempo", Value: 180}, &SetParam{Owner: id, Name: "by", Value: 1})
	require.Equal(t, int64(20000), clipOf(t, q, "x").Frames, "made at 180, it lasts twice as long at 90")
	slow, undo := make1(t, q, &PutTempo{At: 0, BPM: 45})
	require.InDelta(t, 40000, clipOf(t, slow, "x").Frames, 1)
	back, _ := make1(t, slow, undo...)
	require.JSONEq(t, asJSON(t, q), asJSON(t, back))
}

func TestAClipIsFittedToALength(t *testing.T) {
	p, _ := aPiece(t)
	q, _ := make1(t, p, &FitClip{ID: "x", Frames: 13333})
	require.Equal(t, int64(13333), clipOf(t, q, "x").Frames)
	q, _ = make1(t, q, &FitClip{ID: "x", Frames: 9001})
	require.Equal(t, int64(9001), clipOf(t, q, "x").Frames)
	tr, _ := q.TreatmentByID(clipOf(t, q, "x").Treatment)
	require.Len(t, tr.Chain.Nodes, 1, "one step is enough")
	for frames, says := range map[int64]string{0: "one at least", 9001: "already", 500: "it can be 10 to 1000", 1 << 40: "it can be"} {
		_, _, err := Apply(q, []Change{&FitClip{ID: "x", Frames: frames}}, fakeEffects)
		require.ErrorContains(t, err, says)
	}
	// what is shared by another clip becomes its own
	q, _ = make1(t, q, &MoveClip{ID: "x", By: 96000, Copy: "y"})
	q, _ = make1(t, q, &FitClip{ID: "y", Frames: 20000})
	require.Equal(t, int64(9001), clipOf(t, q, "x").Frames)
	require.Equal(t, int64(20000), clipOf(t, q, "y").Frames)
}

func TestWholeSoundStepsStandInTreatmentsOnly(t *testing.T) {
	p, _ := aPiece(t)
	row := p.Channels[0].ID
	_, _, err := Apply(p, []Change{&AddStage{Owner: row, Effect: Backwards}}, fakeEffects)
	require.ErrorContains(t, err, "Backwards needs the whole sound: put it into a clip's treatment, or print the row first")
	q, _ := make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: Backwards})
	half := 50.0
	_, _, err = Apply(q, []Change{&SetParam{Owner: step(q, "x"), Name: "mix", Value: half}}, fakeEffects)
	require.ErrorContains(t, err, "it has no mix")
	_, _, err = Apply(q, []Change{&MakeFork{Nodes: []string{step(q, "x")}, Kind: Copies}}, fakeEffects)
	require.ErrorContains(t, err, "a path has only its share")
}

// At 90 quarters a minute an eighth lasts 16000 frames; it gives way to the fade at the other edge.
func TestAFadeLastsANote(t *testing.T) {
	p, _ := aPiece(t)
	p, _ = make1(t, p, &SetClip{ID: "x", Frames: ptrTo(int64(38000))})
	q, undo := make1(t, p, &FadeClip{ID: "x", Edge: "begin", Ticks: TicksPerQuarter / 2})
	require.Equal(t, int64(16000), clipOf(t, q, "x").FadeIn)
	q, _ = make1(t, q, &FadeClip{ID: "x", Edge: "end", Ticks: TicksPerQuarter})
	require.Equal(t, int64(22000), clipOf(t, q, "x").FadeOut)
	back, _ := make1(t, q, undo...)
	require.Zero(t, clipOf(t, back, "x").FadeIn)
	for _, c := range []FadeClip{{ID: "y", Edge: "end"}, {ID: "x", Edge: "middle", Ticks: 5}, {ID: "x", Edge: "end", Ticks: -5}} {
		_, _, err := Apply(p, []Change{&c}, fakeEffects)
		require.Error(t, err)
	}
}

func ptrTo[T any](v T) *T { return &v }
