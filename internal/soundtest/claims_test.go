package soundtest

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"
)

// Every claim holds for the effects as they are made now. The long ones are for `make sound`.
func TestEveryClaimHolds(t *testing.T) {
	for _, c := range Claims() {
		t.Run(c.Effect+": "+c.Says, func(t *testing.T) {
			if c.Long && os.Getenv("SOUND") == "" {
				t.Skip("long: make sound")
			}
			s, ok := Of(c.Effect, 0)
			require.True(t, ok)
			require.LessOrEqual(t, c.Measure(s), c.Aim, c.Unit)
		})
	}
}
