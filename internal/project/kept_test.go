package project_test

import (
	"encoding/json"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// What is checked at a change, which is no more than what it can have spoilt, finds what a check of everything finds: in
// changes as people make them, and in those that name something that is not there.
func TestACheckOfWhatHasChangedFindsWhatACheckOfAllFinds(t *testing.T) {
	made, refused := 0, 0
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 21))
		p := project.Sample(t)
		for range 50 {
			wire, err := project.Encode([]project.Change{projecttest.RandomChange(r, p)})
			require.NoError(t, err)
			batch, err := project.Decode(wire)
			require.NoError(t, err)
			if spoilt, err := project.Decode([]project.Wire{spoil(r, wire[0])}); err == nil {
				agree(t, p, spoilt, &made, &refused)
			}
			if next := agree(t, p, batch, &made, &refused); next != nil {
				p = next
			}
		}
	}
	require.Greater(t, made, 2000)
	require.Greater(t, refused, 300)
}

// agree makes changes, and requires that the document they make is good by both checks or by none.
func agree(t *testing.T, p *project.Project, batch []project.Change, made, refused *int) *project.Project {
	t.Helper()
	changed, _, err := project.Unchecked(p, batch, project.FakeEffects)
	if err != nil {
		return nil
	}
	all := changed.Validate(project.FakeEffects)
	next, _, err := project.Apply(p, batch, project.FakeEffects)
	if all != nil {
		*refused++
		require.Error(t, err, "%v", all)
		return nil
	}
	require.NoError(t, err)
	*made++
	return next
}

// spoil is a change of which one text or number says something else.
func spoil(r *rand.Rand, w project.Wire) project.Wire {
	var fields map[string]any
	if json.Unmarshal(w.Do, &fields) != nil || len(fields) == 0 {
		return w
	}
	var names []string
	for k := range fields {
		names = append(names, k)
	}
	k := names[r.IntN(len(names))]
	switch fields[k].(type) {
	case string:
		fields[k] = "nowhere"
	case float64:
		fields[k] = []float64{-1e6, -1, 1e6}[r.IntN(3)]
	case bool:
		fields[k] = !fields[k].(bool)
	}
	b, _ := json.Marshal(fields)
	return project.Wire{Type: w.Type, Do: b}
}

// A change of one row leaves the others, and all lines, the very same objects; the row itself is another.
func TestWhatAChangeLeavesAloneIsTheSameObject(t *testing.T) {
	p := project.Sample(t)
	p, _, err := project.Apply(p, []project.Change{&project.SetLine{
		Owner: p.Channels[0].ID, Name: "fader", Points: []project.Point{{Value: -6, Shape: project.Ramp}},
	}}, project.FakeEffects)
	require.NoError(t, err)
	quiet := true
	next, _, err := project.Apply(p, []project.Change{&project.SetChannel{ID: p.Channels[0].ID, Mute: &quiet}}, project.FakeEffects)
	require.NoError(t, err)
	require.NotSame(t, p.Channels[0], next.Channels[0])
	require.False(t, p.Channels[0].Mute)
	for i := range p.Channels[1:] {
		require.Same(t, p.Channels[1+i], next.Channels[1+i])
	}
	require.Same(t, p.Lines[0], next.Lines[0])
}

// A row that another one needs is still looked at when only that other one changes.
func TestAChangeElsewhereThatARowNeedsIsRefused(t *testing.T) {
	p := project.Sample(t)
	var to *project.Channel
	for _, c := range p.Channels {
		if c.Kind == project.Return {
			to = c
		}
	}
	require.NotNil(t, to)
	batch := []project.Change{&project.AddSend{Channel: p.Channels[0].ID, Send: &project.Send{To: to.ID}}}
	p, _, err := project.Apply(p, batch, project.FakeEffects)
	require.NoError(t, err)
	in := &project.Tap{Channel: to.ID, Point: "post"}
	_, _, err = project.Apply(p, []project.Change{&project.SetInput{Channel: p.Channels[0].ID, Input: in}}, project.FakeEffects)
	require.ErrorContains(t, err, "feed itself")
}
