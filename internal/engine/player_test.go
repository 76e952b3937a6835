package engine

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// piece makes the only clip of a row an ordinary one, with fades at its edges.
func (s *song) piece(name string, x []float64) (*project.Channel, *project.Clip) {
	ch := s.track(name, x)
	ch.Clips[0].Exact = false
	return ch, ch.Clips[0]
}

func (s *song) change(list ...project.Change) {
	next, _, err := project.Apply(s.doc, list, EffectInfo)
	require.NoError(s.t, err)
	s.doc = next
}

func (s *song) heard(frames int) []float64 {
	l, _ := s.print(Job{To: int64(frames)})
	return l[:frames]
}

// Cuts, wherever and however many, change no sample; joined again neither.
func TestACutIsNotHeard(t *testing.T) {
	for seed := range uint64(20) {
		r := rand.New(rand.NewPCG(seed, 9))
		s := newSong(t)
		n := rate / 2
		row, x := s.piece("noise", noise(n, seed))
		x.Gain, x.FadeIn, x.FadeOut, x.InShape, x.OutBend = -3, int64(r.IntN(2000)), int64(r.IntN(2000)), "power", 0.4
		x.Follows = seed%2 == 0
		if seed%3 == 0 {
			x.Swell = []project.Swell{{At: 100, Gain: -6}, {At: 9000, Gain: 3, Step: true}, {At: 15000, Gain: -20}}
		}
		before := s.heard(n)
		at := make([]int64, 1+r.IntN(5))
		for i := range at {
			at[i] = 2100 + r.Int64N(int64(n)-4300) // within a fade the halves would have half a fade each
		}
		s.change(&project.SplitClips{Rows: []string{row.ID}, At: at})
		cut, _ := s.doc.Channel(row.ID)
		require.Greater(t, len(cut.Clips), 1)
		require.Equal(t, x.ID, cut.Clips[0].ID, "the left part keeps its id")
		same(t, before, s.heard(n), "cut")
		var ids []string
		for _, c := range cut.Clips {
			ids = append(ids, c.ID)
		}
		s.change(&project.JoinClips{IDs: ids})
		joined, _ := s.doc.Channel(row.ID)
		require.Len(t, joined.Clips, 1)
		require.Equal(t, x, joined.Clips[0])
	}
}

// A part that is turned down no longer goes on as before: its edges fade.
func TestWhereTheGainChangesTheEdgesFade(t *testing.T) {
	s := newSong(t)
	n := rate / 10
	row, _ := s.piece("one", full(n))
	s.change(&project.SplitClips{Rows: []string{row.ID}, At: []int64{2000}})
	require.InDelta(t, 1, s.heard(n)[1999], 1e-6)
	cut, _ := s.doc.Channel(row.ID)
	down := -6.0
	s.change(&project.SetClip{ID: cut.Clips[1].ID, Gain: &down})
	got := s.heard(n)
	require.Less(t, math.Abs(got[1999]), 0.01)
	require.Less(t, math.Abs(got[2000]), 0.01)
	require.InDelta(t, math.Pow(10, -6./20), got[3000], 1e-6)
}

// Two clips of constants, the second half a second long, begin 1000 frames before the first ends.
func TestOverlapsSoundAsTheRowSays(t *testing.T) {
	for _, rule := range []string{"", project.OverSum, project.OverCover, project.OverFade} {
		s := newSong(t)
		row, a := s.piece("one", full(4000))
		b := *a
		b.ID, b.Start, b.Gain = "b", 3000, -6
		row.Clips = append(row.Clips, &b)
		row.Overlaps = rule
		got, half := s.heard(7000), math.Pow(10, -6./20)
		require.InDelta(t, 1, got[2000], 1e-6, rule)
		require.InDelta(t, half, got[5000], 1e-6, rule)
		for _, k := range []int{0, 250, 500, 999} {
			at := got[3000+k]
			switch x := (float64(k) + 0.5) / 1000; {
			case rule == project.OverFade: // even power: the squares of both gains sum to 1
				require.InDelta(t, math.Cos(math.Pi/2*x)+half*math.Sin(math.Pi/2*x), at, 1e-5, rule)
			case k < 200 || k > 900: // the edges fade
			case rule == project.OverCover:
				require.InDelta(t, half, at, 1e-6, rule)
			default:
				require.InDelta(t, 1+half, at, 1e-6, rule)
			}
		}
		if rule == project.OverCover { // for one place another rule can hold
			sum := project.OverSum
			s.change(&project.SetClip{ID: "b", Over: &sum})
			require.InDelta(t, 1+half, s.heard(7000)[3500], 1e-6)
		}
	}
}

// A clip that lies within another takes its place; where it ends the other goes on.
func TestAClipWithinAnotherCoversThatPart(t *testing.T) {
	for _, rule := range []string{project.OverCover, project.OverFade} {
		s := newSong(t)
		row, a := s.piece("one", full(9000))
		b := *a
		b.ID, b.Start, b.Frames, b.Gain, b.Over = "b", 3000, 3000, -6, rule
		row.Clips = append(row.Clips, &b)
		got, half := s.heard(9000), math.Pow(10, -6./20)
		require.InDelta(t, 1, got[2500], 1e-6)
		require.InDelta(t, half, got[4500], 1e-6)
		require.InDelta(t, 1, got[6500], 1e-6)
		for i := 3000; rule == project.OverFade && i < 3480; i++ { // it never dips below what either has
			require.Greater(t, got[i], half-1e-6)
		}
	}
}

func TestASwellStepsOnItsFrameAndGoesStraightInDecibels(t *testing.T) {
	s := newSong(t)
	_, x := s.piece("one", full(9000))
	x.Offset, x.Frames, x.Start = 1000, 8000, 500
	x.Swell = []project.Swell{{At: 2000, Gain: -12}, {At: 4000, Gain: 0, Step: true}, {At: 6000, Gain: -24}, {At: 7000, Gain: -60}}
	got := s.heard(9000)
	db := func(frame int) float64 { return 20 * math.Log10(math.Abs(got[frame-1000+500])) }
	for at, want := range map[int]float64{1500: -12, 2500: -9, 3000: -6, 4000: 0, 5999: 0, 6000: -24} {
		require.InDelta(t, want, db(at), 1e-4, at)
	}
	require.Zero(t, got[7500-1000+500], "at -60 dB and below it is silent")
}

// Fades of opposite bends are even as they were.
func TestFadesAreEvenHoweverTheyAreBent(t *testing.T) {
	for _, bend := range []float64{-1, -0.3, 0, 0.7, 1} {
		for _, shape := range []string{project.ShapeS, project.ShapeGain, project.ShapePower} {
			in, out := project.Fade{Shape: shape, Bend: bend}, project.Fade{Shape: shape, Bend: -bend}
			last := -1e-9
			for x := 0.; x <= 1; x += 1. / 64 {
				a, b := in.At(x), out.At(1-x)
				require.GreaterOrEqual(t, a, last, "a fade in rises")
				last = a
				sum := a + b
				if shape == project.ShapePower {
					sum = a*a + b*b
				}
				require.InDelta(t, 1, sum, 1e-12, "%s bent by %g at %g", shape, bend, x)
			}
		}
	}
}

// Editing clips swaps the player's list: nothing is compiled, and the new one fades in.
func TestEditedClipsCompileNothing(t *testing.T) {
	s := newSong(t)
	n := rate
	row, x := s.piece("one", full(n))
	e := s.engine()
	e.Play()
	play(t, e, 9600, Block)
	down := -20.0
	s.change(&project.SetClip{ID: x.ID, Gain: &down}, &project.SplitClips{Rows: []string{row.ID}, At: []int64{30000}})
	require.NoError(t, e.SetDocument(s.doc))
	require.Zero(t, e.plansMade)
	l, _ := play(t, e, 4800, 100)
	for i := 1; i < len(l); i++ {
		require.Less(t, math.Abs(l[i]-l[i-1]), 0.004, "it does not click")
	}
	require.InDelta(t, 0.1, l[len(l)-1], 1e-4)
}

// A song from which clips are taken ends sooner.
func TestTheEndOfTheSongFollowsItsClips(t *testing.T) {
	s := newSong(t)
	_, x := s.piece("one", full(3*rate))
	e := s.engine()
	require.EqualValues(t, 3*rate, e.now.end)
	short := int64(2*rate + 100)
	s.change(&project.SetClip{ID: x.ID, Frames: &short})
	require.NoError(t, e.SetDocument(s.doc))
	require.EqualValues(t, short, e.now.end)
}

// full is a sound that stands at full scale.
func full(n int) []float64 {
	x := ones(n)
	for i := range x {
		x[i] = 1
	}
	return x
}

func TestARowThatComesWhileTheSongPlaysIsHeard(t *testing.T) {
	s := newSong(t)
	s.track("a", make([]float64, rate))
	e := s.engine()
	e.Play()
	play(t, e, 4096, Block)
	came := newSong(t)
	came.doc, came.lib = project.Clone(s.doc), s.lib
	came.track("b", noise(rate, 2))
	require.NoError(t, e.SetDocument(came.doc))
	l, _ := play(t, e, 4096, Block)
	require.Greater(t, dsp.Peak(l, l), 0.05)
}
