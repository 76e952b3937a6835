package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheOutlineSaysWhatIsWhere(t *testing.T) {
	p := sample(t)
	a, hall := p.Channels[0], p.Channels[2]
	fork := a.Chain.Nodes[2].Fork
	inner := fork.Paths[1].Chain.Nodes[0].Stage
	inner.Name = "Long hall"
	handle := &Handle{
		ID:      "h",
		Name:    "Far",
		Home:    fork.ID,
		Targets: []HandleTarget{{Owner: inner.ID, Name: "gain", To: 5}, {Owner: hall.ID, Name: "fader", From: -6}},
	}
	p.Handles = []*Handle{handle}
	require.NoError(t, p.Validate(fakeEffects))
	o := p.Outline(fakeEffects)
	assert.Equal(t, ForkWords{"Fork, copies", "copies"}, o.Forks[fork.ID])
	for _, id := range []string{a.ID, a.Sends[0].ID, fork.ID, fork.Paths[1].ID, inner.ID, "h"} {
		assert.Equal(t, a.ID, o.Rows[id], id)
	}
	var says []string
	for _, x := range o.Taps[a.ID] {
		says = append(says, x.Text)
		tap := &Tap{Channel: a.ID, Point: x.Point, Node: x.Node}
		assert.NoError(t, p.checkTap(tap), x.Text)
		s := *a.Sends[0]
		s.Pre, s.After = x.Pre, x.After
		_, _, err := Apply(p, []Change{&SetSend{ID: s.ID, Pre: &s.Pre, After: &s.After}}, fakeEffects)
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

func TestATurnedTrialExchangesNeighboursOrTurnsAllRound(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	order := func(turn string) (out []string) {
		next, _, err := Apply(p, []Change{&AddTrial{Channel: a.ID, Turn: &turn}}, fakeEffects)
		require.NoError(t, err)
		for _, n := range next.Channels[0].Trials[0].Chain.Nodes {
			if n.Fork != nil {
				out = append(out, "fork")
			} else {
				out = append(out, n.Stage.Effect)
			}
		}
		return out
	}
	assert.Equal(t, []string{"reverb", "trim", "fork"}, order(a.Chain.Nodes[0].ID()))
	assert.Equal(t, []string{"trim", "fork", "reverb"}, order(a.Chain.Nodes[2].ID()), "the last one goes before the one before it")
	assert.Equal(t, []string{"fork", "reverb", "trim"}, order(""))
}
