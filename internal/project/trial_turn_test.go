package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestATurnedTrialExchangesNeighboursOrTurnsAllRound(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	with := func(c *AddTrial) (out []string) {
		c.Channel = a.ID
		next, _, err := Apply(p, []Change{c}, fakeEffects)
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
	order := func(turn string) []string { return with(&AddTrial{Turn: &turn}) }
	assert.Equal(t, []string{"reverb", "trim", "fork"}, order(a.Chain.Nodes[0].ID()))
	assert.Equal(t, []string{"trim", "fork", "reverb"}, order(a.Chain.Nodes[2].ID()), "the last one goes before the one before it")
	assert.Equal(t, []string{"fork", "reverb", "trim"}, order(""))

	end := func(i int) []string { return with(&AddTrial{End: a.Chain.Nodes[i].ID()}) }
	assert.Equal(t, []string{"reverb", "fork", "trim"}, end(0), "the first one goes to the end")
	assert.Equal(t, []string{"reverb", "trim", "fork"}, end(1))
	assert.Equal(t, []string{"fork", "trim", "reverb"}, end(2), "the last one to the beginning")
	_, _, err := Apply(p, []Change{&AddTrial{Channel: a.ID, End: "gone"}}, fakeEffects)
	require.ErrorContains(t, err, "no longer there")
}
