package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMoversAndHandlesLoseWhatIsRemoved(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	stage := a.Chain.Nodes[0].ID()
	m := &Mover{ID: "m", Name: "Sway", Shape: "sine", Rate: 1, Targets: []MoverTarget{{stage, "gain", 0.2}, {b.ID, "pan", -0.5}}}
	h := &Handle{ID: "h", Name: "Offing", Value: 30, Targets: []HandleTarget{{stage, "mix", 0, 100, 0}, {b.ID, "fader", -20, 0, 0.5}}}
	next := one(t, p, &PutMover{Mover: m}, &PutHandle{Handle: h})
	Gone := one(t, next, &RemoveNode{stage})
	assert.Equal(t, []MoverTarget{{b.ID, "pan", -0.5}}, Gone.Movers[0].Targets)
	assert.Equal(t, []HandleTarget{{b.ID, "fader", -20, 0, 0.5}}, Gone.Handles[0].Targets)
	Gone = one(t, next, &RemoveChannel{b.ID})
	assert.Len(t, Gone.Movers[0].Targets, 1)
	Gone = one(t, next, &RemoveHandle{"h"}, &RemoveMover{"m"})
	assert.Empty(t, Gone.Movers)
	assert.Empty(t, Gone.Handles)
	twice := one(t, next, &DuplicateChannel{ID: b.ID})
	assert.Len(t, twice.Movers[0].Targets, 3, "a copy of a row is moved as the row is")
	assert.Equal(t, 0.5, twice.Handles[0].Targets[2].Bend)
	assert.NotEqual(t, b.ID, twice.Handles[0].Targets[2].Owner)
	moved := *m
	moved.Shape = "wander"
	assert.Equal(t, "wander", one(t, next, &PutMover{Mover: &moved}).Movers[0].Shape)
	set := one(t, next, &SetParam{Owner: "h", Name: "value", Value: 80}, &BeginLine{"h", "value"})
	assert.Equal(t, 80.0, set.Handles[0].Value)
	assert.Empty(t, one(t, set, &RemoveHandle{"h"}).Lines[2:], "the line of a handle goes with it")
}

func TestParametersAreHungAndLetGo(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	b.Pan = -0.25
	next := one(t, p, &AddMover{"m", b.ID, "pan"}, &Hang{"", b.ID, "pan"})
	assert.Equal(t, []MoverTarget{{b.ID, "pan", 0.1}}, next.Movers[0].Targets)
	h := next.Handles[0]
	assert.Equal(t, HandleTarget{b.ID, "pan", -0.25, 1, 0}, h.Targets[0], "from where its hand has left it")
	next = one(t, next, &Hang{h.ID, b.ID, "fader"})
	next = one(t, next, &LetGo{b.ID, "pan"})
	assert.Len(t, next.Handles[0].Targets, 1)
	assert.Empty(t, one(t, next, &LetGo{b.ID, "fader"}).Handles, "nothing hangs on it any more")
	refusedWith(t, next, "is no longer there", &Hang{"nowhere", b.ID, "pan"})
}

func TestWhatCannotBeMovedIsRefused(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	stage := a.Chain.Nodes[0].ID()
	mover := func(t MoverTarget) *PutMover {
		return &PutMover{Mover: &Mover{Name: "Sway", Shape: "sine", Rate: 1, Targets: []MoverTarget{t}}}
	}
	refusedWith(t, p, "changes latency or memory", mover(MoverTarget{stage, "size", 0.1}))
	refusedWith(t, p, "has steps only", mover(MoverTarget{a.ID, "mute", 0.1}))
	refusedWith(t, p, "Depth 200 is outside -100 to 100 %", mover(MoverTarget{a.ID, "pan", 2}))
	refusedWith(t, p, "no parameter", mover(MoverTarget{a.ID, "shine", 0.1}))
	refusedWith(t, p, "unknown shape", &PutMover{Mover: &Mover{Name: "x", Shape: "zigzag", Rate: 1}})
	refusedWith(t, p, "Speed 100 is outside 0.01 to 40 Hz", &PutMover{Mover: &Mover{Name: "x", Shape: "sine", Rate: 100}})
	handle := func(name string, t HandleTarget) *PutHandle {
		return &PutHandle{Handle: &Handle{Name: name, Targets: []HandleTarget{t}}}
	}
	refusedWith(t, p, "outside -1 to 1", handle("One", HandleTarget{a.ID, "pan", -1, 3, 0}))
	refusedWith(t, p, "needs a name", handle(" ", HandleTarget{a.ID, "pan", -1, 1, 0}))
	next := one(t, p, handle("One", HandleTarget{a.ID, "pan", -1, 1, 0}))
	refusedWith(t, next, "hangs on the handle One already", handle("Two", HandleTarget{a.ID, "pan", 0, 1, 0}))
	refusedWith(t, next, "cannot move a handle", handle("Two", HandleTarget{next.Handles[0].ID, "value", 0, 100, 0}))
	require.NoError(t, next.Validate(fakeEffects))
}

func TestADrawnMovementGoesAlongItsPlaces(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	next := one(
		t,
		p,
		&PutMover{Mover: &Mover{ID: "m", Name: "By hand", Shape: DrawnShape, Rate: 1, Targets: []MoverTarget{{a.ID, "pan", 0.5}}}},
	)
	require.NotEmpty(t, next.Movers[0].Drawn, "there is something to begin with")
	m := &Mover{Drawn: []float64{0, 1, -1, 0.5}}
	for phase, want := range map[float64]float64{0: 0, 0.25: 1, 0.5: -1, 0.375: 0, 0.75: 0.5, 0.875: 0.25, 2.25: 1, -0.75: 1} {
		require.InDelta(t, want, m.DrawnAt(phase), 1e-12, "at %g", phase)
	}
	bad := *next.Movers[0]
	bad.Drawn = []float64{0, 2}
	refusedWith(t, p, "from -1 to 1", &PutMover{Mover: &bad})
	bad.Drawn = make([]float64, 300)
	refusedWith(t, p, "2 to 256 places", &PutMover{Mover: &bad})
}

func TestLeftAndRightAreMovedAgainstEachOther(t *testing.T) {
	p := sample(t)
	s := p.Channels[0].Chain.Nodes[0].Stage
	next := one(t, p, &MoveApart{Owner: s.ID, Name: "gain", Copy: "right"})
	left, right := next.Channels[0].Chain.Nodes[0].Stage, next.Channels[0].Chain.Nodes[1].Stage
	require.Equal(t, "right", right.ID)
	require.Equal(t, []string{"left", "right"}, []string{left.ActsOn, right.ActsOn})
	require.Equal(t, s.Params, right.Params)
	require.Equal(t, []MoverTarget{{s.ID, "gain", 0.15}, {"right", "gain", -0.15}}, next.Movers[0].Targets)
	refusedWith(t, next, "acts on left", &MoveApart{Owner: s.ID, Name: "gain"})
	refusedWith(t, p, "of a stage", &MoveApart{Owner: p.Channels[0].ID, Name: "pan"})
	// a mover that is there moves the copy the other way round
	p = one(t, p, &PutMover{Mover: &Mover{ID: "m", Name: "Tide", Shape: "sine", Rate: 1, Targets: []MoverTarget{{s.ID, "gain", 0.3}}}})
	next = one(t, p, &MoveApart{Owner: s.ID, Name: "gain", Copy: "right"})
	require.Len(t, next.Movers, 1)
	require.Equal(t, []MoverTarget{{s.ID, "gain", 0.3}, {"right", "gain", -0.3}}, next.Movers[0].Targets)
}

func TestAHandleBelongsToARowOrFork(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	p = one(t, p, &PutHandle{Handle: &Handle{ID: "h", Name: "Near", Home: a.ID, Shown: true}})
	refusedWith(t, p, "not there", &PutHandle{Handle: &Handle{ID: "x", Name: "Lost", Home: "nowhere"}})
	next := one(t, p, &RemoveChannel{a.ID})
	require.Empty(t, next.Handles[0].Home, "when its row goes it is the project's")
}
