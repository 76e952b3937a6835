package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const printed = `goos: linux
pkg: shoal/internal/effect
cpu: Some Machine
BenchmarkReference-2        	 1000	 500 ns/op	 4.000 ns/frame
BenchmarkReference-2        	 1000	 500 ns/op	 4.100 ns/frame
BenchmarkEffects/reverb-2   	  100	 900 ns/op	 80.00 ns/frame	 260.4 x-realtime	 0 B/op	 0 allocs/op
BenchmarkEffects/reverb-2   	  100	 900 ns/op	 84.00 ns/frame	 248.0 x-realtime	 0 B/op	 0 allocs/op
BenchmarkEffects/reverb-2   	  100	 900 ns/op	 82.00 ns/frame	 254.0 x-realtime	 0 B/op	 0 allocs/op
PASS
pkg: shoal/internal/engine
BenchmarkTracks/32-2   	  100	 900 ns/op	 400.00 ns/frame
BenchmarkTracks/8-2   	  100	 900 ns/op	 100.00 ns/frame
BenchmarkTracks/of-none-2   	  100	 900 ns/op	 100.00 ns/frame
PASS
pkg: shoal/internal/stretch
BenchmarkStretch            	   10	 100 ns/op	 40.00 x-realtime
  bench: from opening the page to sound: 1034 ms
`

func TestWhatBenchmarksPrintIsTakenIn(t *testing.T) {
	r, err := read(strings.NewReader(printed))
	require.NoError(t, err)
	assert.Equal(t, []string{"from opening the page to sound: 1034 ms"}, r.Browser)
	require.Len(t, r.Figures, 6)
	f := r.find("effect", "Effects/reverb")
	require.NotNil(t, f)
	assert.Equal(t, "ns/frame", f.Unit)
	assert.InDelta(t, 82, f.middle(), 1e-9)
	assert.InDelta(t, 4.0/82, f.spread(), 1e-9)
	assert.InDelta(t, 82/4.1, r.cost(f), 1e-9)
	_, err = read(strings.NewReader("nothing\n"))
	require.ErrorContains(t, err, "no benchmark")
}

// A machine that is slower today makes nothing slower; code that is does, in whichever unit it is told.
func TestWhatHasBecomeSlowerIsToldApartFromASlowMachine(t *testing.T) {
	last, err := read(strings.NewReader(printed))
	require.NoError(t, err)
	last.Date = "2026-11-01"
	slowed := func(machine, reverb, stretch float64) []string {
		now, err := read(strings.NewReader(printed))
		require.NoError(t, err)
		for i := range now.Figures {
			f := &now.Figures[i]
			for k := range f.Rounds {
				switch f.Name {
				case "Effects/reverb":
					f.Rounds[k] *= machine * reverb
				case "Stretch":
					f.Rounds[k] /= machine * stretch
				default:
					f.Rounds[k] *= machine
				}
			}
		}
		return compare(last, now)
	}
	assert.Empty(t, slowed(1, 1, 1))
	assert.Empty(t, slowed(3, 1, 1))
	assert.Empty(t, slowed(1, 1.05, 1), "within noise")
	assert.Equal(t, []string{"slower: effect Effects/reverb takes 1.50 times what it took on 2026-11-01"}, slowed(2, 1.5, 1))
	assert.Equal(t, []string{"slower: stretch Stretch takes 2.00 times what it took on 2026-11-01"}, slowed(0.5, 1, 2))
	assert.Equal(t, []string{"faster: effect Effects/reverb takes 0.50 times what it took on 2026-11-01"}, slowed(1, 0.5, 1))
}

func TestHowCostsGrowIsDrawn(t *testing.T) {
	r, err := read(strings.NewReader(printed))
	require.NoError(t, err)
	p, ok := growth(r)
	require.True(t, ok)
	require.Len(t, p.Lines, 2)
	assert.Equal(t, "rows of six stages, 8 to 32", p.Lines[0].Name)
	assert.Equal(t, []float64{1, 4}, p.Lines[0].X, "from the smallest on")
	assert.Equal(t, []float64{1, 4}, p.Lines[0].Y)
	assert.Equal(t, []float64{1, 10}, p.X.Ticks)
	_, ok = growth(&Report{})
	assert.False(t, ok, "where nothing was run at several sizes there is nothing to draw")
}

func TestThatThereIsNothingToCompareWithIsSaid(t *testing.T) {
	now, err := read(strings.NewReader(printed))
	require.NoError(t, err)
	assert.Contains(t, said(&Report{}, now)[0], "No table has been kept")
	assert.Contains(t, said(now, now)[0], "Nothing has become slower")
}

func TestATableIsKeptWhenThatIsAsked(t *testing.T) {
	dir := t.TempDir()
	from, to := filepath.Join(dir, "bench.txt"), filepath.Join(dir, "bench.json")
	require.NoError(t, os.WriteFile(from, []byte(printed), 0o600))
	require.NoError(t, run(from, to, dir, false))
	require.NoFileExists(t, filepath.Join(dir, "performance.md"))
	require.FileExists(t, to)
	require.NoError(t, run(from, to, dir, true))
	b, err := os.ReadFile(filepath.Join(dir, "performance.md"))
	require.NoError(t, err)
	assert.Contains(t, string(b), "| Effects/reverb | 82 | ns/frame | 2 % | 20.0 |")
	assert.Contains(t, string(b), "- from opening the page to sound: 1034 ms")
	assert.Contains(t, string(b), "](performance/growth.svg)")
	require.FileExists(t, filepath.Join(dir, "performance", "growth.svg"))
	require.NoError(t, run(from, to, dir, false), "and is there to be compared with")
	require.ErrorContains(t, run(filepath.Join(dir, "none"), to, dir, false), "none")
}
