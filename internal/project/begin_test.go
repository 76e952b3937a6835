package project_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func TestNewRowsTakeTheirPlaceAndName(t *testing.T) {
	p := project.New("Test", 48000, 100, 4, 4)
	for _, kind := range []string{project.Return, project.Track, project.Track, project.Return} {
		next, undo, err := project.Apply(p, []project.Change{&project.NewRow{Kind: kind}}, engine.EffectInfo)
		require.NoError(t, err)
		back, _, err := project.Apply(next, undo, engine.EffectInfo)
		require.NoError(t, err)
		assert.Equal(t, p, back)
		p = next
	}
	var names []string
	for _, c := range p.Channels {
		names = append(names, c.Name)
	}
	assert.Equal(t, []string{"Track 1", "Track 2", "Return 1", "Return 2", "Main"}, names)
	assert.True(t, p.Channels[2].SoloSafe, "a return stays open in solo")
	assert.Equal(t, p.MainChannel().ID, p.Channels[0].Output)
	_, _, err := project.Apply(p, []project.Change{&project.NewRow{Kind: project.Main}}, engine.EffectInfo)
	assert.ErrorContains(t, err, "a track or a return")
}

func TestANewStageBeginsAsItsEffectDoes(t *testing.T) {
	p := project.New("Test", 48000, 100, 4, 4)
	main := p.MainChannel()
	ret := project.NewChannel(project.Return, "Hall", main.ID)
	next, _, err := project.Apply(p, []project.Change{
		&project.AddChannel{Channel: ret},
		&project.AddStage{ID: "dry", Owner: main.ID, Effect: "reverb", Off: true},
		&project.AddStage{ID: "wet", Owner: ret.ID, Effect: "reverb"},
	}, engine.EffectInfo)
	require.NoError(t, err)
	info, _ := engine.EffectInfo("reverb", 0)
	dry, _, _ := next.StageByID("dry")
	wet, _, _ := next.StageByID("wet")
	assert.Equal(t, info.Mix, dry.Mix)
	assert.Equal(t, info.Version, dry.Version)
	assert.True(t, dry.Bypass)
	assert.Equal(t, 100.0, wet.Mix, "on a return nothing dry comes through")
	_, _, err = project.Apply(p, []project.Change{&project.AddStage{Owner: main.ID, Effect: "no such"}}, engine.EffectInfo)
	assert.ErrorContains(t, err, `"no such"`)
}

func TestAnotherEffectKeepsWhatTheTwoShare(t *testing.T) {
	p := project.New("Test", 48000, 100, 4, 4)
	main := p.MainChannel()
	p, _, err := project.Apply(
		p,
		[]project.Change{
			&project.AddStage{ID: "s", Owner: main.ID, Effect: "delay"},
			&project.SetParam{Owner: "s", Name: "mix", Value: 37},
		},
		engine.EffectInfo,
	)
	require.NoError(t, err)
	next, _, err := project.Apply(p, []project.Change{&project.TurnStage{ID: "s", Effect: "reverb"}}, engine.EffectInfo)
	require.NoError(t, err)
	s, _, _ := next.StageByID("s")
	assert.Equal(t, "reverb", s.Effect)
	assert.Equal(t, 37.0, s.Mix)
	_, _, err = project.Apply(p, []project.Change{&project.TurnStage{ID: "gone", Effect: "reverb"}}, engine.EffectInfo)
	assert.ErrorContains(t, err, "no longer there")
}

func TestAStageKeepsItsSoundUntilItIsRenewed(t *testing.T) {
	p := project.New("Test", 48000, 100, 4, 4)
	main := p.MainChannel()
	old := project.NewStage("vibrato", 1, 100, "blend")
	old.Params["depth"] = 40
	p, _, err := project.Apply(p, []project.Change{
		&project.AddNode{Owner: main.ID, Node: &project.Node{Stage: old}},
		&project.SetLine{Owner: old.ID, Name: "depth", Points: []project.Point{{Value: 10, Shape: project.Ramp}}},
	}, engine.EffectInfo)
	require.NoError(t, err)
	next, undo, err := project.Apply(p, []project.Change{&project.RenewStage{ID: old.ID}}, engine.EffectInfo)
	require.NoError(t, err)
	s, _, _ := next.StageByID(old.ID)
	info, _ := engine.EffectInfo("vibrato", 0)
	assert.Equal(t, info.Newest, s.Version)
	assert.Equal(t, 40.0, s.Params["depth"])
	assert.Len(t, next.Lines, 1, "its lines stay")
	back, _, err := project.Apply(next, undo, engine.EffectInfo)
	require.NoError(t, err)
	assert.Equal(t, p, back)

	s.Version = info.Newest + 1
	assert.ErrorContains(t, next.Validate(engine.EffectInfo), "is not known here")
}
