package demo

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
)

// The demo is played on two processors: every stretch once, with its own sound, and progress that ends at 1. It says
// more under the race detector, which `make test` runs it with.
func TestStretchesArePlayedAtOnce(t *testing.T) {
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	var jobs []*work
	for n := range 8 {
		level := float64(n+1) / 16
		v := voice{name: "steady", where: make([]stretch, 8), play: func(stretch) *take {
			x := make([]float64, 4800)
			for i := range x {
				x[i] = level
			}
			return &take{L: x}
		}}
		jobs = append(jobs, &work{v: v, n: n})
	}
	last := 0.0
	require.NoError(t, playAll(t.Context(), folder, jobs, func(p float64) {
		require.Greater(t, p, last)
		last = p
	}))
	require.Equal(t, 1.0, last)
	hashes := map[string]bool{}
	for _, w := range jobs {
		require.NotEmpty(t, w.e.Hash)
		hashes[w.e.Hash] = true
	}
	require.Len(t, hashes, 8)

	ended, end := context.WithCancel(t.Context())
	end()
	require.ErrorIs(t, playAll(ended, folder, jobs, func(float64) {}), context.Canceled)
}
