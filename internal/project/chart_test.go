package project_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

func TestAProjectDrawnSmall(t *testing.T) {
	p := project.New("Rope", 48000, 60, 4, 4) // a beat is a second, a bar four
	require.Zero(t, p.Chart().Seconds, "it is empty")
	require.Len(t, p.Chart().Rows, 1, "its main output")
	row := project.NewChannel(project.Track, "Bells", p.MainChannel().ID)
	row.Tint = 3
	row.Chain.Nodes = []*project.Node{{Stage: project.NewStage("trim", 1, 100, "blend")}}
	clip := func(from, to float64) *project.Clip {
		return &project.Clip{ID: project.NewID(), Start: int64(from * 48000), Frames: int64((to - from) * 48000)}
	}
	row.Clips = []*project.Clip{clip(6, 8), clip(0, 2), clip(1, 4)} // the last two overlap
	hidden := project.NewChannel(project.Track, "Hidden", p.MainChannel().ID)
	hidden.Hidden = true
	p.Channels = append([]*project.Channel{row, hidden}, p.Channels...)
	p.Sections = []project.Section{{Name: "Ebb"}, {Name: "Flood", Tick: p.Clock().Bar(1)}}

	c := p.Chart()
	require.InDelta(t, 8, c.Seconds, 1e-9)
	require.Equal(t, []project.ChartSection{{"Ebb", 0}, {"Flood", 0.5}}, c.Sections)
	require.Len(t, c.Rows, 2, "what is hidden is not shown")
	require.Equal(t, project.ChartRow{
		Name: "Bells", Kind: project.Track, Tint: 3, Stages: 1, Clips: [][2]float64{{0, 0.5}, {0.75, 1}},
	}, c.Rows[0])

	p.Sections[1].Tick = p.Clock().Bar(4)
	c = p.Chart()
	require.InDelta(t, 8, c.Seconds, 1e-9, "a section behind everything is not heard")
	require.Equal(t, [][2]float64{{0, 0.25 * 7 / 8}, {0.375 * 7 / 8, 0.5 * 7 / 8}}, rounded(c.Rows[0].Clips), "but there is room for it")
	require.InDelta(t, 7.0/8, c.Sections[1].At, 1e-5)
}

// rounded has the places of clips to a millionth: what they are of is a whole number of frames.
func rounded(clips [][2]float64) [][2]float64 {
	out := make([][2]float64, len(clips))
	for i, c := range clips {
		out[i] = [2]float64{math.Round(c[0]*1e6) / 1e6, math.Round(c[1]*1e6) / 1e6}
	}
	return out
}
