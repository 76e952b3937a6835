package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

func open(t *testing.T) *Store {
	s, err := Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

// What is special in a URI may stand in a folder's name; two folders never share a database.
func TestTheDatabaseLiesInItsFolderWhateverThatIsCalled(t *testing.T) {
	above := t.TempDir()
	for i, name := range []string{"Song #1", "Song #2", "half? 50% %23 & more", "späte Flut", "plain"} {
		dir := filepath.Join(above, name)
		require.NoError(t, os.Mkdir(dir, 0o755))
		s, err := Open(t.Context(), dir)
		require.NoError(t, err, name)
		list, err := s.Projects(t.Context())
		require.NoError(t, err)
		require.Empty(t, list, name)
		require.NoError(t, s.AddProject(t.Context(), "p", "Rope", []byte(`{}`)), name)
		require.NoError(t, s.Close())
		require.FileExists(t, filepath.Join(dir, "shoal.db"), name)
		found, err := os.ReadDir(above)
		require.NoError(t, err)
		require.Len(t, found, i+1, "nothing lies beside the folders")
	}
}

func TestAProjectIsKeptWithItsChanges(t *testing.T) {
	s, ctx := open(t), t.Context()
	require.NoError(t, s.AddProject(ctx, "p", "Rope", []byte(`{"a":1}`)))
	_, _, err := s.Project(ctx, "nowhere")
	require.ErrorIs(t, err, ErrNone)
	for i, author := range []string{"ada", "odile", "ada"} {
		e := Entry{Revision: int64(i + 2), Author: author, Label: author, Kind: "do", Batch: "[]", Undo: "[]", Patch: "[]"}
		require.NoError(t, s.Commit(ctx, "p", "Rope", []byte(`{"a":2}`), Lines{}, e, nil))
	}
	b, revision, err := s.Project(ctx, "p")
	require.NoError(t, err)
	require.JSONEq(t, `{"a":2,"lines":[]}`, string(b))
	require.EqualValues(t, 4, revision)
	// a revision that is there already is refused, and changes nothing
	require.Error(t, s.Commit(ctx, "p", "Other", []byte(`{"a":3}`), Lines{}, Entry{Revision: 4, Author: "ada", Kind: "do"}, nil))
	b, _, err = s.Project(ctx, "p")
	require.NoError(t, err)
	require.JSONEq(t, `{"a":2,"lines":[]}`, string(b))

	last, err := s.LastToUndo(ctx, "p", "odile")
	require.NoError(t, err)
	require.EqualValues(t, 3, last.Revision)
	_, err = s.LastToUndo(ctx, "p", "nobody")
	require.ErrorIs(t, err, ErrNone)
	since, err := s.Since(ctx, "p", 2, 10)
	require.NoError(t, err)
	require.Len(t, since, 2)
}

func TestTheBinGivesBack(t *testing.T) {
	s, ctx := open(t), t.Context()
	require.NoError(t, s.AddProject(ctx, "p", "Rope", []byte(`{}`)))
	require.NoError(t, s.Bin(ctx, "p", true))
	list, err := s.Projects(ctx)
	require.NoError(t, err)
	require.NotEmpty(t, list[0].Binned)
	require.NoError(t, s.Bin(ctx, "p", false))
	list, err = s.Projects(ctx)
	require.NoError(t, err)
	require.Empty(t, list[0].Binned)
	require.ErrorIs(t, s.Bin(ctx, "nowhere", true), ErrNone)
}

func TestPresetsAreListedByNameAndDeletedOnlyToTheBin(t *testing.T) {
	s, ctx := open(t), t.Context()
	for _, name := range []string{"quay", "Basin", "anchor"} {
		require.NoError(t, s.PutThings(ctx, Presets, "ada", Thing{name, name, []byte(`"` + name + `"`)}))
	}
	names := func() (out []string) {
		list, err := s.Things(ctx, Presets)
		require.NoError(t, err)
		for _, b := range list {
			out = append(out, string(b))
		}
		return out
	}
	require.Equal(t, []string{`"anchor"`, `"Basin"`, `"quay"`}, names())
	require.NoError(t, s.BinThing(ctx, Presets, "Basin", true))
	require.Equal(t, []string{`"anchor"`, `"quay"`}, names())
	b, err := s.Thing(ctx, Presets, "Basin")
	require.NoError(t, err)
	require.Equal(t, `"Basin"`, string(b))
	require.NoError(t, s.BinThing(ctx, Presets, "Basin", false))
	require.NoError(t, s.PutThings(ctx, Presets, "ada", Thing{"Basin", "Zinc", []byte(`"Zinc"`)}))
	require.Equal(t, []string{`"anchor"`, `"quay"`, `"Zinc"`}, names())
	require.ErrorIs(t, s.BinThing(ctx, Presets, "none", true), ErrNone)
	// all of a file or none of it: the second cannot be stored
	_, err = s.DB.ExecContext(
		ctx,
		`CREATE TRIGGER picky BEFORE INSERT ON presets WHEN NEW.name = 'bad' BEGIN SELECT RAISE(ABORT, 'no'); END`,
	)
	require.NoError(t, err)
	require.Error(t, s.PutThings(ctx, Presets, "ada", Thing{"a", "good", []byte(`"good"`)}, Thing{"b", "bad", []byte(`"bad"`)}))
	require.Equal(t, []string{`"anchor"`, `"quay"`, `"Zinc"`}, names())
}

func TestTheDatabaseOpensAgain(t *testing.T) {
	dir := t.TempDir()
	s, err := Open(t.Context(), dir)
	require.NoError(t, err)
	require.NoError(t, s.PutPerson(t.Context(), Person{"a", "Ada"}, "x"))
	require.NoError(t, s.PutPerson(t.Context(), Person{"a", "Ada L."}, "y"))
	require.NoError(t, s.Close())
	s, err = Open(t.Context(), dir)
	require.NoError(t, err)
	defer s.Close()
	p, err := s.Person(t.Context(), "a")
	require.NoError(t, err)
	require.Equal(t, "Ada L.", p.Name)
	_, err = s.Person(t.Context(), "b")
	require.ErrorIs(t, err, ErrNone)
}
