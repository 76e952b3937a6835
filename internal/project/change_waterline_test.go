package project_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func TestTheLineStandsInTheRowsOwnChain(t *testing.T) {
	p := keyed(t)
	put := func(node string) (*project.Project, []project.Change, error) {
		return project.Apply(p, []project.Change{&project.PutWaterline{Node: node}}, engine.EffectInfo)
	}
	next, undo, err := put("second")
	require.NoError(t, err)
	assert.Equal(t, "second", next.Channels[0].Waterline)
	back, _, err := project.Apply(next, undo, engine.EffectInfo)
	require.NoError(t, err)
	assert.Empty(t, back.Channels[0].Waterline)

	// within a fork it stands behind that
	trim := project.NewStage("trim", 1, 100, "blend")
	fork := project.Forked(project.Copies, "", project.NewPath("dry"), project.NewPath("wet", &project.Node{Stage: trim}))
	p.Channels[0].Chain.Nodes = append(p.Channels[0].Chain.Nodes, fork)
	for _, id := range []string{trim.ID, fork.Fork.Paths[0].ID, fork.ID()} {
		next, _, err = put(id)
		require.NoError(t, err)
		assert.Equal(t, fork.ID(), next.Channels[0].Waterline)
	}

	_, _, err = put("gone")
	assert.ErrorContains(t, err, "no longer there")
	treated, _, err := project.Apply(
		p, []project.Change{&project.TreatClips{Clips: []string{"of row"}, Effect: "trim", ID: "piece"}}, engine.EffectInfo,
	)
	require.NoError(t, err)
	p = treated
	_, _, err = put("piece")
	assert.ErrorContains(t, err, "piece")
}
