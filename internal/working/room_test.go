package working

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// The audio that a render holds grows with what sounds at once, not with how long the song is.
func TestRoomIsForWhatSoundsAtOnce(t *testing.T) {
	p := project.New("Long", 48000, 120, 4, 4)
	room := func(starts ...int64) int {
		ch := project.NewChannel(project.Track, "Row", p.MainChannel().ID)
		ch.Overlaps = project.OverSum
		for _, at := range starts {
			ch.Clips = append(ch.Clips, &project.Clip{ID: project.NewID(), Audio: "a", Start: at, Frames: 1000})
		}
		q := *p
		q.Channels = append([]*project.Channel{ch}, p.Channels...)
		return Room(&q)
	}
	one := room(0)
	require.Equal(t, one, room(0, 1001, 2002, 3003), "one after the other")
	require.Equal(t, one+stretchRoom, room(0, 1000), "where one ends and the next begins, both are needed")
	require.Equal(t, one+2*stretchRoom, room(0, 10, 20))

	hall := project.NewStage("convolution", 1, 100, "blend")
	hall.Sound = "hall"
	p.Audio = []project.Audio{{Hash: "hall", Frames: 100000, Channels: 2}}
	p.MainChannel().Chain.Nodes = []*project.Node{{Stage: hall}}
	require.Equal(t, one+8, room(0), "all four pages of both sides are there at once")
}
