package effect_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// reported is what a stage says of itself over the last quarter of a second of a signal, and the signal's peak
// in and out over the same time.
func reported(t *testing.T, id string, values set, signal func(n int) (l, r []float64)) (report []float64, in, out float64) {
	t.Helper()
	rig := effecttest.New(id, rate, values)
	n := int(1.25 * rate)
	l, r := signal(n)
	late := rig.Latency()
	in = dsp.Decibels(dsp.Peak(l[n-int(rate)/4-late:], r[n-int(rate)/4-late:]))
	report = make([]float64, len(rig.Kind.Live))
	head := n - int(rate)/4
	rig.Run(l[:head], r[:head], 128)
	rep, ok := rig.P.(effect.Reporter)
	require.True(t, ok)
	rep.Report(report) // all of before
	rig.Run(l[head:], r[head:], 128)
	rep.Report(report)
	return report, in, dsp.Decibels(dsp.Peak(l[head:], r[head:]))
}

func both(f, db float64) func(n int) (l, r []float64) {
	return func(n int) (l, r []float64) { return tone(n, f, db), tone(n, f, db) }
}

// What a stage says of its levels are the levels, and what it says that it takes away is gone.
func TestReportedLevelsAreTheLevels(t *testing.T) {
	noise := set{"threshold": 5, "amount": 12}
	for b := range 24 {
		noise[fmt.Sprint("noise", b+1)] = -6 // all of it counts as noise
	}
	for id, c := range map[string]struct {
		values set
		f, db  float64
		takes  float64 // dB
	}{
		"compressor": {set{"threshold": -30, "ratio": 4, "knee": 0, "makeup": 0, "attack": 5, "release": 3000}, 997, -10, 15},
		"gate":       {set{"threshold": -20, "range": -24}, 997, -40, 24},
		"limiter":    {set{"input": 0, "ceiling": -9, "release": 1000}, 997, -3, 6},
		"deesser":    {set{"freq": 6800, "threshold": -40, "range": -9}, 6800, -12, 9},
		"denoise":    {noise, 997, -40, 12},
	} {
		t.Run(id, func(t *testing.T) {
			report, in, out := reported(t, id, c.values, both(c.f, c.db))
			require.InDelta(t, c.db, in, 0.01)
			require.InDelta(t, in, report[0], 0.6, "in")
			require.InDelta(t, out, report[1], 0.6, "out")
			require.InDelta(t, c.takes, report[2], 0.7, "reduction")
			require.InDelta(t, in-out, report[2], 0.7)
			soft, _, _ := reported(t, id, c.values, both(c.f, -150))
			require.Less(t, soft[0], -100.0)
		})
	}
}

func TestTheWidthsReportIsOfTheSides(t *testing.T) {
	plain := set{"width": 0, "low": 0, "mono": 20}
	turned := func(n int) (l, r []float64) {
		l, r = tone(n, 997, -10), tone(n, 997, -10)
		for i := range r {
			r[i] = -r[i]
		}
		return l, r
	}
	apart := func(n int) (l, r []float64) { return effecttest.Noise(n, 1, -12), effecttest.Noise(n, 2, -12) }
	alike, _, _ := reported(t, "width", plain, both(997, -10))
	require.InDelta(t, 1, alike[0], 1e-6)
	require.Equal(t, dsp.Off, alike[1], "no side")
	against, _, _ := reported(t, "width", plain, turned)
	require.InDelta(t, -1, against[0], 1e-3)
	none, _, _ := reported(t, "width", plain, apart)
	require.InDelta(t, 0, none[0], 0.03)
	require.InDelta(t, 0, none[1], 0.3, "as much side as middle")
}

func TestWhatMovesSaysWhereItIs(t *testing.T) {
	speed, _, _ := reported(t, "spindown", set{"stop": 0}, both(997, -10))
	require.InDelta(t, 1, speed[0], 1e-9)
	stopped, _, _ := reported(t, "spindown", set{"stop": 1, "sync": 1, "time": 0.5}, both(997, -10))
	require.InDelta(t, 0, stopped[0], 1e-9)

	loud, _, _ := reported(t, "wah", set{"mode": 2, "place": 20, "amount": 80, "sense": -14}, both(997, -3))
	soft, _, _ := reported(t, "wah", set{"mode": 2, "place": 20, "amount": 80, "sense": -14}, both(997, -60))
	require.Greater(t, loud[0], soft[0])
	require.False(t, math.IsNaN(loud[0]))

	// a note that has just been struck, and one that rings on
	struck := func(n int) (l, r []float64) {
		l, r = tone(n, 997, -80), tone(n, 997, -80)
		at := n - int(rate)/8
		copy(l[at:], tone(n-at, 997, -6))
		copy(r[at:], tone(n-at, 997, -6))
		return l, r
	}
	hit, _, _ := reported(t, "transient", nil, struck)
	still, _, _ := reported(t, "transient", nil, both(997, -6))
	require.Greater(t, hit[0], 0.5)
	require.Less(t, still[0], 0.1)
}
