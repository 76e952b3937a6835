package preset

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// Whatever a file says is a preset, it is refused, or what it does to a document is refused or leaves one that holds.
func FuzzTake(f *testing.F) {
	for i, p := range Shipped() {
		if b, err := json.Marshal(p); err == nil && (i%5 == 0 || p.Kind != Stage) {
			f.Add(b)
		}
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		b, err := project.Numbered(b, engine.EffectInfo)
		var p Preset
		if err != nil || json.Unmarshal(b, &p) != nil || p.Check() != nil {
			return
		}
		target := link{effect: "trim"}.node()
		doc, ch := document(t, target)
		for _, id := range []string{target.ID(), ch.ID} {
			batch, err := p.Take(doc, id)
			if err != nil {
				continue
			}
			next, undo, err := project.Apply(doc, batch, engine.EffectInfo)
			if err != nil {
				continue
			}
			require.NoError(t, next.Validate(engine.EffectInfo))
			back, _, err := project.Apply(next, undo, engine.EffectInfo)
			require.NoError(t, err)
			require.Equal(t, doc, back)
		}
	})
}
