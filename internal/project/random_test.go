package project_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
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
