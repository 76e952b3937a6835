package project_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func TestAPrintCanTakeThePlaceOfTheChain(t *testing.T) {
	audio := project.Audio{Hash: hash('b'), Name: "Print", Frames: 60000, Channels: 2}
	emptied := &project.PrintClips{Clips: []string{"of row"}, ID: "print", Audio: audio, Start: 100, Empty: true}
	p := keyed(t)
	next, undo := apply(t, p, emptied)
	row, _ := next.Channel("row")
	assert.Empty(t, row.Chain.Nodes)
	x, _ := next.ClipByID("print")
	assert.Empty(t, x.Enters, "there is nothing that it would have to come in behind")
	require.NotEmpty(t, x.Made.Clips)
	back, _ := apply(t, next, undo...)
	row, _ = back.Channel("row")
	assert.Len(t, row.Chain.Nodes, 3, "one undo brings all of it back")
	assert.NotNil(t, row.Chain.Nodes[1].Stage.Key)

	round, _ := apply(t, next, &project.BringBack{ID: "print"})
	row, _ = round.Channel("row")
	assert.Len(t, row.Chain.Nodes, 3, "one round back brings the chain back, too")

	for says, change := range map[string]func(p *project.Project){
		"passes the chain of row, too": func(p *project.Project) {
			other := *p.Channels[0].Clips[0]
			other.ID, other.Name = "other", "Other"
			p.Channels[0].Clips = append(p.Channels[0].Clips, &other)
		},
		"a send of row is taken within": func(p *project.Project) { p.Channels[0].Sends[0].After = "first" },
		"drum listens within": func(p *project.Project) {
			p.Channels[1].Input = &project.Tap{Channel: "row", Point: "after", Node: "first"}
			p.Channels[0].Chain.Nodes[1].Stage.Key = nil
		},
		"is driven from within": func(p *project.Project) {
			p.Channels[1].Chain.Nodes[0].Stage.Key = &project.Tap{Channel: "row", Point: "after", Node: "first"}
			p.Channels[0].Chain.Nodes[1].Stage.Key = nil
		},
		"follows a level within": func(p *project.Project) {
			p.Movers[0].Shape, p.Movers[0].Follow = project.LevelShape, &project.Follow{
				Tap:    &project.Tap{Channel: "row", Point: "after", Node: "third"},
				Attack: 10, Release: 100, Low: -60, High: 0,
			}
			p.Movers[0].Targets[0] = project.MoverTarget{Owner: "drum", Name: "pan", Depth: 0.2}
		},
		"takes in what another row gives": func(p *project.Project) {
			p.Channels[0].Input = &project.Tap{Channel: "drum", Point: "pre"}
		},
	} {
		p := keyed(t)
		change(p)
		require.NoError(t, p.Validate(engine.EffectInfo), says)
		_, _, err := project.Apply(p, []project.Change{emptied}, engine.EffectInfo)
		assert.ErrorContains(t, err, says)
		assert.ErrorContains(t, err, "put the row's line there")
	}
}
