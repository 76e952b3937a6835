package preset

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/figures"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Taking a shipped fork does not make a sound jump, and none of its paths is silent or takes
// the others away.
func TestShippedForksKeepTheLevel(t *testing.T) {
	count := 0
	for _, p := range Shipped() {
		for _, n := range p.Body.Nodes {
			if n.Fork == nil {
				continue
			}
			count++
			doc, ch := document(t)
			ch.Chain.Nodes = []*project.Node{n}
			f, err := figures.OfFork(t.Context(), doc, pages.New(0), n.Fork.ID, nil)
			require.NoError(t, err, p.Name)
			t.Logf("%-24s %+5.1f dB, cancels %4.1f dB at %5.0f Hz, %4d frames late", p.Name, f.Gain, f.Cancel, f.At, f.Latency)
			assert.InDelta(t, 0, f.Gain, 4.5, p.Name)
			assert.Less(t, f.Cancel, 9.0, p.Name)
			for i, e := range f.Each {
				assert.Greater(t, e.Part, 0.0003, "%s: %s", p.Name, n.Fork.Paths[i].Name)
			}
		}
	}
	assert.GreaterOrEqual(t, count, 12)
}

func TestThePresetOfAPath(t *testing.T) {
	doc, ch := document(t)
	ch.Chain.Nodes = []*project.Node{
		project.Forked(
			project.Copies,
			"",
			path("one", 0, at("trim", "", 0, nil)),
			path("two", 0, at("reverb", "", 0, nil), at("trim", "", 0, nil)),
		),
	}
	two := ch.Chain.Nodes[0].Fork.Paths[1]
	p, err := From(doc, Chain, two.ID)
	require.NoError(t, err)
	require.Len(t, p.Body.Nodes, 2)
	batch, err := p.Take(doc, ch.Chain.Nodes[0].Fork.Paths[0].ID)
	require.NoError(t, err)
	next, _, err := project.Apply(doc, batch, engine.EffectInfo)
	require.NoError(t, err)
	require.Len(t, next.Channels[0].Chain.Nodes[0].Fork.Paths[0].Chain.Nodes, 2)
}
