package server

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine/figures"
	"shoal/internal/project"
)

func TestTempoAndSectionsTravelAsMIDI(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	d.change(
		id,
		&project.SetTime{
			Tempo: []project.Tempo{{Tick: 0, BPM: 100}, {Tick: 3840, BPM: 64.5}},
			Meter: []project.Meter{{Tick: 0, Beats: 4, Unit: 4}, {Tick: 7680, Beats: 6, Unit: 8}},
		},
		&project.SetSections{Sections: []project.Section{{Name: "Ebb", Tick: 0}, {Name: "Slack", Tick: 7680}}},
	)
	want := d.open(id)
	code, file := d.ask("GET", "/api/projects/"+id+"/midi", nil, nil)
	require.Equal(t, 200, code)

	other, _ := d.begin()
	var r Revised
	d.ask("POST", "/api/projects/"+other+"/midi", []byte(file), &r)
	got := d.open(other)
	require.Equal(t, want.Meter, got.Meter)
	require.InDelta(t, 64.5, got.Tempo[1].BPM, 0.001)
	require.Equal(t, "Slack", got.Sections[1].Name)
	require.Equal(t, int64(7680), got.Sections[1].Tick)
	d.ask("POST", "/api/projects/"+other+"/undo", nil, &r)
	require.Len(t, d.open(other).Tempo, 1, "one step back")

	d.refused("does not begin with MThd", "POST", "/api/projects/"+other+"/midi", []byte("no music"))
}

func TestAForkIsLookedAtAndLevelled(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	n := project.Forked(project.Copies, "Twins", project.NewPath("one"), project.NewPath("two").At(-9))
	d.change(id, &project.AddNode{Owner: track.ID, Node: n})
	var f figures.Fork
	d.ask("GET", "/api/projects/"+id+"/forks/"+n.Fork.ID, nil, &f)
	require.InDelta(t, 2.7, f.Gain, 0.2)
	require.Len(t, f.Each, 2)
	d.ask("POST", "/api/projects/"+id+"/forks/"+n.Fork.ID+"/level", LevelSpec{"paths", 0, 48000}, &Revised{})
	paths := d.open(id).Channels[0].Chain.Nodes[0].Fork.Paths
	require.InDelta(t, paths[0].Level, paths[1].Level, 0.11)
	d.ask("POST", "/api/projects/"+id+"/forks/"+n.Fork.ID+"/level", LevelSpec{"output", 0, 48000}, &Revised{})
	require.Less(t, d.open(id).Channels[0].Chain.Nodes[0].Fork.Trim, -2.0)
	d.refused("empty", "POST", "/api/projects/"+id+"/forks/"+n.Fork.ID+"/level", LevelSpec{"paths", 100, 100})
	d.refused("no longer there", "GET", "/api/projects/"+id+"/forks/nothing", nil)
}
