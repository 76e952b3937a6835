package engine

import (
	"context"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// printLine makes the print of a row's line and puts its pages into a library.
func (s *song) printLine(doc *project.Project, row string) *Waterline {
	s.t.Helper()
	ch, _ := doc.Channel(row)
	w := WaterlineOf(doc, ch)
	require.NotNil(s.t, w)
	var sides [2][]float32
	err := w.Print(context.Background(), doc, s.lib, nil, func(l, r []float64) error {
		for i := range l {
			sides[0], sides[1] = append(sides[0], float32(l[i])), append(sides[1], float32(r[i]))
		}
		return nil
	}, nil)
	require.NoError(s.t, err)
	require.Len(s.t, sides[0], int(w.Frames()))
	s.lib.Sound(w.Key, w.Frames(), 2)
	for i := 0; i*pages.Frames < len(sides[0]); i++ {
		a, b := i*pages.Frames, min(len(sides[0]), (i+1)*pages.Frames)
		s.lib.Put(w.Key, i, pages.Page{sides[0][a:b], sides[1][a:b]})
	}
	return w
}

// printed lets an engine play the prints of all lines of a song.
func (s *song) printed(doc *project.Project, e *Engine) {
	s.t.Helper()
	for _, ch := range doc.Channels {
		if ch.Waterline != "" {
			e.Worked([]string{s.printLine(doc, ch.ID).Key})
		}
	}
	require.Empty(s.t, e.Ahead(2*rate))
}

// parted is a song whose first row has two parts with a pause between, and sounds through stages of every sort; its line
// stands behind the third. What follows the line only adds.
func parted(t *testing.T) (*song, *project.Channel) {
	s := newSong(t)
	row, key := s.track("a", noise(3*rate, 1)), s.track("key", sine(3*rate, 300, -9))
	row.Clips[0].Frames = rate / 2
	late := *row.Clips[0]
	late.ID, late.Start = "late", 2.4*rate
	row.Clips = append(row.Clips, &late)
	row.Chain.Nodes = []*project.Node{
		stage("equaliser", map[string]float64{"gain3": 6}), stage("compressor", nil), stage("limiter", nil),
		stage("trim", map[string]float64{"gain": -2}),
	}
	for i, id := range []string{"eq", "comp", "lim", "trim"} {
		row.Chain.Nodes[i].Stage.ID = id
	}
	row.Chain.Nodes[1].Stage.Key = &project.Tap{Channel: key.ID, Point: "pre"}
	s.doc.Lines = []*project.Line{{Owner: "eq", Name: "gain3", Points: []project.Point{
		{Tick: 0, Value: 9, Shape: "ramp"}, {Tick: 1500, Value: -9, Shape: "step"}, {Tick: 2000, Value: 0, Shape: "ramp"}}}}
	s.doc.Movers = []*project.Mover{{ID: "sway", Name: "Sway", Shape: "sine", Rate: 3,
		Targets: []project.MoverTarget{{Owner: "comp", Name: "threshold", Depth: 0.1}}}}
	return s, row
}

func (s *song) loud(e *Engine, frames int) []float64 {
	e.Play()
	l, r := play(s.t, e, frames, Block)
	return append(l, r...)
}

func TestAPrintedRowSoundsAsItDidAndItsStagesDoNotRun(t *testing.T) {
	s, row := parted(t)
	live := s.loud(s.engine(), 3*rate)
	row.Waterline = "lim"
	e := s.engine()
	require.Contains(t, e.now.stages, "lim", "nothing is printed yet")
	s.printed(s.doc, e)
	w := WaterlineOf(s.doc, row)
	require.Len(t, w.Stretches, 2, "silence is not stored")
	require.Less(t, w.Stretches[0].To, w.Stretches[1].From)
	play(t, e, 4096, Block) // a cross-fade
	for _, id := range []string{"eq", "comp", "lim"} {
		require.NotContains(t, e.now.stages, id)
	}
	require.Contains(t, e.now.stages, "trim")
	e.GoTo(0)
	got := s.loud(e, 3*rate)
	require.Less(t, worst(live, got), -140.0)
	require.Greater(t, worst(make([]float64, len(live)), got), -20.0, "there is something to hear")
	require.Zero(t, testing.AllocsPerRun(20, func() { e.Render(Block) }))
	l, _ := s.print(Job{To: 3 * rate})
	require.Len(t, l, 3*rate)
	same(t, live[:3*rate], l, "whatever is rendered is made from what stands there")
}

func TestAPrintIsTakenWhileItPlays(t *testing.T) {
	s, row := parted(t)
	live := s.loud(s.engine(), 3*rate)
	row.Waterline = "lim"
	e := s.engine()
	got := s.loud(e, rate/4)
	half := len(got) / 2
	l := got[:half]
	s.printed(s.doc, e)
	m, _ := play(t, e, rate/4, Block)
	require.NotContains(t, e.now.stages, "lim")
	require.Less(t, worst(live[:rate/2], append(l, m...)), -120.0, "the cross-fade is not heard")
}

func TestWhoListensWithinThePrintedPartHearsIt(t *testing.T) {
	s, row := parted(t)
	hall := s.ret("hall")
	row.Sends = []*project.Send{{ID: "tap", To: hall.ID, After: "eq", Level: -6}}
	side := s.track("side", noise(rate, 7))
	side.Clips, side.Input = nil, &project.Tap{Channel: row.ID, Point: "before", Node: "comp"}
	live := s.loud(s.engine(), 2*rate)
	row.Waterline = "lim"
	e := s.engine()
	s.printed(s.doc, e)
	got := s.loud(e, 2*rate)
	require.Less(t, worst(live[rate/4:2*rate], got[rate/4:2*rate]), -138.0)
	require.Contains(t, e.now.stages, "eq")
	require.NotContains(t, e.now.stages, "comp")
	require.NoError(t, e.Listen(Listening{Node: "comp"}))
	play(t, e, 2048, Block)
	require.Contains(t, e.now.stages, "comp", "somebody listens there")
	require.NotContains(t, e.now.stages, "lim")
}

func TestATouchedStageRunsAtOnceAndKnowsWhatWasBefore(t *testing.T) {
	s, row := parted(t)
	row.Clips[0].Frames = 2 * rate
	row.Chain.Nodes[2] = stage("delay", map[string]float64{"feedback": 40})
	row.Chain.Nodes[2].Stage.ID = "lim"
	live := s.loud(s.engine(), 2*rate)
	row.Waterline = "lim"
	e := s.engine()
	s.printed(s.doc, e)
	e.Play()
	l, _ := play(t, e, rate/2, Block)
	require.Empty(t, e.now.stages["lim"])
	require.True(t, e.Move("lim", "feedback", 40), "a hand holds it where it was")
	m, _ := play(t, e, rate/4, Block)
	require.Contains(t, e.now.stages, "lim")
	got := append(l, m...)
	require.Less(t, worst(live[rate/2:rate*3/4], got[rate/2:]), -60.0, "its echoes go on")

	require.True(t, e.Move("comp", "threshold", -40))
	n, _ := play(t, e, rate/2, Block)
	require.Greater(t, worst(live[rate*3/4:rate*5/4], n), -50.0, "what is heard is the truth")

	next, _, err := project.Apply(s.doc, []project.Change{&project.SetParam{Owner: "trim", Name: "gain", Value: -3}}, EffectInfo)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(next))
	require.Empty(t, e.Ahead(rate))
	play(t, e, 4096, Block)
	require.NotContains(t, e.now.stages, "lim", "the hand let go, and nothing before the line has changed")
}

// A hand that let go where it was: the next revision, even one that compiles nothing, lets the print play again.
func TestAHandThatLetsGoIsForgottenByAnyRevision(t *testing.T) {
	for what, c := range map[string]project.Change{
		"clips": &project.SetClip{ID: "of key", Gain: ptrTo(-1.0)},
		"value": &project.SetParam{Owner: "trim", Name: "gain", Value: -3},
	} {
		s, row := parted(t)
		row.Chain.Nodes[1].Stage.Key = nil // what the other row plays has no part in it
		s.doc.Channels[0].Clips[0].ID = "of key"
		row.Waterline = "lim"
		e := s.engine()
		s.printed(s.doc, e)
		e.Play()
		play(t, e, 8192, Block)
		require.True(t, e.Move("comp", "threshold", -40))
		play(t, e, 8192, Block)
		require.Contains(t, e.now.stages, "lim", what)
		next, _, err := project.Apply(s.doc, []project.Change{c}, EffectInfo)
		require.NoError(t, err)
		require.NoError(t, e.SetDocument(next))
		play(t, e, 8192, Block)
		require.NotContains(t, e.now.stages, "lim", what)
	}
}

func TestAChangeBeforeTheLineLetsTheRowRunUntilItIsPrintedAnew(t *testing.T) {
	s, row := parted(t)
	row.Waterline = "lim"
	e := s.engine()
	s.printed(s.doc, e)
	e.Play()
	play(t, e, rate/4, Block)
	change := func(c project.Change) {
		t.Helper()
		next, _, err := project.Apply(s.doc, []project.Change{c}, EffectInfo)
		require.NoError(t, err)
		s.doc = next
		require.NoError(t, e.SetDocument(next))
		play(t, e, 4096, Block)
	}
	change(&project.SetParam{Owner: "trim", Name: "gain", Value: -6})
	require.NotContains(t, e.now.stages, "lim")
	for i, c := range []project.Change{
		&project.SetParam{Owner: "comp", Name: "threshold", Value: -30},
		&project.SetLine{Owner: "eq", Name: "gain3", Points: []project.Point{{Tick: 0, Value: 3, Shape: "ramp"}}},
		&project.SetClip{ID: "late", Gain: ptrTo(-4.0)},
	} {
		change(c)
		require.Contains(t, e.now.stages, "lim", "%T", c)
		change(&project.SetParam{Owner: "comp", Name: "ratio", Value: 3 + float64(i)}) // while it runs
		s.printed(s.doc, e)
		play(t, e, 4096, Block)
		require.NotContains(t, e.now.stages, "lim", "%T", c)
	}
	none := ""
	change(&project.SetChannel{ID: row.ID, Waterline: &none})
	require.Contains(t, e.now.stages, "lim")
}

func TestALineOfAGroupPrintsTheWholeSong(t *testing.T) {
	s, row := parted(t)
	group := project.NewChannel(project.Group, "group", s.main().ID)
	s.doc.Channels = append([]*project.Channel{group}, s.doc.Channels...)
	row.Output = group.ID
	group.Chain.Nodes = []*project.Node{stage("equaliser", map[string]float64{"gain3": 4})}
	live := s.loud(s.engine(), 3*rate)
	group.Waterline = group.Chain.Nodes[0].ID()
	e := s.engine()
	s.printed(s.doc, e)
	require.Len(t, WaterlineOf(s.doc, group).Stretches, 1)
	play(t, e, 4096, Block)
	e.GoTo(0)
	require.Less(t, worst(live, s.loud(e, 3*rate)), -140.0)
}

// Where a key has stayed, so has every sample: whatever was changed.
func TestEqualKeysSoundTheSame(t *testing.T) {
	kept, changed := 0, 0
	for seed := range 8 {
		r := rand.New(rand.NewPCG(uint64(seed), 77))
		s := drawnSong(t)
		one, two := s.doc.Channels[0], s.doc.Channels[1]
		one.Chain.Nodes[1].Stage.Key = &project.Tap{Channel: two.ID, Point: "pre"}
		doc := s.doc
		for range 30 {
			next, _, err := project.Apply(doc, []project.Change{projecttest.RandomChange(r, doc)}, EffectInfo)
			if err != nil {
				continue
			}
			bring(s.lib, next)
			for _, ch := range doc.Channels {
				now, ok := next.Channel(ch.ID)
				if !ok || len(ch.Chain.Nodes) == 0 || len(now.Chain.Nodes) == 0 {
					continue
				}
				before, after := lined(doc, ch), lined(next, now)
				if before == nil || after == nil {
					continue
				}
				if before.Key != after.Key {
					changed++
					continue
				}
				kept++
				same(t, s.tapped(doc, before), s.tapped(next, after), "%d", seed)
			}
			doc = next
		}
	}
	t.Logf("%d kept, %d changed", kept, changed)
	require.Greater(t, kept, 100)
	require.Greater(t, changed, 20)
}

// lined is what is printed of a row with a line behind all of its chain.
func lined(doc *project.Project, ch *project.Channel) *Waterline {
	x := *ch
	x.Waterline = ch.Chain.Nodes[len(ch.Chain.Nodes)-1].ID()
	return WaterlineOf(doc, &x)
}

func (s *song) tapped(doc *project.Project, w *Waterline) (out []float64) {
	pass := Pass{Points: []project.Tap{w.Point()}, To: rate / 8}
	err := Stems(context.Background(), doc, s.lib, pass, nil, func(_ int, l, r []float64) error {
		out = append(append(out, l...), r...)
		return nil
	}, nil)
	if err != nil { // what has to be worked out is not there: in both
		return []float64{dsp.Gain(0)}
	}
	return out
}
