package preset

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
)

func document(t *testing.T, nodes ...*project.Node) (*project.Project, *project.Channel) {
	p := project.New("Test", 48000, 100, 4, 4)
	ch := project.NewChannel(project.Track, "Rope", p.MainChannel().ID)
	ch.Chain.Nodes = nodes
	p.Channels = append([]*project.Channel{ch}, p.Channels...)
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p, ch
}

func TestEveryEffectHasPresetsAndEveryPresetCanBeTaken(t *testing.T) {
	count, seen := map[string]int{}, map[string]bool{}
	for _, p := range Shipped() {
		require.NoError(t, p.Check(), p.Name)
		require.Empty(t, p.Unknown, p.Name)
		require.NotEmpty(t, p.Says, p.Name)
		require.NotEmpty(t, p.Tags, p.Name)
		require.False(t, seen[p.ID], p.ID)
		seen[p.ID] = true
		count[p.Effect]++
		target := link{effect: "trim"}.node()
		doc, ch := document(t, target)
		id := target.ID()
		if p.Kind == Chain {
			id = ch.ID
		}
		batch, err := p.Take(doc, id)
		require.NoError(t, err, p.Name)
		next, undo, err := project.Apply(doc, batch, engine.EffectInfo)
		require.NoError(t, err, p.Name)
		back, _, err := project.Apply(next, undo, engine.EffectInfo)
		require.NoError(t, err, p.Name)
		require.Equal(t, doc, back, p.Name)
		if p.Kind == Stage {
			s := next.Channels[0].Chain.Nodes[0].Stage
			require.Equal(t, p.Effect, s.Effect)
			for name, v := range p.Body.Params {
				k, _ := effect.Find(p.Effect)
				if v != k.Params[k.Index(name)].Default {
					require.Equal(t, v, s.Params[name], "%s: %s is out of range", p.Name, name)
				}
			}
		}
	}
	for _, k := range effect.Kinds() {
		require.GreaterOrEqual(t, count[k.ID], 3, k.ID)
	}
	require.GreaterOrEqual(t, count[""], 15) // chains
}

func TestAPresetLeavesALockedMixAndTheStagesNameAlone(t *testing.T) {
	n := link{effect: "delay", name: "Far echo", mix: 12}.node()
	n.Stage.MixLock, n.Stage.Bypass, n.Stage.ActsOn = true, true, "side"
	doc, _ := document(t, n)
	p, ok := Find("shoal-delay-over-the-basin")
	require.True(t, ok)
	batch, err := p.Take(doc, n.ID())
	require.NoError(t, err)
	next, _, err := project.Apply(doc, batch, engine.EffectInfo)
	require.NoError(t, err)
	s := next.Channels[0].Chain.Nodes[0].Stage
	require.Equal(t, "Far echo", s.Name)
	require.Equal(t, 12.0, s.Mix)
	require.True(t, s.Bypass)
	require.Equal(t, "side", s.ActsOn)
	require.Equal(t, 48.0, s.Params["feedback"])
}

func TestWhatANewerPresetHoldsIsKeptAndLeftOut(t *testing.T) {
	var p Preset
	require.NoError(
		t,
		json.Unmarshal(
			[]byte(
				`{"version":3,"id":"x","kind":"stage","effect":"delay","name":"From later","body":{"params":{"sparkle":4,"feedback":900,"note":5},"mix":30,"mixLaw":"add"}}`,
			),
			&p,
		),
	)
	require.NoError(t, p.Check())
	require.Equal(t, []string{"Delay sparkle", "format version 3"}, p.Unknown)
	require.Equal(t, 4.0, p.Body.Params["sparkle"])
	n := link{effect: "delay"}.node()
	doc, _ := document(t, n)
	batch, err := p.Take(doc, n.ID())
	require.NoError(t, err)
	next, _, err := project.Apply(doc, batch, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, map[string]float64{"note": 5, "feedback": 100}, next.Channels[0].Chain.Nodes[0].Stage.Params)

	p.Effect = "lantern"
	require.NoError(t, p.Check())
	_, err = p.Take(doc, n.ID())
	require.ErrorContains(t, err, `the effect "lantern", which this program does not have`)
	for want, bad := range map[string]Preset{
		"needs a name":       {Kind: Stage, Effect: "trim"},
		"unknown kind":       {Kind: "something", Name: "x"},
		"for which effect":   {Kind: Stage, Name: "x"},
		"either a stage or ": {Kind: Chain, Name: "x", Body: Body{Nodes: []*project.Node{{}}}},
	} {
		require.ErrorContains(t, bad.Check(), want)
	}
}

func TestAPresetOfWhatStandsThereBringsItBack(t *testing.T) {
	doc, ch := document(t, link{effect: "trim", params: set{"gain": -3}}.node(), link{effect: "reverb", mix: 40}.node())
	ch.Fader, ch.Pan = -7, 0.25
	for _, kind := range []string{Chain, Channel} {
		p, err := From(doc, kind, ch.ID)
		require.NoError(t, err)
		p.Name = "Mine"
		require.NoError(t, p.Check())
		empty, other := document(t)
		batch, err := p.Take(empty, other.ID)
		require.NoError(t, err)
		next, _, err := project.Apply(empty, batch, engine.EffectInfo)
		require.NoError(t, err)
		got := next.Channels[0]
		require.Len(t, got.Chain.Nodes, 2)
		require.Equal(t, -3.0, got.Chain.Nodes[0].Stage.Params["gain"])
		require.NotEqual(t, ch.Chain.Nodes[0].ID(), got.Chain.Nodes[0].ID())
		require.Equal(t, kind == Channel, got.Fader == -7)
	}
}

func TestAPresetDropsInWholeAsAReturn(t *testing.T) {
	doc, ch := document(t, &project.Node{Stage: project.NewStage("reverb", 1, 100, "blend")})
	ch.Name = "Cave"
	shore := project.NewChannel(project.Group, "Shore", doc.MainChannel().ID)
	doc.Channels = append([]*project.Channel{shore}, doc.Channels...)
	ch.Output, ch.Fader, ch.Tint, ch.SoloSafe = shore.ID, -4, 3, true
	p, err := From(doc, Channel, ch.ID)
	require.NoError(t, err)
	p.Name = "Cave"
	batch, err := p.AsReturn(doc, "cave2", []string{ch.ID})
	require.NoError(t, err)
	next, _, err := project.Apply(doc, batch, engine.EffectInfo)
	require.NoError(t, err)
	ret, ok := next.Channel("cave2")
	require.True(t, ok)
	require.Equal(t, "Cave 2", ret.Name, "a fresh name")
	require.Equal(t, []any{project.Return, shore.ID, -4.0, 3, true}, []any{ret.Kind, ret.Output, ret.Fader, ret.Tint, ret.SoloSafe})
	require.Equal(t, "reverb", ret.Chain.Nodes[0].Stage.Effect)
	from, _ := next.Channel(ch.ID)
	require.Equal(t, "cave2", from.Sends[0].To)

	for i := range Shipped() { // each of those that ship can stand on a return
		batch, err := Shipped()[i].AsReturn(doc, "", nil)
		require.NoError(t, err)
		_, _, err = project.Apply(doc, batch, engine.EffectInfo)
		require.NoError(t, err, Shipped()[i].Name)
	}
	_, err = p.AsReturn(doc, "", []string{"gone"})
	require.ErrorContains(t, err, "no longer there")
}
