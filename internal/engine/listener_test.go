package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// withTrial adds a trial with the given nodes to a channel.
func withTrial(ch *project.Channel, letter string, nodes ...*project.Node) string {
	t := &project.Trial{ID: project.NewID(), Letter: letter, Chain: project.Chain{Nodes: nodes}}
	ch.Trials = append(ch.Trials, t)
	return t.ID
}

func TestTrialsMeetInTimeAndAreChosenWithoutAClick(t *testing.T) {
	s := newSong(t)
	x := sine(96000, 200, -12)
	a := s.track("a", x)
	a.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 0})}
	// the trial is late by itself: both must come out at the same time
	b := withTrial(a, "B", stage("limiter", map[string]float64{"ahead": 3}), stage("trim", map[string]float64{"gain": -6}))
	e := s.engine()
	e.Play()
	lag := 0 // Play drops the latency at the start
	l, _ := play(t, e, 24000, 128)
	for i := 4000; i < 24000; i++ {
		require.InDelta(t, float64(float32(x[i-lag])), l[i], 1e-9, "the chain, frame %d", i)
	}
	e.Trial(a.ID, b, map[string]float64{b: 6})
	m, _ := play(t, e, 24000, 128)
	for i := 600; i < 24000; i++ { // 6 dB softer, matched by 6 dB
		require.InDelta(t, x[24000+i], m[i], 1e-5, "the trial, frame %d", i)
	}
	for i := 1; i < 600; i++ {
		require.Less(t, math.Abs(m[i]-m[i-1]), 0.0085)
	}
	// a print knows only the chain
	p, _ := s.print(Job{To: 20000})
	for i := range p {
		require.InDelta(t, float64(float32(x[i])), p[i], 1e-9)
	}
}

func TestListeningToAPointAndToWhatAStageChanges(t *testing.T) {
	s := newSong(t)
	x := noise(96000, 4)
	a := s.track("a", x)
	a.Fader = -6
	a.Chain.Nodes = []*project.Node{
		stage(
			"limiter",
			map[string]float64{"ceiling": 0},
		),
		stage("trim", map[string]float64{"gain": -12}),
		stage("trim", map[string]float64{"polarity": 3}),
	}
	s.track("b", noise(96000, 9)) // not heard
	e := s.engine()
	e.Play()
	play(t, e, 4800, 128)
	hear := func(p Listening) ([]float64, int64) {
		require.NoError(t, e.Listen(p))
		play(t, e, 4800, 128)
		at := e.Position()
		l, _ := play(t, e, 4800, 128)
		return l, at
	}
	g := dsp.Gain(-6)
	l, at := hear(Listening{Node: a.Chain.Nodes[1].ID()})
	for i, v := range l {
		require.InDelta(t, x[at+int64(i)]*dsp.Gain(-12)*g, v, 1e-9)
	}
	l, at = hear(Listening{Node: a.Chain.Nodes[1].ID(), Change: true})
	for i, v := range l {
		require.InDelta(t, x[at+int64(i)]*(dsp.Gain(-12)-1)*g, v, 1e-9)
	}
	l, _ = hear(Listening{Node: a.Chain.Nodes[0].ID(), Change: true}) // a limiter that does nothing, whatever its latency
	for _, v := range l {
		require.InDelta(t, 0, v, 1e-12)
	}
	l, at = hear(Listening{})
	require.NotEqual(t, x[at]*g, l[0])
}

func TestABypassedReverbRingsOutIfAsked(t *testing.T) {
	for _, asked := range []bool{false, true} {
		s := newSong(t)
		a := s.track("a", append(noise(24000, 4), make([]float64, 96000)...))
		rev := stage("reverb", map[string]float64{"decay": 2})
		rev.Stage.MixLaw, rev.Stage.Mix, rev.Stage.RingOut = "add", 50, asked
		a.Chain.Nodes = []*project.Node{rev}
		e := s.engine()
		e.Play()
		play(t, e, 24000, 128)
		doc := project.Clone(s.doc)
		doc.Channels[0].Chain.Nodes[0].Stage.Bypass = true
		require.NoError(t, e.SetDocument(doc))
		l, _ := play(t, e, 24000, 128)
		sum := 0.0
		for _, v := range l[4800:9600] {
			sum += v * v
		}
		require.Equal(t, asked, sum > 1e-4, "asked %v: %g", asked, sum)
	}
}

func TestAStageUsesASoundOnceItIsThere(t *testing.T) {
	s := newSong(t)
	x := noise(40000, 4)
	a := s.track("a", x)
	impulse := make([]float32, 50)
	impulse[10] = 1
	s.doc.Audio = append(s.doc.Audio, project.Audio{Hash: projecttest.Hash("ir"), Name: "ir", Frames: 50, Channels: 1})
	conv := stage("convolver", map[string]float64{"space": 7, "lowcut": 20, "highcut": 20000})
	conv.Stage.Sound = projecttest.Hash("ir")
	a.Chain.Nodes = []*project.Node{conv}
	e := s.engine()
	e.Play()
	require.Zero(t, e.Render(128)) // it waits, and says for what
	require.Contains(t, e.Missing(), pages.Missing{Hash: projecttest.Hash("ir"), Page: 0})
	s.lib.Put(projecttest.Hash("ir"), 0, pages.Page{impulse})
	l, _ := play(t, e, 20000, 128)
	worst, at := 0.0, -1
	for i := 2000; i < 20000; i++ { // the cuts at their ends still turn the phase a little: compare the level
		worst, at = worst+l[i]*x[i-10], i
	}
	power := 0.0
	for i := 2000; i <= at; i++ {
		power += x[i-10] * x[i-10]
	}
	require.InDelta(t, 1, worst/power, 0.25)
}

func TestCostsAndSpectraAreMeasured(t *testing.T) {
	s := newSong(t)
	a := s.track("a", sine(96000, 1000, -20))
	a.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -10}), stage("reverb", nil)}
	e := s.engine()
	now := int64(0)
	e.Clock(func() int64 { now += 640; return now })
	e.Watch(a.Chain.Nodes[0].ID())
	e.RMS(true)
	e.Play()
	play(t, e, 48000, 128)
	costs := e.Costs()
	require.Len(t, costs, 2)
	require.InDelta(t, 5, costs[0].Nanos, 0.2) // 640 ns a block of 128
	require.Empty(t, e.Costs())
	dst := make([]float32, 2*SpectrumPoints)
	require.True(t, e.Spectrum(dst))
	k := 54 // 1 kHz: 96 points over three decades
	peak := func(at int) float64 { return float64(max(dst[at-1], dst[at], dst[at+1])) }
	require.InDelta(t, -20, peak(k), 1.5)
	require.InDelta(t, -30, peak(SpectrumPoints+k), 1.5)
	levels := make([]float32, 4096)
	n := e.Levels(levels)
	points := e.Layout()
	require.Equal(t, LevelFirst+4*len(points), n)
	for i, p := range points {
		if p.Kind == "after" && p.Owner == a.Chain.Nodes[0].ID() {
			require.InDelta(t, -30, levels[LevelFirst+2*i], 0.1)
			require.InDelta(t, -33.01, levels[LevelFirst+2*len(points)+2*i], 0.1)
		}
	}
	require.Zero(t, testing.AllocsPerRun(20, func() { e.Render(128); e.Spectrum(dst) }))
}

// While nothing plays, one change of structure after another is there at once: what is asked of
// the engine then is of the newest revision.
func TestChangesWhileStoppedAreThereAtOnce(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(1000, 1))
	e := s.engine()
	for range 3 {
		doc := project.Clone(e.Document())
		ch, _ := doc.Channel(a.ID)
		ch.Chain.Nodes = append(ch.Chain.Nodes, stage("equaliser", nil))
		require.NoError(t, e.SetDocument(doc))
		_, err := e.Draw(ch.Chain.Nodes[len(ch.Chain.Nodes)-1].ID())
		require.NoError(t, err)
	}
}
