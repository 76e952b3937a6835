package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestATurnedTrialExchangesNeighboursOrTurnsAllRound(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	order := func(turn string) (out []string) {
		next, _, err := Apply(p, []Change{&AddTrial{Channel: a.ID, Turn: &turn}}, fakeEffects)
		require.NoError(t, err)
		for _, n := range next.Channels[0].Trials[0].Chain.Nodes {
			if n.Fork != nil {
				out = append(out, "fork")
			} else {
				out = append(out, n.Stage.Effect)
			}
		}
		return out
	}
	assert.Equal(t, []string{"reverb", "trim", "fork"}, order(a.Chain.Nodes[0].ID()))
	assert.Equal(t, []string{"trim", "fork", "reverb"}, order(a.Chain.Nodes[2].ID()), "the last one goes before the one before it")
	assert.Equal(t, []string{"fork", "reverb", "trim"}, order(""))
}
