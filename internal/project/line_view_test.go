package project

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"
)

// Whatever is offered for a line can have one, and is seen as what it is.
func TestWhatIsOfferedForALineCanHaveOne(t *testing.T) {
	p := sample(t)
	bands, err := NewFork(Bands, 3)
	require.NoError(t, err)
	a := p.Channels[0]
	a.Chain.Nodes = append(a.Chain.Nodes, &Node{Fork: bands})
	require.NoError(t, p.Validate(fakeEffects))
	list, err := p.Movables(a.ID, fakeEffects)
	require.NoError(t, err)
	seen, lines := map[Address]bool{}, 0
	for _, m := range list {
		at := Address{m.Owner, m.Name}
		require.Falsef(t, seen[at], "%s of %s is offered once", m.Label, m.Of)
		seen[at] = true
		require.NotEmpty(t, m.Of)
		if m.Line {
			lines++
		}
		v, err := p.LineView(m.Owner, m.Name, 0, 48000, 10, fakeEffects)
		require.NoErrorf(t, err, "%s of %s", m.Label, m.Of)
		assert.Equal(t, m.Of, v.Of)
		assert.Equal(t, a.ID, v.Channel)
		next := one(t, p, &SetLine{Owner: m.Owner, Name: m.Name, Points: []Point{{Tick: 0, Value: v.Param.Default, Shape: Hold}}})
		w, err := next.LineView(m.Owner, m.Name, 0, 48000, 10, fakeEffects)
		require.NoError(t, err)
		assert.Equal(t, 1, w.Count)
	}
	assert.Equal(t, 2, lines, "those that the sample has")
	for _, at := range []Address{{a.ID, "fader"}, {a.ID, "mute"}, {a.Sends[0].ID, "level"}, {a.Chain.Nodes[0].ID(), "bypass"}, {bands.ID, param.CrossoverName(2)}, {bands.ID, "trim"}, {bands.Paths[2].ID, "width"}} {
		assert.Truef(t, seen[at], "%v is offered", at)
	}
	_, err = p.Movables("nowhere", fakeEffects)
	assert.ErrorContains(t, err, "no longer there")
	_, err = p.LineView("nowhere", "gain", 0, 1, 2, fakeEffects)
	assert.Error(t, err)
}

// A line is seen where its points are in time, along its parameter's own travel, and no further than asked.
func TestALineIsSeenInItsRange(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	p = one(
		t,
		p,
		&SetLine{
			Owner: a.ID,
			Name:  "fader",
			Points: []Point{
				{Tick: 960, Value: -12, Shape: Ramp},
				{Tick: 1920, Value: 0, Shape: Hold},
				{Tick: 4800, Value: -3, Shape: Hold},
			},
		},
	)
	clock := p.Clock()
	from, to := clock.Frame(0), clock.Frame(2880)
	v, err := p.LineView(a.ID, "fader", from, to, 7, fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, 3, v.Count)
	require.Len(t, v.Points, 2, "the third lies behind the range")
	for i, tick := range []int64{960, 1920} {
		assert.Equal(t, clock.Frame(tick), v.Points[i].Frame)
		assert.InDelta(t, param.Fader.Place(v.Points[i].Value), v.Points[i].Place, 1e-12)
	}
	require.Len(t, v.Path, 7)
	for i, want := range map[int]float64{0: -12, 2: -12, 3: -6, 4: 0, 6: 0} {
		assert.InDeltaf(t, want, param.Fader.At(v.Path[i]), 0.05, "at place %d", i)
	}
	assert.InDelta(t, -12, v.Low, 1e-9)
	assert.InDelta(t, 0, v.High, 1e-9)
}

// Where a line is flat, gestures have room to both sides of it; where it has very many points, they are not
// taken hold of one by one.
func TestALineThatIsFlatOrFull(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	v, err := p.LineView(a.ID, "fader", 0, 48000, 1, fakeEffects)
	require.NoError(t, err)
	assert.Zero(t, v.Count)
	require.Len(t, v.Path, 2, "two places at least")
	assert.InDelta(t, 0.2, v.Path[0]-param.Fader.Place(v.Low), 1e-9)
	assert.Less(t, v.Base, v.High)

	var points []Point
	for i := range int64(maxSeen + 50) {
		points = append(points, Point{Tick: 10 * i, Value: -20 + 10*math.Sin(float64(i)/9), Shape: Ramp})
	}
	p = one(t, p, &SetLine{Owner: a.ID, Name: "fader", Points: points})
	end := p.Clock().Frame(points[len(points)-1].Tick)
	full, err := p.LineView(a.ID, "fader", 0, end, 100, fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, len(points), full.Count)
	assert.Empty(t, full.Points)
	near, err := p.LineView(a.ID, "fader", 0, end/2, 100, fakeEffects)
	require.NoError(t, err)
	assert.NotEmpty(t, near.Points, "nearer they can be told apart")
}
