package project_test

import (
	"encoding/json"
	"math/rand/v2"
	"regexp"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
	"shoal/internal/project/view"
)

func TestRandomChangesUndoToTheSameDocument(t *testing.T) {
	made, refused := 0, 0
	for seed := range uint64(90) {
		r := rand.New(rand.NewPCG(seed, 7))
		p := project.Sample(t)
		type step struct {
			before string
			undo   []project.Change
		}
		var steps []step
		for range 40 {
			c := projecttest.RandomChange(r, p)
			before := project.AsJSON(t, p)
			next, undo, err := project.Apply(p, []project.Change{c}, project.FakeEffects)
			require.Equal(t, before, project.AsJSON(t, p), "Apply must leave the old document alone")
			if err != nil {
				refused++
				continue
			}
			made++
			wire, err := project.Encode(undo)
			require.NoError(t, err)
			undo, err = project.Decode(wire)
			require.NoError(t, err)
			steps = append(steps, step{before, undo})
			p = next
		}
		for i := len(steps) - 1; i >= 0; i-- {
			next, _, err := project.Apply(p, steps[i].undo, project.FakeEffects)
			require.NoError(t, err, "seed %d step %d", seed, i)
			require.Equal(t, steps[i].before, project.AsJSON(t, next), "seed %d step %d: %T", seed, i, steps[i].undo)
			p = next
		}
	}
	require.Greater(t, made, 800)
	require.Greater(t, refused, 100)
}

var number = regexp.MustCompile(`:-?[0-9.]+\b`)

// A change as people make them, with one of its numbers put far out: it is refused, or what it makes can be laid out.
func TestPlacesFarOutAreRefusedOrHarmless(t *testing.T) {
	far := []string{
		":-9223372036854775808",
		":9223372036854775807",
		":4294967296",
		":552960000",
		":1000000000000",
		":-1",
		":1e300",
		":1e-300",
	}
	made, refused := 0, 0
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 5))
		p := project.Sample(t)
		for range 40 {
			wire, err := project.Encode([]project.Change{projecttest.RandomChange(r, p)})
			require.NoError(t, err)
			usual, err := project.Decode(wire)
			require.NoError(t, err)
			if at := number.FindAllIndex(wire[0].Do, -1); len(at) > 0 {
				x := at[r.IntN(len(at))]
				wire[0].Do = json.RawMessage(string(wire[0].Do[:x[0]]) + far[r.IntN(len(far))] + string(wire[0].Do[x[1]:]))
			}
			if batch, err := project.Decode(wire); err == nil {
				require.NotPanics(t, func() {
					next, _, err := project.Apply(p, batch, project.FakeEffects)
					if err != nil {
						refused++
						return
					}
					made++
					view.TimelineOf(next, project.FakeEffects)
				}, "%s %s", wire[0].Type, wire[0].Do)
			}
			if next, _, err := project.Apply(p, usual, project.FakeEffects); err == nil {
				p = next // the song goes on with what was meant
			}
		}
	}
	require.Greater(t, made, 200)
	require.Greater(t, refused, 200)
}

// What reaches beyond a song's 24 hours says so.
func TestASongIsAtMostADayLong(t *testing.T) {
	p := project.Sample(t)
	sound := p.Audio[0].Hash
	row := p.Channels[0].ID
	year := int64(365 * 24 * 3600 * 48000)
	for _, c := range []project.Change{
		&project.PutTempo{At: 1 << 32, BPM: 120, Ramp: true},
		&project.AddClip{Channel: row, Clip: &project.Clip{Audio: sound, Start: year, Frames: 100}},
		&project.AddClip{Channel: row, Clip: &project.Clip{Audio: sound, Start: 1 << 62, Follows: true, Frames: 100}},
		&project.AddClip{Channel: row, Clip: &project.Clip{Audio: sound, Offset: 1<<63 - 1, Frames: 100}},
		&project.SetSections{Sections: []project.Section{{ID: "s", Name: "Far", Tick: 1 << 40}}},
		&project.SetLine{Owner: row, Name: "fader", Points: []project.Point{{Tick: 1 << 50, Shape: "ramp"}}},
		&project.AddAudio{Audio: project.Audio{Hash: "../../x", Name: "x", Frames: 5, Channels: 1}},
		&project.AddAudio{Audio: project.Audio{Hash: projecttest.Hash("long"), Name: "x", Frames: 1 << 60, Channels: 1}},
	} {
		_, _, err := project.Apply(p, []project.Change{c}, project.FakeEffects)
		require.Error(t, err, "%T", c)
		require.Regexp(t, "outside the song|do not lie within|no hash|at most 24 hours", err.Error(), "%T", c)
	}
}

func TestEveryChangeIsDrawnByChance(t *testing.T) {
	drawn := map[string]bool{}
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 3))
		p := project.Sample(t)
		for range 60 {
			c := projecttest.RandomChange(r, p)
			wire, err := project.Encode([]project.Change{c})
			require.NoError(t, err)
			drawn[wire[0].Type] = true
			if next, undo, err := project.Apply(p, []project.Change{c}, project.FakeEffects); err == nil {
				p = next
				wire, err := project.Encode(undo)
				require.NoError(t, err)
				for _, w := range wire {
					drawn[w.Type] = true
				}
			}
		}
	}
	var missing []string
	for name := range project.Changes() {
		if !drawn[name] && name != "audio.add" { // only ever a part of those that bring sound
			missing = append(missing, name)
		}
	}
	require.Empty(t, missing, "neither projecttest.RandomChange draws them, nor does any undo what it draws")
}
