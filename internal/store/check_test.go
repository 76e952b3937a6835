package store

import (
	"errors"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

// filled is a folder with a database that holds enough to have many pages.
func filled(t *testing.T) (dir, path string) {
	t.Helper()
	dir = t.TempDir()
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	for i := range 40 {
		require.NoError(t, s.AddProject(t.Context(), string(rune('A'+i)), "Rope", append([]byte(`{"a":"`), append(make9(3000), `"}`...)...)))
	}
	require.NoError(t, s.Close())
	return dir, filepath.Join(dir, Name)
}

func make9(n int) []byte {
	b := make([]byte, n)
	for i := range b {
		b[i] = '9'
	}
	return b
}

// refusedAsItIs opens a database that must be refused, and looks that not a byte of it was changed.
func refusedAsItIs(t *testing.T, dir, path string, as any, says ...string) {
	t.Helper()
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	_, err = Open(t.Context(), dir)
	require.Error(t, err)
	require.True(t, errors.As(err, as), "%v", err)
	for _, s := range append(says, path, "shoal restore") {
		require.ErrorContains(t, err, s)
	}
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	require.Equal(t, before, after)
}

func TestADamagedDatabaseIsRefusedAndLeftAsItIs(t *testing.T) {
	for name, harm := range map[string]func(b []byte) []byte{
		"cut short":   func(b []byte) []byte { return b[:len(b)/2] },
		"overwritten": func(b []byte) []byte { copy(b[len(b)/2:], make9(9000)); return b },
		"no database": func(b []byte) []byte { copy(b, "RIFF"); return b },
		"a few bytes": func([]byte) []byte { return []byte("SQLi") },
	} {
		t.Run(name, func(t *testing.T) {
			dir, path := filled(t)
			b, err := os.ReadFile(path)
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(path, harm(b), 0o600))
			var damaged *Damaged
			refusedAsItIs(t, dir, path, &damaged, "Nothing was changed", "shoal doctor")
		})
	}
}

// An empty file beside sounds has lost projects; without any it is a first start that was cut off.
func TestAnEmptyDatabaseIsNoNewOneWhereThereAreSounds(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, Name)
	require.NoError(t, os.WriteFile(path, nil, 0o600))
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "audio"), 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "audio", "a.wav"), []byte("x"), 0o600))
	var damaged *Damaged
	refusedAsItIs(t, dir, path, &damaged, "it is empty")
	require.NoError(t, os.Remove(filepath.Join(dir, "audio", "a.wav")))
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

func TestANewerSchemaIsRefusedAndLeftAsItIs(t *testing.T) {
	dir, path := filled(t)
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	_, err = s.DB.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (999, 1)`)
	require.NoError(t, err)
	_, err = s.DB.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	var newer *Newer
	refusedAsItIs(t, dir, path, &newer, "newer Shoal", "999")
}

// Before its schema is changed a database is kept as it was, and that copy opens.
func TestADatabaseIsKeptBeforeItsSchemaIsChanged(t *testing.T) {
	dir, _ := filled(t)
	kept := filepath.Join(dir, BeforeMigrations)
	require.NoDirExists(t, kept, "a new one has nothing to lose")
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	has, err := version(t.Context(), s.DB)
	require.NoError(t, err)
	undoNewest(t, s, has)
	require.NoError(t, s.Close())
	s, err = Open(t.Context(), dir)
	require.NoError(t, err)
	list, err := s.Projects(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 40)
	require.NoError(t, s.Close())
	found, err := filepath.Glob(filepath.Join(kept, "*.db"))
	require.NoError(t, err)
	require.Len(t, found, 1)
	again := t.TempDir()
	require.NoError(t, os.Rename(found[0], filepath.Join(again, Name)))
	s, err = Look(t.Context(), again)
	require.NoError(t, err)
	old, err := version(t.Context(), s.DB)
	require.NoError(t, err)
	require.Equal(t, has-1, old)
	require.NoError(t, s.Close())
}

// Who only looks changes nothing, and is not in the way of who writes.
func TestLookingDoesNotWrite(t *testing.T) {
	dir, _ := filled(t)
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	defer s.Close()
	l, err := Look(t.Context(), dir)
	require.NoError(t, err)
	defer l.Close()
	require.Error(t, l.AddProject(t.Context(), "x", "Rope", []byte(`{}`)))
	require.NoError(t, s.AddProject(t.Context(), "y", "Rope", []byte(`{}`)))
	list, err := l.Projects(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 41)
	_, err = Look(t.Context(), t.TempDir())
	require.ErrorContains(t, err, "no database")
}

// undoNewest takes the newest migration back, as an older program would have left the database.
func undoNewest(t *testing.T, s *Store, has int64) {
	t.Helper()
	g, err := migrator(s.DB)
	require.NoError(t, err)
	_, err = g.DownTo(t.Context(), has-1)
	require.NoError(t, err)
}
