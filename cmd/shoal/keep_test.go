package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/store"
)

// From the command line: a backup while the folder is held, a look, what is damaged refused with what to do, and put back.
func TestADamagedFolderComesBackFromItsBackup(t *testing.T) {
	data, kept := t.TempDir(), filepath.Join(t.TempDir(), "kept")
	sounds(t, data, 2)
	st, err := store.Open(t.Context(), data)
	require.NoError(t, err)
	require.NoError(t, st.AddProject(t.Context(), "p", "Rope", []byte(`{"audio":[]}`)))
	held, err := take(data) // as a server does
	require.NoError(t, err)
	out, err := shoal(t, "backup", kept, "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "1 projects")
	out, err = shoal(t, "doctor", "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "Nothing is wrong.")
	_, err = shoal(t, "restore", kept, "--data", data)
	require.ErrorContains(t, err, "in use")
	require.NoError(t, st.Close())
	held.free()

	path := filepath.Join(data, store.Name)
	require.NoError(t, os.Truncate(path, 5000))
	_, err = shoal(t, "serve", "--data", data, "--addr", "127.0.0.1:0")
	require.ErrorContains(t, err, "shoal restore")
	out, err = shoal(t, "doctor", "--data", data)
	require.Error(t, err)
	require.Contains(t, out, "! ")
	out, err = shoal(t, "restore", kept, "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "What was there is now")
	out, err = shoal(t, "doctor", "--data", data)
	require.NoError(t, err)
	require.Contains(t, out, "Nothing is wrong.")
}
