package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

func top(x []float64) (m float64) {
	for _, v := range x {
		m = math.Max(m, math.Abs(v))
	}
	return m
}

// Above +12 dBFS the output is muted while the song runs on, the row that caused it is named, it can be heard 20 dB
// down, and it comes back by itself when it has calmed down. A print is never muted.
func TestWhatIsFarTooLoudIsMutedAndSaysWhy(t *testing.T) {
	s := newSong(t)
	quiet, loud := s.track("quiet", sine(8*rate, 300, -20)), s.track("loud", sine(8*rate, 440, 0))
	loud.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 14})}
	e := s.engine()
	_, on := e.Trip()
	require.False(t, on)
	e.Play()
	play(t, e, 4800, Block)
	l, _ := play(t, e, 4800, Block)
	require.Zero(t, top(l))
	require.Equal(t, Playing, e.State(), "the song runs on")
	trip, on := e.Trip()
	require.True(t, on)
	require.Equal(t, loud.ID, trip.Row)
	require.NotEqual(t, quiet.ID, trip.Row)
	require.InDelta(t, 14.1, trip.Peak, 0.3)

	e.HearAnyway(true)
	l, _ = play(t, e, 9600, Block)
	require.InDelta(t, 0.1*(math.Pow(10, 14.0/20)+0.1), top(l[4800:]), 0.02)
	trip, _ = e.Trip()
	require.True(t, trip.Eased)

	doc, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: loud.ID, Name: "fader", Value: -20}}, EffectInfo)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(doc))
	play(t, e, 4*rate, Block)
	_, on = e.Trip()
	require.False(t, on, "it has calmed down")
	l, _ = play(t, e, 4800, Block)
	require.InDelta(t, math.Pow(10, -6.0/20)+0.1, top(l), 0.02)

	printed, _ := s.print(Job{To: 9600})
	require.Greater(t, top(printed), 4.0)
}

// Beyond its end a loop would never be reached: playing begins in it, and a loop that is set behind the playhead takes
// it there.
func TestALoopIsEnteredFromBeyondIt(t *testing.T) {
	s := newSong(t)
	s.track("a", noise(4*rate, 5))
	e := s.engine()
	e.Loop(10000, 30000)
	e.GoTo(50000)
	e.Play()
	play(t, e, 4800, Block)
	require.Less(t, e.Position(), int64(30000))
	require.GreaterOrEqual(t, e.Position(), int64(10000))

	e = s.engine()
	e.GoTo(60000)
	e.Play()
	play(t, e, 4800, Block)
	e.Loop(10000, 30000)
	play(t, e, 4800, Block)
	require.Less(t, e.Position(), int64(30000))
}

// A song without clips has no end to stop at.
func TestAnEmptySongGoesOn(t *testing.T) {
	e := newSong(t).engine()
	e.StopAtEnd(true)
	e.Play()
	play(t, e, 4*rate, Block)
	require.Equal(t, Playing, e.State())
}

// At its end the song stops and its tails ring on, if that is asked for; else it goes on. Play then begins at the
// beginning.
func TestTheSongStopsAtItsEnd(t *testing.T) {
	for _, stops := range []bool{true, false} {
		s := newSong(t)
		a := s.track("a", sine(rate*3, 440, -12))
		a.Chain.Nodes = []*project.Node{stage("reverb", map[string]float64{"decay": 2})}
		end := s.doc.End()
		e := s.engine()
		e.StopAtEnd(stops)
		e.GoTo(end - 4800)
		e.Play()
		play(t, e, 9600, Block)
		if !stops {
			require.Equal(t, Playing, e.State())
			require.Greater(t, e.Position(), end)
			continue
		}
		require.Equal(t, Stopped, e.State())
		require.InDelta(t, end, e.Position(), Block)
		l, _ := play(t, e, 4800, Block)
		require.Greater(t, top(l), 0.001, "the tail rings")
		e.Play()
		play(t, e, 4800, Block)
		require.Less(t, e.Position(), int64(9600))
		e.Loop(0, 9600) // a loop holds the song within it
		play(t, e, 4*rate, Block)
		require.Equal(t, Playing, e.State())
	}
}

// Turned down too little, it is said how high it goes now, and turning it down once more is enough.
func TestTurnedDownTooLittleItSaysHowHighItGoesNow(t *testing.T) {
	s := newSong(t)
	loud := s.track("loud", sine(30*rate, 440, 0))
	loud.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 20})}
	e := s.engine()
	e.Play()
	play(t, e, rate, Block)
	trip, on := e.Trip()
	require.True(t, on)
	require.InDelta(t, 20, trip.Peak, 0.1)
	require.InDelta(t, -26, trip.Fader, 0.2, "with room above for what is louder")

	turn := func(db float64) {
		doc, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: loud.ID, Name: "fader", Value: db}}, EffectInfo)
		require.NoError(t, err)
		s.doc = doc
		require.NoError(t, e.SetDocument(doc))
	}
	turn(-12) // still 8 dB over
	play(t, e, 7*rate, Block)
	trip, on = e.Trip()
	require.True(t, on, "it has not calmed down")
	require.InDelta(t, 8, trip.Peak, 0.1)
	require.InDelta(t, -26, trip.Fader, 0.2)
	turn(trip.Fader)
	play(t, e, 4*rate, Block)
	_, on = e.Trip()
	require.False(t, on)
}

// Turned down at once, by what has been heard until then, a song that grows by ten decibels is heard.
func TestTurnedDownByItsBeginningItIsHeardThoughItGrows(t *testing.T) {
	s := newSong(t)
	x := sine(30*rate, 440, -10)
	for i := rate; i < len(x); i++ {
		x[i] *= math.Pow(10, 10.0/20)
	}
	loud := s.track("loud", x)
	loud.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 24})}
	e := s.engine()
	e.Play()
	play(t, e, rate/2, Block)
	trip, on := e.Trip()
	require.True(t, on)
	doc, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: loud.ID, Name: "fader", Value: trip.Fader}}, EffectInfo)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(doc))
	play(t, e, 5*rate, Block)
	_, on = e.Trip()
	require.False(t, on)
	l, _ := play(t, e, rate, Block)
	require.InDelta(t, math.Pow(10, 4.0/20), top(l), 0.05)
}
