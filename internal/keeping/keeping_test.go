package keeping

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
	"shoal/internal/store"
)

// house is a data folder with a project that plays sounds.
type house struct {
	t      *testing.T
	dir    string
	st     *store.Store
	folder *audiofile.Folder
}

func newHouse(t *testing.T) *house {
	dir := t.TempDir()
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	folder, err := audiofile.NewFolder(audio(dir))
	require.NoError(t, err)
	return &house{t, dir, st, folder}
}

// sound keeps one of its own.
func (h *house) sound(v float64) string {
	d, err := h.folder.Draft(48000, 1, 24, nil)
	require.NoError(h.t, err)
	require.NoError(h.t, d.Write([][]float64{{v, v / 2, v / 3}}))
	e, err := d.Keep()
	require.NoError(h.t, err)
	return e.Hash
}

// add makes a project with sounds.
func (h *house) add(name string, hashes ...string) {
	p := project.New(name, 48000, 120, 4, 4)
	for i, x := range hashes {
		p.Audio = append(p.Audio, project.Audio{Hash: x, Name: fmt.Sprintf("sound %d", i+1), Frames: 3, Channels: 1})
	}
	b, err := json.Marshal(p)
	require.NoError(h.t, err)
	require.NoError(h.t, h.st.AddProject(h.t.Context(), p.ID, name, b))
}

func projects(t *testing.T, dir string) (names []string) {
	t.Helper()
	st, err := store.Look(t.Context(), dir)
	require.NoError(t, err)
	defer st.Close()
	list, err := st.Projects(t.Context())
	require.NoError(t, err)
	for _, p := range list {
		names = append(names, p.Name)
	}
	return names
}

func wrongs(t *testing.T, dir string, inUse bool) (says []string) {
	t.Helper()
	list, err := Doctor(t.Context(), dir, inUse, true)
	require.NoError(t, err)
	for _, f := range list {
		if f.Wrong {
			require.NotEmpty(t, f.Do, "what is wrong comes with what to do")
			says = append(says, f.Says)
		}
	}
	return says
}

// A backup of a folder in use is a data folder by itself; made again it copies only what is new; and put back it is all there.
func TestABackupOfAFolderInUseComesBackWhole(t *testing.T) {
	h, to := newHouse(t), filepath.Join(t.TempDir(), "kept")
	a, unused := h.sound(0.5), h.sound(0.9)
	require.NoError(t, h.folder.PutLineage(a, []byte(`{}`)))
	h.add("Rope", a)
	c, err := Backup(t.Context(), h.dir, to, nil)
	require.NoError(t, err)
	require.Equal(t, [3]int{1, 1, 1}, [3]int{c.Projects, c.Sounds, c.New})
	b := h.sound(0.25)
	h.add("Weir", a, b)
	c, err = Backup(t.Context(), h.dir, to, nil)
	require.NoError(t, err)
	require.Equal(t, [3]int{2, 2, 1}, [3]int{c.Projects, c.Sounds, c.New})
	require.Empty(t, c.Missing)
	require.Empty(t, wrongs(t, to, false))
	kept := audiofile.Existing(audio(to))
	require.True(t, kept.Has(a) && kept.Has(b))
	require.False(t, kept.Has(unused), "what leads nowhere is not carried along")
	_, known := kept.Lineage(a)
	require.True(t, known)

	other := newHouse(t)
	other.add("Mine")
	require.NoError(t, other.st.Close())
	_, aside, err := Restore(t.Context(), to, other.dir, nil)
	require.NoError(t, err)
	require.ElementsMatch(t, []string{"Rope", "Weir"}, projects(t, other.dir))
	require.Empty(t, wrongs(t, other.dir, false))
	was := t.TempDir() // and nothing of what was there is lost
	require.NoError(t, os.Rename(aside, filepath.Join(was, store.Name)))
	require.Equal(t, []string{"Mine"}, projects(t, was))
}

// While somebody writes, the backup is of one moment: every revision that it has is whole, with its change.
func TestABackupIsOfOneMoment(t *testing.T) {
	h := newHouse(t)
	require.NoError(t, h.st.AddProject(t.Context(), "p", "0", []byte(`{"n":0}`)))
	ctx, stop := context.WithCancel(t.Context())
	var writing sync.WaitGroup
	writing.Go(func() {
		for i := int64(2); ctx.Err() == nil; i++ {
			e := store.Entry{Revision: i, Author: "ada", Kind: "do", Batch: "[]", Undo: "[]", Patch: "[]", Touched: "[]"}
			if err := h.st.Commit(context.Background(), "p", fmt.Sprint(i), []byte(fmt.Sprintf(`{"n":%d}`, i)), store.Lines{}, e, nil); err != nil {
				t.Error(err)
				return
			}
		}
	})
	for range 12 {
		to := t.TempDir()
		_, err := Backup(t.Context(), h.dir, to, nil)
		require.NoError(t, err)
		st, err := store.Look(t.Context(), to)
		require.NoError(t, err)
		doc, revision, err := st.Project(t.Context(), "p")
		require.NoError(t, err)
		if revision > 1 {
			require.JSONEq(t, fmt.Sprintf(`{"n":%d,"lines":[]}`, revision), string(doc))
			list, err := st.Latest(t.Context(), "p", 1)
			require.NoError(t, err)
			require.Equal(t, revision, list[0].Revision)
		}
		require.NoError(t, st.Close())
	}
	stop()
	writing.Wait()
}

// What is missing or damaged is named, with what to do; nothing is changed by looking.
func TestTheDoctorNamesWhatIsWrong(t *testing.T) {
	h := newHouse(t)
	a, b := h.sound(0.5), h.sound(0.25)
	h.add("Rope", a, b)
	require.Empty(t, wrongs(t, h.dir, true))
	require.NoError(t, os.WriteFile(h.folder.Path(a), bytes.Repeat([]byte("x"), 200), 0o600))
	require.NoError(t, os.Remove(h.folder.Path(b)))
	says := strings.Join(wrongs(t, h.dir, true), "\n")
	require.Contains(t, says, "the sound sound 2")
	require.Contains(t, says, a[:12]+" is damaged")
	c, err := Backup(t.Context(), h.dir, t.TempDir(), nil)
	require.NoError(t, err)
	require.Len(t, c.Missing, 2, "what is damaged is not carried along; that and what is missing is said")
	require.NoError(t, h.st.Close())
	path := filepath.Join(h.dir, store.Name)
	require.NoError(t, os.WriteFile(path, []byte("SQLite format 3\x00 and no more"), 0o600))
	require.Contains(t, strings.Join(wrongs(t, h.dir, false), "\n"), "damaged")
	_, err = Backup(t.Context(), h.dir, t.TempDir(), nil)
	require.ErrorContains(t, err, "damaged")
	_, err = Backup(t.Context(), h.dir, h.dir, nil)
	require.ErrorContains(t, err, "another folder")
}
