package routing

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// session: Choir > Stone hall > Far echo, Choir and Bells in a group, a side track of the choir,
// and a gate on the bells that the choir drives.
func session() (*project.Project, map[string]*project.Channel) {
	p := project.New("Test", 48000, 120, 4, 4)
	main := p.MainChannel()
	by := map[string]*project.Channel{"main": main}
	add := func(kind, name, output string) *project.Channel {
		c := project.NewChannel(kind, name, output)
		by[name] = c
		p.Channels = append([]*project.Channel{c}, p.Channels...)
		return c
	}
	far, hall := add(project.Return, "far", main.ID), add(project.Return, "hall", main.ID)
	group := add(project.Group, "group", main.ID)
	choir, bells := add(project.Track, "choir", group.ID), add(project.Track, "bells", group.ID)
	side := add(project.Track, "side", main.ID)
	hall.Sends = []*project.Send{{ID: "h2f", To: far.ID, Level: -3}}
	choir.Sends = []*project.Send{{ID: "c2h", To: hall.ID, Level: -6}}
	choir.Fader, group.Fader = -4, -1
	side.Input = &project.Tap{Channel: choir.ID, Point: "pre"}
	gate := project.NewStage("gate", 1, 100, "blend")
	gate.Key = &project.Tap{Channel: choir.ID, Point: "post"}
	bells.Chain.Nodes = []*project.Node{{Stage: gate}}
	return p, by
}

func TestReachIsEverythingFedAndFeeding(t *testing.T) {
	p, by := session()
	r, err := Of(p, by["choir"].ID)
	require.NoError(t, err)
	ids := func(names ...string) (out []string) {
		for _, n := range names {
			out = append(out, by[n].ID)
		}
		return out
	}
	assert.ElementsMatch(t, ids("side", "bells", "group", "hall", "far", "main"), r.Feeds)
	assert.Empty(t, r.Fed)
	r, err = Of(p, by["far"].ID)
	require.NoError(t, err)
	assert.ElementsMatch(t, ids("hall", "choir"), r.Fed)
	assert.ElementsMatch(t, ids("main"), r.Feeds)
	for _, e := range r.Edges {
		assert.False(t, e.Dead)
		assert.NotEqual(t, "key", e.Kind, "the bells have nothing to do with it")
	}
	by["choir"].Sends[0].Mute = true
	r, err = Of(p, by["far"].ID)
	require.NoError(t, err)
	dead := 0
	for _, e := range r.Edges {
		if e.Dead {
			dead++
			assert.Equal(t, "c2h", e.ID)
		}
	}
	assert.Equal(t, 1, dead)
	_, err = Of(p, "gone")
	assert.ErrorContains(t, err, "somebody has removed it")
}

func TestTraceNamesEachGainAndTheirSum(t *testing.T) {
	p, by := session()
	tr, err := From(p, by["choir"].ID, by["main"].ID)
	require.NoError(t, err)
	require.Len(t, tr.Ways, 4, "through the group, the hall, the hall and the echo, and the side track")
	assert.Equal(t, -5.0, tr.Ways[0].Total, "fader −4, group −1")
	assert.InDelta(t, -10.0, tr.Ways[1].Total, 1e-9, "fader −4, send −6")
	assert.InDelta(t, -13.0, tr.Ways[2].Total, 1e-9)
	assert.Zero(t, tr.Ways[3].Total)
	assert.InDelta(t, 6.45, tr.Sum, 0.02)
	var at []string
	for _, step := range tr.Ways[1].Steps {
		if step.Gain != 0 {
			at = append(at, step.At)
		}
	}
	assert.Equal(t, []string{by["choir"].ID, "c2h"}, at, "where each gain is set")
	by["choir"].Mute = true
	tr, err = From(p, by["choir"].ID, by["far"].ID)
	require.NoError(t, err)
	assert.Equal(t, -120.0, tr.Sum)
	assert.Contains(t, tr.Says, "nothing comes through")
	tr, err = From(p, by["main"].ID, by["choir"].ID)
	require.NoError(t, err)
	assert.Contains(t, tr.Says, "Nothing leads from Main to choir")
}

func TestTraceGoesThroughPaths(t *testing.T) {
	p, by := session()
	choir, side := by["choir"], by["side"]
	f, err := project.NewFork(project.Copies, 0)
	require.NoError(t, err)
	trim := project.NewStage("trim", 1, 100, "blend")
	trim.Params["gain"] = -5
	far := f.Paths[1]
	far.Name, far.Level, far.Mute = "far", -7, false
	far.Chain.Nodes = []*project.Node{{Stage: trim}}
	choir.Chain.Nodes = []*project.Node{{Fork: f}}
	side.Input = &project.Tap{Channel: choir.ID, Point: "path", Node: far.ID}
	tr, err := From(p, choir.ID, side.ID)
	require.NoError(t, err)
	require.Len(t, tr.Ways, 1)
	assert.InDelta(t, -12, tr.Ways[0].Total, 1e-9, "the trim on the path, and its level; not the fader")
	choir.Sends[0].After = trim.ID
	tr, err = From(p, choir.ID, by["hall"].ID)
	require.NoError(t, err)
	require.Len(t, tr.Ways, 1)
	assert.InDelta(t, -11, tr.Ways[0].Total, 1e-9, "behind the trim, before the path's level")
	far.Mute = true
	tr, err = From(p, choir.ID, side.ID)
	require.NoError(t, err)
	assert.Equal(t, -120.0, tr.Ways[0].Total)
}
