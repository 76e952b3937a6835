package view

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

func TestTheOutlineSaysWhatIsWhere(t *testing.T) {
	p := song(t)
	a, hall := p.Channels[0], p.Channels[1]
	fork := a.Chain.Nodes[2].Fork
	inner := fork.Paths[1].Chain.Nodes[0].Stage
	inner.Name = "Long hall"
	handle := &project.Handle{
		ID:      "h",
		Name:    "Far",
		Home:    fork.ID,
		Targets: []project.HandleTarget{{Owner: inner.ID, Name: "gain", To: 5}, {Owner: hall.ID, Name: "fader", From: -6}},
	}
	p.Handles = []*project.Handle{handle}
	require.NoError(t, p.Validate(effects))
	o := OutlineOf(p, effects)
	assert.Equal(t, ForkWords{"Fork, copies", "copies"}, o.Forks[fork.ID])
	for _, id := range []string{a.ID, a.Sends[0].ID, fork.ID, fork.Paths[1].ID, inner.ID, "h"} {
		assert.Equal(t, a.ID, o.Rows[id], id)
	}
	var says []string
	for _, x := range o.Taps[a.ID] {
		says = append(says, x.Text)
		tap := &project.Tap{Channel: a.ID, Point: x.Point, Node: x.Node}
		q := project.Clone(p)
		listening := stage("trim")
		listening.Stage.Key = tap
		q.Channels[1].Chain.Nodes = []*project.Node{listening}
		assert.NoError(t, q.Validate(effects), x.Text)
		s := *a.Sends[0]
		s.Pre, s.After = x.Pre, x.After
		_, _, err := project.Apply(p, []project.Change{&project.SetSend{ID: s.ID, Pre: &s.Pre, After: &s.After}}, effects)
		assert.NoError(t, err, x.Text)
	}
	assert.Equal(
		t,
		[]string{
			"what comes in",
			"after trim",
			"after reverb",
			"path dry",
			"wet: after Long hall",
			"path wet",
			"after Fork, copies",
			"before the fader",
			"after the fader",
		},
		says,
	)
	assert.Equal(t, []Home{{"", "the project"}, {a.ID, "A"}, {fork.ID, "a fork of A"}, {hall.ID, "Hall"}}, o.Homes["h"])
}
