package sounding

import (
	"math"
	"math/cmplx"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// bandsIn puts a fork of two bands on the lower band of another one.
func bandsIn(outer, inner float64, slope int) *project.Fork {
	f := project.Forked(project.Bands, "", pathWith("low"), pathWith("high")).Fork
	g := project.Forked(project.Bands, "", pathWith("lower"), pathWith("upper"))
	f.Crossovers, f.Slope = []float64{outer}, slope
	g.Fork.Crossovers, g.Fork.Slope = []float64{inner}, slope
	f.Paths[0].Chain.Nodes = []*project.Node{g}
	return f
}

// What the rule says is missing is missing in what the splitters of the engine make of an impulse.
func TestWhatAPhaseTurnedCostsIsWhatTheEngineLoses(t *testing.T) {
	const rate, n = 48000, 1 << 14
	split := func(x []float64, hz float64, steep bool) (low, high []float64) {
		s := dsp.NewSplitter(rate, 1, steep, n)
		s.Set(0, hz)
		low, high = make([]float64, n), append([]float64(nil), x...)
		s.Process([][]float64{low, high}, [][]float64{make([]float64, n), make([]float64, n)})
		return low, high
	}
	for _, c := range []struct {
		outer, inner float64
		slope        int
	}{{1000, 700, 24}, {1000, 700, 48}, {400, 380, 24}} {
		x := make([]float64, n)
		x[0] = 1
		low, high := split(x, c.outer, c.slope == 48)
		a, b := split(low, c.inner, c.slope == 48)
		depth, hz := dip(bandsIn(c.outer, c.inner, c.slope))
		var sum complex128
		for i := range n {
			sum += complex(a[i]+b[i]+high[i], 0) * cmplx.Exp(complex(0, -2*math.Pi*hz*float64(i)/rate))
		}
		require.InDelta(t, 20*math.Log10(cmplx.Abs(sum)), depth, 0.1, "%+v at %.0f Hz", c, hz)
		require.Less(t, depth, -6.0, "%+v", c)
	}
}

// Far from each other nothing is missing; linear phase turns none, and a dry path beside bands does lose what they turn.
func TestWherePhasesTurnedCostNothing(t *testing.T) {
	depth, _ := dip(bandsIn(8000, 80, 24))
	require.Greater(t, depth, -0.5)
	f := bandsIn(1000, 700, 24)
	f.Paths[0].Chain.Nodes[0].Fork.Linear = true
	depth, _ = dip(f)
	require.Zero(t, depth)
	beside := project.Forked(project.Copies, "", pathWith("dry"), f.Paths[0]).Fork
	f.Paths[0].Chain.Nodes[0].Fork.Linear = false
	depth, hz := dip(beside)
	require.Less(t, depth, -20.0, "upside down at its crossover")
	require.InDelta(t, 700, hz, 20)
}
