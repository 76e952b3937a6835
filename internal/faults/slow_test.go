package faults

import (
	"net/http"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// A disk that takes a fifth of a second whenever something is to reach it: hands wait and are answered, nobody is told that
// something is done which is not, a kill in the middle loses nothing, and with a fast disk everything goes on.
func TestASlowDiskLosesNothing(t *testing.T) {
	data := t.TempDir()
	for range rounds(t, 1) / 50 {
		slowRound(t, data)
	}
	slowRound(t, data)
}

func slowRound(t *testing.T, data string) {
	t.Helper()
	s, signal := traced(t, data, "-o /dev/null", "-e trace=fsync,fdatasync", "-e inject=fsync,fdatasync:delay_enter=200ms")
	x := newSession(t, s)
	var hands sync.WaitGroup
	for hand := range 3 {
		hands.Go(func() {
			for n := range 5 {
				code, err := x.edit(s, hand, n)
				if err != nil {
					return
				}
				if code != http.StatusOK {
					t.Errorf("an edit was answered with %d", code)
				}
			}
		})
	}
	file := noise(t, uint64(time.Now().UnixNano()))
	hands.Go(func() {
		_, _ = x.bring(s, 1, file)
		_, _ = x.ask(s)
	})
	hands.Wait()
	require.Len(t, x.edits, 15, "all of them were answered")
	require.Len(t, x.rows, 1)
	require.Len(t, x.print, 1)
	x.holds(s)
	var more sync.WaitGroup
	for hand := range 3 { // killed while they wait
		more.Go(func() { _, _ = x.edit(s, 10+hand, 1) })
	}
	time.Sleep(300 * time.Millisecond)
	signal(syscall.SIGKILL)
	more.Wait()
	fast, err := serve(t, data)
	require.NoError(t, err)
	x.holds(fast)
	require.Eventually(t, func() bool { return x.printed(fast) }, time.Minute, 100*time.Millisecond, "the print comes to an end")
	well(t, data)
	fast.kill()
}
