package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// What becomes wrong in a row or line because something else has changed is found, though it is itself as it was.
func TestWhatSomethingElseHasSpoiltIsFound(t *testing.T) {
	effects := func(id string, version int) (EffectInfo, bool) {
		info, ok := fakeEffects(id, version)
		if id == "reverb" {
			info.Params = info.Params[1:] // it has no gain
		}
		return info, ok
	}
	base := sample(t)
	a := base.Channels[0]
	stage, fork := a.Chain.Nodes[1].Stage, a.Chain.Nodes[2].Fork
	base.Channels[1].Sends = []*Send{{ID: NewID(), To: base.Channels[2].ID, Level: -6}}
	base.Lines = append(base.Lines,
		&Line{stage.ID, "mix", []Point{{Value: 50, Shape: Ramp}}},
		&Line{fork.Paths[0].ID, "level", []Point{{Value: -6, Shape: Ramp}}},
		&Line{base.Channels[1].Sends[0].ID, "level", []Point{{Value: -6, Shape: Ramp}}})
	require.NoError(t, base.Validate(effects))
	for what, spoil := range map[string]func(p *Project){
		"the stage that a key is taken behind is another": func(p *Project) { p.Channels[0].Chain.Nodes[1].Stage.ID = "other" },
		"the path that a line moves is another":           func(p *Project) { p.Channels[0].Chain.Nodes[2].Fork.Paths[0].ID = "other" },
		"the send that a line moves is another":           func(p *Project) { p.Channels[1].Sends[0].ID = "other" },
		"the effect that a line moves has no such value":  func(p *Project) { p.Channels[0].Chain.Nodes[0].Stage.Effect = "reverb" },
		"what a send goes to is no return":                func(p *Project) { p.Channels[2].Kind = Group },
		"the sound that a clip plays is gone":             func(p *Project) { p.Audio = nil },
		"the row that a send goes to is gone":             func(p *Project) { p.Channels = append(p.Channels[:2:2], p.Channels[3]) },
	} {
		next := base.copy()
		spoil(next)
		all := next.Validate(effects)
		require.Error(t, all, what)
		next.keep(base)
		require.EqualError(t, next.validate(effects, base), all.Error(), what)
	}
}

// A stage may be driven by what comes before it in its own row, and by nothing that it feeds.
func TestAKeyOfTheOwnRowIsTakenBeforeTheStage(t *testing.T) {
	p := sample(t)
	row := p.Channels[0]
	row.Chain.Nodes[1].Stage.Key = &Tap{Channel: row.ID, Point: "after", Node: row.Chain.Nodes[0].ID()}
	require.NoError(t, p.Validate(fakeEffects))
	row.Chain.Nodes[1].Stage.Key = &Tap{Channel: row.ID, Point: "post"}
	require.ErrorContains(t, p.Validate(fakeEffects), "the signal would feed itself: A > A")
}
