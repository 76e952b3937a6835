package server

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/demo"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/template"
)

func TestTheListShowsWhatAProjectIsAndWhoChangedIt(t *testing.T) {
	d := newDesktop(t)
	d.ask("PUT", "/api/me", NewName{"Ada"}, &store.Person{})
	listed := func() []Listed {
		var all []Listed
		d.ask("GET", "/api/projects", nil, &all)
		return all
	}
	require.Empty(t, listed())
	var s store.Summary
	d.ask("POST", "/api/projects", NewProject{"Rope", 48000, 100, 4, 4, "ensemble"}, &s)
	x := listed()[0]
	require.Equal(t, "Rope", x.Name)
	require.Empty(t, x.By, "nobody has changed it")
	require.Empty(t, x.Here)
	ensemble, _ := template.Find("ensemble")
	require.Len(t, x.Chart.Rows, len(ensemble.Rows)+1)
	require.Equal(t, "Opening", x.Chart.Sections[0].Name)

	row := d.open(s.ID).Channels[0].ID
	d.change(s.ID, &project.RemoveChannel{ID: row})
	x = listed()[0]
	require.NotEmpty(t, x.By)
	require.Len(t, x.Chart.Rows, len(ensemble.Rows), "drawn anew")
	d.refused("no template", "POST", "/api/projects", NewProject{"Rope", 48000, 100, 4, 4, "nothing"})
	d.refused("tempo", "POST", "/api/projects", NewProject{"Rope", 48000, 1, 4, 4, "ensemble"})
}

func TestTheDemoIsMadeOnceAndTakenOutOfTheBin(t *testing.T) {
	d := newDesktop(t)
	d.ask("PUT", "/api/me", NewName{"Ada"}, &store.Person{})
	var s store.Summary
	d.ask("POST", "/api/demo", nil, &s)
	require.Equal(t, demo.ID, s.ID)
	ours := "Ours"
	d.change(s.ID, &project.SetProject{Name: &ours})
	d.ask("DELETE", "/api/projects/"+s.ID, nil, &Health{})
	d.ask("POST", "/api/demo", nil, &s)
	var all []Listed
	d.ask("GET", "/api/projects", nil, &all)
	require.Len(t, all, 1)
	require.Equal(t, "Ours", all[0].Name, "what was changed in it is kept")
	require.Empty(t, all[0].Binned)
	var made DemoMade
	d.ask("GET", "/api/demo", nil, &made)
	require.Zero(t, made.Part)
}
