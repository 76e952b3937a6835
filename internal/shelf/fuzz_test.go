package shelf

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// Whatever stands on the shelf, it is refused, or what it puts on a row is refused or leaves a document that holds.
func FuzzPut(f *testing.F) {
	p, ids, _ := song(f)
	for _, list := range [][]string{ids[:1], ids} {
		thing, err := New(p, list)
		require.NoError(f, err)
		thing.Name = "Tone"
		b, err := json.Marshal(thing)
		require.NoError(f, err)
		f.Add(b, int64(rate))
	}
	row := p.Channels[len(p.Channels)-1].ID
	f.Fuzz(func(t *testing.T, b []byte, at int64) {
		var thing Thing
		if json.Unmarshal(b, &thing) != nil || thing.Check() != nil {
			return
		}
		next, undo, err := project.Apply(p, []project.Change{thing.Put(row, at, project.Snap{})}, engine.EffectInfo)
		if err != nil {
			return
		}
		require.NoError(t, next.Validate(engine.EffectInfo))
		back, _, err := project.Apply(next, undo, engine.EffectInfo)
		require.NoError(t, err)
		require.Equal(t, p, back)
	})
}
