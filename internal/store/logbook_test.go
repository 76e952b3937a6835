package store

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
)

// How long past revisions differ is let go of; what they were, and how they are taken back, stays, and who missed a few hundred
// still gets them.
func TestALongSessionLetsGoOfOldPatchesOnly(t *testing.T) {
	s := open(t)
	require.NoError(t, s.AddProject(t.Context(), "p", "Rope", []byte(`{}`)))
	const last = 1500
	for i := int64(2); i <= last; i++ {
		e := Entry{Revision: i, Author: "ada", Label: fmt.Sprint(i), Kind: "do", Batch: "[1]", Undo: "[2]", Patch: "[3]", Touched: "[]"}
		require.NoError(t, s.Commit(t.Context(), "p", "Rope", []byte(`{}`), Lines{}, e, nil))
	}
	list, err := s.Since(t.Context(), "p", 0, last)
	require.NoError(t, err)
	require.Len(t, list, last-1)
	for _, e := range list {
		require.Equal(t, "[2]", e.Undo)
		require.Equal(t, "[1]", e.Batch)
		if e.Revision > last-patchesKept {
			require.Equal(t, "[3]", e.Patch, "revision %d", e.Revision)
		} else {
			require.Empty(t, e.Patch, "revision %d", e.Revision)
		}
	}
}
