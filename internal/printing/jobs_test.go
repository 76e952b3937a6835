package printing

import (
	"context"
	"log/slog"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/store"
)

// oneDesk holds one project; change may misbehave.
type oneDesk struct {
	mu     sync.Mutex
	doc    *project.Project
	change func()
}

func (d *oneDesk) Document(context.Context, string) (*project.Project, int64, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	return d.doc, 1, nil
}

func (d *oneDesk) Change(_ context.Context, _, _, _ string, make func(doc *project.Project) []project.Change) error {
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.change != nil {
		d.change()
	}
	next, _, err := project.Apply(d.doc, make(d.doc), engine.EffectInfo)
	if err == nil {
		d.doc = next
	}
	return err
}

func (d *oneDesk) Printing(string, Status) {}

// works starts print works over a song of so many seconds.
func works(t *testing.T, st *store.Store, folder *audiofile.Folder, d *oneDesk) *Works {
	w, err := New(t.Context(), st, folder, t.TempDir(), d, slog.New(slog.DiscardHandler))
	require.NoError(t, err)
	return w
}

func stateOf(t *testing.T, w *Works, id string) Status {
	list, err := w.List(t.Context(), "p")
	require.NoError(t, err)
	for _, s := range list {
		if s.ID == id {
			return s
		}
	}
	t.Fatal("the print is gone")
	return Status{}
}

func ends(t *testing.T, w *Works, id string) Status {
	t.Helper()
	require.Eventually(t, func() bool {
		s := stateOf(t, w, id).State
		return s == "done" || s == "failed"
	}, 2*time.Minute, 20*time.Millisecond)
	return stateOf(t, w, id)
}

func desk(t *testing.T) (*store.Store, *audiofile.Folder, *oneDesk, *project.Channel) {
	p, ch, folder := song(t)
	st, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	require.NoError(t, st.AddProject(t.Context(), "p", "P", []byte(`{}`)))
	return st, folder, &oneDesk{doc: p}, ch
}

// A print that is stopped with the server, more often than a job is tried, still comes to its end.
func TestAStopIsNoAttempt(t *testing.T) {
	st, folder, d, ch := desk(t)
	ch.Chain.Nodes = []*project.Node{
		{Stage: project.NewStage("reverb", 1, 100, "blend")},
		{Stage: project.NewStage("convolver", 1, 100, "blend")},
	}
	w := works(t, st, folder, d)
	s, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 48000 * 3600, Target: "track"})
	require.NoError(t, err)
	for range 5 {
		require.NoError(t, w.Start(t.Context()))
		require.Eventually(t, func() bool { return stateOf(t, w, s.ID).Progress > 0 }, 2*time.Minute, 5*time.Millisecond)
		require.NoError(t, w.Stop(t.Context()))
		require.Equal(t, "running", stateOf(t, w, s.ID).State)
		w = works(t, st, folder, d)
	}
	require.NoError(t, w.Start(t.Context()))
	require.Eventually(
		t,
		func() bool { return stateOf(t, w, s.ID).Progress > 0 },
		2*time.Minute,
		5*time.Millisecond,
		"it is still taken up",
	)
	require.NoError(t, w.Cancel(t.Context(), s.ID))
	require.NoError(t, w.Stop(t.Context()))
}

// A panic fails in words, at once.
func TestAPanicFailsInWords(t *testing.T) {
	st, folder, d, ch := desk(t)
	d.change = func() { panic("the sea is dry") }
	w := works(t, st, folder, d)
	require.NoError(t, w.Start(t.Context()))
	s, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 4800, Target: "track"})
	require.NoError(t, err)
	got := ends(t, w, s.ID)
	require.Equal(t, "failed", got.State)
	require.Contains(t, got.Error, "the sea is dry")
	require.NoError(t, w.Stop(t.Context()))
}

// What a killed process left apart comes together at the next start: a print whose job was never queued is made, and
// one whose job has ended says so.
func TestWhatAKilledProcessLeftIsReconciled(t *testing.T) {
	st, folder, d, ch := desk(t)
	w := works(t, st, folder, d)
	lost, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 4800, Target: "track"})
	require.NoError(t, err)
	spent, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 4800, Target: "track"})
	require.NoError(t, err)
	_, err = st.DB.ExecContext(t.Context(), `DELETE FROM river_job WHERE id = (SELECT job FROM prints WHERE id = ?)`, lost.ID)
	require.NoError(t, err)
	_, err = st.DB.ExecContext(
		t.Context(),
		`UPDATE river_job SET state = 'discarded', finalized_at = CURRENT_TIMESTAMP WHERE id = (SELECT job FROM prints WHERE id = ?)`,
		spent.ID,
	)
	require.NoError(t, err)
	w = works(t, st, folder, d)
	require.NoError(t, w.Start(t.Context()))
	require.Equal(t, "done", ends(t, w, lost.ID).State)
	got := ends(t, w, spent.ID)
	require.Equal(t, "failed", got.State)
	require.Contains(t, got.Error, "Print it again")
	require.NoError(t, w.Stop(t.Context()))
}

// A clock that is set back while prints wait does not let them wait for the time that it showed.
func TestWhatWaitsIsDueWhateverTheClockSaid(t *testing.T) {
	st, folder, d, ch := desk(t)
	w := works(t, st, folder, d)
	require.NoError(t, w.Start(t.Context()))
	long, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 48000 * 3600 * 4, Target: "track"})
	require.NoError(t, err)
	require.Eventually(t, func() bool { return stateOf(t, w, long.ID).State == "running" }, time.Minute, 5*time.Millisecond)
	s, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 4800, Target: "track"})
	require.NoError(t, err)
	_, err = st.DB.ExecContext(t.Context(), `UPDATE river_job SET scheduled_at = '2071-01-01 00:00:00' WHERE state = 'available'`)
	require.NoError(t, err)
	require.NoError(t, w.dueNow(t.Context()))
	require.NoError(t, w.Cancel(t.Context(), long.ID))
	require.Equal(t, "done", ends(t, w, s.ID).State)
	require.NoError(t, w.Stop(t.Context()))
}
