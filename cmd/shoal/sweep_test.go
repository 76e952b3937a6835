package main

import (
	"encoding/json"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
	"shoal/internal/store"
)

// sounds keeps sounds of their own in a data folder, and returns their hashes.
func sounds(t *testing.T, data string, count int) (*audiofile.Folder, []string) {
	t.Helper()
	folder, err := audiofile.NewFolder(filepath.Join(data, "audio"))
	require.NoError(t, err)
	var hashes []string
	for i := range count {
		d, err := folder.Draft(48000, 1, 24, nil)
		require.NoError(t, err)
		require.NoError(t, d.Write([][]float64{{float64(i+1) / 10}}))
		e, err := d.Keep()
		require.NoError(t, err)
		hashes = append(hashes, e.Hash)
	}
	return folder, hashes
}

// What any revision can reach stays, and what that was made from; all else goes when it is asked for.
func TestASweepRemovesWhatNothingLeadsTo(t *testing.T) {
	data := t.TempDir()
	folder, x := sounds(t, data, 5)
	st, err := store.Open(t.Context(), data)
	require.NoError(t, err)
	p := project.New("Rope", 48000, 120, 4, 4)
	p.Audio = []project.Audio{{Hash: x[0], Name: "in use", Frames: 1, Channels: 1}}
	b, err := json.Marshal(p)
	require.NoError(t, err)
	require.NoError(t, st.AddProject(t.Context(), p.ID, p.Name, b))
	require.NoError(t, st.PutPerson(t.Context(), store.Person{ID: "ada", Name: "Ada"}, "x"))
	_, err = st.DB.ExecContext(t.Context(), `INSERT INTO changes (project, revision, author, label, kind, batch, undo, patch, time)
		VALUES (?, 2, 'ada', 'x', 'do', ?, '[]', '[]', 't')`, p.ID, `[{"hash":"`+x[1]+`"}]`)
	require.NoError(t, err)
	require.NoError(t, folder.PutLineage(x[0], []byte(`{"audio":"`+x[2]+`"}`)))
	require.NoError(t, folder.PutLineage(x[4], []byte(`{}`)))
	require.NoError(t, st.Close())

	out, err := shoal(t, "sweep", "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "2 sounds")
	require.Contains(t, out, x[3])
	require.True(t, folder.Has(x[3]), "nothing goes unless it is asked for")
	out, err = shoal(t, "sweep", "--data", data, "--remove")
	require.NoError(t, err)
	require.Contains(t, out, "removed")
	for i, there := range []bool{true, true, true, false, false} {
		require.Equal(t, there, folder.Has(x[i]), "sound %d", i)
	}
	_, known := folder.Lineage(x[4])
	require.False(t, known)
	out, err = shoal(t, "sweep", "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "0 sounds")
	_, err = shoal(t, "sweep", "--data", filepath.Join(data, "none"))
	require.ErrorContains(t, err, "no data folder")
}
