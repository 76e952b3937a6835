package demo

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/onset"
)

// The code knows where each stroke of the drum and of the marimba was made. Strokes within 30 ms are one.
func TestOnsetsAreWhereItWasStruck(t *testing.T) {
	for name, play := range map[string]func(stretch) *take{"drum": frameDrum, "marimba": marimba} {
		hits, found, all := 0, 0, 0
		for _, s := range []stretch{{from: 12, to: 28, ring: 1}, {from: 32, to: 48, ring: 1}} {
			take := play(s)
			truth := together(take.Struck, 0.030)
			var got []float64
			for _, o := range onset.Find([][]float64{take.L}, rate) {
				if o.Strength >= onset.Usual {
					got = append(got, float64(o.Frame)/rate)
				}
			}
			for _, x := range truth {
				if slices.ContainsFunc(got, func(g float64) bool { return g > x[0]-0.010 && g < x[1]+0.010 }) {
					hits++
				}
			}
			found, all = found+len(got), all+len(truth)
		}
		precision, recall := float64(hits)/math.Max(1, float64(found)), float64(hits)/float64(all)
		t.Logf("%s: %d strokes, precision %.3f, recall %.3f", name, all, precision, recall)
		require.Greater(t, all, 80)
		require.GreaterOrEqual(t, precision, 0.95, name)
		require.GreaterOrEqual(t, recall, 0.95, name)
	}
}

// together gathers times that follow one another within so many seconds: from the first to the last of each.
func together(times []float64, within float64) (out [][2]float64) {
	slices.Sort(times)
	for _, x := range times {
		if n := len(out); n > 0 && x-out[n-1][1] < within {
			out[n-1][1] = x
			continue
		}
		out = append(out, [2]float64{x, x})
	}
	return out
}
