package printing

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
)

// Whatever lies beside a sound as where it comes from, it is refused, or can be said in words and made ready to be printed again.
func FuzzCheckRecord(f *testing.F) {
	p, ch, _ := song(f)
	for _, heard := range []bool{false, true} {
		b, err := json.Marshal(NewRecord(p, Printer{"Ines", 3}, Spec{Channel: ch.ID, From: 10, To: 2000}, OfRow, heard))
		require.NoError(f, err)
		f.Add(b)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		if CheckRecord(b) != nil {
			return
		}
		r, err := readRecord(b)
		require.NoError(t, err)
		require.NotEmpty(t, r.Words())
		_ = r.Note()
		if r.Made.Validate(engine.EffectInfo) == nil {
			_, _ = engine.ChannelLatency(r.Made, r.Channel)
		}
	})
}
