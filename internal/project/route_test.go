package project

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// one applies a change that must fit.
func one(t *testing.T, p *Project, c ...Change) *Project {
	next, undo, err := Apply(p, c, fakeEffects)
	require.NoError(t, err)
	back, _, err := Apply(next, undo, fakeEffects)
	require.NoError(t, err)
	require.Equal(t, asJSON(t, p), asJSON(t, back))
	return next
}

func TestAReturnIsMadeInOneGesture(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	next := one(t, p, &MakeReturn{ID: "fresh", Name: " Hall ", Effect: "reverb", Channels: []string{a.ID, b.ID}})
	ret, ok := next.Channel("fresh")
	require.True(t, ok)
	assert.Equal(t, "Hall 2", ret.Name, "a fresh name beside the Hall that is there")
	assert.True(t, ret.SoloSafe)
	assert.Equal(t, 100.0, ret.Chain.Nodes[0].Stage.Mix)
	assert.Equal(t, "blend", ret.Chain.Nodes[0].Stage.MixLaw, "fully wet: nothing dry is added")
	assert.Equal(t, Main, next.Channels[len(next.Channels)-1].Kind, "the main output stays last")
	for _, id := range []string{a.ID, b.ID} {
		ch, _ := next.Channel(id)
		s := ch.Sends[len(ch.Sends)-1]
		assert.Equal(t, "fresh", s.To)
		assert.Greater(t, s.Level, -20.0, "it can be heard")
	}
	_, _, err := Apply(p, []Change{&MakeReturn{Effect: "kazoo"}}, fakeEffects)
	assert.ErrorContains(t, err, "no effect \"kazoo\"")
}

func TestNewSendsStandAsOneAsksForThem(t *testing.T) {
	p := sample(t)
	ids := []string{p.Channels[0].ID, p.Channels[1].ID}
	zero := 0.0
	sent := func(rows []string, how Sending) []Send {
		next, _, err := Apply(p, []Change{&MakeReturn{ID: "r", Name: "Space", Channels: rows, Sending: how}}, fakeEffects)
		require.NoError(t, err)
		var list []Send
		for _, id := range rows {
			ch, _ := next.Channel(id)
			list = append(list, *ch.Sends[len(ch.Sends)-1])
		}
		return list
	}
	plain := sent(ids, Sending{})
	require.Equal(t, []float64{Audible, Audible, 0, 0}, []float64{plain[0].Level, plain[1].Level, plain[0].Pan, plain[1].Pan})
	apart := sent(ids, Sending{Level: &zero, Apart: true})
	require.Equal(t, []float64{0, 0, -1, 1}, []float64{apart[0].Level, apart[1].Level, apart[0].Pan, apart[1].Pan})
	require.Zero(t, sent(ids[:1], Sending{Apart: true})[0].Pan, "one alone stands in the middle")
	loud := 99.0
	_, _, err := Apply(p, []Change{&MakeReturn{Channels: ids, Sending: Sending{Level: &loud}}}, fakeEffects)
	require.Error(t, err, "a level that cannot be is refused")
}

func TestAStageBecomesASendAndComesBack(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	a.Chain.Nodes = append(a.Chain.Nodes, &Node{Stage: NewStage("reverb", 1, 40, "blend")})
	id := a.Chain.Nodes[len(a.Chain.Nodes)-1].ID()
	count := len(a.Chain.Nodes)
	next := one(t, p, &StageToSend{Stage: id, Return: "room"})
	ch, _ := next.Channel(a.ID)
	ret, _ := next.Channel("room")
	assert.Len(t, ch.Chain.Nodes, count-1)
	assert.Equal(t, 100.0, ret.Chain.Nodes[0].Stage.Mix)
	send := ch.Sends[len(ch.Sends)-1]
	// 40 % wet: dry 0.6 at the fader, and 0.6 of the send's gain is 0.4
	assert.InDelta(t, -4.44, ch.Fader-a.Fader, 0.01)
	assert.InDelta(t, 0.4, gainOf(send.Level)*0.6, 1e-3)

	back := one(t, next, &SendToStage{send.ID})
	ch, _ = back.Channel(a.ID)
	last := ch.Chain.Nodes[len(ch.Chain.Nodes)-1].Stage
	assert.Equal(t, "add", last.MixLaw)
	assert.InDelta(t, 100*gainOf(send.Level), last.Mix, 0.1)
	_, ok := back.Channel("room")
	assert.False(t, ok, "nobody else fed the return")
}

func TestAStageWithoutDrySignalLeavesItsRowToTheSend(t *testing.T) {
	p := sample(t)
	a := p.Channels[0]
	a.Chain.Nodes = append(a.Chain.Nodes, &Node{Stage: NewStage("reverb", 1, 100, "blend")})
	next := one(t, p, &StageToSend{Stage: a.Chain.Nodes[len(a.Chain.Nodes)-1].ID()})
	ch, _ := next.Channel(a.ID)
	assert.Empty(t, ch.Output)
	assert.Zero(t, ch.Sends[len(ch.Sends)-1].Level)
}

func TestAReturnOfSeveralStagesComesBackAsAPath(t *testing.T) {
	p := sample(t)
	a, hall := p.Channels[0], p.Channels[2]
	hall.Chain.Nodes = []*Node{stageNode("trim"), stageNode("reverb")}
	hall.Fader = -2
	next := one(t, p, &SendToStage{a.Sends[0].ID})
	ch, _ := next.Channel(a.ID)
	f := ch.Chain.Nodes[len(ch.Chain.Nodes)-1].Fork
	require.NotNil(t, f)
	assert.Empty(t, f.Paths[0].Chain.Nodes, "the dry path")
	assert.Len(t, f.Paths[1].Chain.Nodes, 2)
	assert.InDelta(t, a.Sends[0].Level-2, f.Paths[1].Level, 0.01)
}

// The mix of a stage that comes back alone says how much is sent: a line of its own would mean something else
// there, so that it stays on a path.
func TestAReturnWhoseMixIsMovedComesBackAsAPath(t *testing.T) {
	moving := map[string]func(id string) Change{
		"line": func(id string) Change {
			return &SetLine{Owner: id, Name: "mix", Points: []Point{{Tick: 0, Value: 30, Shape: Ramp}, {Tick: 960, Value: 90, Shape: Hold}}}
		},
		"mover": func(id string) Change { return &AddMover{ID: "sway", Owner: id, Name: "mix"} },
		"handle": func(id string) Change {
			return &PutHandle{Handle: &Handle{ID: "grip", Name: "Grip", Targets: []HandleTarget{{Owner: id, Name: "mix", To: 100}}}}
		},
	}
	for name, moves := range moving {
		p := sample(t)
		a, hall := p.Channels[0], p.Channels[2]
		hall.Chain.Nodes = []*Node{stageNode("reverb")}
		id := hall.Chain.Nodes[0].ID()
		p = one(t, p, moves(id))
		require.Truef(t, p.moved(id, "mix"), name)
		next := one(t, p, &SendToStage{a.Sends[0].ID})
		ch, _ := next.Channel(a.ID)
		f := ch.Chain.Nodes[len(ch.Chain.Nodes)-1].Fork
		require.NotNilf(t, f, name)
		require.Truef(t, next.moved(f.Paths[1].Chain.Nodes[0].ID(), "mix"), name)
	}
}

func TestASendIsCopied(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	b.Sends = []*Send{}
	send := a.Sends[0]
	silent, _ := one(t, p, &CopySend{send.ID, []string{a.ID, b.ID}, true}).Channel(b.ID)
	assert.Equal(t, -120.0, silent.Sends[0].Level)
	loud := one(t, p, &CopySend{send.ID, []string{b.ID}, false})
	ch, _ := loud.Channel(b.ID)
	assert.Equal(t, send.Level, ch.Sends[0].Level)
	again, _ := one(t, loud, &CopySend{send.ID, []string{b.ID}, false}).Channel(b.ID)
	assert.Len(t, again.Sends, 1, "no second send to the same return")
}

func TestAGroupGathersAndDissolves(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	next := one(t, p, &MakeGroup{ID: "wood", Name: "Wood", Channels: []string{a.ID, b.ID}})
	assert.Equal(t, "wood", next.Channels[0].ID, "above its first member")
	for _, id := range []string{a.ID, b.ID} {
		ch, _ := next.Channel(id)
		assert.Equal(t, "wood", ch.Output)
	}
	nested := one(t, next, &MakeGroup{ID: "inner", Name: "Inner", Channels: []string{a.ID}})
	inner, _ := nested.Channel("inner")
	assert.Equal(t, "wood", inner.Output, "a group in a group")
	apart := one(t, nested, &DissolveGroup{"wood"})
	inner, _ = apart.Channel("inner")
	assert.Equal(t, p.MainChannel().ID, inner.Output)
	_, _, err := Apply(p, []Change{&DissolveGroup{a.ID}}, fakeEffects)
	assert.ErrorContains(t, err, "is not a group")
	_, _, err = Apply(p, []Change{&MakeGroup{Channels: []string{p.MainChannel().ID}}}, fakeEffects)
	assert.ErrorContains(t, err, "main output cannot be in a group")
}

func TestLoopsNameTheirWay(t *testing.T) {
	p := sample(t)
	a, b, hall := p.Channels[0], p.Channels[1], p.Channels[2]
	a.Name, b.Name = "Choir", "Bells"
	far := NewChannel(Return, "Far echo", p.MainChannel().ID)
	p.Channels = append([]*Channel{far}, p.Channels...)
	hall.Sends = []*Send{{ID: "h2f", To: far.ID}}
	require.NoError(t, p.Validate(fakeEffects))
	refused := func(c ...Change) string {
		_, _, err := Apply(p, c, fakeEffects)
		require.Error(t, err)
		return err.Error()
	}
	assert.Contains(t, refused(&AddSend{far.ID, 0, &Send{To: hall.ID}}), "Far echo > "+hall.Name+" > Far echo")
	assert.Contains(
		t,
		refused(&SetInput{a.ID, &Tap{Channel: far.ID, Point: "post"}}),
		"Far echo > Choir > "+hall.Name+" > Far echo",
		"the highest on the board first",
	)
	// a key from a later point of the same row would be a loop, from an earlier one it is none
	first, last := a.Chain.Nodes[0].ID(), a.Chain.Nodes[1].ID()
	assert.Contains(t, refused(&SetKey{first, &Tap{Channel: a.ID, Point: "after", Node: last}}), "Choir > Choir")
	one(t, p, &SetKey{last, &Tap{Channel: a.ID, Point: "before", Node: first}})
	// and a tap before what the return feeds is no loop either
	one(t, p, &SetInput{b.ID, &Tap{Channel: a.ID, Point: "input"}})
}

func TestTapsFollowWhatTheyStandOn(t *testing.T) {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	first, second := a.Chain.Nodes[0].ID(), a.Chain.Nodes[1].ID()
	p = one(t, p, &SetInput{b.ID, &Tap{Channel: a.ID, Point: "after", Node: second}}, &SetSend{ID: a.Sends[0].ID, After: &second})
	Gone := one(t, p, &RemoveNode{second})
	b, _ = Gone.Channel(b.ID)
	assert.Equal(t, first, b.Input.Node, "to the point before")
	a, _ = Gone.Channel(a.ID)
	assert.Equal(t, first, a.Sends[0].After)
	Gone = one(t, Gone, &RemoveNode{first})
	b, _ = Gone.Channel(b.ID)
	assert.Equal(t, "input", b.Input.Point)
	a, _ = Gone.Channel(a.ID)
	assert.Equal(t, "input", a.Sends[0].After)
	Gone = one(t, Gone, &RemoveChannel{a.ID})
	b, _ = Gone.Channel(b.ID)
	assert.Nil(t, b.Input)
}

func TestASendToARemovedReturnIsRefusedInWords(t *testing.T) {
	p := sample(t)
	a, hall := p.Channels[0], p.Channels[2]
	p = one(t, p, &RemoveChannel{hall.ID})
	_, _, err := Apply(p, []Change{&AddSend{a.ID, 0, &Send{To: hall.ID}}}, fakeEffects)
	assert.EqualError(t, err, "the return is no longer there: somebody has removed it")
}
