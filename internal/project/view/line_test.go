package view

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"

	"shoal/internal/project"
)

// Whatever is offered for a line can have one, and is seen as what it is.
func TestWhatIsOfferedForALineCanHaveOne(t *testing.T) {
	p := song(t)
	bands, err := project.NewFork(project.Bands, 3)
	require.NoError(t, err)
	a := p.Channels[0]
	a.Chain.Nodes = append(a.Chain.Nodes, &project.Node{Fork: bands})
	require.NoError(t, p.Validate(effects))
	list, err := Movables(p, a.ID, effects)
	require.NoError(t, err)
	seen, lines := map[project.Address]bool{}, 0
	for _, m := range list {
		at := project.Address{Owner: m.Owner, Name: m.Name}
		require.Falsef(t, seen[at], "%s of %s is offered once", m.Label, m.Of)
		seen[at] = true
		require.NotEmpty(t, m.Of)
		if m.Line {
			lines++
		}
		v, err := Line(p, Seen{Owner: m.Owner, Name: m.Name, To: 48000, Steps: 10}, effects)
		require.NoErrorf(t, err, "%s of %s", m.Label, m.Of)
		assert.Equal(t, m.Of, v.Of)
		assert.Equal(t, a.ID, v.Channel)
		next := changed(
			t, p,
			&project.SetLine{Owner: m.Owner, Name: m.Name, Points: []project.Point{{Tick: 0, Value: v.Param.Default, Shape: project.Hold}}},
		)
		w, err := Line(next, Seen{Owner: m.Owner, Name: m.Name, To: 48000, Steps: 10}, effects)
		require.NoError(t, err)
		assert.Equal(t, 1, w.Count)
	}
	assert.Equal(t, 2, lines, "those that the sample has")
	for _, at := range []project.Address{
		{Owner: a.ID, Name: "fader"},
		{Owner: a.ID, Name: "mute"},
		{Owner: a.Sends[0].ID, Name: "level"},
		{Owner: a.Chain.Nodes[0].ID(), Name: "bypass"},
		{Owner: bands.ID, Name: param.CrossoverName(2)},
		{Owner: bands.ID, Name: "trim"},
		{Owner: bands.Paths[2].ID, Name: "width"},
	} {
		assert.Truef(t, seen[at], "%v is offered", at)
	}
	_, err = Movables(p, "nowhere", effects)
	assert.ErrorContains(t, err, "no longer there")
	_, err = Line(p, Seen{Owner: "nowhere", Name: "gain", To: 1, Steps: 2}, effects)
	assert.Error(t, err)
}

// A line is seen where its points are in time, along its parameter's own travel, and no further than asked.
func TestALineIsSeenInItsRange(t *testing.T) {
	p := song(t)
	a := p.Channels[0]
	p = changed(
		t,
		p,
		&project.SetLine{
			Owner: a.ID,
			Name:  "fader",
			Points: []project.Point{
				{Tick: 960, Value: -12, Shape: project.Ramp},
				{Tick: 1920, Value: 0, Shape: project.Hold},
				{Tick: 4800, Value: -3, Shape: project.Hold},
			},
		},
	)
	clock := p.Clock()
	from, to := clock.Frame(0), clock.Frame(2880)
	v, err := Line(p, Seen{Owner: a.ID, Name: "fader", From: from, To: to, Steps: 7}, effects)
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
	p := song(t)
	a := p.Channels[0]
	v, err := Line(p, Seen{Owner: a.ID, Name: "fader", From: 0, To: 48000, Steps: 1}, effects)
	require.NoError(t, err)
	assert.Zero(t, v.Count)
	require.Len(t, v.Path, 2, "two places at least")
	assert.InDelta(t, 0.2, v.Path[0]-param.Fader.Place(v.Low), 1e-9)
	assert.Less(t, v.Base, v.High)

	var points []project.Point
	for i := range int64(maxSeen + 50) {
		points = append(points, project.Point{Tick: 10 * i, Value: -20 + 10*math.Sin(float64(i)/9), Shape: project.Ramp})
	}
	p = changed(t, p, &project.SetLine{Owner: a.ID, Name: "fader", Points: points})
	end := p.Clock().Frame(points[len(points)-1].Tick)
	full, err := Line(p, Seen{Owner: a.ID, Name: "fader", From: 0, To: end, Steps: 100}, effects)
	require.NoError(t, err)
	assert.Equal(t, len(points), full.Count)
	assert.Empty(t, full.Points)
	near, err := Line(p, Seen{Owner: a.ID, Name: "fader", From: 0, To: end / 2, Steps: 100}, effects)
	require.NoError(t, err)
	assert.NotEmpty(t, near.Points, "nearer they can be told apart")
}
