package engine

import (
	"runtime"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// What a revision sounds like does not depend on whether it was prepared, nor on how long the song went on in between.
func TestAPreparedRevisionIsHeardAsOneThatWasNot(t *testing.T) {
	s, _, left, touched := echoing(t)
	heard := *left.Clips[0]
	heard.ID = project.NewID()
	touched.Clips = []*project.Clip{&heard}
	trim := stage("trim", map[string]float64{"gain": -6})
	edits := map[string][]project.Change{
		"a stage comes":     {&project.AddNode{Owner: touched.ID, Node: trim}},
		"a value":           {&project.SetParam{Owner: trim.Stage.ID, Name: "gain", Value: -3}},
		"latency":           {&project.AddNode{Owner: touched.ID, Index: 1, Node: stage("limiter", nil)}},
		"a row comes":       {&project.AddChannel{Channel: project.NewChannel(project.Track, "new", s.main().ID)}},
		"clips":             {&project.RemoveClip{ID: touched.Clips[0].ID}},
		"the stage goes":    {&project.RemoveNode{ID: trim.ID()}},
		"the whole row too": {&project.RemoveChannel{ID: touched.ID}},
	}
	with, without := s.engine(), s.engine()
	with.Play()
	without.Play()
	for _, what := range []string{"a stage comes", "a value", "latency", "a row comes", "clips", "the stage goes", "the whole row too"} {
		same(t, second(play(t, without, 3000, 128)), second(play(t, with, 3000, 128)), "before", what)
		s.change(edits[what]...)
		with.Prepare(s.doc)
		same(t, second(play(t, without, 700, 50)), second(play(t, with, 700, 50)), "while it waits,", what)
		if p := with.prepared; p != nil && p.plan != nil {
			require.NoError(t, with.SetDocument(s.doc))
			require.Same(t, p.plan, with.next, what)
		} else {
			require.NoError(t, with.SetDocument(s.doc))
		}
		require.Nil(t, with.prepared)
		require.NoError(t, without.SetDocument(s.doc))
		require.Equal(t, without.next == nil, with.next == nil, what)
		out := second(play(t, with, 4000, 128))
		same(t, second(play(t, without, 4000, 128)), out, "after", what)
		require.Greater(t, power(out), 1e-6, what)
	}
}

// What was prepared of something that no longer holds is thrown away.
func TestWhatWasPreparedForSomethingElseIsNotUsed(t *testing.T) {
	for what, between := range map[string]func(s *song, e *Engine, first string){
		"nothing": func(*song, *Engine, string) {},
		"another revision": func(s *song, e *Engine, _ string) {
			other, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: s.main().ID, Name: "fader", Value: -3}}, EffectInfo)
			require.NoError(t, err)
			require.NoError(t, e.SetDocument(other))
			play(t, e, 2000, 128) // its fade
		},
		"something else is listened to": func(_ *song, e *Engine, first string) {
			require.NoError(t, e.Listen(Listening{Node: first}))
			play(t, e, 2000, 128)
		},
		"a stage is silenced": func(_ *song, e *Engine, first string) { e.now.stages[first].broken = true },
	} {
		s, _, left, touched := echoing(t)
		e := s.engine()
		e.Play()
		play(t, e, 3000, 128)
		s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)})
		e.Prepare(s.doc)
		require.NotNil(t, e.prepared, what)
		p := e.prepared.plan
		between(s, e, left.Chain.Nodes[0].Stage.ID)
		require.NoError(t, e.SetDocument(s.doc))
		require.Equal(t, what == "nothing", e.next == p, what)
	}
}

// While a fade is under way nothing is prepared: another plan will play when its turn comes.
func TestNothingIsPreparedForAPlanThatIsLeaving(t *testing.T) {
	s, _, _, touched := echoing(t)
	e := s.engine()
	e.Play()
	play(t, e, 3000, 128)
	for range 2 {
		s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)})
		e.Prepare(s.doc)
		require.Equal(t, e.next == nil, e.prepared != nil)
		require.NoError(t, e.SetDocument(s.doc))
	}
}

// What takes memory is made when it is prepared; to hear it then takes next to none.
func TestAPreparedRevisionTakesNoMemoryWhenItIsHeard(t *testing.T) {
	s, _, _, touched := echoing(t)
	e := s.engine()
	e.Play()
	play(t, e, 3000, 128)
	s.change(&project.AddNode{Owner: touched.ID, Node: stage("delay", nil)})
	e.Prepare(s.doc)
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	require.NoError(t, e.SetDocument(s.doc))
	runtime.ReadMemStats(&after)
	require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(200_000), "bytes")
}
