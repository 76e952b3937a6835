package engine

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// treat gives a clip a treatment of these nodes.
func (s *song) treat(x *project.Clip, nodes ...*project.Node) *project.Treatment {
	t := &project.Treatment{ID: project.NewID(), Chain: project.Chain{Nodes: nodes}}
	s.doc.Treatments = append(s.doc.Treatments, t)
	x.Treatment = t.ID
	return t
}

// What a treated clip gives is what a row with that chain gives, sample for sample; and it comes no later, however late
// the treatment is.
func TestAPieceSoundsLikeARowWithThatChain(t *testing.T) {
	x := noise(rate/4, 5)
	chain := func() []*project.Node {
		return []*project.Node{
			stage("limiter", map[string]float64{"ahead": 3}),
			forked(project.Copies, project.NewPath("dry"), project.NewPath("wet", stage("saturation", map[string]float64{"drive": 20}))),
			stage("delay", map[string]float64{"sync": 1, "time": 77}),
		}
	}
	plain := newSong(t)
	row := plain.track("noise", x)
	row.Chain.Nodes = chain()
	want := plain.heard(len(x))
	s := newSong(t)
	ch := s.track("noise", x)
	s.treat(ch.Clips[0], chain()...)
	same(t, want, s.heard(len(x)), "at the beginning of the song")

	// somewhere else in the song, in the middle of a block: the piece has its own time
	ch.Clips[0].Start = 12345
	got := s.heard(12345 + len(x))
	require.Zero(t, peakOf(got[:12345]))
	same(t, want, got[12345:], "later")
}

func peakOf(x []float64) (p float64) {
	for _, v := range x {
		p = max(p, math.Abs(v))
	}
	return p
}

// A treated piece that is cut goes on as if it were not: both parts run through one strip.
func TestACutThroughATreatedPieceIsNotHeard(t *testing.T) {
	for seed := range uint64(8) {
		r := rand.New(rand.NewPCG(seed, 77))
		s := newSong(t)
		n := rate / 2
		row, x := s.piece("noise", noise(n, seed))
		x.Start, x.Rings = r.Int64N(3000), seed%2 == 0
		s.treat(x, stage("delay", map[string]float64{"feedback": 60}), stage("compressor", nil))
		before := s.heard(2 * n)
		s.change(&project.SplitClips{Rows: []string{row.ID}, At: []int64{x.Start + 5000 + r.Int64N(9000), x.Start + 19999}})
		cut, _ := s.doc.Channel(row.ID)
		require.Len(t, cut.Clips, 3)
		require.Len(t, s.doc.Treatments, 1, "they share it")
		same(t, before, s.heard(2*n), "cut")
	}
}

// Only a piece that rings on is heard behind its end.
func TestAPieceRingsOnIfItIsTold(t *testing.T) {
	s := newSong(t)
	_, x := s.piece("noise", noise(4800, 2))
	s.treat(x, stage("delay", map[string]float64{"sync": 1, "time": 200, "feedback": 50}))
	require.Zero(t, peakOf(s.heard(rate)[4800:]))
	x.Rings = true
	require.Greater(t, peakOf(s.heard(rate)[9600:14400]), 0.01)
	l, _ := s.print(Job{To: 4800, Tail: true})
	require.Greater(t, len(l), 14400, "a print of the row waits for it")
}

// A song that is played in blocks of any size, left and gone back to, gives what a print gives.
func TestAPieceIsHeardAsItIsPrinted(t *testing.T) {
	s := newSong(t)
	n := rate / 2
	_, x := s.piece("noise", noise(n, 3))
	x.Start = 4000
	s.treat(x, stage("limiter", map[string]float64{"ahead": 3}), stage("saturation", nil))
	want := s.heard(4000 + n)
	for _, block := range []int{128, 100, 37} {
		e := s.engine()
		e.Ahead(rate)
		e.Play()
		got, _ := play(t, e, 4000+n, block)
		same(t, want[480:], got[480:], "played")
	}
}

// A hand on a stage of a treatment is heard at once; what the document then says goes on from there, without a break.
func TestATreatmentFollowsTheHand(t *testing.T) {
	s := newSong(t)
	_, x := s.piece("one", full(rate))
	gain := stage("trim", nil)
	s.treat(x, gain)
	e := s.engine()
	e.Play()
	play(t, e, 9600, Block)
	require.True(t, e.Move(gain.ID(), "gain", -20))
	l, _ := play(t, e, 4800, Block)
	require.InDelta(t, 0.1, l[len(l)-1], 1e-6)
	s.change(&project.SetParam{Owner: gain.ID(), Name: "gain", Value: -20})
	require.NoError(t, e.SetDocument(s.doc))
	require.Zero(t, e.plansMade)
	l, _ = play(t, e, 2400, Block)
	for _, v := range l {
		require.InDelta(t, 0.1, v, 1e-6)
	}
	// another stage: the strip goes on with what is in both
	s.change(&project.AddNode{Owner: x.Treatment, Index: 0, Node: stage("trim", map[string]float64{"gain": -6})})
	require.NoError(t, e.SetDocument(s.doc))
	l, _ = play(t, e, 2400, 64)
	for i := 1; i < len(l); i++ {
		require.Less(t, math.Abs(l[i]-l[i-1]), 0.002, "it does not click")
	}
	require.InDelta(t, 0.1*math.Pow(10, -6./20), l[len(l)-1], 1e-6)
}

// Strips are made when the song comes near, and given back when it has passed.
func TestStripsComeAndGo(t *testing.T) {
	s := newSong(t)
	row, x := s.piece("noise", noise(4800, 4))
	tr := s.treat(x, stage("reverb", nil))
	for i := range 100 {
		n := *x
		n.ID, n.Start = project.NewID(), int64(i+1)*rate
		row.Clips = append(row.Clips, &n)
	}
	require.Len(t, s.doc.TreatedBy(tr.ID), 101)
	e := s.engine()
	running := func() (n int) {
		for _, pl := range e.now.players {
			pl.strips(func(t *treated) {
				if t.plan != nil {
					n++
				}
			})
		}
		return n
	}
	e.Play()
	for range 40 {
		e.Ahead(2 * rate)
		require.LessOrEqual(t, running(), 5)
		play(t, e, rate/2, Block)
		require.GreaterOrEqual(t, running(), 1)
	}
}

func TestRenderingThroughStripsAllocatesNothing(t *testing.T) {
	s := newSong(t)
	_, x := s.piece("noise", noise(20*rate, 4))
	s.treat(x, stage("saturation", nil), stage("limiter", nil))
	e := s.engine()
	e.Ahead(rate)
	e.Play()
	play(t, e, rate, Block)
	require.Zero(t, testing.AllocsPerRun(200, func() { e.Render(Block) }))
}

// The levels between the stages of a treatment are told while its piece runs, and not when it has passed.
func TestTheLevelsInATreatmentAreTold(t *testing.T) {
	s := newSong(t)
	row, x := s.piece("full", full(rate))
	tr := s.treat(x, stage("trim", map[string]float64{"gain": -6}), stage("compressor", nil))
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -20})}
	e := s.engine()
	e.RMS(true)
	e.Play()
	e.Ahead(rate)
	before := e.Plan()
	play(t, e, 4096, Block)
	levels := make([]float32, 400)
	e.Levels(levels)
	play(t, e, 4096, Block)
	n := e.Levels(levels)
	layout := e.Layout()
	at := func(kind, owner string) (peak, mean float64) {
		i := slices.IndexFunc(layout, func(p Point) bool { return p.Kind == kind && p.Owner == owner })
		require.GreaterOrEqual(t, i, 0, "%s %s", kind, owner)
		reports := 0
		for _, p := range e.latest().reports {
			reports += len(p.report)
		}
		for _, p := range e.seen[0].plan.reports {
			reports += len(p.report)
		}
		return float64(levels[LevelFirst+2*i]), float64(levels[LevelFirst+2*len(layout)+reports+2*i])
	}
	require.Greater(t, n, LevelFirst+4*len(layout), "the compressor reports what it does")
	for _, want := range []struct {
		kind, owner string
		db          float64
	}{{"in", tr.ID, 0}, {"after", tr.Chain.Nodes[0].ID(), -6}, {"in", row.ID, math.NaN()}} {
		peak, mean := at(want.kind, want.owner)
		if !math.IsNaN(want.db) {
			require.InDelta(t, want.db, peak, 0.1)
			require.InDelta(t, want.db, mean, 0.1)
		}
	}
	require.NotEqual(t, before, 0)
	i := slices.IndexFunc(layout, func(p Point) bool { return p.Report >= 0 })
	require.Equal(t, tr.Chain.Nodes[1].ID(), layout[i].Owner)
	e.GoTo(int64(10 * rate))
	play(t, e, 4*Block, Block)
	e.Ahead(rate)
	e.Plan()
	require.Less(t, len(e.Layout()), len(layout), "it has passed")
	require.Zero(t, testing.AllocsPerRun(50, func() { e.Plan(); e.Levels(levels) }))
}
