package recording

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// Whatever a window sends of a row, it is refused or kept, the recording ends, and the document holds.
func FuzzPut(f *testing.F) {
	s := newStudio(f)
	for _, p := range []Part{
		{Runs: []project.Run{{Song: 4800, Frames: 100}}},
		{At: 50, Runs: []project.Run{{Song: 0, Frames: 60}, {Input: 60, Song: 9000, Frames: 90}}, Gone: true},
	} {
		b, err := json.Marshal(p)
		require.NoError(f, err)
		f.Add(b, s.arrives("reader", 0, 100), int64(4000))
	}
	f.Fuzz(func(t *testing.T, b, data []byte, to int64) {
		var p Part
		if json.Unmarshal(b, &p) != nil {
			return
		}
		s := newStudio(t)
		id := s.begin(Plan{})
		for range 2 { // it is sent again
			_, _ = s.desk.Put(id, s.row, p, data)
		}
		_, _ = s.desk.End(t.Context(), id, Ending{To: to})
		require.NoError(t, s.doc.Validate(engine.EffectInfo))
	})
}
