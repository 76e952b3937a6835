package server

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

func TestAFacetIsOfWhoTouchedItLast(t *testing.T) {
	list := []store.Entry{
		{Revision: 9, Name: "Odo", Time: "t9", Touched: `["#a/params/gain"]`},
		{Revision: 8, Name: "Ines", Time: "t8", Touched: `["#b"]`},
		{Revision: 5, Name: "Ada", Time: "t5", Touched: `["#a/params/gain","#b/mix"]`},
		{Revision: 3, Name: "Eve", Time: "t3", Touched: `nonsense`},
	}
	by, at := lastToTouch(list, "#a/params/gain", 2)
	require.Equal(t, []string{"Odo", "t9"}, []string{by, at})
	by, _ = lastToTouch(list, "#b/mix", 2)
	require.Equal(t, "Ines", by, "she took all of it away")
	by, _ = lastToTouch(list, "#a/params/gain", 9)
	require.Empty(t, by, "that was before")
}

func TestWhereAPrintComesFromOverTheWire(t *testing.T) {
	d := newDesktop(t)
	id, row := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	d.change(id, &project.AddStage{ID: "trim", Owner: row.ID, Effect: "trim"})
	d.ask("POST", "/api/projects/"+id+"/clips/print", printing.PlaceSpec{Clips: []string{clip.ID}}, &Revised{})
	print := d.open(id).Channels[0].Clips[0]
	steps := func() (s printing.Step) {
		d.ask("GET", "/api/projects/"+id+"/steps/"+d.open(id).Channels[0].Clips[0].Audio, nil, &s)
		return s
	}
	require.Equal(t, printing.Holds, steps().State)
	require.NotEmpty(t, steps().By)
	d.change(id, &project.SetParam{Owner: "trim", Name: "gain", Value: -3})
	s := steps()
	require.Equal(t, printing.Changed, s.State)
	require.Contains(t, s.Since[0].Says, "Trim: gain")
	require.Equal(t, s.By, s.Since[0].By, "the logbook knows who")
	path := "/api/projects/" + id + "/steps/" + print.Audio
	var both printing.ThenAndNow
	d.ask("POST", path+"/now", nil, &both)
	require.InDelta(t, 3, both.Gain, 0.1)
	d.ask("POST", path+"/again", nil, &Revised{})
	require.Equal(t, printing.Holds, steps().State)
	require.Equal(t, print.ID, d.open(id).Channels[0].Clips[0].ID)
	d.ask("POST", path+"/chain", nil, &Revised{})
	require.Zero(t, d.open(id).Channels[0].Chain.Nodes[0].Stage.Params["gain"])
	d.refused("not printed here", "POST", "/api/projects/"+id+"/steps/"+clip.Audio+"/again", nil)
	d.refused("is no audio hash", "GET", "/api/projects/"+id+"/steps/none", nil)
}
