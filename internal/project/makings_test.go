package project_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// keyed: a row with a clip, two stages and a third behind the point that is asked for; the second is keyed by a drum;
// a hall takes both in.
func keyed(t *testing.T) *project.Project {
	t.Helper()
	p := project.New("Key", 48000, 120, 4, 4)
	main, sound := p.MainChannel(), hash('a')
	p.Audio = []project.Audio{{Hash: sound, Name: "A", Frames: 96000, Channels: 2}}
	add := func(kind, id string) *project.Channel {
		c := project.NewChannel(kind, id, main.ID)
		c.ID = id
		p.Channels = append(p.Channels[:len(p.Channels)-1], c, main)
		return c
	}
	row, drum, hall := add(project.Track, "row"), add(project.Track, "drum"), add(project.Return, "hall")
	for _, c := range []*project.Channel{row, drum} {
		c.Clips = []*project.Clip{{ID: "of " + c.ID, Name: "Clip", Audio: sound, Frames: 48000}}
		c.Sends = []*project.Send{{ID: c.ID + " to hall", To: hall.ID, Level: -6}}
	}
	for _, s := range []struct{ id, effect string }{{"first", "equaliser"}, {"second", "compressor"}, {"third", "saturation"}} {
		n := project.NewStage(s.effect, 1, 100, "blend")
		n.ID = s.id
		row.Chain.Nodes = append(row.Chain.Nodes, &project.Node{Stage: n})
	}
	row.Chain.Nodes[1].Stage.Key = &project.Tap{Channel: "drum", Point: "pre"}
	gate := project.NewStage("gate", 1, 100, "blend")
	gate.ID = "gate"
	drum.Chain.Nodes = []*project.Node{{Stage: gate}}
	p.Movers = []*project.Mover{
		{ID: "slow", Name: "Slow", Shape: "sine", Rate: 1, Targets: []project.MoverTarget{{Owner: "third", Name: "drive", Depth: 0.2}}},
	}
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p
}

var behindSecond = project.Tap{Channel: "row", Point: "after", Node: "second"}

func keyOf(t *testing.T, p *project.Project) string {
	t.Helper()
	m, ok := p.MakingsOf(behindSecond)
	require.True(t, ok)
	return m.Key(engine.EffectInfo)
}

func TestMakingsAreWhatASignalDependsOn(t *testing.T) {
	m, ok := keyed(t).MakingsOf(behindSecond)
	require.True(t, ok)
	assert.Equal(t, map[string]bool{"first": true, "second": true, "gate": true}, m.Owners)
	require.Len(t, m.Channels, 2, "neither the hall nor main has a part in it")
	assert.Len(t, m.Channels[0].Chain.Nodes, 2)
	_, ok = keyed(t).MakingsOf(project.Tap{Channel: "row", Point: "after", Node: "gone"})
	assert.False(t, ok)

	hall, ok := keyed(t).MakingsOf(project.Tap{Channel: "hall", Point: "input"})
	require.True(t, ok)
	for _, id := range []string{"row", "drum", "row to hall", "third", "slow"} {
		assert.True(t, hall.Owners[id], id)
	}
}

// The key changes with what the signal depends on, and with nothing else.
func TestTheKeyOfMakings(t *testing.T) {
	f := func(v float64) *float64 { return &v }
	set := func(owner, name string, v float64) project.Change {
		return &project.SetParam{Owner: owner, Name: name, Value: v}
	}
	yes, name, tint := true, "Other", 3
	for what, x := range map[string]struct {
		do      []project.Change
		matters bool
	}{
		"a stage before it":       {[]project.Change{set("first", "gain1", 3)}, true},
		"a stage of the key":      {[]project.Change{set("gate", "threshold", -30)}, true},
		"a clip":                  {[]project.Change{&project.SetClip{ID: "of row", Gain: f(-3)}}, true},
		"a clip of the key's row": {[]project.Change{&project.RemoveClip{ID: "of drum"}}, true},
		"bypass before it":        {[]project.Change{&project.SetNode{ID: "second", Bypass: &yes}}, true},
		"the order":               {[]project.Change{&project.MoveNode{ID: "second", Owner: "row", Index: 0}}, true},
		"the key":                 {[]project.Change{&project.SetKey{ID: "second"}}, true},
		"a line on it": {[]project.Change{
			&project.SetLine{Owner: "first", Name: "gain1", Points: []project.Point{{Tick: 0, Value: 1, Shape: project.Ramp}}},
		}, true},
		"a stage behind it":      {[]project.Change{set("third", "drive", 9)}, false},
		"a stage more behind it": {[]project.Change{&project.RemoveNode{ID: "third"}}, false},
		"fader and pan": {[]project.Change{
			set("row", "fader", -20), set("row", "pan", 0.4), &project.SetChannel{ID: "row", Mute: &yes},
		}, false},
		"the fader of the key's row": {[]project.Change{set("drum", "fader", -20)}, false},
		"names and tints": {[]project.Change{
			&project.SetChannel{ID: "row", Name: &name, Tint: &tint}, &project.SetNode{ID: "first", Name: &name},
			&project.SetClip{ID: "of row", Name: &name, Tint: &tint},
		}, false},
		"a send": {[]project.Change{set("row to hall", "level", -1)}, false},
		"a line behind it": {[]project.Change{
			&project.SetLine{Owner: "row", Name: "fader", Points: []project.Point{{Tick: 0, Value: 1, Shape: project.Ramp}}},
		}, false},
		"the tempo, which nothing counts in": {[]project.Change{&project.PutTempo{BPM: 90}}, false},
		"a section":                          {[]project.Change{&project.BeginSection{Name: "X", At: 48000}}, false},
	} {
		p := keyed(t)
		before := keyOf(t, p)
		next, undo, err := project.Apply(p, x.do, engine.EffectInfo)
		if !assert.NoError(t, err, what) {
			continue
		}
		if x.matters {
			assert.NotEqual(t, before, keyOf(t, next), what)
		} else {
			assert.Equal(t, before, keyOf(t, next), what)
		}
		back, _, err := project.Apply(next, undo, engine.EffectInfo)
		require.NoError(t, err, what)
		assert.Equal(t, before, keyOf(t, back), "undone: %s", what)
	}
}

func TestTempoMattersWhereSomethingIsCountedInIt(t *testing.T) {
	turn := func(p *project.Project) (string, string) {
		next, _, err := project.Apply(p, []project.Change{&project.PutTempo{BPM: 90}}, engine.EffectInfo)
		require.NoError(t, err)
		return keyOf(t, p), keyOf(t, next)
	}
	p := keyed(t)
	a, b := turn(p)
	assert.Equal(t, a, b)
	p.Channels[0].Clips[0].Follows = true
	a, b = turn(p)
	assert.NotEqual(t, a, b, "a clip that follows it")
	p = keyed(t)
	p.Channels[0].Chain.Nodes[0].Stage.Effect = "delay"
	a, b = turn(p)
	assert.NotEqual(t, a, b, "an echo in notes")
}

func hash(letter byte) string { return strings.Repeat(string(letter), 64) }
