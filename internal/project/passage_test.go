package project

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var straightOn = []Point{{Tick: 0, Value: 0, Shape: Ramp}, {Tick: CourseParts, Value: 1, Shape: Ramp}}

// away is a passage over the first row of the sample that moves its fader.
func away(p *Project) *Passage {
	a := p.Channels[0]
	return &Passage{ID: "away", Name: "Away", From: 7680, To: 9600, Rows: []string{a.ID}, Courses: []*Course{
		{Name: "Down", Points: straightOn, Targets: []CourseTarget{{Owner: a.ID, Name: "fader", To: -40, Here: true}}}}}
}

func TestPassagesAreMovedCopiedAndChanged(t *testing.T) {
	p := sample(t)
	p = one(t, p, &PutPassage{Passage: away(p)})
	x, _ := p.PassageByID("away")
	assert.Equal(t, TailRing, x.Tail)
	clock := p.Clock()
	moved := one(t, p, &RangePassage{ID: "away", From: clock.Frame(4000), To: clock.Frame(5000), Snap: 960})
	y, _ := moved.PassageByID("away")
	assert.Equal(t, [2]int64{3840, 4800}, [2]int64{y.From, y.To}, "on the grid")
	refusedWith(t, p, "at least one step of the grid", &RangePassage{ID: "away", From: 0, To: 100, Snap: 960})

	// it ends where the section Two begins: its copy ends where One does, which would be before the song
	refusedWith(t, p, "before the song", &CopyPassage{ID: "away", Section: p.Sections[0].ID})
	p.Sections = append(p.Sections, Section{NewID(), "Three", 19200})
	copied := one(t, p, &CopyPassage{ID: "away", New: "again", Section: p.Sections[2].ID})
	z, _ := copied.PassageByID("again")
	assert.Equal(t, [2]int64{17280, 19200}, [2]int64{z.From, z.To})
	off, name, tail, fade := true, "Out", TailFade, int64(480)
	set := one(t, copied, &SetPassage{ID: "again", Name: &name, Off: &off, Tail: &tail, Fade: &fade})
	z, _ = set.PassageByID("again")
	assert.Equal(t, "Out", z.Name)
	assert.Len(t, set.Spans(), 1, "one of them is off")

	points := []Point{{Tick: CourseParts, Value: 0.5, Shape: Ramp}, {Tick: 0, Value: 1, Shape: Smooth}}
	set = one(t, p, &SetCourse{"away", 0, points})
	x, _ = set.PassageByID("away")
	assert.Equal(t, 1.0, x.Courses[0].Points[0].Value, "points are put in order")
	assert.InDelta(t, 0.75, x.Courses[0].At(0.5), 1e-9)
	set = one(t, set, &MoveByCourse{ID: "away", Owner: p.Channels[1].ID, Name: "pan"})
	x, _ = set.PassageByID("away")
	require.Len(t, x.Courses, 2)
	assert.Equal(t, CourseTarget{Owner: p.Channels[1].ID, Name: "pan", To: 1, Here: true}, x.Courses[1].Targets[0])
	refusedWith(t, set, "moves Pan already", &MoveByCourse{ID: "away", Owner: p.Channels[1].ID, Name: "pan"})
	to, here := -1.0, false
	set = one(t, set, &SetCourseTarget{ID: "away", Course: 1, Owner: p.Channels[1].ID, Name: "pan", To: &to, Here: &here})
	x, _ = set.PassageByID("away")
	assert.Equal(t, -1.0, x.Courses[1].Targets[0].To)
	set = one(t, set, &LetGoOfCourse{"away", 1, p.Channels[1].ID, "pan"})
	x, _ = set.PassageByID("away")
	assert.Len(t, x.Courses, 1, "a course without anything to move goes")
}

func TestAPassageGoesWithWhatItBrought(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	brake := stageNode("trim")
	x, y := away(p), away(p)
	target := CourseTarget{Owner: brake.ID(), Name: "gain", From: 0, To: -60}
	x.Courses[0].Targets = append(x.Courses[0].Targets, target)
	x.Brought = []string{brake.ID()}
	y.ID, y.From, y.To, y.Courses[0].Targets = "later", 19200, 21120, []CourseTarget{target}
	both := one(t, p, &AddNode{Owner: a.ID, Index: 9, Node: brake}, &PutPassage{Passage: x}, &PutPassage{Passage: y})
	left := one(t, both, &RemovePassage{"away"})
	_, there := left.findNode(brake.ID())
	assert.True(t, there, "another passage moves it: it stays")
	heir, _ := left.PassageByID("later")
	assert.Equal(t, []string{brake.ID()}, heir.Brought)
	left = one(t, left, &RemovePassage{"later"})
	_, there = left.findNode(brake.ID())
	assert.False(t, there)

	// what is removed by somebody else is gone from all passages, and undo brings it back
	Gone := one(t, both, &RemoveNode{brake.ID()})
	x, _ = Gone.PassageByID("away")
	assert.Len(t, x.Courses[0].Targets, 1)
	assert.Empty(t, x.Brought)
	Gone = one(t, both, &RemoveChannel{a.ID})
	x, _ = Gone.PassageByID("away")
	assert.Empty(t, x.Rows)
	twice := one(t, both, &DuplicateChannel{ID: a.ID})
	x, _ = twice.PassageByID("away")
	assert.Len(t, x.Rows, 2, "a copy of a row passes as the row does")
	assert.Len(t, x.Courses[0].Targets, 4)
	assert.Len(t, x.Brought, 2)
}

func TestPassagesThatCannotBeAreRefused(t *testing.T) {
	p := sample(t)
	bad := func(change func(x *Passage)) *PutPassage {
		x := away(p)
		change(x)
		return &PutPassage{Passage: x}
	}
	for want, c := range map[string]*PutPassage{
		"needs a name":          bad(func(x *Passage) { x.Name = " " }),
		"ends before it begins": bad(func(x *Passage) { x.To = x.From }),
		"unknown tail rule":     bad(func(x *Passage) { x.Tail = "wag" }),
		"a fade of":             bad(func(x *Passage) { x.Fade = -1 }),
		"one of its rows":       bad(func(x *Passage) { x.Rows = []string{"nowhere"} }),
		"1 to 1000 points":      bad(func(x *Passage) { x.Courses[0].Points = nil }),
		"not in order":          bad(func(x *Passage) { x.Courses[0].Points = []Point{{100, 0, Ramp, 0}, {0, 0, Ramp, 0}} }),
		"a point at part":       bad(func(x *Passage) { x.Courses[0].Points = []Point{{20000, 0, Ramp, 0}} }),
		"a value of 2":          bad(func(x *Passage) { x.Courses[0].Points = []Point{{0, 2, Ramp, 0}} }),
		"unknown shape":         bad(func(x *Passage) { x.Courses[0].Points = []Point{{0, 0, "zig", 0}} }),
		"outside":               bad(func(x *Passage) { x.Courses[0].Targets[0].To = 100 }),
		"changes latency or": bad(func(x *Passage) {
			x.Courses[0].Targets[0] = CourseTarget{Owner: p.Channels[0].Chain.Nodes[0].ID(), Name: "size"}
		}),
		"has no parameter":       bad(func(x *Passage) { x.Courses[0].Targets[0].Name = "shine" }),
		"no passage to put down": {},
	} {
		refusedWith(t, p, want, c)
	}
}

// Turned into lines, a passage does what it did: at every place the line has the value that the span gave.
func TestAPlainPassageIsTheSameAsLines(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 60 {
		p := sample(t)
		a, b := p.Channels[0], p.Channels[1]
		p.Audio[0].Frames = 48000 * 30
		b.Clips = []*Clip{{ID: NewID(), Name: "y", Audio: aSound, Frames: 48000 * 30, Start: 100000}}
		if r.IntN(2) == 0 {
			p.Lines = []*Line{
				{Owner: a.ID, Name: "fader", Points: []Point{{Tick: 1000, Value: -6, Shape: Ramp}, {Tick: 9000, Value: -2, Shape: Hold}}},
			}
		}
		x := away(p)
		x.From, x.To = int64(1000+r.IntN(3000)), int64(6000+r.IntN(3000))
		x.Courses[0].Points = nil
		for i := range 2 + r.IntN(4) {
			x.Courses[0].Points = append(
				x.Courses[0].Points,
				Point{int64(i * (1500 + r.IntN(400))), float64(r.IntN(11)) / 10, []string{Ramp, Smooth, Curve, Hold}[r.IntN(4)], 0.3},
			)
		}
		x.Courses[0].Targets[0].Here = r.IntN(2) == 0
		x.Courses = append(
			x.Courses,
			&Course{Name: "Mute", Points: x.Courses[0].Points, Targets: []CourseTarget{{Owner: b.ID, Name: "mute", From: 0, To: 1}}},
		)
		before := one(t, p, &PutPassage{Passage: x})
		after := one(t, before, &PlainPassage{"away"})
		require.Empty(t, after.Passages)
		clock := before.Clock()
		for _, s := range before.Spans() {
			d, base, err := before.Describe(s.Owner, s.Name, fakeEffects)
			require.NoError(t, err)
			was, _ := before.Line(s.Owner, s.Name)
			now, _ := after.Line(s.Owner, s.Name)
			require.NotNil(t, now)
			if was == nil {
				was = &Line{}
			}
			for tick := int64(0); tick < 12000; tick += 37 {
				f := clock.Frame(tick)
				if near(s.Points, clock, tick) || d.Stepped() && near(s.Steps(), clock, tick) {
					continue
				}
				want := was.At(float64(tick), d, base)
				if f >= s.From && f < s.To {
					start := d.Place(s.Start)
					if s.Here {
						start = d.Place(want)
					}
					if at := s.At(f); d.Stepped() {
						want = math.Floor(at + 0.5)
					} else {
						want = d.At(start + (d.Place(s.End)-start)*at)
					}
				}
				require.InDelta(
					t,
					d.Place(want),
					d.Place(now.At(float64(tick), d, base)),
					0.01,
					"%s at tick %d of %d to %d",
					s.Name,
					tick,
					x.From,
					x.To,
				)
			}
		}
	}
}

// near says that there is a point within two ticks: lines know ticks only.
func near(points []SpanPoint, clock *Clock, tick int64) bool {
	for _, p := range points {
		if math.Abs(clock.Tick(p.Frame)-float64(tick)) < 2 {
			return true
		}
	}
	return false
}

// A switch is thrown on the frame on which its course has gone half way.
func TestStepsOfASpan(t *testing.T) {
	s := Span{From: 1000, To: 9000, Points: []SpanPoint{{1000, 0, Ramp, 0}, {5000, 1, Ramp, 0}, {9000, 0, Hold, 0}}}
	assert.Equal(t, []SpanPoint{{1000, 0, Hold, 0}, {3000, 1, Hold, 0}, {7001, 0, Hold, 0}}, s.Steps())
	for f := s.From; f < s.To; f++ { // and nowhere else
		want := math.Floor(s.At(f) + 0.5)
		got := 0.0
		for _, p := range s.Steps() {
			if p.Frame <= f {
				got = p.Value
			}
		}
		require.Equal(t, want, got, "frame %d", f)
	}
}

func TestNextSoundIsThatOfAllThatFeedsARow(t *testing.T) {
	p := sample(t)
	a, hall := p.Channels[0], p.Channels[2]
	a.Clips[0].Start = 5000
	next := func(row string, at int64) int64 {
		f, ok := p.NextSound(row, at, p.Clock())
		require.True(t, ok)
		return f
	}
	assert.Equal(t, int64(5000), next(a.ID, 0))
	assert.Equal(t, int64(5000), next(hall.ID, 5000), "what is sent to it")
	assert.Equal(t, int64(5000), next(p.MainChannel().ID, 100))
	_, ok := p.NextSound(a.ID, 5001, p.Clock())
	assert.False(t, ok, "none comes")
	tail := TailCut
	x := away(p)
	x.Rows, x.Tail = []string{hall.ID}, tail
	x.From, x.To = 0, 96
	q := one(t, p, &PutPassage{Passage: x})
	spans := q.Spans()
	last := spans[len(spans)-1]
	assert.Equal(t, hall.ID, last.Owner)
	assert.Equal(t, int64(5000), last.To)
}

func TestAPassageIsPutWhereItIsWritten(t *testing.T) {
	p := sample(t)
	x := away(p)
	p = one(t, p, &PutPassage{Passage: x})
	clock := p.Clock()
	next := one(t, p, &RangePassage{ID: x.ID, FromAt: "3.5", ToAt: "5"})
	y, _ := next.PassageByID(x.ID)
	require.Equal(t, "3.5", clock.Where(y.From))
	require.Equal(t, "5.1", clock.Where(y.To))
	next = one(t, next, &RangePassage{ID: x.ID, ToBy: 480})
	y, _ = next.PassageByID(x.ID)
	require.Equal(t, "3.5 5.2", clock.Where(y.From)+" "+clock.Where(y.To))
	refusedWith(t, next, "is no place", &RangePassage{ID: x.ID, FromAt: "soon"})
	refusedWith(t, next, "before it begins", &RangePassage{ID: x.ID, FromAt: "6.1"})
}
