package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

func ones(n int) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = 0.25
	}
	return x
}

func point(tick int64, value float64, shape string) project.Point {
	return project.Point{Tick: tick, Value: value, Shape: shape}
}

// A step lands on its frame, whatever is late before the stage, whatever the tempo does, at any
// block size.
func TestAStepLandsOnItsFrame(t *testing.T) {
	for _, block := range []int{128, 37, 1} {
		s := newSong(t)
		s.doc.Tempo = []project.Tempo{{Tick: 0, BPM: 120}, {Tick: 700, BPM: 87.3}}
		a := s.track("a", ones(60000))
		a.Chain.Nodes = []*project.Node{
			stage("limiter", map[string]float64{"ahead": 3}),
			stage("trim", nil),
			stage("saturation", map[string]float64{"drive": 0}),
		}
		a.Chain.Nodes[2].Stage.Bypass = true // late all the same
		trim := a.Chain.Nodes[1].ID()
		s.doc.Lines = []*project.Line{
			{Owner: trim, Name: "gain", Points: []project.Point{point(0, 0, "step"), point(555, -6, "step"), point(1111, -12, "step")}},
		}
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 45000, block)
		clock := s.doc.Clock()
		for _, c := range []struct {
			tick          int64
			before, after float64
		}{{555, 0, -6}, {1111, -6, -12}} {
			f := clock.Frame(c.tick)
			require.InDelta(t, 0.25*dsp.Gain(c.before), l[f-1], 1e-9, "block %d", block)
			require.InDelta(t, 0.25*dsp.Gain(c.after), l[f], 1e-9, "block %d", block)
		}
	}
}

// A line of a mute or a bypass begins to fade at its frame, and is through 5 ms later.
func TestSwitchesFollowTheirLines(t *testing.T) {
	onOff := []project.Point{point(0, 0, "step"), point(480, 1, "step"), point(960, 0, "step")}
	for _, c := range []struct {
		name string
		set  func(s *song, a *project.Channel) (owner, param string)
		shut float64
	}{
		{"mute of a row", func(_ *song, a *project.Channel) (string, string) { return a.ID, "mute" }, 0},
		{"bypass of a stage", func(_ *song, a *project.Channel) (string, string) {
			a.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": 3}), stage("trim", map[string]float64{"gain": -12})}
			return a.Chain.Nodes[1].ID(), "bypass"
		}, dsp.Gain(12)},
		{"bypass of a fork", func(_ *song, a *project.Channel) (string, string) {
			a.Chain.Nodes = []*project.Node{forked(project.Copies, project.NewPath("one", stage("trim", map[string]float64{"gain": -12})))}
			return a.Chain.Nodes[0].ID(), "bypass"
		}, dsp.Gain(12)},
		{"mute of a path", func(_ *song, a *project.Channel) (string, string) {
			a.Chain.Nodes = []*project.Node{forked(project.Copies, project.NewPath("one"), project.NewPath("two"))}
			return a.Chain.Nodes[0].Fork.Paths[1].ID, "mute"
		}, 0.5},
		{"mute of a send", func(s *song, a *project.Channel) (string, string) {
			ret := s.ret("direct")
			a.Output = ""
			a.Sends = []*project.Send{{ID: project.NewID(), To: ret.ID}}
			return a.Sends[0].ID, "mute"
		}, 0},
	} {
		s := newSong(t)
		a := s.track("a", ones(40000))
		owner, name := c.set(s, a)
		s.doc.Lines = []*project.Line{{Owner: owner, Name: name, Points: onOff}}
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 36000, 128)
		open := l[11999]
		require.Greater(t, open, 0.01, c.name)
		require.InDelta(t, open, l[12000], 1e-4, c.name) // tick 480 at 120 is frame 12000
		require.NotEqual(t, l[11998], l[12010], c.name)
		require.InDelta(t, open*c.shut, l[12000+gateFrames], 1e-9, c.name)
		require.InDelta(t, open*c.shut, l[23999], 1e-9, c.name)
		require.InDelta(t, open, l[24000+gateFrames], 1e-9, c.name)
		// heard the same from the middle on
		e = s.engine()
		e.GoTo(15000)
		e.Play()
		m, _ := play(t, e, 3000, 128)
		require.InDelta(t, open*c.shut, m[2000], 1e-9, c.name)
	}
}

func TestShapesAreHeardAsTheyAreDrawn(t *testing.T) {
	for _, c := range []struct {
		shape string
		bend  float64
	}{{"ramp", 0}, {"smooth", 0}, {"curve", 0.6}, {"curve", -0.8}} {
		s := newSong(t)
		a := s.track("a", ones(40000))
		line := &project.Line{
			Owner:  a.ID,
			Name:   "fader",
			Points: []project.Point{{Tick: 0, Value: -20, Shape: c.shape, Bend: c.bend}, point(960, 0, "step")},
		}
		s.doc.Lines = []*project.Line{line}
		l, _ := s.print(Job{To: 24000})
		for i := 0; i < 24000; i += 777 {
			want := -20 + 20*project.Bent(c.shape, c.bend, float64(i)/24000)
			require.InDelta(t, want, dsp.Decibels(l[i]/0.25), 0.01, "%s at %d", c.shape, i)
		}
	}
}

// A ramp of a fader over 10 ms leaves nothing above -80 dBFS above 2 kHz of a sine.
func TestARampDoesNotZip(t *testing.T) {
	s := newSong(t)
	a := s.track("a", sine(40000, 200, -6))
	s.doc.Lines = []*project.Line{
		{Owner: a.ID, Name: "fader", Points: []project.Point{point(0, 0, "step"), point(480, 0, "smooth"), point(499, -12, "step")}},
	}
	l, _ := s.print(Job{To: 30000})
	require.Less(t, splash(l[8000:], 2000), -80.0)
	require.InDelta(t, 0.5*dsp.Gain(-12), dsp.Peak(l[14000:20000], l[14000:20000]), 1e-3)
	require.False(t, math.IsNaN(l[100]))
}

// Points that are changed while they play are heard where they are drawn, at once and without a click, and
// the plan goes on as it is.
func TestAChangedLineGoesOnInItsPlan(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(100000))
	s.doc.Lines = []*project.Line{{Owner: a.ID, Name: "fader", Points: []project.Point{point(0, -6, "step"), point(1600, -12, "step")}}}
	e := s.engine()
	e.Play()
	play(t, e, 9600, 128)
	made := e.plansMade
	next, _, err := project.Apply(
		s.doc,
		[]project.Change{
			&project.EditLine{
				Owner:  a.ID,
				Name:   "fader",
				From:   0,
				To:     800,
				Points: []project.Point{point(0, -20, "step"), point(800, -3, "ramp")},
			},
		},
		EffectInfo,
	)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(next))
	require.Equal(t, made, e.plansMade)
	l, _ := play(t, e, 50000, 128)
	for i := 1; i < 5000; i++ {
		require.Less(t, math.Abs(l[i]-l[i-1]), 0.002, "no click at frame %d", i)
	}
	heardDB(t, -20, l[gateFrames+1])
	heardDB(t, -3, l[20000-9600], "the point at tick 800")
	heardDB(t, -12, l[40000-9600])
	// what a new plan would give
	e = s.engine()
	require.NoError(t, e.SetDocument(next))
	e.Play()
	want, _ := play(t, e, 59600, 128)
	same(t, want[9600+1000:], l[1000:])
	// a line that comes or goes is another plan
	gone, _, err := project.Apply(next, []project.Change{&project.SetLine{Owner: a.ID, Name: "fader"}}, EffectInfo)
	require.NoError(t, err)
	require.False(t, onlyPoints(next, gone))
	require.True(t, onlyPoints(s.doc, next))
}
