package project

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// Wherever a clip goes, its lines have there what they had under it, and elsewhere what they had.
func TestAClipTakesItsLinesAlong(t *testing.T) {
	const bar = 2880
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 3))
		p := voyage(t, r)
		p.Passages = nil
		clip := p.Channels[0].Clips[r.IntN(3)]
		clock := p.Clock()
		start := clip.BeginsAt(clock)
		by := int64(r.IntN(2*48000*8) - 48000*8)
		move := &MoveClip{ID: clip.ID, By: by, Snap: []int64{0, 240, bar}[r.IntN(3)], Along: true}
		again := seed%3 == 0
		if again {
			move.Copy = "copy"
		}
		next, _, err := Apply(p, []Change{move}, fakeEffects)
		if err != nil {
			require.ErrorContains(t, err, "stands there already")
			continue
		}
		now := next.Channels[0].Clips
		var moved *Clip
		for _, x := range now {
			if again && x.ID == "copy" || !again && x.ID == clip.ID {
				moved = x
			}
		}
		require.NotNil(t, moved)
		require.Equal(t, len(p.Channels[0].Clips)+map[bool]int{true: 1}[again], len(now))
		from, to := int64(clock.Tick(start)+0.5), int64(clock.Tick(start+clip.Frames)+0.5)
		at := int64(clock.Tick(moved.BeginsAt(clock)) + 0.5)
		if move.Snap > 0 {
			require.Zero(t, at%move.Snap)
		}
		l, n := p.Lines[0], next.Lines[0]
		d, base, err := p.Describe(l.Owner, l.Name, fakeEffects)
		require.NoError(t, err)
		before := l.At(max(0, float64(from)-1e-6), d, base)
		for tick := int64(5); tick < 22*bar; tick += 37 {
			if edge := func(x int64) bool { return tick > x-3 && tick < x+3 }; edge(from) || edge(to) || edge(at) || edge(at+to-from) {
				continue
			}
			want := l.At(float64(tick), d, base)
			switch {
			case tick >= at && tick < at+to-from:
				want = l.At(float64(tick-at+from), d, base)
			case tick >= from && tick < to && !again:
				want = before
			}
			require.InDelta(
				t,
				d.Place(want),
				d.Place(n.At(float64(tick), d, base)),
				0.01,
				"seed %d: tick %d of a clip from %d to %d, now at %d",
				seed,
				tick,
				from,
				to,
				at,
			)
		}
	}
}

func TestAClipGoesAloneWhenItIsToldTo(t *testing.T) {
	p := voyage(t, rand.New(rand.NewPCG(1, 1)))
	clip := p.Channels[0].Clips[0]
	next := one(t, p, &MoveClip{ID: clip.ID, By: 48000, Snap: 480})
	require.Equal(t, p.Lines, next.Lines)
	require.Zero(t, next.Channels[0].Clips[0].Start%480)
	next = one(t, p, &MoveClip{ID: clip.ID, Ticks: 240})
	require.Equal(t, int64(240), next.Channels[0].Clips[0].Start)
	_, _, err := Apply(p, []Change{&MoveClip{ID: clip.ID, By: -48000}}, fakeEffects)
	require.ErrorContains(t, err, "stands there already", "nothing goes before the song")
	_, _, err = Apply(p, []Change{&MoveClip{ID: "none", By: 1}}, fakeEffects)
	require.Error(t, err)
}
