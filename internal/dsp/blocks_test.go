package dsp

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

// some is a block of noise of a length.
func some(n int, seed uint64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = White(seed, int64(i))
	}
	return x
}

// lengths are those at which a loop of four or eight frames a turn could go wrong.
var lengths = []int{0, 1, 2, 3, 4, 5, 7, 8, 9, 12, 15, 16, 17, 31, 33, 127, 128}

// What fills a block makes the same wherever the block begins.
func TestFillsAreTheirPlainTwins(t *testing.T) {
	for _, n := range lengths {
		x, gains, levels := make([]float64, n), make([]float64, n), some(n, 5)
		Rise(x, -3, 7, 1000, 1./48000)
		for i := range levels {
			levels[i] *= 140
		}
		Gains(gains, levels)
		for i := range x {
			require.Equal(t, -3+7*(float64(1000+i)*(1./48000)), x[i])
			require.Equal(t, Gain(levels[i]), gains[i])
		}
	}
}

// A gain is what it is by definition.
func TestGains(t *testing.T) {
	for db := -119.99; db < 90; db += 0.0373 {
		require.InEpsilon(t, math.Pow(10, db/20), Gain(db), 1e-14)
	}
	require.Equal(t, 1.0, Gain(0))
	for _, off := range []float64{Off, -130, math.Inf(-1)} {
		require.Zero(t, Gain(off))
	}
	require.True(t, math.IsNaN(Gain(math.NaN())))
	require.True(t, math.IsInf(Gain(math.Inf(1)), 1))
}

// Every loop over a block makes what its plain twin makes, to the bit, whatever the length.
func TestBlocksAreTheirPlainTwins(t *testing.T) {
	twins := map[string]struct {
		quick func(x, y []float64)
		plain func(x, y *float64)
	}{
		"scale":     {func(x, _ []float64) { Scale(x, 0.3) }, func(x, _ *float64) { *x *= 0.3 }},
		"scale to":  {func(x, y []float64) { ScaleTo(x, y, -1.7) }, func(x, y *float64) { *x = *y * -1.7 }},
		"multiply":  {Multiply, func(x, y *float64) { *x *= *y }},
		"add":       {func(x, y []float64) { AddScaled(x, y, 0.42) }, func(x, y *float64) { *x += 0.42 * *y }},
		"toward":    {func(x, y []float64) { Toward(x, y, 0.25) }, func(x, y *float64) { *x += 0.25 * (*y - *x) }},
		"exchange":  {Exchange, func(x, y *float64) { *x, *y = *y, *x }},
		"louder":    {func(x, y []float64) { Louder(x, x, y) }, func(x, y *float64) { *x = math.Max(math.Abs(*x), math.Abs(*y)) }},
		"logarithm": {func(x, _ []float64) { Louder(x, x, x); QuickLogs(x) }, func(x, _ *float64) { *x = QuickLog(math.Abs(*x)) }},
		"power":     {func(x, _ []float64) { QuickExps(x, 2, -3) }, func(x, _ *float64) { *x = QuickExp(*x*-3 + 2*-3) }},
		"diffuse": {func(x, y []float64) { Diffuse(x, y, 0.6) }, func(x, y *float64) {
			v := *x - 0.6**y
			*x, *y = *y+0.6*v, (v+1e-14)-1e-14
		}},
	}
	for name, twin := range twins {
		t.Run(name, func(t *testing.T) {
			for _, n := range lengths {
				x, y := some(n, 3), some(n, 4)
				wantX, wantY := some(n, 3), some(n, 4)
				twin.quick(x, y)
				for i := range wantX {
					twin.plain(&wantX[i], &wantY[i])
				}
				require.Equal(t, wantX, x, "%d frames", n)
				require.Equal(t, wantY, y, "%d frames", n)
			}
		})
	}
	for _, n := range lengths {
		x, want := some(n, 3), some(n, 3)
		src := make([]float32, n)
		for i := range src {
			src[i] = float32(White(9, int64(i)))
			want[i] += float64(src[i]) * 0.7
		}
		AddSingles(x, src, 0.7)
		require.Equal(t, want, x, "singles, %d frames", n)
	}
}

func TestPeaksOfOneAndOfTwo(t *testing.T) {
	for _, n := range lengths {
		for at := range n {
			x := some(n, 5)
			x[at] = -3
			require.Equal(t, 3.0, Highest(x), "%d of %d", at, n)
			require.Equal(t, 3.0, Louder(make([]float64, n), some(n, 6), x), "%d of %d", at, n)
			x[at] = math.NaN()
			require.True(t, math.IsNaN(Highest(x)), "what is no number stands above all")
		}
	}
}

// What goes round in a line dies away to nothing, never to denormals, and is else what it should be.
func TestALineIsFedAndForgets(t *testing.T) {
	for _, n := range lengths {
		line, x, in := make([]float64, n), some(n, 7), some(n, 8)
		Feed(line, x, in, 0.35)
		for i := range line {
			require.InDelta(t, x[i]+0.35*in[i], line[i], 1e-15)
		}
	}
	ring := some(64, 2)
	silence := make([]float64, 64)
	for range 4000 {
		x := make([]float64, 64)
		for i := range x {
			x[i] = 0.9 * ring[i]
		}
		Feed(ring, x, silence, 0.35)
	}
	for _, v := range ring {
		require.True(t, v == 0 || math.Abs(v) > 1e-300 && math.Abs(v) < 1e-25, "%g", v)
	}
}

// Sections in pairs, on two channels and in turns of four are the plain recursion, to the bit.
func TestSectionsTogetherAreSectionsAlone(t *testing.T) {
	s, u := Bell(900, 7, 1.2, 48000), Shelf(true, 5000, -4, 0.7, 48000)
	plain := func(s *Section, x []float64) {
		var z1, z2 float64
		for i, v := range x {
			y := s.B0*v + z1
			z1, z2 = (s.B1*v+z2)-s.A1*y, s.B2*v-s.A2*y
			x[i] = y
		}
	}
	for name, cut := range map[string][]int{"at once": {400}, "cut": {1, 3, 4, 5, 8, 15, 100, 264}} {
		t.Run(name, func(t *testing.T) {
			want := [4][]float64{some(400, 1), some(400, 2), some(400, 1), some(400, 2)}
			plain(&s, want[0])
			plain(&s, want[1])
			plain(&s, want[2])
			plain(&u, want[2])
			plain(&u, want[3])
			var a, b, c, d, e, f, g, h Biquad
			at := 0
			for _, n := range cut {
				l, r := some(400, 1)[at:at+n], some(400, 2)[at:at+n]
				RunStereo(&s, &a, &b, l, r)
				require.Equal(t, want[0][at:at+n], l)
				require.Equal(t, want[1][at:at+n], r)
				l, r = some(400, 1)[at:at+n], some(400, 2)[at:at+n]
				RunStereo2(&s, &u, &c, &d, &e, &f, l, r)
				require.Equal(t, want[2][at:at+n], l)
				x, y := make([]float64, n), make([]float64, n)
				RunTwo(&s, &u, &g, &h, some(400, 1)[at:at+n], some(400, 2)[at:at+n], x, y)
				require.Equal(t, want[0][at:at+n], x)
				require.Equal(t, want[3][at:at+n], y)
				at += n
			}
		})
	}
}

// A section that moves goes in a straight line from one to the other, and ends as the other.
func TestASectionMovesInAStraightLine(t *testing.T) {
	s, u := Bell(900, 7, 1.2, 48000), Bell(1200, -3, 0.8, 48000)
	l, r, want := some(16, 1), some(16, 2), some(16, 1)
	var a, b, c Biquad
	RunStereoTo(&s, &u, 1, 16, &a, &b, l, r)
	for i, v := range want {
		f := float64(i+1) / 16
		at := Section{s.B0 + (u.B0-s.B0)*f, s.B1 + (u.B1-s.B1)*f, s.B2 + (u.B2-s.B2)*f, s.A1 + (u.A1-s.A1)*f, s.A2 + (u.A2-s.A2)*f}
		want[i] = c.Next(&at, v)
	}
	require.Equal(t, want, l)
}

func TestQuickFunctionsAreNearTheirTwins(t *testing.T) {
	for x := -40.0; x < 40; x += 0.00917 {
		require.InDelta(t, 1, QuickExp(x)/math.Exp(x), 1e-9, fmt.Sprint(x))
	}
	for x := 1e-9; x < 1e4; x *= 1.0013 {
		require.InDelta(t, math.Log(x), QuickLog(x), 2e-9, fmt.Sprint(x))
	}
	require.Equal(t, 1.0, QuickExp(0))
	require.False(t, math.IsNaN(QuickLog(0)))
	for hz := 1.0; hz < 23520; hz *= 1.003 {
		require.InDelta(t, 1, Warp(hz, 48000)/math.Tan(math.Pi*hz/48000), 1e-11, fmt.Sprint(hz))
	}
	require.Equal(t, Warp(23520, 48000), Warp(30000, 48000), "kept below half the rate")
}

// What goes into a delay comes out of it one length later, less by what it keeps, whatever the lengths of blocks.
func TestADelayIsFedThrough(t *testing.T) {
	const long, gain, keep = 37, -0.35, 0.8
	x, in := some(400, 21), some(400, 22)
	want := make([]float64, len(x))
	for i := long; i < len(x); i++ {
		want[i] = keep * (x[i-long] + gain*in[i-long])
	}
	for _, dst := range [][]float64{make([]float64, len(x)), x} { // elsewhere first: what comes in stays as it is
		ring, pos := make([]float64, long), 0
		for at, k := 0, 0; at < len(x); k++ {
			n := min(lengths[k%len(lengths)], long-pos, len(x)-at)
			FeedThrough(dst[at:at+n], x[at:at+n], ring[pos:pos+n], in[at:at+n], gain, keep)
			at, pos = at+n, (pos+n)%long
		}
		require.InDeltaSlice(t, want, dst, 1e-12)
	}
}
