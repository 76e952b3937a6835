package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// recordedOn is a project with a row of three stages, a way in behind the second, and two sounds.
func recordedOn(t *testing.T) (*Project, *Channel) {
	t.Helper()
	p := New("Test", 48000, 120, 4, 4)
	ch := NewChannel(Track, "Voice", p.MainChannel().ID)
	for _, id := range []string{"one", "two", "three"} {
		s := NewStage("trim", 1, 100, "blend")
		s.ID = id
		ch.Chain.Nodes = append(ch.Chain.Nodes, &Node{Stage: s})
	}
	ch.WayIn, ch.Records = "two", "reader"
	p.Channels = append([]*Channel{ch}, p.Channels...)
	for _, name := range []string{"a", "b"} {
		p.Audio = append(p.Audio, Audio{Hash: hashOf(name), Name: name, Frames: 100000, Channels: 1})
	}
	require.NoError(t, p.Validate(fakeEffects))
	return p, ch
}

func hashOf(letter string) (h string) {
	for range 64 {
		h += letter
	}
	return h
}

// take is one that was recorded with a break: 40000 frames from 10000 on, and 30000 from 55000 on.
func take(treated bool) Take {
	t := Take{ID: "take", Row: "", Number: 1, Name: "Take 1", Input: "reader", Untouched: hashOf("a"),
		Runs: []Run{{Input: 0, Song: 10000, Frames: 40000}, {Input: 45000, Song: 55000, Frames: 30000}}}
	if treated {
		t.Treated = hashOf("b")
	}
	return t
}

func applied(t *testing.T, p *Project, list ...Change) (*Project, []Change) {
	t.Helper()
	next, undo, err := Apply(p, list, fakeEffects)
	require.NoError(t, err)
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, p, back, "it can be undone")
	return next, undo
}

func onRow(t *testing.T, p *Project, row string) *Channel {
	t.Helper()
	ch, ok := p.Channel(row)
	require.True(t, ok)
	return ch
}

// The bare input lies in the song as it was heard, run by run; what the way in made of it is one piece that enters behind the mark.
func TestATakeLandsWhereItWasPlayed(t *testing.T) {
	p, ch := recordedOn(t)
	bare := take(false)
	bare.Row = ch.ID
	next, _ := applied(t, p, &LandTake{Take: bare})
	clips := onRow(t, next, ch.ID).Clips
	require.Len(t, clips, 2)
	require.Equal(t, [3]int64{10000, 40000, 0}, [3]int64{clips[0].Start, clips[0].Frames, clips[0].Offset})
	require.Equal(t, [3]int64{55000, 30000, 45000}, [3]int64{clips[1].Start, clips[1].Frames, clips[1].Offset})
	require.Empty(t, clips[0].Enters)

	treated := take(true)
	treated.Row = ch.ID
	next, _ = applied(t, p, &LandTake{Take: treated, From: 20000, To: 60000})
	clips = onRow(t, next, ch.ID).Clips
	require.Len(t, clips, 1)
	require.Equal(t, [3]int64{20000, 40000, 10000}, [3]int64{clips[0].Start, clips[0].Frames, clips[0].Offset})
	require.Equal(t, EntersWayIn, clips[0].Enters)

	next, _ = applied(t, p, &LandTake{Take: treated, Aside: true})
	require.Empty(t, onRow(t, next, ch.ID).Clips)
	require.Len(t, next.Takes, 1)
}

// What is recorded over a take puts it away, though it ended a moment earlier or later; one that goes on stays.
func TestATakeOverAnother(t *testing.T) {
	p, ch := recordedOn(t)
	p, _ = applied(t, p, &LandTake{Take: takeTo(ch.ID, "first", 30000)})
	for to, left := range map[int64]int{29000: 1, 31000: 1, 20000: 1, 10000: 2} {
		next, _ := applied(t, p, &LandTake{Take: takeTo(ch.ID, "next", to)})
		require.Len(t, onRow(t, next, ch.ID).Clips, left, "recorded as far as %d", to)
	}
}

// Where a take that is chosen does not reach quite as far as the one before, no scrap of that is left behind it; for a range
// that is drawn it is cut there.
func TestNoScrapIsLeftBehindAShorterTake(t *testing.T) {
	p, ch := recordedOn(t)
	p, _ = applied(t, p, &LandTake{Take: takeTo(ch.ID, "short", 30000), Aside: true}, &LandTake{Take: takeTo(ch.ID, "long", 38000)})
	next, _ := applied(t, p, &ChooseTake{ID: "short", From: 0, To: 38000})
	require.Len(t, onRow(t, next, ch.ID).Clips, 1)
	next, _ = applied(t, p, &ChooseTake{ID: "short", From: 0, To: 30000})
	require.Len(t, onRow(t, next, ch.ID).Clips, 2)
}

func takeTo(row, id string, to int64) Take {
	return Take{ID: id, Row: row, Number: 1, Name: id, Input: "reader", Untouched: hashOf("a"), Runs: []Run{{Frames: to}}}
}

// A take is chosen for a range: others of the place that lie wholly within are put away, and what lies around stays.
func TestATakeIsChosenForARange(t *testing.T) {
	p, ch := recordedOn(t)
	first, second := take(true), take(true)
	first.Row, second.Row = ch.ID, ch.ID
	second.ID, second.Number, second.Name = "second", 2, "Take 2"
	p, _ = applied(t, p, &LandTake{Take: first}, &LandTake{Take: second, Aside: true})
	next, _ := applied(t, p, &ChooseTake{ID: "second", From: 30000, To: 50000})
	clips := onRow(t, next, ch.ID).Clips
	require.Len(t, clips, 2)
	require.Equal(t, []string{"take", "second"}, []string{clips[0].Take, clips[1].Take})
	laid := next.Laid(onRow(t, next, ch.ID), next.Clock())
	require.Len(t, laid, 3, "the first goes on behind it")
	next, _ = applied(t, next, &ChooseTake{ID: "second", From: 0, To: 100000})
	require.Len(t, onRow(t, next, ch.ID).Clips, 1)
	_, _, err := Apply(p, []Change{&ChooseTake{ID: "second", From: 90000, To: 95000}}, fakeEffects)
	require.ErrorContains(t, err, "has nothing there")
	next, _ = applied(t, p, &ChooseTake{ID: "second"})
	all := onRow(t, next, ch.ID).Clips
	require.Len(t, all, 1)
	require.Equal(t, [2]int64{10000, 75000}, [2]int64{all[0].Start, all[0].Frames}, "where the other one sounded")
	next, _ = applied(t, next, &ChooseTake{ID: "take", From: 30000, To: 50000}, &ChooseTake{ID: "take"})
	require.Len(t, onRow(t, next, ch.ID).Clips, 1)
	dropped := true
	next, _ = applied(t, p, &SetTake{ID: "second", Dropped: &dropped})
	next, _ = applied(t, next, &ChooseTake{ID: "second", From: 0, To: 100000})
	require.False(t, next.Takes[1].Dropped, "what is chosen is no longer put away")
}

// Back to the untouched take and to the treated one again; over a break there is no single stretch to play.
func TestUntouchedAndTreated(t *testing.T) {
	p, ch := recordedOn(t)
	x := take(true)
	x.Row = ch.ID
	p, _ = applied(t, p, &LandTake{Take: x, From: 20000, To: 45000})
	clip := onRow(t, p, ch.ID).Clips[0]
	bare, _ := applied(t, p, &Untreat{Clip: clip.ID})
	y := onRow(t, bare, ch.ID).Clips[0]
	require.Equal(t, hashOf("a"), y.Audio)
	require.Empty(t, y.Enters)
	require.Equal(t, [3]int64{20000, 25000, 10000}, [3]int64{y.Start, y.Frames, y.Offset})
	again, _ := applied(t, bare, &Untreat{Clip: clip.ID, Treated: true})
	require.Equal(t, clip, onRow(t, again, ch.ID).Clips[0])
	_, _, err := Apply(p, []Change{&Untreat{Clip: clip.ID, Treated: true}}, fakeEffects)
	require.ErrorContains(t, err, "plays that form already")
	whole, _ := applied(t, p, &ChooseTake{ID: x.ID, From: 0, To: 100000})
	_, _, err = Apply(whole, []Change{&Untreat{Clip: onRow(t, whole, ch.ID).Clips[0].ID}}, fakeEffects)
	require.ErrorContains(t, err, "a break of the recording")
}

// The mark stays in its chain: it goes with its node into a fork, and back to the stage before where that leaves.
func TestTheWayInStaysInItsChain(t *testing.T) {
	p, ch := recordedOn(t)
	next, _ := applied(t, p, &RemoveNode{ID: "two"})
	require.Equal(t, "one", onRow(t, next, ch.ID).WayIn)
	next, _ = applied(t, next, &RemoveNode{ID: "one"})
	require.Empty(t, onRow(t, next, ch.ID).WayIn)
	next, _ = applied(t, p, &RemoveNode{ID: "two"}, &RemoveNode{ID: "one"})
	require.Empty(t, onRow(t, next, ch.ID).WayIn)
	next, _ = applied(t, p, &MakeFork{Kind: "copies", Nodes: []string{"one", "two"}})
	fork := onRow(t, next, ch.ID).Chain.Nodes[0]
	require.NotNil(t, fork.Fork)
	require.Equal(t, fork.ID(), onRow(t, next, ch.ID).WayIn)
	next, _ = applied(t, p, &DuplicateChannel{ID: ch.ID})
	copied := next.Channels[1]
	require.Equal(t, copied.Chain.Nodes[1].ID(), copied.WayIn)
	next, _ = applied(t, p, &PutWayIn{Node: "three"})
	require.Equal(t, "three", onRow(t, next, ch.ID).WayIn)
	_, _, err := Apply(p, []Change{&PutWayIn{Node: "nobody"}}, fakeEffects)
	require.Error(t, err)
}

// Where the mark is taken away, its clips go on as it is wanted.
func TestClipsOfAWayInThatIsTakenAway(t *testing.T) {
	p, ch := recordedOn(t)
	x := take(true)
	x.Row = ch.ID
	p, _ = applied(t, p, &LandTake{Take: x, From: 20000, To: 45000})
	for how, want := range map[string][2]string{
		ClipsUntouched: {hashOf("a"), ""}, ClipsBehind: {hashOf("b"), EntersBehind}, ClipsTop: {hashOf("b"), ""},
	} {
		next, _ := applied(t, p, &RemoveWayIn{Row: ch.ID, Clips: how})
		clip := onRow(t, next, ch.ID).Clips[0]
		require.Equal(t, want, [2]string{clip.Audio, clip.Enters}, how)
	}
	_, _, err := Apply(p, []Change{&RemoveWayIn{Row: ch.ID, Clips: "else"}}, fakeEffects)
	require.Error(t, err)
}

// What was recorded is never lost to a change: takes keep their sounds in the project.
func TestTakesKeepTheirSounds(t *testing.T) {
	p, ch := recordedOn(t)
	x := take(true)
	x.Row = ch.ID
	p, _ = applied(t, p, &LandTake{Take: x, Aside: true})
	for _, letter := range []string{"a", "b"} {
		next, _ := applied(t, p, &RemoveAudio{hashOf(letter)})
		_, ok := next.AudioByHash(hashOf(letter))
		require.True(t, ok, "a take needs it")
	}
	bad := x
	bad.ID, bad.Runs = "bad", []Run{{Input: 90000, Song: 0, Frames: 20000}}
	_, _, err := Apply(p, []Change{&LandTake{Take: bad, Aside: true}}, fakeEffects)
	require.ErrorContains(t, err, "do not follow what came before")
}
