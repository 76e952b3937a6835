package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/param"
	"shoal/internal/project"
)

// At 120 quarter notes a minute a tick is 25 frames.
const tickFrames = 25

func passage(from, to int64, rows []string, courses ...*project.Course) *project.Passage {
	return &project.Passage{ID: project.NewID(), Name: "Away", From: from, To: to, Rows: rows, Courses: courses,
		Tail: project.TailRing, Fade: project.TicksPerQuarter / 2, Brought: []string{}}
}

func course(points []project.Point, targets ...project.CourseTarget) *project.Course {
	return &project.Course{Name: "Course", Points: points, Targets: targets}
}

// rising goes straight from 0 to 1 over the whole length.
var rising = []project.Point{point(0, 0, "ramp"), point(project.CourseParts, 1, "ramp")}

func heardDB(t *testing.T, want float64, v float64, about ...any) {
	t.Helper()
	require.InDelta(t, want, dsp.Decibels(v/0.25), 0.02, about...)
}

// While a passage lasts it gives the base, from where the parameter stands or from a value of its own;
// before and after the parameter is its hand's, or its line's.
func TestAPassageGivesTheBaseWhileItLasts(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(100000))
	a.Fader = -6
	s.doc.Passages = []*project.Passage{passage(960, 1920, []string{a.ID},
		course(rising, project.CourseTarget{Owner: a.ID, Name: "fader", To: -30, Here: true}))}
	from, to := 960*tickFrames, 1920*tickFrames
	l, _ := s.print(Job{To: 60000})
	check := func(base func(i int) float64) {
		for i := 0; i < 60000; i += 173 {
			want := base(i)
			switch {
			case i >= to && i < to+gateFrames:
				continue // it comes back in a few milliseconds
			case i >= from && i < to:
				x, y := param.Fader.Place(want), param.Fader.Place(-30)
				want = param.Fader.At(x + (y-x)*float64(i-from)/float64(to-from))
			}
			heardDB(t, want, l[i], "frame %d", i)
		}
	}
	check(func(int) float64 { return -6 })
	for i := 1; i < len(l); i++ {
		require.Less(t, math.Abs(l[i]-l[i-1]), 0.002, "no click at frame %d", i)
	}
	s.doc.Lines = []*project.Line{{Owner: a.ID, Name: "fader", Points: []project.Point{point(0, -12, "ramp"), point(2400, 0, "ramp")}}}
	l, _ = s.print(Job{To: 60000})
	check(func(i int) float64 {
		x, y := param.Fader.Place(-12), param.Fader.Place(0)
		return param.Fader.At(x + (y-x)*math.Min(1, float64(i)/60000))
	})
	s.doc.Passages[0].Off = true
	l, _ = s.print(Job{To: 60000})
	heardDB(t, param.Fader.At((param.Fader.Place(-12)+param.Fader.Place(0))/2), l[30000], "it is switched off")
}

// A switch that a passage throws lands on its frame, on both ends, also behind latency.
func TestAPassageSwitchesOnItsFrame(t *testing.T) {
	for _, late := range []bool{false, true} {
		s := newSong(t)
		a := s.track("a", ones(100000))
		trim := stage("trim", map[string]float64{"gain": -20})
		trim.Stage.Bypass = true
		a.Chain.Nodes = []*project.Node{trim}
		if late {
			a.Chain.Nodes = append([]*project.Node{stage("limiter", map[string]float64{"ahead": 3})}, a.Chain.Nodes...)
		}
		s.doc.Passages = []*project.Passage{passage(480, 1001, []string{a.ID}, course([]project.Point{point(0, 1, "step")},
			project.CourseTarget{Owner: trim.ID(), Name: "bypass", From: 0, To: 0}))}
		l, _ := s.print(Job{To: 40000})
		from, to := 480*tickFrames, 1001*tickFrames
		// bypasses fade: the fade begins on the frame
		heardDB(t, 0, l[from], "late %v", late)
		require.Less(t, l[from+2], l[from], "late %v", late)
		heardDB(t, -20, l[from+gateFrames+1])
		heardDB(t, -20, l[to])
		require.Greater(t, l[to+2], l[to])
		heardDB(t, 0, l[to+gateFrames+1])
	}
}

// One course moves what must be moved together, each over its own range; how long it lasts can be a value.
func TestACourseMovesSeveralTogether(t *testing.T) {
	s := newSong(t)
	a, b := s.track("a", ones(100000)), s.track("b", ones(100000))
	b.Pan, a.Pan = 1, -1
	brake := stage("spindown", map[string]float64{"sync": 1})
	a.Chain.Nodes = []*project.Node{brake}
	s.doc.Passages = []*project.Passage{passage(960, 2880, []string{a.ID, b.ID}, course([]project.Point{point(0, 1, "step")},
		project.CourseTarget{Owner: brake.ID(), Name: "stop", From: 0, To: 1},
		project.CourseTarget{Owner: brake.ID(), Name: "time", From: 1, To: 1, Length: 1}),
		course(rising, project.CourseTarget{Owner: b.ID, Name: "fader", From: 0, To: -20}))}
	e := s.engine()
	e.Play()
	play(t, e, 24000+24000, 128)
	values := map[string]LineValue{}
	for _, v := range e.LineValues(48000) {
		values[v.Owner+" "+v.Name] = v
	}
	assert.InDelta(t, 1, values[brake.ID()+" time"].Value, 1e-9, "two quarters at 120 a minute last a second")
	assert.InDelta(t, 1, values[brake.ID()+" stop"].Value, 0)
	assert.Equal(t, "passage", values[b.ID+" fader"].By)
	assert.InDelta(t, param.Fader.At((param.Fader.Place(0)+param.Fader.Place(-20))/2), values[b.ID+" fader"].Value, 0.01)
	_, r := play(t, e, 24000, 128)
	heardDB(t, -20, r[23999], "as far as it goes")
}

// What a tail rule does lasts until the next clip begins on the row.
func TestTailRulesLastUntilTheNextSound(t *testing.T) {
	song := func(tail string) []float64 {
		s := newSong(t)
		a := s.track("a", ones(30000))
		again := *a.Clips[0]
		again.ID, again.Start = project.NewID(), 60000
		a.Clips = append(a.Clips, &again)
		// a second row keeps on: only its own clips end the rule
		b := s.track("b", ones(90000))
		a.Pan, b.Pan = -1, 1
		echo := stage("delay", map[string]float64{"sync": 1, "time": 250, "feedback": 90})
		echo.Stage.Mix = 50
		a.Chain.Nodes = []*project.Node{echo}
		p := passage(960, 1440, []string{a.ID}, course(rising, project.CourseTarget{Owner: a.ID, Name: "fader", To: -40, Here: true}))
		p.Tail = tail
		s.doc.Passages = []*project.Passage{p}
		l, _ := s.print(Job{To: 80000})
		return l
	}
	const end, next = 1440 * tickFrames, 60000
	peak := func(l []float64, from, to int) float64 { return dsp.Decibels(dsp.Peak(l[from:to], l[from:to])) }
	ring, cut, fade, hold := song(project.TailRing), song(project.TailCut), song(project.TailFade), song(project.TailHold)
	require.Greater(t, peak(ring, end+1000, next), -40.0, "it rings on")
	require.Less(t, peak(cut, end+gateFrames+1, next), -110.0)
	require.Less(t, peak(hold, end+1, next), peak(ring, end+1000, next)-30)
	require.Greater(t, peak(hold, end+1, next), -110.0)
	at := func(l []float64, i int) float64 { return dsp.Decibels(math.Abs(l[i]) / math.Abs(ring[i])) }
	require.InDelta(t, param.Fader.At(0.5*param.Fader.Place(0)), at(fade, end+6000), 0.1, "half way down the fader after half the fade")
	require.Less(t, peak(fade, end+12001, next), -110.0)
	for name, l := range map[string][]float64{"cut": cut, "fade": fade, "hold": hold} {
		require.InDelta(t, 0, at(l, next+2000), 0.001, "%s: the next sound is as it was", name)
	}
}

// A tail rule that reaches the returns closes the sends of its rows from the beginning of the passage on, so that the
// hall they share has rung down at its end. What another row has in the hall stays as it is.
func TestATailRuleReachesTheReturns(t *testing.T) {
	hall := func(tail string, reach bool, rows ...string) []float64 {
		s := newSong(t)
		a, b := s.track("a", noise(60000, 1)), s.track("b", noise(60000, 2))
		ret := s.ret("hall")
		ret.Chain.Nodes = []*project.Node{stage("reverb", map[string]float64{"decay": 0.6})}
		for _, c := range []*project.Channel{a, b} {
			c.Output = ""
			for _, name := range rows {
				if c.Name == name {
					c.Sends = []*project.Send{{ID: project.NewID(), To: ret.ID, Pre: name == "b"}}
				}
			}
		}
		p := passage(960, 1920, []string{a.ID}, course(rising, project.CourseTarget{Owner: a.ID, Name: "fader", To: -10, Here: true}))
		p.Tail, p.Fade, p.Reach = tail, 240, reach
		s.doc.Passages = []*project.Passage{p}
		l, _ := s.print(Job{To: 60000})
		return l
	}
	const begin, end = 960 * tickFrames, 1920 * tickFrames
	peak := func(l []float64, from, to int) float64 { return dsp.Decibels(dsp.Peak(l[from:to], l[from:to])) }
	for _, tail := range []string{project.TailCut, project.TailFade} {
		rings, reached := hall(tail, false, "a"), hall(tail, true, "a")
		require.Equal(t, rings[:begin], reached[:begin], "before it nothing is touched")
		after := peak(rings, end+2400, end+7200) - peak(reached, end+2400, end+7200)
		require.Greater(t, after, map[string]float64{project.TailCut: 30, project.TailFade: 6}[tail], "the hall has rung down: %s", tail)
		require.Equal(t, hall(tail, false, "b"), hall(tail, true, "b"), "the share of another row")
	}
}

// Passages sound the same at any block size and in a print, and no rendering allocates.
func TestPassagesSoundTheSameEverywhere(t *testing.T) {
	s := busy(t)
	a := s.doc.Channels[1]
	p := passage(
		333,
		1111,
		[]string{a.ID},
		course(
			[]project.Point{point(0, 0, "smooth"), point(3000, 0.8, "curve"), point(9000, 0.2, "step")},
			project.CourseTarget{
				Owner: a.Chain.Nodes[0].ID(),
				Name:  "gain4",
				To:    9,
				Here:  true,
			},
			project.CourseTarget{Owner: a.ID, Name: "pan", From: -1, To: 1},
			project.CourseTarget{Owner: a.ID, Name: "mute", From: 0, To: 1},
		),
	)
	p.Tail = project.TailHold
	s.doc.Passages = []*project.Passage{p}
	s.doc.Movers = []*project.Mover{sway("sine", 1.5, 0.2, a.ID, "pan")}
	sameEverywhere(t, s)
}

// A hand that sets a mute while a passage has it is heard when the passage is over.
func TestAHandWaitsForThePassage(t *testing.T) {
	s := newSong(t)
	a := s.track("a", ones(100000))
	p := passage(
		0,
		960,
		[]string{a.ID},
		course([]project.Point{point(0, 0, "step")}, project.CourseTarget{Owner: a.ID, Name: "mute", From: 0, To: 1}),
	)
	s.doc.Passages = []*project.Passage{p}
	e := s.engine()
	e.Play()
	play(t, e, 4096, 128)
	doc := project.Clone(s.doc)
	c, _ := doc.Channel(a.ID)
	c.Mute = true
	require.NoError(t, e.SetDocument(doc))
	l, _ := play(t, e, 24000, 128)
	heardDB(t, 0, l[960*tickFrames-4096-1], "the passage holds it open")
	require.Zero(t, l[23999])
}

// A brake that a passage pulls stands still at its end, and stays so until the next clip.
func TestAPassageBringsASoundToAStop(t *testing.T) {
	s := newSong(t)
	a := s.track("a", sine(100000, 440, -12))
	brake := stage("spindown", nil)
	a.Chain.Nodes = []*project.Node{brake}
	p := passage(960, 1920, []string{a.ID}, course([]project.Point{point(0, 1, "step")},
		project.CourseTarget{Owner: brake.ID(), Name: "stop", From: 0, To: 1},
		project.CourseTarget{Owner: brake.ID(), Name: "sync", From: 0, To: 1},
		project.CourseTarget{Owner: brake.ID(), Name: "time", From: 1, To: 1, Length: 1}))
	p.Tail = project.TailHold
	s.doc.Passages = []*project.Passage{p}
	l, _ := s.print(Job{To: 70000})
	require.Greater(t, dsp.Peak(l[24000:26000], l[24000:26000]), 0.1)
	require.Less(t, dsp.Peak(l[48100:70000], l[48100:70000]), 1e-6)
}
