package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// struckAt are the frames at which clicks begin in what a listener hears.
func struckAt(x []float64) (at []int) {
	quiet := 10000
	for i, v := range x {
		if math.Abs(v) < 1e-9 {
			quiet++
			continue
		}
		if quiet > 2000 {
			at = append(at, i)
		}
		quiet = 0
	}
	return at
}

// The click falls on the song's beats, also where tempo and meter change and however late the plan is, and is in no print.
func TestTheClickFallsOnTheBeats(t *testing.T) {
	s := newSong(t)
	a := s.track("a", make([]float64, 400000))
	a.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": 3})}
	s.doc.Tempo = []project.Tempo{{Tick: 0, BPM: 113}, {Tick: 960 * 5, BPM: 90}}
	s.doc.Meter = []project.Meter{{Tick: 0, Beats: 3, Unit: 4}, {Tick: 960 * 6, Beats: 6, Unit: 8}}
	e := s.engine()
	e.Click(true, -6)
	e.Play()
	l, _ := play(t, e, 300000, 100)
	clock := s.doc.Clock()
	var want []int
	for tick := int64(0); clock.Frame(tick) < 299000; {
		want = append(want, int(clock.Frame(tick)))
		if tick < 960*6 {
			tick += 960
		} else {
			tick += 480
		}
	}
	got := struckAt(l)
	require.Len(t, got, len(want))
	for i := range want {
		require.InDelta(t, want[i], got[i], 1.1, "beat %d: a stroke begins at nothing, one frame later it is heard", i)
	}
	printed, _ := s.print(Job{To: 300000})
	require.Zero(t, dsp.Highest(printed))
	e.Click(false, -6)
	l, _ = play(t, e, 60000, 100)
	require.Empty(t, struckAt(l[4000:]))
}

// Counting in takes so many bars, in which the song stands; then it begins. Stop calls it off.
func TestCountingIn(t *testing.T) {
	s := newSong(t) // 120 in 4/4: a beat is half a second
	s.track("a", noise(100000, 3))
	e := s.engine()
	e.CountIn(1)
	e.Click(false, -6)
	e.Play()
	require.Equal(t, 4, e.Counting())
	require.Equal(t, Playing, e.State())
	l, _ := play(t, e, 2*rate, Block)
	require.Equal(t, []int{1, 24001, 48001, 72001}, struckAt(l))
	require.Zero(t, e.Position())
	require.Zero(t, e.Counting())
	heard, _ := play(t, e, 5000, Block)
	fresh := s.engine()
	fresh.Play()
	want, _ := play(t, fresh, 5000, Block)
	require.Less(t, worst(want, heard), -140.0, "it begins as it would have begun at once")

	e.Stop()
	e.CountIn(2)
	e.Play()
	play(t, e, 1000, Block)
	e.Stop()
	require.Equal(t, Stopped, e.State())
	e.Play()
	require.Zero(t, e.Counting(), "it counts once")
}
