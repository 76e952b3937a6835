package project

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"
)

// fader is the stretch of a channel's fader between two frames.
func fader(ch *Channel, from, to int64) Stretch {
	return Stretch{Owner: ch.ID, Name: "fader", From: from, To: to}
}

func lineOf(t *testing.T, p *Project, owner, name string) *Line {
	t.Helper()
	l, _ := p.Line(owner, name)
	require.NotNil(t, l)
	return l
}

// The sample's tempo is 90 at 48 kHz: a tick is 33⅓ frames.
const tick = 100.0 / 3

func frames(ticks int64) int64 { return int64(math.Round(float64(ticks) * tick)) }

func TestALineBeginsFlatAndTakesPoints(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	b.Pan = 0.4
	next := one(t, p, &BeginLine{b.ID, "pan"})
	l := lineOf(t, next, b.ID, "pan")
	assert.Empty(t, l.Points)
	assert.Equal(t, 0.4, l.At(500, param.Pan, b.Pan), "without points it is the flat value")
	refusedWith(t, next, "has a line already", &BeginLine{b.ID, "pan"})

	pan := Stretch{Owner: b.ID, Name: "pan", From: frames(1000), Snap: 480}
	next = one(
		t,
		next,
		&PutPoint{Stretch: pan, Value: -1},
		&PutPoint{Stretch: Stretch{Owner: b.ID, Name: "pan", From: frames(2000)}, Value: 1},
	)
	assert.Equal(t, []Point{{960, -1, Ramp, 0}, {2000, 1, Ramp, 0}}, lineOf(t, next, b.ID, "pan").Points, "the first snapped to the grid")
	assert.InDelta(t, 0, lineOf(t, next, b.ID, "pan").At(1480, param.Pan, 0), 1e-12)
	next = one(t, next, &PutPoint{Stretch: pan, Value: 7})
	assert.Equal(t, 1.0, lineOf(t, next, b.ID, "pan").Points[0].Value, "one in the same place takes the value, brought into the range")
}

func TestSwitchesHaveLinesThatStep(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	stage := a.Chain.Nodes[0].ID()
	next := one(t, p, &HoldStretch{Stretch{Owner: stage, Name: "bypass", From: frames(960), To: frames(1920)}, 1})
	assert.Equal(t, []Point{{0, 0, Hold, 0}, {960, 1, Hold, 0}, {1920, 0, Hold, 0}}, lineOf(t, next, stage, "bypass").Points)
	next = one(t, next, &HoldStretch{Stretch{Owner: a.ID, Name: "mute", From: frames(960), To: frames(1920)}, 0.7})
	assert.Equal(t, 1.0, lineOf(t, next, a.ID, "mute").Points[1].Value)
	refusedWith(t, next, "cannot be automated", &PutPoint{Stretch: Stretch{Owner: stage, Name: "size"}, Value: 3})
}

func TestARangeTakesAValueWithStepsAtBothEnds(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	p.Lines = append(p.Lines, &Line{b.ID, "fader", []Point{{Tick: 0, Value: -12, Shape: Ramp}, {Tick: 1920, Value: 0, Shape: Ramp}}})
	next := one(t, p, &HoldStretch{fader(b, frames(480), frames(960)), -3})
	l := lineOf(t, next, b.ID, "fader")
	d := param.Fader
	assert.InDelta(t, -9, l.At(479.999, d, 0), 0.01, "it arrives where it would have been")
	assert.Equal(t, -3.0, l.At(480, d, 0))
	assert.Equal(t, -3.0, l.At(959, d, 0))
	assert.InDelta(t, -6, l.At(960, d, 0), 1e-9, "and goes on from where it would be")
	assert.InDelta(t, -3, l.At(1440, d, 0), 1e-9)
}

func TestPointsMoveTogether(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	p.Lines = append(
		p.Lines,
		&Line{
			b.ID,
			"fader",
			[]Point{{Tick: 0, Value: -12, Shape: Ramp}, {Tick: 480, Value: -6, Shape: Hold}, {Tick: 960, Value: -3, Shape: Ramp}},
		},
	)
	s := fader(b, 0, 0)
	s.Snap = 240
	next := one(t, p, &MovePoints{Stretch: s, Ticks: []int64{480, 960}, By: frames(500)})
	assert.Equal(t, []Point{{0, -12, Ramp, 0}, {960, -6, Hold, 0}, {1440, -3, Ramp, 0}}, lineOf(t, next, b.ID, "fader").Points)
	next = one(t, p, &MovePoints{Stretch: s, Ticks: []int64{480}, Up: 1})
	assert.Equal(t, 12.0, lineOf(t, next, b.ID, "fader").Points[1].Value, "as far as the range goes")
	refusedWith(t, p, "is no longer there", &MovePoints{Stretch: s, Ticks: []int64{77}, By: 100})
	next = one(t, p, &MovePoints{Stretch: s, Ticks: []int64{480, 960}, By: frames(240), Copy: true})
	assert.Equal(
		t, []Point{{0, -12, Ramp, 0}, {480, -6, Hold, 0}, {720, -6, Hold, 0}, {960, -3, Ramp, 0}, {1200, -3, Ramp, 0}},
		lineOf(t, next, b.ID, "fader").Points, "a copy among those that it was made of",
	)
	curve := Curve
	next = one(t, p, &SetPoints{Stretch: s, Ticks: []int64{0}, Shape: &curve, Bend: new(float64)})
	assert.Equal(t, Curve, lineOf(t, next, b.ID, "fader").Points[0].Shape)
	next = one(t, p, &CutPoints{s, []int64{0, 960}})
	assert.Len(t, lineOf(t, next, b.ID, "fader").Points, 1)
}

func TestShapesBetweenPoints(t *testing.T) {
	for _, c := range []struct {
		shape    string
		bend, at float64
		want     float64
	}{{Ramp, 0, 0.25, 0.25}, {Hold, 0, 0.99, 0}, {Smooth, 0, 0.5, 0.5}, {Smooth, 0, 0.25, 0.15625}, {Curve, 0, 0.3, 0.3},
		{Curve, 1, 0.5, (math.Exp(3) - 1) / (math.Exp(6) - 1)}, {Curve, -1, 0.5, (math.Exp(-3) - 1) / (math.Exp(-6) - 1)}} {
		assert.InDelta(t, c.want, Bent(c.shape, c.bend, c.at), 1e-12, c)
	}
	for _, shape := range []string{Ramp, Smooth, Curve} {
		assert.Zero(t, Bent(shape, 0.7, 0))
		assert.InDelta(t, 1, Bent(shape, 0.7, 1), 1e-12)
	}
}

func TestFillingThrowsTheSameWayAgain(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	fill := func(how string, seed int64) []Point {
		next := one(t, p, &FillStretch{fader(b, frames(960), frames(1920)), 240, how, -20, -2, seed})
		return lineOf(t, next, b.ID, "fader").Points
	}
	value, rise, chance := fill("value", 0), fill("rise", 0), fill("chance", 3)
	assert.Len(t, rise, 6, "the flat value before, four, and what follows")
	assert.Equal(t, []float64{-2, -2, -2, -2}, []float64{value[1].Value, value[2].Value, value[3].Value, value[4].Value})
	assert.InDelta(t, -20, rise[1].Value, 1e-9)
	assert.InDelta(t, -2, rise[4].Value, 1e-9)
	assert.Equal(t, chance, fill("chance", 3))
	assert.NotEqual(t, chance, fill("chance", 4))
	for _, pt := range chance[1:5] {
		assert.True(t, pt.Value >= -20 && pt.Value <= -2)
	}
	refusedWith(t, p, "too often", &FillStretch{fader(b, 0, frames(96000)), 1, "value", 0, 0, 0})
	refusedWith(t, p, "select a stretch", &FillStretch{fader(b, 100, 100), 10, "value", 0, 0, 0})
}

func TestReversingTwiceIsNothing(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	points := []Point{
		{Tick: 0, Value: -12, Shape: Ramp},
		{Tick: 100, Value: -1, Shape: Curve, Bend: 0.5},
		{Tick: 700, Value: -30, Shape: Smooth},
		{Tick: 960, Value: 0, Shape: Ramp},
	}
	p.Lines = append(p.Lines, &Line{b.ID, "fader", points})
	turn := &TurnStretch{fader(b, 0, frames(960)), "reverse", 0}
	next := one(t, p, turn)
	assert.Equal(
		t,
		[]Point{{0, 0, Smooth, 0}, {260, -30, Curve, -0.5}, {860, -1, Ramp, 0}, {960, -12, Ramp, 0}},
		lineOf(t, next, b.ID, "fader").Points,
	)
	assert.Equal(t, points, lineOf(t, one(t, next, turn), b.ID, "fader").Points)
}

// Whatever a hand did, the thinned line stays within its bound of it, and a straight movement is
// two points.
func TestThinningKeepsItsBound(t *testing.T) {
	for _, d := range []param.Param{param.Fader, param.Pan, {Name: "freq", Unit: "Hz", Min: 20, Max: 20000, Taper: param.Log}} {
		for seed := range uint64(30) {
			r := rand.New(rand.NewPCG(seed, 1))
			at, speed := 0.5, 0.0
			var points []Point
			for i := range 600 {
				speed = 0.99*speed + 0.0003*r.NormFloat64()
				at = max(0, min(1, at+speed))
				points = append(points, Point{Tick: int64(i * 7), Value: d.At(at), Shape: Ramp})
			}
			thin := thinned(points, d, 0)
			assert.Less(t, len(thin), len(points)/3)
			l := &Line{Points: thin}
			for _, pt := range points {
				got := l.At(float64(pt.Tick), d, 0)
				if d.Unit == "dB" && pt.Value > -60 && got > -60 {
					require.LessOrEqual(t, math.Abs(got-pt.Value), ThinDecibels+1e-9)
				} else {
					require.LessOrEqual(t, math.Abs(d.Place(got)-d.Place(pt.Value)), ThinPart+1e-9)
				}
			}
		}
	}
	var straight []Point
	for i := range 500 {
		straight = append(straight, Point{Tick: int64(i), Value: -20 + float64(i)*0.03, Shape: Ramp})
	}
	assert.Len(t, thinned(straight, param.Fader, 0), 2)
}

func TestWhatIsTakenDownGlidesBackToTheLine(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	p.Lines = append(p.Lines, &Line{b.ID, "fader", []Point{{Tick: 0, Value: -12, Shape: Ramp}, {Tick: 1920, Value: 0, Shape: Ramp}}})
	taken := &TakenDown{Stretch: Stretch{Owner: b.ID, Name: "fader"}, Glide: frames(96)}
	for i := range 200 {
		taken.Frames = append(taken.Frames, frames(480)+int64(i)*60)
		taken.Values = append(taken.Values, -4)
	}
	next := one(t, p, taken)
	l := lineOf(t, next, b.ID, "fader")
	d := param.Fader
	assert.InDelta(t, -9, l.At(479.9, d, 0), 0.01)
	assert.Equal(t, -4.0, l.At(500, d, 0))
	end := float64(taken.Frames[199]) / tick
	assert.InDelta(t, -4, l.At(end-1, d, 0), 0.01)
	back := end + 96
	assert.InDelta(t, -12+12*back/1920, l.At(back, d, 0), 0.02, "it is the line again")
	assert.InDelta(t, -3, l.At(1440, d, 0), 0.02)
	assert.LessOrEqual(t, len(l.Points), 6)

	c := p.Channels[2] // a parameter without a line: it was flat before, and is again
	first := one(t, p, &TakenDown{Stretch: fader(c, 0, 0), Frames: []int64{frames(960), frames(1200)}, Values: []float64{-6, -9}, Glide: 0})
	assert.Equal(t, 0.0, lineOf(t, first, c.ID, "fader").At(959, d, 0))
	assert.Equal(t, -6.0, lineOf(t, first, c.ID, "fader").At(960, d, 0))
	assert.Equal(t, 0.0, lineOf(t, first, c.ID, "fader").At(1300, d, 0))
	refusedWith(t, p, "nothing was taken down", &TakenDown{Stretch: fader(b, 0, 0)})
}

func TestPastedPointsAreAdaptedToAnotherRange(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	points := []Point{{Tick: 960, Value: -1, Shape: Ramp}, {Tick: 1440, Value: 1, Shape: Smooth}}
	to := Stretch{Owner: b.ID, Name: "pan", From: frames(480)}
	next := one(t, p, &PastePoints{Stretch: to, Points: points, Of: &Address{a.ID, "pan"}})
	assert.Equal(t, []Point{{480, -1, Ramp, 0}, {960, 1, Smooth, 0}}, lineOf(t, next, b.ID, "pan").Points)
	stage := a.Chain.Nodes[0].ID()
	next = one(t, p, &PastePoints{Stretch: Stretch{Owner: stage, Name: "mix", From: 0}, Points: points, Of: &Address{a.ID, "pan"}})
	assert.Equal(t, []Point{{0, 0, Ramp, 0}, {480, 100, Smooth, 0}}, lineOf(t, next, stage, "mix").Points, "from the lowest to the highest")
}

func TestShapesFromTheGrid(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	draw := func(kind string) *Line {
		next := one(t, p, &ShapeStretch{fader(b, frames(960), frames(1920)), kind, 240, -20, -2})
		return lineOf(t, next, b.ID, "fader")
	}
	at := func(l *Line, tick float64) float64 { return l.At(tick, param.Fader, 0) }
	assert.InDelta(t, -20, at(draw("rise"), 960), 1e-9)
	assert.InDelta(t, -11, at(draw("rise"), 1440), 0.01)
	assert.InDelta(t, -2, at(draw("fall"), 960), 1e-9)
	for k := 0.0; k < 4; k++ {
		assert.Equal(t, -2.0, at(draw("pulse"), 960+k*240))
		assert.Equal(t, -20.0, at(draw("pulse"), 1080+k*240))
	}
	assert.InDelta(t, -11, at(draw("tremble"), 1020), 0.01)
	assert.InDelta(t, -8, at(draw("stair"), 1500), 0.01)
	for _, kind := range []string{"rise", "fall", "pulse", "tremble", "stair"} {
		assert.Equal(t, 0.0, at(draw(kind), 1920), "%s: behind it the line is what it was", kind)
		assert.Equal(t, 0.0, at(draw(kind), 959), kind)
	}
	refusedWith(t, p, "no shape called", &ShapeStretch{fader(b, 0, frames(960)), "zigzag", 240, 0, 0})
}

// Thinning takes an amount in the line's unit, for steps as for ramps, says before what would be left, and undoes.
func TestThinningLeavesOutWhatIsAtMostSoFarAway(t *testing.T) {
	for _, shape := range []string{Ramp, Hold} {
		p := sample(t)
		a := p.Channels[0]
		var points []Point
		for i := range 64 {
			points = append(points, Point{Tick: int64(i * 240), Value: -20 + 6*math.Sin(float64(i)/20) + 0.15*float64(i%2), Shape: shape})
		}
		p = one(t, p, &SetLine{Owner: a.ID, Name: "fader", Points: points})
		all := fader(a, 0, frames(64*240))
		last := 65
		for _, within := range []float64{0.05, 0.5, 2} {
			v, err := p.Thinned(all, within, fakeEffects)
			require.NoError(t, err)
			require.Equal(t, 64, v.Before)
			require.Less(t, v.After, last, "%s within %g", shape, within)
			require.LessOrEqual(t, v.Away, within+1e-9)
			last = v.After
			next, undo, err := Apply(p, []Change{&TurnStretch{all, "thin", within}}, fakeEffects)
			require.NoError(t, err)
			l := lineOf(t, next, a.ID, "fader")
			require.Len(t, l.Points, v.After)
			worst := 0.0
			for _, pt := range points {
				worst = max(worst, math.Abs(l.At(float64(pt.Tick), param.Fader, 0)-pt.Value))
			}
			require.InDelta(t, v.Away, worst, 1e-9)
			back, _, err := Apply(next, undo, fakeEffects)
			require.NoError(t, err)
			require.Equal(t, asJSON(t, p), asJSON(t, back))
		}
		require.Less(t, last, 12)
	}
	_, err := sample(t).Thinned(Stretch{Owner: "none"}, 1, fakeEffects)
	require.Error(t, err)
}
