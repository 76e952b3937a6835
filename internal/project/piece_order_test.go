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

func TestNothingMovesWhatStandsInATreatment(t *testing.T) {
	p, _ := sliced(t, 4000)
	p, _, err := Apply(p, []Change{&TreatClips{Clips: []string{"a"}, Effect: "trim", ID: "stage"}}, fakeEffects)
	require.NoError(t, err)
	for _, c := range []Change{
		&SetLine{Owner: "stage", Name: "mix", Points: []Point{{Tick: 0, Value: 10, Shape: Ramp}}},
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
