package printing

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func withFork(t *testing.T, kind string) (*project.Project, *project.Fork, func(what string) *project.Fork) {
	p, ch, folder := song(t)
	f, err := project.NewFork(kind, 2)
	require.NoError(t, err)
	ch.Chain.Nodes = []*project.Node{{Fork: f}}
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p, f, func(what string) *project.Fork {
		list, err := LevelFork(t.Context(), p, folder, f.ID, what, 0, 96000, nil)
		require.NoError(t, err)
		next, _, err := project.Apply(p, list, engine.EffectInfo)
		require.NoError(t, err)
		g, _, _ := next.ForkByID(f.ID)
		return g
	}
}

func TestPathsAreLevelled(t *testing.T) {
	_, f, level := withFork(t, project.Copies)
	f.Paths[1].Mute = false
	f.Paths[0].Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -9})}
	g := level(LevelPaths)
	assert.InDelta(t, 9, g.Paths[0].Level-g.Paths[1].Level, 0.11)
	before, after := math.Pow(10, -0.9)+1, math.Pow(10, (g.Paths[0].Level-9)/10)+math.Pow(10, g.Paths[1].Level/10)
	assert.InDelta(t, 10*math.Log10(before), 10*math.Log10(after), 0.1, "together they are as loud as before")
}

func TestTheOutputKeepsItsLevel(t *testing.T) {
	_, f, level := withFork(t, project.Copies)
	f.Paths[1].Mute = false
	assert.InDelta(t, -6.0, level(LevelOutput).Trim, 0.05, "two alike")
	f.Mix = 50 // half of it dry: the trim works on the other half only
	assert.InDelta(t, -6.0, level(LevelOutput).Trim, 0.1)
	f.MixLaw, f.Paths[1].Invert = "add", false
	f.Trim = -3
	assert.InDelta(t, -24, level(LevelOutput).Trim, 0.05, "what is added cannot be made to add nothing")
}

func TestNothingToLevelIsSaid(t *testing.T) {
	p, ch, folder := song(t)
	f, err := project.NewFork(project.Bands, 2)
	require.NoError(t, err)
	f.Crossovers[0] = 10000 // the tone lies far below
	ch.Chain.Nodes = []*project.Node{{Fork: f}}
	_, err = LevelFork(t.Context(), p, folder, f.ID, LevelPaths, 0, 96000, nil)
	require.ErrorContains(t, err, "nothing to level")
	ch.Clips = ch.Clips[:0]
	_, err = LevelFork(t.Context(), p, folder, f.ID, LevelOutput, 0, 96000, nil)
	require.ErrorContains(t, err, "nothing comes into")
}
