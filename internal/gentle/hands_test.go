package gentle

import (
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/require"
)

// What is put into a turn is done in its order and never two at once, whatever other turns do.
func TestTurnsKeepTheirOrder(t *testing.T) {
	const turns, jobs = 20, 300
	h := NewHands(turns)
	got := make([][]int, turns)
	var at [turns]atomic.Int32
	list := make([]*Turn, turns)
	for i := range list {
		list[i] = h.NewTurn(2)
	}
	for k := range jobs {
		for i, turn := range list {
			turn.Put(func() {
				if at[i].Add(1) > 1 {
					t.Error("two at once")
				}
				got[i] = append(got[i], k)
				at[i].Add(-1)
			})
		}
	}
	h.Close()
	for i := range got {
		require.Len(t, got[i], jobs)
		for k, v := range got[i] {
			require.Equal(t, k, v)
		}
	}
}
