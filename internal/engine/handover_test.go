package engine

import (
	"runtime"
	"testing"
	"weak"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// echoing is a song of a row that no edit touches, with an echo, and of a silent one that they do, before a hall that both feed.
func echoing(t *testing.T) (s *song, hall, left, touched *project.Channel) {
	s = newSong(t)
	hall = s.ret("hall")
	hall.Chain.Nodes = []*project.Node{stage("reverb", nil)}
	left, touched = s.track("left alone", noise(rate, 1)), s.track("touched", noise(10, 1))
	touched.Clips = nil
	echo := stage("delay", map[string]float64{"feedback": 60})
	echo.Stage.Mix = 50
	left.Chain.Nodes = []*project.Node{stage("compressor", nil), echo, stage("limiter", nil)}
	touched.Chain.Nodes = []*project.Node{stage("delay", nil)}
	for _, ch := range []*project.Channel{left, touched} {
		ch.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -6}}
	}
	return s, hall, left, touched
}

func (e *Engine) procOf(n *project.Node) effect.Processor { return e.latest().stages[n.Stage.ID].proc }

// What an edit leaves alone is heard as without it, sample for sample, also when a hand moves something of it while one plan
// fades into the other.
func TestWhatAnEditLeavesAloneIsHandedOverAndHeardAsWithoutIt(t *testing.T) {
	s, hall, left, touched := echoing(t)
	with, without := s.engine(), s.engine()
	added := stage("trim", nil)
	edits := [][]project.Change{
		{&project.AddNode{Owner: touched.ID, Node: added}},
		{&project.AddChannel{Channel: project.NewChannel(project.Track, "new", s.main().ID)}},
		{&project.RemoveNode{ID: added.ID()}},
	}
	with.Play()
	without.Play()
	for i, edit := range edits {
		same(t, second(play(t, without, 7000, 128)), second(play(t, with, 7000, 128)), "before edit", i)
		echo, room := with.procOf(left.Chain.Nodes[1]), with.procOf(hall.Chain.Nodes[0])
		s.change(edit...)
		require.NoError(t, with.SetDocument(s.doc))
		require.NotNil(t, with.next, "another plan")
		require.Same(t, echo, with.procOf(left.Chain.Nodes[1]))
		require.Equal(t, i == 1, room == with.procOf(hall.Chain.Nodes[0]), "what a touched row feeds is run in both")
		for _, e := range []*Engine{with, without} {
			e.Move(left.Chain.Nodes[1].Stage.ID, "mix", float64(40+20*i))
		}
		same(t, second(play(t, without, 200, 50)), second(play(t, with, 200, 50)), "in the fade of", i)
		for _, e := range []*Engine{with, without} {
			e.Move(left.Chain.Nodes[0].Stage.ID, "threshold", float64(-20-5*i))
		}
	}
	heard := second(play(t, with, 20000, 128))
	same(t, second(play(t, without, 20000, 128)), heard)
	require.Greater(t, power(heard), 1e-4)
}

func second(_, r []float64) []float64 { return r }

// A plan that is replaced before its fade has ended, by Stop and Play, or behind which the next already waits, is taken over whole.
func TestAFadeThatIsCutShortHandsOverToo(t *testing.T) {
	s, _, left, touched := echoing(t)
	e := s.engine()
	e.Play()
	play(t, e, 5000, 128)
	for range 3 {
		s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)})
		require.NoError(t, e.SetDocument(s.doc))
	}
	play(t, e, 100, 100)
	e.Stop()
	e.GoTo(0)
	require.Nil(t, e.next.lead(left))
	play(t, e, 9000, 128)
	e.Play()
	l, _ := play(t, e, 9000, 128)
	require.Nil(t, e.now.lead(left))
	require.Greater(t, power(l), 1e-6)
}

// A plan that has been replaced is let go: each holds megabytes, and a session is edited for hours.
func TestAPlanThatWasReplacedIsLetGo(t *testing.T) {
	s, _, _, touched := echoing(t)
	e := s.engine()
	e.Play()
	for i := range 3 {
		play(t, e, 2000, 128)
		was := weak.Make(e.now)
		s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)})
		if i > 0 {
			e.Prepare(s.doc)
		}
		require.NoError(t, e.SetDocument(s.doc))
		play(t, e, 2000, 128)
		require.Nil(t, e.next)
		runtime.GC()
		require.True(t, was.Value() == nil, "after edit %d", i)
	}
}

// lead is the stage that a row's first still follows; nil, where there is none, or no plan.
func (p *plan) lead(row *project.Channel) *stageStep {
	if p == nil {
		return nil
	}
	return p.stages[row.Chain.Nodes[0].Stage.ID].lead
}

func power(x []float64) (sum float64) {
	for _, v := range x {
		sum += v * v / float64(len(x))
	}
	return sum
}

// What a value moves, however small, is not what came out before: then nothing is handed over.
func TestNothingIsHandedOverWhereSomethingElseComesIn(t *testing.T) {
	s, _, left, touched := echoing(t)
	e := s.engine()
	e.Play()
	play(t, e, 3000, 128)
	echo := e.procOf(left.Chain.Nodes[1])
	s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)}, &project.SetParam{Owner: left.Chain.Nodes[0].Stage.ID, Name: "threshold", Value: -30})
	require.NoError(t, e.SetDocument(s.doc))
	require.NotSame(t, echo, e.procOf(left.Chain.Nodes[1]))
}

// The echoes of the rows that an edit leaves alone are not made again: three megabytes each.
func TestAnEditDoesNotMakeAWholeSessionAnew(t *testing.T) {
	s := newSong(t)
	for range 12 {
		s.track("left alone", noise(1000, 1)).Chain.Nodes = []*project.Node{stage("delay", nil)}
	}
	touched := s.track("touched", noise(1000, 1))
	e := s.engine()
	e.Play()
	play(t, e, 1000, 128)
	s.change(&project.AddNode{Owner: touched.ID, Node: stage("trim", nil)})
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	require.NoError(t, e.SetDocument(s.doc))
	runtime.ReadMemStats(&after)
	require.Less(t, (after.TotalAlloc-before.TotalAlloc)>>20, uint64(4), "megabytes")
}
