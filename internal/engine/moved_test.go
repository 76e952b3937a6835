package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

func sway(shape string, quarters, depth float64, owner, name string) *project.Mover {
	return &project.Mover{
		ID:       project.NewID(),
		Name:     shape,
		Shape:    shape,
		Rate:     1,
		Quarters: quarters,
		Targets:  []project.MoverTarget{{Owner: owner, Name: name, Depth: depth}},
	}
}

// A mover is a pure function of the song's position, in taper units around the base; several add up,
// and the range clamps.
func TestMoversAddAroundTheBase(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(60000))
	a.Fader = -6
	slow, quick := sway("sine", 2, 0.1, a.ID, "fader"), sway("triangle", 0, -0.05, a.ID, "fader")
	quick.Rate, quick.OneWay, quick.Phase = 3, true, 0.25
	s.doc.Movers = []*project.Mover{slow, quick}
	l, _ := s.print(Job{To: 50000})
	for i := 0; i < 50000; i += 331 {
		place := param.Fader.Place(-6) + 0.1*math.Sin(2*math.Pi*float64(i)/48000) - 0.05*(0.5+0.5*effect.Wave(1, float64(i)/16000+0.25, 0))
		want := param.Fader.Clamp(param.Fader.At(math.Max(0, math.Min(1, place))))
		require.InDelta(t, want, dsp.Decibels(l[i]/0.25), 0.02, "frame %d", i)
	}
	s.doc.Movers[0].Targets[0].Depth = 1
	l, _ = s.print(Job{To: 50000})
	require.InDelta(t, 12, dsp.Decibels(dsp.Peak(l, l)/0.25), 0.01, "the range clamps")
}

// A movement that was drawn is followed along its places, in straight lines.
func TestADrawnMovementIsHeardAsDrawn(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(60000))
	a.Fader = -10
	m := sway(project.DrawnShape, 1, 0.2, a.ID, "fader")
	m.Drawn = []float64{0, 1, -1, 0.5}
	s.doc.Movers = []*project.Mover{m}
	l := sameEverywhere(t, s)
	cycle := 48000 * 60 / s.doc.Tempo[0].BPM
	for i := 100; i < 50000; i += 397 {
		if near := math.Mod(float64(i)/cycle*4, 1); near < 0.01 || near > 0.99 { // movers go straight for 16 frames
			continue
		}
		want := param.Fader.At(param.Fader.Place(-10) + 0.2*m.DrawnAt(float64(i)/cycle))
		require.InDelta(t, want, dsp.Decibels(l[i]/0.25), 0.02, "frame %d", i)
	}
}

// What is moved sounds the same at any block size, in a print, and wherever playing begins.
func TestMovedSoundsTheSameEverywhere(t *testing.T) {
	s := busy(t)
	a := s.doc.Channels[1]
	eq, fork := a.Chain.Nodes[0].ID(), ""
	for _, ch := range s.doc.Channels {
		for _, n := range ch.Chain.Nodes {
			if n.Fork != nil && n.Fork.Kind == project.Bands {
				fork = n.Fork.ID
			}
		}
	}
	wander := sway("wander", 1, 0.3, fork, "x2")
	wander.Seed = 7
	s.doc.Movers = []*project.Mover{
		sway("sine", 1.5, 0.2, a.ID, "pan"),
		wander,
		sway("random steps", 0.5, 0.2, a.Chain.Nodes[2].ID(), "mix"),
	}
	s.doc.Handles = []*project.Handle{
		{
			ID:    "h",
			Name:  "Offing",
			Value: 40,
			Targets: []project.HandleTarget{
				{Owner: eq, Name: "gain4", From: -6, To: 6},
				{Owner: a.ID, Name: "fader", From: -20, To: 0, Bend: 0.5},
			},
		},
	}
	s.doc.Lines = append(
		s.doc.Lines,
		&project.Line{
			Owner:  "h",
			Name:   "value",
			Points: []project.Point{point(0, 0, "ramp"), point(900, 100, "step"), point(1300, 20, "smooth"), point(1900, 70, "step")},
		},
	)
	sameEverywhere(t, s)
}

// A handle gives what hangs on it its base, over its own range, and suspends the line; moved by hand
// it moves all of them smoothly.
func TestAHandleMovesWhatHangsOnIt(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(60000))
	a.Fader = -40
	s.doc.Lines = []*project.Line{{Owner: a.ID, Name: "fader", Points: []project.Point{point(0, -30, "step")}}}
	s.doc.Handles = []*project.Handle{
		{
			ID:      "h",
			Name:    "Inshore",
			Value:   50,
			Targets: []project.HandleTarget{{Owner: a.ID, Name: "fader", From: 0, To: -20}, {Owner: a.ID, Name: "pan", From: -1, To: 1}},
		},
	}
	e := s.engine()
	e.Play()
	l, r := play(t, e, 2000, 128)
	assert.InDelta(t, 0.25*dsp.Gain(-10), l[1999], 1e-6)
	assert.InDelta(t, 0.25*dsp.Gain(-10), r[1999], 1e-6)
	require.True(t, e.Move("h", "value", 100))
	l, r = play(t, e, 4000, 128)
	assert.InDelta(t, 0.25*dsp.Gain(-20), r[3999], 1e-6)
	assert.InDelta(t, 0, l[3999], 1e-6, "all to the right")
	for i := 1; i < len(r); i++ {
		require.Less(t, math.Abs(r[i]-r[i-1]), 0.001)
	}
	values := map[string]float64{}
	for _, v := range e.LineValues(5000) {
		values[v.Owner+" "+v.Name] = v.Value
	}
	assert.InDelta(t, -20, values[a.ID+" fader"], 1e-6)
}

// Opposite movers on two stages that act on left and right make a stereo movement.
func TestOppositeMovers(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(60000))
	left, right := stage("trim", nil), stage("trim", nil)
	left.Stage.ActsOn, right.Stage.ActsOn = "left", "right"
	a.Chain.Nodes = []*project.Node{left, right}
	m := sway("sine", 1, 0.1, left.ID(), "gain")
	m.Targets = append(m.Targets, project.MoverTarget{Owner: right.ID(), Name: "gain", Depth: -0.1})
	s.doc.Movers = []*project.Mover{m}
	l, r := s.print(Job{To: 48000})
	for i := 0; i < 12000; i += 97 {
		require.InDelta(t, l[i], r[i+12000], 1e-4, "half a cycle later the other side is where this one was")
	}
	require.Greater(t, dsp.Decibels(l[6000]/r[6000]), 6.0)
}

func TestTheDocumentKnowsTheShapesOfTheEffects(t *testing.T) {
	require.Equal(t, append(effect.WaveNames(), project.DrawnShape, project.LevelShape), project.Shapes)
}
