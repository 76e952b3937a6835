package printing

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/working"
)

// far gathers what is said of how far a piece of work is, which never goes back.
func far(t *testing.T) (progress func(float64), last func() float64) {
	was, count := 0.0, 0
	return func(part float64) {
			require.GreaterOrEqual(t, part, was)
			require.LessOrEqual(t, part, 1.0)
			was = part
			count++
		}, func() float64 {
			require.Greater(t, count, 10)
			return was
		}
}

// What is measured by rendering says how far it is, over all that is rendered, and ends when it is cancelled.
func TestMeasuringTellsItsProgressAndCanBeCancelled(t *testing.T) {
	p, ch, folder := song(t)
	f, err := project.NewFork(project.Copies, 2)
	require.NoError(t, err)
	f.Paths[1].Mute, f.Mix = false, 50 // more than one look
	ch.Chain.Nodes = []*project.Node{{Fork: f}}
	ch.Trials = []*project.Trial{{ID: "b", Letter: "B"}, {ID: "c", Letter: "C"}}
	passage := &project.Passage{ID: "x", Name: "Ebb", From: 0, To: 3840, Rows: []string{ch.ID}, Tail: project.TailRing, Fade: 960}
	p.Passages = append(p.Passages, passage)
	require.NoError(t, p.Validate(engine.EffectInfo))
	works := map[string]func(ctx context.Context, progress func(float64)) error{
		"paths": func(ctx context.Context, progress func(float64)) error {
			_, err := LevelFork(ctx, p, folder, f.ID, LevelPaths, 0, 96000, progress)
			return err
		},
		"output": func(ctx context.Context, progress func(float64)) error {
			_, err := LevelFork(ctx, p, folder, f.ID, LevelOutput, 0, 96000, progress)
			return err
		},
		"trials": func(ctx context.Context, progress func(float64)) error {
			_, err := Compare(ctx, p, folder, ch.ID, 0, 96000, progress)
			return err
		},
		"passage": func(ctx context.Context, progress func(float64)) error {
			_, err := Contour(ctx, p, folder, pages.New(working.Room(p)), passage.ID, progress)
			return err
		},
	}
	for name, work := range works {
		t.Run(name, func(t *testing.T) {
			progress, last := far(t)
			require.NoError(t, work(t.Context(), progress))
			require.Greater(t, last(), 0.7)
			ctx, cancel := context.WithCancel(t.Context())
			err := work(ctx, func(part float64) {
				if part > 0.3 {
					cancel()
				}
			})
			require.ErrorIs(t, err, context.Canceled)
		})
	}
}
