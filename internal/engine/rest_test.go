package engine

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// phrases is a track that plays for a quarter of a second, is silent for seven, and plays again.
func phrases(t *testing.T) (*song, *project.Channel) {
	s := newSong(t)
	x := make([]float64, 8*48000)
	copy(x, noise(12000, 5))
	copy(x[7*48000+77:], noise(20000, 6))
	a := s.track("a", x)
	a.Chain.Nodes = []*project.Node{
		stage("equaliser", map[string]float64{"gain3": 4}),
		stage("compressor", nil),
		stage("phaser", nil),
		stage(
			"delay",
			map[string]float64{"note": 2, "feedback": 20},
		),
		stage("limiter", map[string]float64{"input": 6, "release": 20}),
		stage("spindown", nil),
	}
	space := s.ret("space")
	space.Chain.Nodes = []*project.Node{stage("reverb", map[string]float64{"decay": 0.3})}
	space.Chain.Nodes[0].Stage.Mix = 100
	a.Sends = []*project.Send{{ID: project.NewID(), To: space.ID, Level: -6}}
	return s, a
}

// restless makes every stage of an engine run always.
func (e *Engine) restless() *Engine {
	for _, st := range e.now.stages {
		k := *st.kind
		k.Rests = nil
		st.kind = &k
	}
	return e
}

// resting counts the stages that rest now.
func (e *Engine) resting() (n int) {
	for _, st := range e.now.stages {
		if st.rest.begun {
			n++
		}
	}
	return n
}

func TestStagesRestInSilenceAndNobodyHearsIt(t *testing.T) {
	s, _ := phrases(t)
	always, resting := s.engine().restless(), s.engine()
	always.Play()
	resting.Play()
	wantL, wantR := play(t, always, 7*48000, Block)
	l, r := play(t, resting, 7*48000, Block)
	require.Zero(t, always.resting())
	require.Equal(t, 6, resting.resting(), "all but the spin-down, which remembers what it heard")
	moreL, moreR := play(t, always, 12000, Block)
	l2, r2 := play(t, resting, 12000, Block)
	require.Zero(t, resting.resting(), "the second phrase wakes them")
	require.Less(t, worst(append(wantL, moreL...), append(l, l2...)), -120.0)
	require.Less(t, worst(append(wantR, moreR...), append(r, r2...)), -120.0)
}

func TestRestDoesNotDependOnBlocks(t *testing.T) {
	s, _ := phrases(t)
	e := s.engine()
	e.Play()
	want, _ := play(t, e, 8*48000, Block)
	for _, block := range []int{33, 100} {
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 8*48000, block)
		require.Less(t, worst(want, l), -390.0, "blocks of %d", block) // far below that, states are zeroed by the block
	}
	l, _ := s.print(Job{To: 8 * 48000})
	same(t, want, l)
}

// Whoever sets a control of a stage that rests finds it there when the music comes back.
func TestAHandReachesAStageThatRests(t *testing.T) {
	s, a := phrases(t)
	a.Sends = nil
	a.Chain.Nodes = []*project.Node{stage("trim", nil), stage("equaliser", nil)}
	e := s.engine()
	e.Play()
	play(t, e, 6*48000, Block)
	require.Equal(t, 3, e.resting(), "and the reverb, to which nothing goes")
	trim := a.Chain.Nodes[0].Stage.ID
	require.True(t, e.Move(trim, "gain", -20))
	require.True(t, e.Move(trim, "polarity", 3))
	play(t, e, 48000, Block)
	l, _ := play(t, e, 12000, Block)
	want := make([]float64, 12000)
	copy(want[77:], noise(20000, 6))
	for i := range want {
		want[i] *= -0.1
	}
	require.Less(t, worst(want, l), -120.0)
}

// What another signal drives does not rest while that one plays.
func TestAKeyKeepsAStageAwake(t *testing.T) {
	s, a := phrases(t)
	drum := s.track("drum", noise(8*48000, 9))
	c := stage("compressor", map[string]float64{"threshold": -50, "release": 3000})
	c.Stage.Key = &project.Tap{Channel: drum.ID, Point: "input"}
	a.Chain.Nodes = []*project.Node{c}
	e := s.engine()
	e.Play()
	play(t, e, 4*48000, Block)
	require.False(t, e.now.stages[c.Stage.ID].rest.begun)
}
