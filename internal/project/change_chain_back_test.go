package project_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func apply(t *testing.T, p *project.Project, list ...project.Change) (*project.Project, []project.Change) {
	t.Helper()
	next, undo, err := project.Apply(p, list, engine.EffectInfo)
	require.NoError(t, err)
	return next, undo
}

func TestAChainIsPutBackAsItWas(t *testing.T) {
	p := keyed(t)
	then := project.Clone(p.Channels[0]).Chain.Nodes
	key := func(p *project.Project) string {
		m, ok := p.MakingsOf(project.Tap{Channel: "row", Point: "pre"})
		require.True(t, ok)
		return m.Key(engine.EffectInfo)
	}
	was := key(p)
	yes := true
	p, _ = apply(t, p,
		&project.SetParam{Owner: "first", Name: "gain3", Value: 4},
		&project.RemoveNode{ID: "second"},
		&project.AddStage{ID: "more", Owner: "row", Index: 0, Effect: "trim"},
		&project.MoveNode{ID: "third", Owner: "row", Index: 0},
		&project.SetNode{ID: "third", Bypass: &yes},
	)
	changed := key(p)
	require.NotEqual(t, was, changed)
	back, undo := apply(t, p, &project.PutChainBack{Channel: "row", Nodes: then})
	var ids []string
	for _, n := range back.Channels[0].Chain.Nodes {
		ids = append(ids, n.ID())
	}
	assert.Equal(t, []string{"first", "second", "third"}, ids)
	assert.Equal(t, then[0].Stage.Params, back.Channels[0].Chain.Nodes[0].Stage.Params)
	assert.NotNil(t, back.Channels[0].Chain.Nodes[1].Stage.Key, "its key comes again too")
	again, _ := apply(t, back, undo...)
	assert.Equal(t, changed, key(again), "undone")

	_, _, err := project.Apply(p, []project.Change{&project.PutChainBack{Channel: "gone", Nodes: then}}, engine.EffectInfo)
	assert.ErrorContains(t, err, "no longer there")
	_, _, err = project.Apply(p, []project.Change{&project.PutChainBack{Channel: "row", Nodes: []*project.Node{{}}}}, engine.EffectInfo)
	assert.ErrorContains(t, err, "neither a stage nor a fork")
}

func TestAPrintThatIsMadeAgainStaysWhereItIs(t *testing.T) {
	p := keyed(t)
	made := project.Audio{Hash: hash('b'), Name: "Print", Frames: 60000, Channels: 2}
	p, _ = apply(t, p, &project.PrintClips{Clips: []string{"of row"}, ID: "print", Audio: made, Start: 100, Key: "then"})
	frames, gain := int64(50000), -6.0
	p, _ = apply(t, p, &project.SetClip{ID: "print", Frames: &frames, Gain: &gain})
	fresh := project.Audio{Hash: hash('c'), Name: "Print", Frames: 40000, Channels: 2}
	next, undo := apply(t, p, &project.PrintAgain{Was: made.Hash, Audio: fresh, Key: "now"})
	x, _ := next.ClipByID("print")
	assert.Equal(t, fresh.Hash, x.Audio)
	assert.Equal(t, int64(100), x.Start)
	assert.Equal(t, -6.0, x.Gain)
	assert.Equal(t, int64(40000), x.Frames, "no longer than it is")
	assert.Equal(t, "now", x.Made.Key)
	require.Len(t, x.Made.Clips, 1, "one round back still leads to what it was made from")
	back, _ := apply(t, next, undo...)
	y, _ := back.ClipByID("print")
	assert.Equal(t, made.Hash, y.Audio)
	assert.Equal(t, "then", y.Made.Key)

	_, _, err := project.Apply(p, []project.Change{&project.PrintAgain{Was: hash('d'), Audio: fresh}}, engine.EffectInfo)
	assert.ErrorContains(t, err, "no longer there")
}

func TestWhatAPrintInPlaceWouldBeMadeFromNow(t *testing.T) {
	p := keyed(t)
	x, _ := p.ClipByID("of row")
	made := p.MadeFrom([]*project.Clip{x}, 0)
	then, ok := p.Remade("row", made)
	require.True(t, ok)
	audio := project.Audio{Hash: hash('b'), Name: "Print", Frames: 60000, Channels: 2}
	p, _ = apply(t, p, &project.PrintClips{Clips: []string{"of row"}, ID: "print", Audio: audio, Start: 100})
	now, ok := p.Remade("row", made)
	require.True(t, ok)
	assert.Equal(t, then.Key(engine.EffectInfo), now.Key(engine.EffectInfo), "though the clips are no longer there")
	p, _ = apply(t, p, &project.SetParam{Owner: "third", Name: "drive", Value: 3})
	now, _ = p.Remade("row", made)
	list, err := project.Differences(then, now, engine.EffectInfo)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Contains(t, list[0].Says, "Saturation: drive")
	_, ok = p.Remade("gone", made)
	assert.False(t, ok)
}

func TestMakingsOfARowEndWhereItsPrintEnded(t *testing.T) {
	p := keyed(t)
	key := func(p *project.Project) string {
		m, ok := p.MakingsOfRow("row", 48000)
		require.True(t, ok)
		return m.Key(engine.EffectInfo)
	}
	was := key(p)
	late := *p.Channels[0].Clips[0]
	late.ID, late.Start = "late", 48000
	p, _ = apply(t, p, &project.AddClip{Channel: "row", Index: 1, Clip: &late})
	assert.Equal(t, was, key(p), "it begins where the print ends")
	start := int64(47999)
	p, _ = apply(t, p, &project.SetClip{ID: "late", Start: &start})
	assert.NotEqual(t, was, key(p))
}
