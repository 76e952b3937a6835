package engine

import (
	"math/rand/v2"
	"os"
	"runtime"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// The last stage of a fork's last path moves to just behind the fork: nothing is added or taken away, only the way
// of the signal is another.
func TestAStageThatLeavesAForkIsHeardThere(t *testing.T) {
	s := newSong(t)
	ch := s.track("noise", noise(rate/4, 3))
	louder := stage("trim", map[string]float64{"gain": 6})
	fork := forked(project.Copies, project.NewPath("dry"), project.NewPath("wet", louder))
	ch.Chain.Nodes = []*project.Node{fork}
	e := s.engine()
	moved, _, err := project.Apply(s.doc, []project.Change{&project.MoveNode{ID: louder.ID(), Owner: ch.ID, Index: 1}}, EffectInfo)
	require.NoError(t, err)
	takesAsNew(t, s, e, []*project.Project{moved})
}

// Two forks in a row and one in the other hold the same nodes in the same order.
func TestAForkThatMovesIntoAnotherIsHeardThere(t *testing.T) {
	s := newSong(t)
	ch := s.track("noise", noise(rate/4, 4))
	inner := forked(project.Copies, project.NewPath("a"), project.NewPath("b"))
	last := project.NewPath("wet")
	ch.Chain.Nodes = []*project.Node{
		forked(project.Copies, project.NewPath("dry", stage("trim", map[string]float64{"gain": -9})), last),
		inner,
	}
	e := s.engine()
	moved, _, err := project.Apply(s.doc, []project.Change{&project.MoveNode{ID: inner.ID(), Owner: last.ID, Index: 0}}, EffectInfo)
	require.NoError(t, err)
	takesAsNew(t, s, e, []*project.Project{moved})
}

// takesAsNew gives an engine revision after revision and requires that it sounds like a new one on the last.
func takesAsNew(t *testing.T, s *song, e *Engine, revisions []*project.Project) {
	t.Helper()
	settle := func() {
		for range 40 {
			require.Positive(t, e.Render(Block))
		}
	}
	for _, doc := range revisions {
		require.NoError(t, e.SetDocument(doc))
		settle()
	}
	last := revisions[len(revisions)-1]
	e.Stop()
	e.Stop()
	fresh, err := New(last, s.lib)
	require.NoError(t, err)
	for _, x := range []*Engine{e, fresh} {
		x.GoTo(0)
		x.Play()
	}
	wantL, wantR := play(t, fresh, rate/8, Block)
	gotL, gotR := play(t, e, rate/8, Block)
	same(t, wantL, gotL, "left")
	same(t, wantR, gotR, "right")
}

// drawnSong is one for changes that are drawn by chance: forks, a return, sections.
func drawnSong(t *testing.T) *song {
	s := newSong(t)
	a, b := s.track("one", noise(rate/4, 1)), s.track("two", sine(rate/4, 440, -12))
	s.ret("hall")
	a.Chain.Nodes = []*project.Node{
		stage("trim", nil),
		forked(project.Copies, project.NewPath("dry"), project.NewPath("wet", stage("reverb", nil))),
	}
	b.Chain.Nodes = []*project.Node{stage("trim", nil), stage("limiter", nil)}
	s.doc.Sections = []project.Section{{ID: project.NewID(), Name: "One"}, {ID: project.NewID(), Name: "Two", Tick: 9600}}
	return s
}

// SHOAL_LONG=n tries n songs in place of a few.
func TestAnEngineThatTookEveryRevisionSoundsLikeANewOne(t *testing.T) {
	songs := 12
	if n, err := strconv.Atoi(os.Getenv("SHOAL_LONG")); err == nil {
		songs = n
	}
	changes := 0
	for seed := range songs {
		r := rand.New(rand.NewPCG(uint64(seed), 31))
		s := drawnSong(t)
		e := s.engine()
		doc, revisions := s.doc, []*project.Project{}
		for len(revisions) < 25 {
			next, _, err := project.Apply(doc, []project.Change{projecttest.RandomChange(r, doc)}, EffectInfo)
			if err != nil {
				continue
			}
			doc = next
			bring(s.lib, doc)
			revisions = append(revisions, doc)
		}
		changes += len(revisions)
		t.Run(strconv.Itoa(seed), func(t *testing.T) { takesAsNew(t, s, e, revisions) })
	}
	require.GreaterOrEqual(t, changes, 25*songs)
}

// bring puts noise in the place of all sound that a document has brought.
func bring(lib *pages.Library, doc *project.Project) {
	for _, a := range doc.Audio {
		if _, ok := lib.Find(a.Hash); ok {
			continue
		}
		x := lib.Sound(a.Hash, a.Frames, a.Channels)
		for i := range x.Count() {
			n := min(pages.Frames, int(a.Frames)-i*pages.Frames)
			p := make(pages.Page, a.Channels)
			for c := range p {
				p[c] = make([]float32, n)
				for k, v := range noise(n, uint64(7+c)) {
					p[c][k] = float32(v)
				}
			}
			lib.Put(a.Hash, i, p)
		}
	}
}

// takenIn is how many bytes a change takes until it is heard.
func takenIn(t *testing.T, e *Engine, c project.Change) uint64 {
	doc, _, err := project.Apply(e.Document(), []project.Change{c}, EffectInfo)
	require.NoError(t, err)
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	require.NoError(t, e.SetDocument(doc))
	runtime.ReadMemStats(&after)
	return after.TotalAlloc - before.TotalAlloc
}

// A reverb is most of what this plan holds: a value that is set elsewhere makes none of that anew, a stage that is added does.
func TestAValueMakesNoProcessorAnew(t *testing.T) {
	s := newSong(t)
	ch := s.track("noise", noise(rate/4, 5))
	ch.Chain.Nodes = []*project.Node{stage("reverb", nil)}
	e := s.engine()
	value := takenIn(t, e, &project.SetParam{Owner: ch.ID, Name: "fader", Value: -3})
	require.Greater(t, takenIn(t, e, &project.AddStage{Owner: ch.ID, Effect: "trim", ID: project.NewID()}), 5*value)
	require.Equal(t, 1, e.plansMade)
}

// The same in the treatment of a clip that sounds.
func TestAValueOfATreatmentMakesNoProcessorAnew(t *testing.T) {
	s := newSong(t)
	ch := s.track("noise", noise(rate, 6))
	hall, trim := stage("reverb", nil), stage("trim", nil)
	s.treat(ch.Clips[0], hall, trim)
	e := s.engine()
	e.Play()
	require.Positive(t, e.Render(Block))
	value := takenIn(t, e, &project.SetParam{Owner: trim.ID(), Name: "gain", Value: -3})
	require.Greater(t, takenIn(t, e, &project.RemoveNode{ID: trim.ID()}), 4*value)
}
