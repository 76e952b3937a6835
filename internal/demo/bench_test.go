package demo

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// made is the demo, with a folder of its own.
func made(b *testing.B) (*project.Project, *audiofile.Folder) {
	b.Helper()
	folder, err := audiofile.NewFolder(filepath.Join(b.TempDir(), "audio"))
	require.NoError(b, err)
	p, err := Make(b.Context(), folder, func(float64) {})
	require.NoError(b, err)
	return p, folder
}

// BenchmarkStems compares main alone, all stems as heard, those with their shares of
// the returns, and those of two kinds with main: seconds of song in a second.
func BenchmarkStems(b *testing.B) {
	p, folder := made(b)
	main := p.MainChannel()
	mix := []printing.Stem{{Channel: main.ID, Kind: printing.StemHeard}}
	heard, shares, both := []printing.Stem{}, []printing.Stem{}, mix
	for _, ch := range p.Channels {
		if ch.Output == main.ID {
			heard = append(heard, printing.Stem{Channel: ch.ID, Kind: printing.StemHeard})
			shares = append(shares, printing.Stem{Channel: ch.ID, Kind: printing.StemShare})
		}
		if ch.Kind != project.Main {
			both = append(both, printing.Stem{Channel: ch.ID, Kind: printing.StemHeard}, printing.Stem{Channel: ch.ID, Kind: printing.StemChain})
		}
	}
	const seconds = 20
	for name, rows := range map[string][]printing.Stem{"main": mix, "heard": heard, "both": both, "shares": shares} {
		b.Run(name, func(b *testing.B) {
			from := int64(60 * p.SampleRate)
			spec := printing.Spec{From: 0, To: from + int64(seconds*p.SampleRate), Format: "wav24",
				Stems: &printing.Stems{Rows: rows, Pattern: "{n}"}}
			for b.Loop() {
				_, err := printing.RenderStems(b.Context(), p, folder, spec, printing.Printer{}, b.TempDir(), nil)
				require.NoError(b, err)
			}
			b.ReportMetric(float64(spec.To)/float64(p.SampleRate)*float64(b.N)/b.Elapsed().Seconds(), "x")
		})
	}
}
