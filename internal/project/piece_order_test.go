package project

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

// sliced is a project with a clip of a second, cut into slices of these lengths in frames, from frame 1000 on.
func sliced(t *testing.T, lengths ...int64) (*Project, []string) {
	t.Helper()
	p := New("Slices", 48000, 120, 4, 4)
	row := NewChannel(Track, "Drum", p.MainChannel().ID)
	hash := "0000000000000000000000000000000000000000000000000000000000000001"
	p.Audio = []Audio{{Hash: hash, Name: "drum", Frames: 48000, Channels: 1}}
	at := int64(0)
	var ids []string
	for i, n := range lengths {
		id := string(rune('a' + i))
		row.Clips = append(row.Clips, &Clip{ID: id, Name: id, Audio: hash, Start: 1000 + at, Offset: at, Frames: n})
		at, ids = at+n, append(ids, id)
	}
	p.Channels = append([]*Channel{row}, p.Channels...)
	return p, ids
}

func starts(p *Project) map[string]int64 {
	m := map[string]int64{}
	for _, x := range p.Channels[0].Clips {
		m[x.ID] = x.Start
	}
	return m
}

func TestSlicesAreTurnedRoundAndShuffledWithoutGaps(t *testing.T) {
	p, ids := sliced(t, 300, 500, 200, 700)
	next, undo, err := Apply(p, []Change{&OrderClips{IDs: ids, How: OrderReverse}}, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, map[string]int64{"d": 1000, "c": 1700, "b": 1900, "a": 2400}, starts(next))
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, starts(p), starts(back))

	seen := map[int64]bool{}
	for seed := range uint64(30) {
		next, _, err := Apply(p, []Change{&OrderClips{IDs: ids, How: OrderShuffle, Seed: seed}}, fakeEffects)
		if err != nil {
			require.ErrorContains(t, err, "stand like that already")
			continue
		}
		clips := slices.Clone(next.Channels[0].Clips)
		slices.SortFunc(clips, func(a, b *Clip) int { return compare(a.Start, b.Start) })
		at := int64(1000)
		for _, x := range clips {
			require.Equal(t, at, x.Start, "one begins where the one before it ends")
			at += x.Frames
		}
		seen[starts(next)["a"]] = true
	}
	require.Greater(t, len(seen), 3, "chance is thrown anew with every seed")
}

func TestClipsGoToTheNearestPlaceOfTheGrid(t *testing.T) {
	p, ids := sliced(t, 5800, 6100, 7000) // an eighth is 12000 frames, a grid of 240 ticks 6000
	next, _, err := Apply(p, []Change{&OrderClips{IDs: ids, How: OrderGrid, Grid: 240}}, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, map[string]int64{"a": 0, "b": 6000, "c": 12000}, starts(next))
	_, _, err = Apply(next, []Change{&OrderClips{IDs: ids, How: OrderGrid, Grid: 240}}, fakeEffects)
	require.ErrorContains(t, err, "already")
	_, _, err = Apply(next, []Change{&OrderClips{IDs: ids, How: OrderGrid}}, fakeEffects)
	require.ErrorContains(t, err, "grid")
}

func TestRepeatsDifferByWhatIsAsked(t *testing.T) {
	p, _ := sliced(t, 4000)
	treat := &TreatClips{Clips: []string{"a"}, Effect: "trim", ID: "stage"}
	p, _, err := Apply(p, []Change{treat}, fakeEffects)
	require.NoError(t, err)
	repeat := &RepeatClip{ID: "a", Times: 3, Ticks: 480, Gain: -4, Param: &RepeatParam{Owner: "stage", Name: "mix", By: -0.25}}
	next, undo, err := Apply(p, []Change{repeat}, fakeEffects)
	require.NoError(t, err)
	require.Len(t, next.Channels[0].Clips, 4)
	require.Len(t, next.Treatments, 4, "each has its own")
	for k, x := range next.Channels[0].Clips {
		tr, _ := next.TreatmentByID(x.Treatment)
		require.Equal(t, int64(1000+k*12000), x.Start)
		require.InDelta(t, -4*float64(k), x.Gain, 1e-9)
		require.InDelta(t, 100-25*float64(k), tr.Chain.Nodes[0].Stage.Mix, 1e-9)
	}
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, p, back)

	for want, bad := range map[string]*RepeatClip{
		"1 to 64":              {ID: "a", Times: 0, Ticks: 480},
		"later than":           {ID: "a", Times: 2},
		"not of the treatment": {ID: "a", Times: 2, Ticks: 480, Param: &RepeatParam{Owner: "nowhere", Name: "mix"}},
		"no longer there":      {ID: "none", Times: 2, Ticks: 480},
	} {
		_, _, err := Apply(p, []Change{bad}, fakeEffects)
		require.ErrorContains(t, err, want)
	}
}

// A treatment lives as long as a clip names it, and comes back with undo; shared, own and copied are told apart.
func TestATreatmentLivesAsLongAsAClipNamesIt(t *testing.T) {
	p, _ := sliced(t, 4000, 4000)
	do := func(c Change) []Change {
		t.Helper()
		next, undo, err := Apply(p, []Change{c}, fakeEffects)
		require.NoError(t, err)
		p = next
		return undo
	}
	treated := func() (a, b string) { return p.Channels[0].Clips[0].Treatment, p.Channels[0].Clips[1].Treatment }
	do(&TreatClips{Clips: []string{"a", "b"}, Effect: "trim"})
	a, b := treated()
	require.Equal(t, a, b)
	require.NotEmpty(t, a)
	do(&OwnTreatment{Clips: []string{"b"}})
	a, b = treated()
	require.NotEqual(t, a, b)
	require.Len(t, p.Treatments, 2)
	before := Clone(p)
	undo := do(&RemoveClip{"b"})
	require.Len(t, p.Treatments, 1)
	for _, c := range undo {
		require.NotNil(t, c)
	}
	p, _, _ = Apply(p, undo, fakeEffects)
	require.Equal(t, before, p)
	do(&GiveTreatment{From: "a", Clips: []string{"b"}})
	a, b = treated()
	require.Equal(t, a, b)
	do(&GiveTreatment{Clips: []string{"a", "b"}})
	require.Empty(t, p.Treatments)
}

func TestOnlyLinesMoveWhatStandsInATreatment(t *testing.T) {
	p, _ := sliced(t, 4000)
	p, _, err := Apply(p, []Change{&TreatClips{Clips: []string{"a"}, Effect: "trim", ID: "stage"}}, fakeEffects)
	require.NoError(t, err)
	for _, c := range []Change{
		&AddMover{Owner: "stage", Name: "mix"},
		&Hang{Owner: "stage", Name: "mix"},
	} {
		_, _, err := Apply(p, []Change{c}, fakeEffects)
		require.ErrorContains(t, err, "treatment")
	}
	_, _, err = Apply(p, []Change{&SetKey{ID: "stage", Key: &Tap{Channel: p.MainChannel().ID, Point: "post"}}}, fakeEffects)
	require.ErrorContains(t, err, "no key")
	_, _, err = Apply(p, []Change{&StageToSend{Stage: "stage"}}, fakeEffects)
	require.ErrorContains(t, err, "belongs to its row")
}

// Clips are pasted with their sounds and a treatment of their own, as far from each other as they lay.
func TestClipsArePastedIntoAnotherProject(t *testing.T) {
	from, _ := sliced(t, 4000, 4000)
	from, _, err := Apply(from, []Change{&TreatClips{Clips: []string{"a"}, Effect: "trim"}}, fakeEffects)
	require.NoError(t, err)
	clips := from.Channels[0].Clips
	paste := &PasteClips{At: 9000, Copied: Copied{Rate: 48000, Audio: from.Audio, Treatments: from.Treatments,
		Clips: []CopiedClip{{Clip: *clips[0]}, {Clip: *clips[1], Down: 1, By: 4000}}}}
	to := New("Other", 48000, 90, 4, 4)
	one, two := NewChannel(Track, "One", to.MainChannel().ID), NewChannel(Track, "Two", to.MainChannel().ID)
	to.Channels = append([]*Channel{one, two}, to.Channels...)
	paste.Row = one.ID
	next, undo, err := Apply(to, []Change{paste}, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, int64(9000), next.Channels[0].Clips[0].Start)
	require.Equal(t, int64(13000), next.Channels[1].Clips[0].Start)
	require.Len(t, next.Treatments, 1)
	require.NotEqual(t, from.Treatments[0].ID, next.Treatments[0].ID)
	require.NotEqual(t, "a", next.Channels[0].Clips[0].ID)
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	require.Empty(t, back.Audio)
	require.Empty(t, back.Treatments)

	paste.Row = two.ID
	_, _, err = Apply(to, []Change{paste}, fakeEffects)
	require.ErrorContains(t, err, "not enough tracks below")
	paste.Row = to.MainChannel().ID
	_, _, err = Apply(to, []Change{paste}, fakeEffects)
	require.ErrorContains(t, err, "select one")
	paste.Row, paste.Rate = one.ID, 44100
	_, _, err = Apply(to, []Change{paste}, fakeEffects)
	require.ErrorContains(t, err, "44100")
}

// Edges snap to what is near, keep a frame, and never leave the sound; the sound stays where it is.
func TestEdgesAreMovedAndContentSlides(t *testing.T) {
	p, _ := sliced(t, 4000, 4000) // of 48000 frames of sound
	do := func(c Change) *Clip {
		t.Helper()
		next, undo, err := Apply(p, []Change{c}, fakeEffects)
		require.NoError(t, err)
		back, _, err := Apply(next, undo, fakeEffects)
		require.NoError(t, err)
		require.Equal(t, p, back)
		return next.Channels[0].Clips[0]
	}
	x := do(&TrimClip{ID: "a", Edge: "end", By: -1500})
	require.Equal(t, []int64{1000, 0, 2500}, []int64{x.Start, x.Offset, x.Frames})
	x = do(&TrimClip{ID: "a", Edge: "begin", By: 700})
	require.Equal(t, []int64{1700, 700, 3300}, []int64{x.Start, x.Offset, x.Frames})
	x = do(&TrimClip{ID: "a", Edge: "end", By: -9000})
	require.Equal(t, int64(1), x.Frames)
	x = do(&TrimClip{ID: "a", Edge: "end", By: 90000})
	require.Equal(t, int64(48000), x.Frames, "as far as there is sound")
	x = do(&TrimClip{ID: "a", Edge: "end", By: 30, Both: true})
	require.Equal(t, int64(4030), x.Frames)
	x = do(&TrimClip{ID: "a", Edge: "end", By: 3990, Snap: Snap{Near: 20}})
	require.Equal(t, int64(8000), x.Frames, "to the end of the next")
	x = do(&TrimClip{ID: "a", Edge: "end", By: 900, Snap: Snap{Grid: 240}})
	require.Equal(t, int64(5000), x.Frames, "the grid is 6000 frames")
	x = do(&SlipClip{ID: "a", By: -500})
	require.Equal(t, []int64{1000, 500, 4000}, []int64{x.Start, x.Offset, x.Frames})
	_, _, err := Apply(p, []Change{&SlipClip{ID: "a", By: 500}}, fakeEffects)
	require.ErrorContains(t, err, "no more to slide in")
	_, _, err = Apply(p, []Change{&TrimClip{ID: "a", Edge: "begin", By: -500}}, fakeEffects)
	require.ErrorContains(t, err, "no sound left")
	_, _, err = Apply(p, []Change{&SplitClips{Rows: []string{p.Channels[0].ID}, At: []int64{30000}}}, fakeEffects)
	require.ErrorContains(t, err, "no clip of Drum lies across")
	_, _, err = Apply(p, []Change{&JoinClips{IDs: []string{"a"}}}, fakeEffects)
	require.ErrorContains(t, err, "cannot be joined")
}
