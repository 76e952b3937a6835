package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/param"
	"shoal/internal/project"
)

func follower(tap *project.Tap, depth float64, owner, name string) *project.Mover {
	return &project.Mover{ID: project.NewID(), Name: "Shy", Shape: project.LevelShape, Rate: 1, OneWay: true,
		Follow:  &project.Follow{Tap: tap, Attack: 5, Release: 80, Low: -40, High: 0},
		Targets: []project.MoverTarget{{Owner: owner, Name: name, Depth: depth}}}
}

// steps is silence, then 1, then silence.
func steps(n, from, to int) []float64 {
	x := make([]float64, n)
	for i := from; i < to; i++ {
		x[i] = 1
	}
	return x
}

// A mover that follows a level moves by what an attack and a release make of it, frame by frame, also where the
// one that is moved comes later than what it follows.
func TestALevelMovesAParameter(t *testing.T) {
	for _, late := range []float64{-1, 3} {
		s := newSong(t)
		a, b := s.track("a", ones(60000)), s.track("b", steps(60000, 20000, 30000))
		b.Output = ""
		a.Fader = -10
		if late >= 0 {
			a.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": late})}
		}
		s.doc.Movers = []*project.Mover{follower(&project.Tap{Channel: b.ID, Point: "input"}, -0.4, a.ID, "fader")}
		l, _ := s.print(Job{Channel: "", To: 60000})
		env := 0.0
		level := steps(60000, 20000, 30000)
		for i := range level {
			left := dsp.Decay(0.08, 48000)
			if v := level[i]; v > env {
				left = dsp.Decay(0.005, 48000)
			}
			env = level[i] + (env-level[i])*left
			if i%97 != 0 || i < 1000 {
				continue
			}
			place := param.Fader.Place(-10) - 0.4*max(0, min(1, (dsp.Decibels(env)+40)/40))
			require.InDelta(t, param.Fader.At(place), dsp.Decibels(l[i]/0.25), 0.1, "frame %d, late %g", i, late)
		}
		require.Less(t, dsp.Decibels(l[29000]/0.25), -15.0)
	}
}

// It sounds the same at any block size and in a print.
func TestWhatFollowsSoundsTheSameEverywhere(t *testing.T) {
	s := busy(t)
	a := s.doc.Channels[1]
	tap := &project.Tap{Channel: s.doc.Channels[0].ID, Point: "input"}
	m := follower(tap, 0.3, a.ID, "pan")
	m.Targets = append(m.Targets, project.MoverTarget{Owner: a.Chain.Nodes[0].ID(), Name: "gain4", Depth: 0.2})
	if c, _ := s.doc.Channel(a.ID); len(c.Sends) > 0 {
		m.Targets = append(m.Targets, project.MoverTarget{Owner: c.Sends[0].ID, Name: "level", Depth: -0.3})
	}
	s.doc.Movers = []*project.Mover{m}
	require.NoError(t, s.doc.Validate(EffectInfo))
	want := sameEverywhere(t, s)
	sum := 0.0
	s.doc.Movers = nil
	l, _ := s.print(Job{To: 50000})
	for i := range l {
		sum += math.Abs(l[i] - want[i])
	}
	require.Greater(t, sum, 1.0, "it is heard")
}

func TestALevelThatWouldFollowItselfIsRefused(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(1000))
	a.Chain.Nodes = []*project.Node{stage("trim", nil)}
	s.doc.Movers = []*project.Mover{follower(&project.Tap{Channel: a.ID, Point: "post"}, 0.1, a.Chain.Nodes[0].ID(), "gain")}
	require.ErrorContains(t, s.doc.Validate(EffectInfo), "the signal would feed itself: a > a")
	s.doc.Movers[0].Follow.Tap = &project.Tap{Channel: a.ID, Point: "input"}
	require.NoError(t, s.doc.Validate(EffectInfo))
	s.doc.Movers[0].Follow.High = -40
	require.ErrorContains(t, s.doc.Validate(EffectInfo), "it must rise by 1 dB")
	s.doc.Movers[0].Follow = nil
	require.ErrorContains(t, s.doc.Validate(EffectInfo), "say which")
}
