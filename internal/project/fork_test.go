package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
)

// refusedWith makes one change that must be refused, in words.
func refusedWith(t *testing.T, p *Project, words string, c Change) {
	t.Helper()
	_, _, err := Apply(p, []Change{c}, fakeEffects)
	require.ErrorContains(t, err, words)
}

// withFork is the sample with a fork on its second track, and nothing else there.
func withFork(t *testing.T, kind string, paths ...*Path) (*Project, *Channel, *Fork) {
	p := sample(t)
	b := p.Channels[1]
	b.Chain.Nodes = []*Node{Forked(kind, "", paths...)}
	require.NoError(t, p.Validate(fakeEffects))
	return p, b, b.Chain.Nodes[0].Fork
}

func TestStagesBecomeAPathBesideADryOneThatIsOff(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	b.Chain.Nodes = append(b.Chain.Nodes, stageNode("reverb"), stageNode("trim"))
	ids := []string{b.Chain.Nodes[2].ID(), b.Chain.Nodes[1].ID()} // in any order
	b.Waterline = ids[1]
	next := one(t, p, &MakeFork{ID: "braid", Kind: Copies, Nodes: ids})
	ch, _ := next.Channel(b.ID)
	require.Len(t, ch.Chain.Nodes, 2)
	f := ch.Chain.Nodes[1].Fork
	require.NotNil(t, f)
	assert.Equal(t, "braid", f.ID)
	assert.True(t, f.Paths[0].Mute, "the dry path starts switched off")
	assert.Empty(t, f.Paths[0].Chain.Nodes)
	assert.False(t, f.Paths[1].Mute)
	assert.Equal(t, []string{ids[1], ids[0]}, []string{f.Paths[1].Chain.Nodes[0].ID(), f.Paths[1].Chain.Nodes[1].ID()}, "in their order")
	assert.Equal(t, "braid", ch.Waterline, "what was printed before the line now ends at the fork")

	back := one(t, next, &DissolveFork{ID: "braid"})
	ch, _ = back.Channel(b.ID)
	require.Len(t, ch.Chain.Nodes, 3)
	assert.Equal(t, ids[1], ch.Chain.Nodes[1].ID())

	first := b.Chain.Nodes[0].ID()
	refusedWith(t, p, "select neighbours", &MakeFork{Kind: Copies, Nodes: []string{first, ids[0]}})
	refusedWith(t, p, "different chains", &MakeFork{Kind: Copies, Nodes: []string{first, p.Channels[0].Chain.Nodes[0].ID()}})
	refusedWith(t, p, "2 to 5 bands", &MakeFork{Kind: Bands, Bands: 6, Owner: b.ID})
}

func TestASingleStageNamesItsPath(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	next := one(t, p, &MakeFork{Kind: Copies, Nodes: []string{b.Chain.Nodes[0].ID()}})
	ch, _ := next.Channel(b.ID)
	assert.Equal(t, "trim", ch.Chain.Nodes[0].Fork.Paths[1].Name)
}

func TestDissolvingAsksWhichPathIsLeft(t *testing.T) {
	p, b, f := withFork(t, Copies, NewPath("one", stageNode("trim")), NewPath("two", stageNode("reverb")))
	refusedWith(t, p, "one, two hold something", &DissolveFork{ID: f.ID})
	next := one(t, p, &DissolveFork{ID: f.ID, Path: f.Paths[1].ID})
	ch, _ := next.Channel(b.ID)
	require.Len(t, ch.Chain.Nodes, 1)
	assert.Equal(t, "reverb", ch.Chain.Nodes[0].Stage.Effect)
}

func TestPathsOfCopies(t *testing.T) {
	p, _, f := withFork(t, Copies, NewPath("one", stageNode("trim")), NewPath("two"))
	next := one(t, p, &NewPathOf{Fork: f.ID}, &DuplicatePath{ID: f.Paths[0].ID, New: "copy"}, &MovePath{"copy", 0})
	g, _, _ := next.ForkByID(f.ID)
	require.Len(t, g.Paths, 4)
	assert.Equal(t, "copy", g.Paths[0].ID)
	assert.True(t, g.Paths[0].Mute, "a copy starts switched off: it would be 6 dB louder")
	assert.True(t, g.Paths[3].Mute)
	assert.NotEqual(t, f.Paths[0].Chain.Nodes[0].ID(), g.Paths[0].Chain.Nodes[0].ID(), "its stages are its own")

	alone := one(t, p, &RemovePath{f.Paths[1].ID})
	refusedWith(t, alone, "dissolve", &RemovePath{f.Paths[0].ID})
}

func TestPathsThatBelongToAKind(t *testing.T) {
	p, _, f := withFork(t, MidSide)
	refusedWith(t, p, "keeps both paths", &RemovePath{f.Paths[0].ID})
	refusedWith(t, p, "two paths", &NewPathOf{Fork: f.ID})
	refusedWith(t, p, "cannot stand twice", &DuplicatePath{ID: f.Paths[0].ID})
	refusedWith(t, p, "have their order", &MovePath{f.Paths[0].ID, 1})
	refusedWith(t, p, "only a band", &DivideBand{Path: f.Paths[0].ID})
	slope := 48
	refusedWith(t, p, "only a fork of bands", &SetFork{ID: f.ID, Slope: &slope})
}

func TestBandsAreDividedAndTakenOut(t *testing.T) {
	p, _, f := withFork(t, Bands, NewPath("Low"), NewPath("Mids", stageNode("reverb")), NewPath("High"))
	mids := f.Paths[1]
	mids.Level = -3
	next := one(t, p, &DivideBand{Path: mids.ID, New: "upper"})
	g, _, _ := next.ForkByID(f.ID)
	assert.Equal(t, []float64{200, 775, 3000}, g.Crossovers)
	assert.Equal(t, "upper", g.Paths[2].ID)
	assert.Equal(t, -3.0, g.Paths[2].Level, "both hold what the one held")
	assert.Len(t, g.Paths[2].Chain.Nodes, 1)

	low := one(t, next, &RemovePath{f.Paths[0].ID})
	g, _, _ = low.ForkByID(f.ID)
	assert.Equal(t, []float64{775, 3000}, g.Crossovers, "the band above takes the lowest's place")
	top := one(t, next, &RemovePath{f.Paths[2].ID})
	g, _, _ = top.ForkByID(f.ID)
	assert.Equal(t, []float64{200, 775}, g.Crossovers)

	refusedWith(t, p, "no room for a crossover at 210 Hz", &DivideBand{Path: mids.ID, Hz: 210})
	two := one(t, p, &RemovePath{mids.ID})
	refusedWith(t, two, "two bands are the least", &RemovePath{f.Paths[0].ID})
	five := one(t, p, &DivideBand{Path: mids.ID}, &DivideBand{Path: mids.ID})
	refusedWith(t, five, "the most", &DivideBand{Path: mids.ID})
}

func TestCrossoversKeepAThirdOfAnOctave(t *testing.T) {
	p, _, f := withFork(t, Bands, NewPath("Low"), NewPath("Mids"), NewPath("High"))
	next := one(t, p, &SetParam{Owner: f.ID, Name: "x1", Value: 9000})
	g, _, _ := next.ForkByID(f.ID)
	assert.InDelta(t, 3000/dsp.Apart, g.Crossovers[0], 0.01, "it stops short of its neighbour")
	assert.Equal(t, 3000.0, g.Crossovers[1])
	refusedWith(t, p, "outside 30 to 18000", &SetParam{Owner: f.ID, Name: "x1", Value: 5})
	refusedWith(t, p, "no parameter", &SetParam{Owner: f.ID, Name: "x3", Value: 500})

	bad := Clone(p)
	g, _, _ = bad.ForkByID(f.ID)
	g.Crossovers[1] = 210
	require.ErrorContains(t, bad.Validate(fakeEffects), "closer than a third of an octave")
	g.Crossovers = g.Crossovers[:1]
	require.ErrorContains(t, bad.Validate(fakeEffects), "3 bands are parted by 2 crossovers")
}

func TestLinearPhaseLiftsWhatItsKernelCannotHold(t *testing.T) {
	p, _, f := withFork(t, Bands, NewPath("Low"), NewPath("Mids"), NewPath("High"))
	f.Crossovers = []float64{40, 70}
	yes := true
	next := one(t, p, &SetFork{ID: f.ID, Linear: &yes})
	g, _, _ := next.ForkByID(f.ID)
	assert.Equal(t, 60.0, g.Crossovers[0])
	assert.InDelta(t, 60*dsp.Apart, g.Crossovers[1], 1e-9)
	refusedWith(t, next, "outside 60 to 18000", &SetParam{Owner: f.ID, Name: "x1", Value: 50})
	refusedWith(t, next, "cannot be automated", &SetLine{Owner: f.ID, Name: "x1", Points: []Point{{Tick: 0, Value: 100, Shape: Ramp}}})
}

func TestTapsOfAPathGoWhenItGoes(t *testing.T) {
	p, b, f := withFork(t, Copies, NewPath("one"), NewPath("two", stageNode("trim")))
	b.Chain.Nodes = append([]*Node{stageNode("trim")}, b.Chain.Nodes...)
	two, hall := f.Paths[1], p.Channels[2]
	key := &Tap{Channel: b.ID, Point: "path", Node: two.ID}
	a := p.Channels[0]
	next := one(t, p, &SetKey{a.Chain.Nodes[0].ID(), key}, &AddSend{b.ID, 0, &Send{ID: "send", To: hall.ID, After: two.ID}})
	Gone := one(t, next, &RemovePath{two.ID})
	ch, _ := Gone.Channel(b.ID)
	assert.Equal(t, ch.Chain.Nodes[0].ID(), ch.Sends[0].After, "the point in front of the fork")
	s, _, _ := Gone.StageByID(a.Chain.Nodes[0].ID())
	assert.Equal(t, &Tap{Channel: b.ID, Point: "after", Node: ch.Chain.Nodes[0].ID()}, s.Key)
	refusedWith(t, p, "has no path", &SetKey{a.Chain.Nodes[0].ID(), &Tap{Channel: b.ID, Point: "path", Node: "nowhere"}})
	refusedWith(t, next, "feed itself", &SetKey{two.Chain.Nodes[0].ID(), key})
}

func TestPathsAreSpreadToRows(t *testing.T) {
	p, b, f := withFork(t, Bands, NewPath("Low"), NewPath("Mids"), NewPath("High"))
	behind := stageNode("reverb")
	b.Chain.Nodes = append(b.Chain.Nodes, behind)
	b.Fader, b.Pan, f.Trim = -4, 0.25, -1.5
	b.Sends = []*Send{{ID: "send", To: p.Channels[2].ID, Level: -9}}
	p.Lines = append(
		p.Lines,
		&Line{b.ID, "fader", []Point{{Tick: 0, Value: -6, Shape: Ramp}}},
		&Line{"send", "level", []Point{{Tick: 0, Value: -20, Shape: Ramp}}},
	)
	next := one(t, p, &SpreadPaths{Fork: f.ID, Group: "wood"})
	group, _ := next.Channel("wood")
	require.NotNil(t, group)
	assert.Equal(t, -4.0, group.Fader)
	assert.Equal(t, 0.25, group.Pan)
	assert.Equal(t, behind.ID(), group.Chain.Nodes[0].ID(), "what stands behind the fork goes with it")
	assert.Equal(t, "send", group.Sends[0].ID)
	ch, _ := next.Channel(b.ID)
	assert.Empty(t, ch.Output)
	assert.Empty(t, ch.Sends)
	var rows []*Channel
	for _, x := range next.Channels {
		if x.Output == "wood" {
			rows = append(rows, x)
		}
	}
	require.Len(t, rows, 3)
	assert.Equal(t, "B, Low", rows[0].Name)
	assert.Equal(t, -1.5, rows[2].Fader, "the fork's output")
	assert.Equal(t, &Tap{Channel: b.ID, Point: "path", Node: f.Paths[2].ID}, rows[2].Input)
	owners := map[string]bool{}
	for _, l := range next.Lines {
		owners[l.Owner+" "+l.Name] = true
	}
	assert.True(t, owners["wood fader"] && owners["send level"] && !owners[b.ID+" fader"])

	f.Mix = 50
	refusedWith(t, p, "dry signal has no path", &SpreadPaths{Fork: f.ID})
}

func TestOldForksAreRead(t *testing.T) {
	old := `{"bypass":false,"nodes":[{"fork":{"id":"f","name":"","kind":"copies","bypass":false,"mix":100,"mixLaw":"blend","paths":[
		{"id":"p","name":"Dry","level":0,"pan":0,"mute":false,"invert":false,"chain":{"bypass":false,"nodes":[]}}]}}]}`
	c, err := ReadChain([]byte(old), fakeEffects)
	require.NoError(t, err)
	assert.Equal(t, 100.0, c.Nodes[0].Fork.Paths[0].Width)
	assert.Equal(t, 24, c.Nodes[0].Fork.Slope)
	_, err = ReadChain([]byte(`{"bypass":false,"nodes":[{"fork":{"id":"f","kind":"copies","strange":1,"paths":[]}}]}`), fakeEffects)
	require.ErrorContains(t, err, "strange")
}

func TestForksAreNestedEightDeep(t *testing.T) {
	p := sample(t)
	b := p.Channels[1]
	b.Chain.Nodes = []*Node{}
	owner := b.ID
	for range 8 {
		f, err := NewFork(Copies, 0)
		require.NoError(t, err)
		p = one(t, p, &AddNode{Owner: owner, Index: 0, Node: &Node{Fork: f}})
		owner = f.Paths[1].ID
	}
	f, _ := NewFork(Copies, 0)
	for len(f.Paths) < MaxPaths {
		f.Paths = append(f.Paths, NewPath("more"))
	}
	p = one(t, p, &AddNode{Owner: owner, Index: 0, Node: &Node{Fork: f}})
	refusedWith(t, p, "at most 64 paths", &NewPathOf{Fork: f.ID})
}
