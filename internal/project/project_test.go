package project

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/param"
)

func fakeEffects(id string, version int) (EffectInfo, bool) {
	if version > 1 {
		return EffectInfo{}, false
	}
	switch id {
	case "trim", "reverb":
	case Backwards:
		return EffectInfo{Version: 1, Newest: 1, Name: "Backwards", Mix: 100, MixLaw: "blend", Whole: true}, true
	case LengthStep:
		return EffectInfo{Version: 1, Newest: 1, Name: "Length", Mix: 100, MixLaw: "blend", Whole: true, Params: []param.Param{
			{Name: "by", Label: "Length by", Max: 1, Taper: param.Choice, Choices: []string{"percent", "tempo"}},
			{Name: "percent", Label: "Length", Min: 10, Max: 1000, Default: 100, Taper: param.Log},
			{Name: "tempo", Label: "Its tempo", Min: 20, Max: 400, Default: 120, Taper: param.Log},
		}}, true
	default:
		return EffectInfo{}, false
	}
	return EffectInfo{Version: 1, Newest: 1, Name: id, Mix: 100, MixLaw: "blend", Params: []param.Param{
		{Name: "gain", Label: "Gain", Min: -120, Max: 24, Taper: param.Level},
		{Name: "size", Label: "Size", Min: 0, Max: 10, Taper: param.Linear, Structural: true},
	}}, true
}

// for tests from outside, which can draw changes by chance
var (
	Sample      = sample
	FakeEffects = fakeEffects
	AsJSON      = asJSON
	Copy        = (*Project).copy
	Unchecked   = unchecked
)

// aSound is the hash of the sample's only sound.
const aSound = "abcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcd"

func stageNode(effect string) *Node { return &Node{Stage: NewStage(effect, 1, 100, "blend")} }

func sample(t testing.TB) *Project {
	p := New("Test", 48000, 90, 6, 8)
	main := p.Channels[0].ID
	hall := NewChannel(Return, "Hall", main)
	a, b := NewChannel(Track, "A", main), NewChannel(Track, "B", main)
	a.Chain.Nodes = []*Node{stageNode("trim"), stageNode("reverb"), Forked(Copies, "", NewPath("dry"), NewPath("wet", stageNode("reverb")))}
	b.Chain.Nodes = []*Node{stageNode("trim")}
	b.Chain.Nodes[0].Stage.Key = &Tap{Channel: a.ID, Point: "after", Node: a.Chain.Nodes[1].ID()}
	a.Sends = []*Send{{ID: NewID(), To: hall.ID, Level: -6}}
	p.Audio = []Audio{{aSound, "a.wav", 1000, 1}}
	a.Clips = []*Clip{{ID: NewID(), Name: "x", Audio: aSound, Frames: 1000}}
	p.Channels = append([]*Channel{a, b, hall}, p.Channels...)
	p.Sections = []Section{{NewID(), "One", 0}, {NewID(), "Two", 9600}}
	p.Lines = []*Line{{a.Chain.Nodes[0].ID(), "gain", []Point{{Tick: 0, Value: -3, Shape: Ramp}}}, {a.ID, "fader", []Point{}}}
	require.NoError(t, p.Validate(fakeEffects))
	return p
}

func asJSON(t testing.TB, v any) string {
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return string(b)
}

func TestIndependentChangesAgreeInEitherOrder(t *testing.T) {
	p := sample(t)
	yes, name := true, "Drum"
	a, b := p.Channels[0], p.Channels[1]
	list := []Change{
		&SetParam{Owner: a.Chain.Nodes[0].ID(), Name: "gain", Value: -7},
		&SetChannel{ID: b.ID, Name: &name},
		&SetParam{Owner: b.ID, Name: "fader", Value: -3},
		&SetNode{ID: a.Chain.Nodes[1].ID(), Bypass: &yes},
		&SetSend{ID: a.Sends[0].ID, Mute: &yes},
		&SetParam{Owner: a.Sends[0].ID, Name: "level", Value: 0},
		&RemoveNode{b.Chain.Nodes[0].ID()},
	}
	for i, x := range list {
		for _, y := range list[i+1:] {
			one, _, err := Apply(p, []Change{x, y}, fakeEffects)
			require.NoError(t, err)
			two, _, err := Apply(p, []Change{y, x}, fakeEffects)
			require.NoError(t, err)
			require.Equal(t, asJSON(t, one), asJSON(t, two))
		}
	}
}

func TestRefusalsSayWhatIsWrong(t *testing.T) {
	p := sample(t)
	a, hall, main := p.Channels[0], p.Channels[2], p.Channels[3]
	none, group := "gone", NewChannel(Group, "G", main.ID)
	for want, c := range map[string][]Change{
		"somebody has removed it":     {&SetNode{ID: "zzz"}},
		"outside -120 to 24":          {&SetParam{Owner: a.Chain.Nodes[0].ID(), Name: "gain", Value: 99}},
		"no parameter \"colour\"":     {&SetParam{Owner: a.Chain.Nodes[0].ID(), Name: "colour"}},
		"its output \"gone\"":         {&SetChannel{ID: a.ID, Output: &none}},
		"must go to a return":         {&AddSend{Channel: a.ID, Send: &Send{To: main.ID}}},
		"Hall > Hall":                 {&AddSend{Channel: hall.ID, Send: &Send{To: hall.ID}}},
		"cannot be removed":           {&RemoveChannel{main.ID}},
		"no effect \"flute\"":         {&AddNode{Owner: a.ID, Index: 0, Node: &Node{Stage: NewStage("flute", 1, 100, "blend")}}},
		"cannot be automated":         {&SetLine{Owner: a.Chain.Nodes[0].ID(), Name: "size", Points: []Point{}}},
		"G > G":                       {&AddChannel{Channel: group}, &SetChannel{ID: group.ID, Output: &group.ID}},
		"do not lie within its audio": {&AddClip{a.ID, 0, &Clip{Audio: aSound, Frames: 2000}}},
		"cannot go inside itself":     {&MoveNode{a.Chain.Nodes[2].ID(), a.Chain.Nodes[2].Fork.Paths[0].ID, 0}},
	} {
		_, _, err := Apply(p, c, fakeEffects)
		require.ErrorContains(t, err, want)
	}
	for want, w := range map[string]Wire{
		"no change called":   {Type: "stage.paint", Do: []byte(`{}`)},
		"unknown field":      {Type: "node.remove", Do: []byte(`{"idd":"x"}`)},
		"more after the end": {Type: "node.remove", Do: []byte(`{"id":"x"} 7`)},
	} {
		_, err := Decode([]Wire{w})
		require.ErrorContains(t, err, want)
	}
}

func TestUndoOfAControlNoticesAnotherHand(t *testing.T) {
	p := sample(t)
	id := p.Channels[0].ID
	one, undo, err := Apply(p, []Change{&SetParam{Owner: id, Name: "fader", Value: -3}}, fakeEffects)
	require.NoError(t, err)
	two, _, err := Apply(one, []Change{&SetParam{Owner: id, Name: "fader", Value: -9}}, fakeEffects)
	require.NoError(t, err)
	_, _, err = Apply(two, undo, fakeEffects)
	require.ErrorContains(t, err, "changed again since")
}

func TestClockTurnsTicksIntoFramesAcrossTempoChanges(t *testing.T) {
	p := New("x", 48000, 120, 6, 8)
	p.Tempo = []Tempo{{BPM: 120}, {Tick: 1920, BPM: 60}}
	c := p.Clock()
	require.EqualValues(t, 24000, c.Frame(960))
	require.EqualValues(t, 48000, c.Frame(1920))
	require.EqualValues(t, 96000, c.Frame(2880))
	require.InDelta(t, 2880, c.Tick(96000), 1e-9)
	require.EqualValues(t, 2880, c.Bar(1)) // six eighths are three quarters
	require.Equal(t, 60.0, c.Tempo(50000))
}

func TestAProjectSurvivesJSON(t *testing.T) {
	p := sample(t)
	q, err := Read([]byte(asJSON(t, p)), fakeEffects)
	require.NoError(t, err)
	require.Equal(t, p, q)
	_, err = Read([]byte(`{"version":1,"channels":[null]}`), fakeEffects)
	require.ErrorContains(t, err, "channels[0] is empty")
}

func FuzzRead(f *testing.F) {
	b, _ := json.Marshal(New("x", 48000, 120, 4, 4))
	f.Add(b)
	f.Add([]byte(`{"channels":[{"chain":{"nodes":[{"fork":{"paths":[null]}}]}}]}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		if p, err := Read(b, fakeEffects); err == nil {
			require.NoError(t, p.Validate(fakeEffects))
		}
	})
}
