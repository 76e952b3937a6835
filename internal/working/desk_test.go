package working

import (
	"context"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// watching is a desk over one project, and what it told last.
type watching struct {
	*Desk
	mu   sync.Mutex
	doc  *project.Project
	told []Status
}

func watch(t *testing.T) *watching {
	t.Helper()
	p, folder, _ := sound(t)
	w := &watching{doc: p}
	w.Desk = NewDesk(t.Context(), folder, func(context.Context, string) (*project.Project, int64, error) {
		w.mu.Lock()
		defer w.mu.Unlock()
		return w.doc, 1, nil
	}, func(_ string, list []Status) {
		w.mu.Lock()
		defer w.mu.Unlock()
		w.told = list
	})
	return w
}

func (w *watching) is(p *project.Project) {
	w.mu.Lock()
	w.doc = p
	w.mu.Unlock()
}

// until waits for the only work to come to a state.
func (w *watching) until(t *testing.T, state string) (s Status) {
	t.Helper()
	require.Eventually(t, func() bool {
		w.mu.Lock()
		defer w.mu.Unlock()
		if len(w.told) == 1 {
			s = w.told[0]
		}
		return len(w.told) == 1 && s.State == state
	}, 2*time.Minute, 5*time.Millisecond, state)
	return s
}

func TestWhatADocumentNeedsIsWorkedOutAMomentAfterTheLastChange(t *testing.T) {
	w := watch(t)
	list, err := w.Look(t.Context(), "p")
	require.NoError(t, err)
	require.Empty(t, list)
	w.is(treated(t, w.doc, "pitch", map[string]float64{"semitones": -5}))
	for range 3 {
		w.Changed(t.Context(), "p")
	}
	s := w.until(t, Done)
	require.Equal(t, []string{"x"}, s.Clips)
	require.True(t, w.folder.HasWorked(s.Key))
}

func TestWhatIsOnlyDoneWhenAskedWaits(t *testing.T) {
	w := watch(t)
	p := treated(t, w.doc, "backwards", nil)
	yes := true
	p = change(t, p, &project.SetProject{WorkWhenAsked: &yes})
	w.is(p)
	_, err := w.Look(t.Context(), "p")
	require.NoError(t, err)
	s := w.until(t, WhenAsked)
	require.NoError(t, w.Ask("p", s.Key))
	w.until(t, Done)
	require.ErrorContains(t, w.Cancel("p", s.Key), "already")
	require.ErrorContains(t, w.Ask("p", "gone"), "nobody needs this any more")
}

func TestWhatIsCalledOffStaysSoUntilItIsAskedFor(t *testing.T) {
	w := watch(t)
	p := treated(t, w.doc, "length", map[string]float64{"percent": 1000})
	w.is(change(t, p, &project.SetProject{WorkWhenAsked: ptr(true)}))
	_, err := w.Look(t.Context(), "p")
	require.NoError(t, err)
	s := w.until(t, WhenAsked)
	require.NoError(t, w.Cancel("p", s.Key))
	w.until(t, Cancelled)
	_, err = w.Look(t.Context(), "p")
	require.NoError(t, err)
	w.until(t, Cancelled)
	require.NoError(t, w.Ask("p", s.Key))
	w.until(t, Done)
}

func TestWhatFailsSaysWhyAndCanBeTriedAgain(t *testing.T) {
	w := watch(t)
	p := treated(t, w.doc, "backwards", nil)
	p = project.Clone(p)
	p.Audio[0].Hash, p.Channels[0].Clips[0].Audio = "missing", "missing"
	w.is(p)
	_, err := w.Look(t.Context(), "p")
	require.NoError(t, err)
	s := w.until(t, Failed)
	require.Contains(t, s.Error, "is not there")
	require.NoError(t, w.Ask("p", s.Key))
	w.until(t, Failed)
}
