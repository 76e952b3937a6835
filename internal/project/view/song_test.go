package view

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/param"
	"shoal/internal/project"
)

// effects are two that nobody has written.
func effects(id string, version int) (project.EffectInfo, bool) {
	if id != "trim" && id != "reverb" || version > 1 {
		return project.EffectInfo{}, false
	}
	return project.EffectInfo{Version: 1, Newest: 1, Name: id, Params: []param.Param{
		{Name: "gain", Label: "Gain", Min: -120, Max: 24, Taper: param.Level},
		{Name: "size", Label: "Size", Min: 0, Max: 10, Taper: param.Linear, Structural: true},
	}}, true
}

func stage(effect string) *project.Node {
	return &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
}

// song has a row A with two stages, a fork, a send to a hall, a clip and two lines, and two sections of five bars of
// six eighths at 90.
func song(t *testing.T) *project.Project {
	const sound = "abcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcdefabcd"
	p := project.New("Test", 48000, 90, 6, 8)
	main := p.MainChannel().ID
	hall, a := project.NewChannel(project.Return, "Hall", main), project.NewChannel(project.Track, "A", main)
	wet := project.NewPath("wet", stage("reverb"))
	a.Chain.Nodes = []*project.Node{stage("trim"), stage("reverb"), project.Forked(project.Copies, "", project.NewPath("dry"), wet)}
	a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -6}}
	p.Audio = []project.Audio{{Hash: sound, Name: "a.wav", Frames: 1000, Channels: 1}}
	a.Clips = []*project.Clip{{ID: project.NewID(), Name: "x", Audio: sound, Frames: 1000}}
	p.Channels = append([]*project.Channel{a, hall}, p.Channels...)
	p.Sections = []project.Section{{ID: project.NewID(), Name: "One"}, {ID: project.NewID(), Name: "Two", Tick: 9600}}
	p.Lines = []*project.Line{
		{Owner: a.Chain.Nodes[0].ID(), Name: "gain", Points: []project.Point{{Tick: 0, Value: -3, Shape: project.Ramp}}},
		{Owner: a.ID, Name: "fader", Points: []project.Point{}},
	}
	require.NoError(t, p.Validate(effects))
	return p
}

// changed is the song after a change.
func changed(t *testing.T, p *project.Project, c project.Change) *project.Project {
	next, _, err := project.Apply(p, []project.Change{c}, effects)
	require.NoError(t, err)
	return next
}
