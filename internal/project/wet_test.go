package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// A new stage is fully wet on a return and beside a dry path, though its effect would be added to the dry signal
// elsewhere; what is pasted or brought back stays as it was.
func TestWhatIsPutBesideADrySignalIsFullyWet(t *testing.T) {
	p := sample(t)
	a, hall := p.Channels[0], p.Channels[2]
	f := a.Chain.Nodes[2].Fork
	for owner, wet := range map[string]bool{a.ID: false, hall.ID: true, f.Paths[1].ID: true, f.Paths[0].ID: false} {
		for _, fresh := range []bool{true, false} {
			next := one(t, p, &AddNode{Owner: owner, Node: &Node{Stage: NewStage("reverb", 1, 30, "add")}, Fresh: fresh})
			_, chain, _ := next.ChainByOwner(owner)
			s := chain.Nodes[0].Stage
			if wet && fresh {
				require.Equal(t, []any{100.0, "blend"}, []any{s.Mix, s.MixLaw}, owner)
			} else {
				require.Equal(t, []any{30.0, "add"}, []any{s.Mix, s.MixLaw}, owner)
			}
		}
	}
}
