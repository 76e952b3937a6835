package printing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

func printed(t *testing.T, p *project.Project, folder *audiofile.Folder, ids ...string) *project.Project {
	t.Helper()
	list, err := InPlace(
		t.Context(), p, folder, Printer{"Ines", 7}, PlaceSpec{Clips: ids}, func(audiofile.Entry, string) error { return nil }, nil,
	)
	require.NoError(t, err)
	return made(t, p, list...)
}

// What was printed beside what is live sounds as it did, also where one sound goes on in the next; and again, and
// brought back.
func TestClipsArePrintedWhereTheyStandAgainAndAgain(t *testing.T) {
	p, row, folder := song(t)
	id := row.Clips[0].ID
	p = made(t, p, &project.SplitClips{IDs: []string{id}, At: []int64{30000, 60000}},
		&project.AddNode{Owner: row.ID, Node: stage("equaliser", map[string]float64{"on3": 1, "gain3": 6})},
		&project.AddNode{Owner: row.ID, Index: 1, Node: stage("delay", map[string]float64{"sync": 1, "time": 150, "feedback": 40})})
	row, _ = p.Channel(row.ID)
	middle := row.Clips[1]
	spec := Spec{Channel: p.MainChannel().ID, To: 220000}
	before := render(t, p, folder, spec)
	q := printed(t, p, folder, middle.ID)
	now, _ := q.Channel(row.ID)
	require.Len(t, now.Clips, 3)
	x := now.Clips[1]
	require.Equal(t, project.EntersBehind, x.Enters)
	require.Greater(t, x.Frames, middle.Frames, "its echo is in it")
	require.Equal(t, middle.ID, x.Made.Clips[0].ID)
	require.Contains(t, x.Name, "Horn, Delay")
	after := render(t, q, folder, spec)
	for i := range before {
		near := 1e-7 // -140 dBFS
		if int64(i) >= x.Start+x.Frames {
			near = 2e-5 // a tail is kept until it is below -100 dBFS
		}
		require.InDelta(t, before[i], after[i], near, "frame %d", i)
	}
	// a second round: treated, and printed again
	q = made(t, q, &project.TreatClips{Clips: []string{x.ID}, Effect: "backwards"})
	r := printed(t, q, folder, x.ID)
	row2, _ := r.Channel(row.ID)
	y := row2.Clips[1]
	require.Contains(t, y.Name, "2")
	require.NotEqual(t, x.Audio, y.Audio)
	back := made(t, r, &project.BringBack{ID: y.ID})
	require.Equal(t, render(t, q, folder, spec), render(t, back, folder, spec), "one round back")
	first, _ := back.ClipByID(x.ID)
	again := made(t, back, &project.BringBack{ID: first.ID})
	require.Equal(t, before, render(t, again, folder, spec), "and to the beginning")
}

func TestClipsOfSeveralRowsArePrintedRowByRow(t *testing.T) {
	p, row, folder := song(t)
	p = made(t, p, &project.DuplicateChannel{ID: row.ID})
	var ids []string
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			ids = append(ids, x.ID)
		}
	}
	require.Len(t, ids, 2)
	q := printed(t, p, folder, ids...)
	for _, c := range q.Channels {
		for _, x := range c.Clips {
			require.NotNil(t, x.Made)
		}
	}
	_, err := InPlace(t.Context(), p, folder, Printer{}, PlaceSpec{}, nil, nil)
	require.ErrorContains(t, err, "select the clips")
	_, err = InPlace(t.Context(), p, folder, Printer{"Ines", 7}, PlaceSpec{Clips: []string{"gone"}}, nil, nil)
	require.ErrorContains(t, err, "no longer there")
}

// Of a range only what lies inside is printed, cut out in the same change; all sounds as before.
func TestARangeIsPrintedWhereItStands(t *testing.T) {
	p, row, folder := song(t)
	p = made(t, p, &project.AddNode{Owner: row.ID, Node: stage("delay", map[string]float64{"sync": 1, "time": 50, "feedback": 10})})
	id := row.Clips[0].ID
	spec := Spec{Channel: p.MainChannel().ID, To: 96000}
	before := render(t, p, folder, spec)
	keep := func(audiofile.Entry, string) error { return nil }
	within := &project.ClipRange{From: 20000, To: 50000}
	list, err := InPlace(t.Context(), p, folder, Printer{"Ines", 7}, PlaceSpec{Clips: []string{id}, Within: within}, keep, nil)
	require.NoError(t, err)
	require.Len(t, list, 1)
	q, undo, err := project.Apply(p, list, engine.EffectInfo)
	require.NoError(t, err)
	now, _ := q.Channel(row.ID)
	require.Len(t, now.Clips, 3)
	require.Equal(t, int64(20000), now.Clips[1].BeginsAt(q.Clock()))
	require.Equal(t, int64(30000), now.Clips[1].Made.Clips[0].Frames)
	after := render(t, q, folder, spec)
	for i := range before {
		require.InDelta(t, before[i], after[i], 2e-5, "frame %d", i)
	}
	back, _, err := project.Apply(q, undo, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, p, back, "one undo")
	_, err = InPlace(
		t.Context(), p, folder, Printer{"Ines", 7}, PlaceSpec{Clips: []string{id}, Within: &project.ClipRange{From: 200000, To: 300000}},
		keep, nil,
	)
	require.ErrorContains(t, err, "no clip lies in the range")
}
