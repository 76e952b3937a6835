package preset

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// A preset that is dropped is added: on a clip at the end of its treatment, on a chain where the hand is.
func TestADroppedPresetIsAdded(t *testing.T) {
	doc := project.New("Drop", 48000, 120, 4, 4)
	row := project.NewChannel(project.Track, "Rope", doc.MainChannel().ID)
	row.Chain.Nodes = []*project.Node{projecttest.Stage("trim"), projecttest.Stage("width")}
	doc.Channels = append([]*project.Channel{row}, doc.Channels...)
	withSound(doc)
	clip := row.Clips[0].ID
	drop := func(p *Preset, on string, index int) {
		t.Helper()
		list, err := p.Dropped(doc, on, index)
		require.NoError(t, err)
		doc, _, err = project.Apply(doc, list, engine.EffectInfo)
		require.NoError(t, err)
	}
	of := func(fits func(p *Preset) bool) *Preset {
		i := slices.IndexFunc(Shipped(), func(p Preset) bool { return fits(&p) })
		require.GreaterOrEqual(t, i, 0)
		return &Shipped()[i]
	}
	stage := of(func(p *Preset) bool { return p.Kind == Stage })
	chain := of(func(p *Preset) bool { return p.Kind == Chain && len(p.Body.Nodes) > 1 })
	fork := of(func(p *Preset) bool { return p.Kind == Fork || p.Kind == Chain && p.Body.Nodes[0].Fork != nil })
	drop(stage, clip, 0)
	x, _ := doc.ClipByID(clip)
	tr, ok := doc.TreatmentByID(x.Treatment)
	require.True(t, ok)
	require.Len(t, tr.Chain.Nodes, 1)
	require.Equal(t, stage.Effect, tr.Chain.Nodes[0].Stage.Effect)
	require.Equal(t, stage.Body.Mix, tr.Chain.Nodes[0].Stage.Mix)
	drop(chain, clip, 0)
	drop(chain, clip, 0) // twice: each has ids of its own
	tr, _ = doc.TreatmentByID(x.Treatment)
	require.Len(t, tr.Chain.Nodes, 1+2*len(chain.Body.Nodes))
	drop(fork, row.ID, 1)
	now, _ := doc.Channel(row.ID)
	require.Len(t, now.Chain.Nodes, 2+len(fork.Body.Nodes))
	require.NotNil(t, now.Chain.Nodes[1].Fork)
}
