package project

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Two people who change different things of the same mover, from the same revision, both have their way,
// and each takes back no more than his own.
func TestAMoverIsChangedInParts(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	p = one(t, p, &AddMover{ID: "m", Owner: a.ID, Name: "pan"})
	p, undo, err := Apply(p, []Change{&SetMover{ID: "m", What: json.RawMessage(`{"shape":"wander"}`)}}, fakeEffects)
	require.NoError(t, err)
	p = one(t, p, &SetMover{ID: "m", What: json.RawMessage(`{"quarters":1}`), Target: &MoverTarget{a.ID, "pan", -0.4}})
	m := p.Movers[0]
	assert.Equal(t, "wander", m.Shape)
	assert.InDelta(t, 1, m.Quarters, 0)
	assert.InDelta(t, -0.4, m.Targets[0].Depth, 0)
	p, _, err = Apply(p, undo, fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, "sine", p.Movers[0].Shape)
	assert.InDelta(t, 1, p.Movers[0].Quarters, 0)
	assert.InDelta(t, -0.4, p.Movers[0].Targets[0].Depth, 0)
}

// A shape that needs something to begin with gets it, and keeps it when only a part of it is changed.
func TestAFollowerIsChangedInParts(t *testing.T) {
	p := sample(t)
	p = one(t, p, &AddMover{ID: "m", Owner: p.Channels[0].ID, Name: "pan"})
	before := asJSON(t, p)
	follows, undo, err := Apply(p, []Change{&SetMover{ID: "m", What: json.RawMessage(`{"shape":"level"}`)}}, fakeEffects)
	require.NoError(t, err)
	require.NotNil(t, follows.Movers[0].Follow)
	assert.True(t, follows.Movers[0].OneWay)
	quick := one(t, follows, &SetMover{ID: "m", What: json.RawMessage(`{"follow":{"attack":3}}`)})
	assert.InDelta(t, 3, quick.Movers[0].Follow.Attack, 0)
	assert.InDelta(t, follows.Movers[0].Follow.Release, quick.Movers[0].Follow.Release, 0)
	back, _, err := Apply(follows, undo, fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, before, asJSON(t, back))
}

func TestAHandleIsChangedInParts(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	p = one(
		t,
		p,
		&PutHandle{Handle: &Handle{ID: "h", Name: "Grip", Targets: []HandleTarget{{Owner: a.ID, Name: "fader", From: -20, To: 0}}}},
	)
	before := asJSON(t, p)
	next, undo, err := Apply(p, []Change{
		&SetHandle{ID: "h", What: json.RawMessage(`{"home":"` + a.ID + `","shown":true}`)},
		&SetHandle{ID: "h", Target: &HandleTarget{a.ID, "fader", -30, -6, 0.5}},
	}, fakeEffects)
	require.NoError(t, err)
	h := next.Handles[0]
	assert.Equal(t, []any{"Grip", a.ID, true, -30.0}, []any{h.Name, h.Home, h.Shown, h.Targets[0].From})
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, before, asJSON(t, back))
}

func TestWhatCannotBeSetOfAMoverIsRefusedInWords(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	p = one(t, p, &AddMover{ID: "m", Owner: a.ID, Name: "pan"})
	for says, c := range map[string]Change{
		"the mover is no longer there":  &SetMover{ID: "x", What: json.RawMessage(`{}`)},
		"the handle is no longer there": &SetHandle{ID: "x"},
		"unknown field":                 &SetMover{ID: "m", What: json.RawMessage(`{"tide":1}`)},
		"cannot unmarshal":              &SetMover{ID: "m", What: json.RawMessage(`{"rate":"fast"}`)},
		"what it moves":                 &SetMover{ID: "m", Target: &MoverTarget{a.ID, "fader", 0.1}},
		"shape":                         &SetMover{ID: "m", What: json.RawMessage(`{"shape":"zigzag"}`)},
	} {
		_, _, err := Apply(p, []Change{c}, fakeEffects)
		require.ErrorContains(t, err, says)
	}
	same := one(t, p, &SetMover{ID: "m", What: json.RawMessage(`{"id":"y"}`)})
	assert.Equal(t, "m", same.Movers[0].ID, "it stays the one that it is")
}
