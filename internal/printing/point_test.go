package printing

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// tapped is a row of two stages and a fork of two paths, with a send to a return that another row sends to as well.
func tapped(t *testing.T) (*oneDesk, *project.Channel, *Works, func(Spec) []float64) {
	st, folder, d, ch := desk(t)
	fork, err := project.NewFork("copies", 0)
	require.NoError(t, err)
	fork.Paths[1].Mute = false
	fork.Paths[1].Chain.Nodes = []*project.Node{stage("saturation", map[string]float64{"drive": 18})}
	ch.Chain.Nodes = []*project.Node{
		stage("trim", map[string]float64{"gain": -6}), {Fork: fork}, stage("delay", map[string]float64{"sync": 1, "time": 150}),
	}
	hall := project.NewChannel(project.Return, "Hall", d.doc.MainChannel().ID)
	hall.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 3})}
	other := project.NewChannel(project.Track, "Other", d.doc.MainChannel().ID)
	clip := *ch.Clips[0]
	clip.ID, clip.Start = project.NewID(), 1000
	other.Clips = []*project.Clip{&clip}
	ch.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -8}}
	other.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -2}}
	d.doc.Channels = []*project.Channel{ch, other, hall, d.doc.MainChannel()}
	w := works(t, st, folder, d)
	require.NoError(t, w.Start(t.Context()))
	t.Cleanup(func() { _ = w.Stop(t.Context()) })
	return d, ch, w, func(s Spec) []float64 { return render(t, d.doc, folder, s) }
}

// What is printed at a point is what a row gives that has nothing behind it.
func TestAPointInAChainIsPrinted(t *testing.T) {
	d, ch, _, render := tapped(t)
	whole := Spec{Channel: ch.ID, To: 96000}
	fork := ch.Chain.Nodes[1].Fork
	for name, x := range map[string]struct {
		tap   project.Tap
		nodes []*project.Node
	}{
		"what comes in":    {project.Tap{Channel: ch.ID, Point: "input"}, nil},
		"after a stage":    {project.Tap{Channel: ch.ID, Point: "after", Node: ch.Chain.Nodes[0].ID()}, ch.Chain.Nodes[:1]},
		"before the fader": {project.Tap{Channel: ch.ID, Point: "pre"}, ch.Chain.Nodes},
		"a path of a fork": {
			project.Tap{Channel: ch.ID, Point: "path", Node: fork.Paths[1].ID},
			[]*project.Node{ch.Chain.Nodes[0], fork.Paths[1].Chain.Nodes[0]},
		},
		"the path that was": {project.Tap{Channel: ch.ID, Point: "path", Node: fork.Paths[0].ID}, ch.Chain.Nodes[:1]},
	} {
		at := whole
		at.Point.Tap = &x.tap
		require.NoError(t, func() error { s := at; s.Target = "track"; return s.Check(d.doc) }())
		got := render(at)
		bare := *ch
		bare.Chain.Nodes, bare.Sends = x.nodes, nil
		p := replaced(d.doc, d.doc.Channels[0], &bare)
		before := d.doc
		d.doc = p
		want := render(whole)
		d.doc = before
		require.Len(t, got, len(want), name)
		for i := range want {
			require.InDelta(t, want[i], got[i], 1e-7, "%s, frame %d", name, i)
		}
	}
}

// What comes back of one row is what the returns give when nobody else sends to them.
func TestWhatComesBackOfARowIsPrinted(t *testing.T) {
	d, ch, _, render := tapped(t)
	got := render(Spec{Channel: ch.ID, To: 96000, Point: Point{Share: true}})
	row := render(Spec{Channel: ch.ID, To: 96000})
	require.Greater(t, loudest(got), 0.02)
	level := math.Pow(10, (ch.Fader-8+3)/20)
	for i := range got {
		require.InDelta(t, row[i]*level, got[i], 1e-6, "frame %d", i)
	}
	other := d.doc.Channels[1]
	s := Spec{Channel: other.ID, To: 96000, Target: "track", Point: Point{Share: true}}
	other.Sends = nil
	require.ErrorContains(t, s.Check(d.doc), "sends to no return")
	s.Point = Point{Tap: &project.Tap{Channel: ch.ID, Point: "after", Node: "gone"}}
	require.Error(t, s.Check(d.doc))
}

// It comes onto a track of its own, muted, knows where it comes from, and is printed again there.
func TestAPrintOfAPointKnowsItsPoint(t *testing.T) {
	d, ch, w, _ := tapped(t)
	group := project.NewChannel(project.Group, "Before all", d.doc.MainChannel().ID)
	d.doc.Channels = slices.Insert(d.doc.Channels, 0, group)
	trim := ch.Chain.Nodes[0].Stage
	tap := project.Tap{Channel: ch.ID, Point: "after", Node: trim.ID}
	s, err := w.Add(t.Context(), "p", "ada", Spec{Channel: ch.ID, To: 96000, Target: "track", Point: Point{Tap: &tap, Says: "after Trim"}})
	require.NoError(t, err)
	require.Equal(t, "done", ends(t, w, s.ID).State)
	row, ok := d.doc.Channel(s.ID)
	require.True(t, ok)
	require.True(t, row.Mute)
	require.Equal(t, "Horn, after Trim", row.Name)
	require.Equal(t, row, d.doc.Channels[2], "it stands below its row, also behind a group")
	hash := row.Clips[0].Audio
	state := func() string {
		x, err := StepsOf(d.doc, w.folder, hash, func(string, int64) (string, string) { return "", "" })
		require.NoError(t, err)
		return x.State
	}
	require.Equal(t, Holds, state())
	last := ch.Chain.Nodes[2].Stage.ID
	d.doc, _, err = project.Apply(d.doc, []project.Change{&project.SetParam{Owner: last, Name: "time", Value: 400}}, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, Holds, state(), "what stands behind the point has no part in it")
	d.doc, _, err = project.Apply(d.doc, []project.Change{&project.SetParam{Owner: trim.ID, Name: "gain", Value: -12}}, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, Changed, state())
	record, _, err := RecordOf(w.folder, hash)
	require.NoError(t, err)
	_, err = record.ChainBack(d.doc)
	require.ErrorContains(t, err, "whole chain", "what stands behind the point would be lost")
	both, err := BesideNow(t.Context(), d.doc, w.folder, hash, nil)
	require.NoError(t, err)
	require.InDelta(t, 6, both.Gain, 0.05)
}
