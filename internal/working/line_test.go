package working

import (
	"context"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// lined puts a line behind the first of two stages of the row.
func lined(t *testing.T, p *project.Project) *project.Project {
	t.Helper()
	for i, effect := range []string{"saturation", "trim"} {
		n := &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
		n.Stage.ID = effect
		p = change(t, p, &project.AddNode{Owner: "row", Index: i, Node: n})
	}
	return change(t, p, &project.SetChannel{ID: "row", Waterline: ptr("saturation")})
}

func TestWhatStandsBeforeALineIsPrintedWhereTheRowSounds(t *testing.T) {
	p, folder, _ := sound(t)
	late := *p.Channels[0].Clips[0]
	late.ID, late.Start = "late", 480000
	p = change(t, lined(t, p), &project.AddClip{Channel: "row", Index: 1, Clip: &late})
	list := Needed(p)
	require.Len(t, list, 1)
	w := list[0].line
	require.Len(t, w.Stretches, 2)
	require.NoError(t, Print(t.Context(), p, folder, w, nil))
	got, err := folder.Sides(w.Key, 0, w.Frames())
	require.NoError(t, err)

	var want []float64
	lib := pages.New(0).AllWorked()
	pass := engine.Pass{Points: []project.Tap{{Channel: "row", Point: "before", Node: "trim"}}, To: w.Stretches[1].To}
	require.NoError(t, engine.Stems(t.Context(), p, lib, pass, Pages(folder, lib), func(_ int, l, _ []float64) error {
		want = append(want, l...)
		return nil
	}, nil))
	at := 0
	for _, s := range w.Stretches {
		for f := s.From; f < s.To; f++ {
			if float64(float32(want[f])) != got[0][at] {
				require.Failf(t, "not the same", "frame %d: %g for %g", f, got[0][at], want[f])
			}
			want[f] = 0
			at++
		}
	}
	for f, v := range want {
		require.Less(t, max(v, -v), 1e-7, "frame %d sounds and is not printed", f)
	}
	require.NoError(t, Print(t.Context(), without(p), folder, w, nil), "it is there: nothing of it is read again")
}

// without is a project whose sounds are gone.
func without(p *project.Project) *project.Project {
	gone := project.Clone(p)
	gone.Audio[0].Hash, gone.Channels[0].Clips[0].Audio = "missing", "missing"
	return gone
}

func TestAPrintThatIsCalledOffOrCannotBeLeavesNothing(t *testing.T) {
	p, folder, _ := sound(t)
	p = lined(t, p)
	w := Needed(p)[0].line
	ctx, stop := context.WithCancel(t.Context())
	stop()
	require.Error(t, Print(ctx, p, folder, w, nil))
	require.False(t, folder.HasWorked(w.Key))
	require.ErrorContains(t, Print(t.Context(), without(p), folder, Needed(without(p))[0].line, nil), "is not there")
	require.NoDirExists(t, filepath.Join(filepath.Dir(folder.Path("any")), "worked"))
}

// A piece on the row has to be worked out before the row is printed.
func TestWhatALinePrintsIsWorkedOutFirst(t *testing.T) {
	p, folder, _ := sound(t)
	p = treated(t, lined(t, p), "backwards", nil)
	list := Needed(p)
	require.Len(t, list, 2)
	require.NoError(t, Print(t.Context(), p, folder, list[1].line, nil))
	require.True(t, folder.HasWorked(list[0].Key))
}

func TestARowIsPrintedOnceNothingChangesAnyMore(t *testing.T) {
	w := watch(t)
	w.is(lined(t, w.doc))
	w.Changed(t.Context(), "p")
	s := w.until(t, Waiting)
	require.Equal(t, "row", s.Row)
	w.mu.Lock()
	w.Desk.mu.Lock()
	require.True(t, w.projects["p"].busy, "somebody may be about to change more")
	w.Desk.mu.Unlock()
	w.mu.Unlock()
	s = w.until(t, Done)
	require.True(t, w.folder.HasWorked(s.Key))

	asked := change(t, w.doc, &project.SetChannel{ID: "row", PrintWhenAsked: ptr(true)})
	w.is(asked)
	_, err := w.Look(t.Context(), "p")
	require.NoError(t, err)
	w.until(t, Done) // whether it waits to be asked is no matter of what is printed
	w.is(change(t, asked, &project.SetParam{Owner: "saturation", Name: "drive", Value: 7}))
	_, err = w.Look(t.Context(), "p")
	require.NoError(t, err)
	fresh := w.until(t, WhenAsked)
	require.NotEqual(t, s.Key, fresh.Key)
	time.AfterFunc(0, func() { _ = w.Ask("p", fresh.Key) })
	w.until(t, Done)
}
