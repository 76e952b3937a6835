package demo

import (
	"fmt"
	"runtime"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/printing"
)

// BenchmarkCores renders the main output of the demo on one core and on more: seconds of song in a second.
func BenchmarkCores(b *testing.B) {
	p, folder := made(b)
	const seconds = 30
	for _, cores := range []int{1, runtime.NumCPU(), 1, runtime.NumCPU()} {
		b.Run(fmt.Sprint(cores), func(b *testing.B) {
			defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(cores))
			for b.Loop() {
				lib, err := printing.Library(b.Context(), p, folder)
				require.NoError(b, err)
				job := engine.Job{To: int64(seconds * p.SampleRate)}
				err = engine.Offline(b.Context(), p, lib, job, printing.Pages(folder, lib), func(_, _ []float64) error { return nil }, nil)
				require.NoError(b, err)
			}
			b.ReportMetric(seconds*float64(b.N)/b.Elapsed().Seconds(), "x")
		})
	}
}
