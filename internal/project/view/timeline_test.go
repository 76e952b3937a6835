package view

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// Where clips of a row sound at once it is said, once for all that touch; clips that only follow one another do not.
func TestOverlapsOfClipsAreSaid(t *testing.T) {
	p := project.New("Overlaps", 48000, 120, 4, 4)
	ch := project.NewChannel(project.Track, "A", p.MainChannel().ID)
	for _, x := range [][2]int64{{5000, 1000}, {0, 1000}, {1000, 500}, {1200, 1000}, {2100, 50}, {3000, 100}, {5100, 100}, {5150, 2000}} {
		ch.Clips = append(ch.Clips, &project.Clip{ID: fmt.Sprint("at ", x[0]), Start: x[0], Frames: x[1]})
	}
	ch.Clips[3].Over = project.OverFade
	p.Channels = append(p.Channels, ch)
	require.Equal(t, []Overlap{
		{ch.ID, "at 1200", 1200, 1500, "fade"},
		{ch.ID, "at 2100", 2100, 2150, "sum"},
		{ch.ID, "at 5100", 5100, 6000, "sum"},
	}, TimelineOf(p, effects).Overlaps)
}

func TestATempoIsPlacedInBarsAndBeats(t *testing.T) {
	p := song(t)
	p = changed(t, p, &project.PutTempo{At: p.Clock().Frame(2800), BPM: 100, Ramp: true})
	assert.Equal(t, "2.1", TimelineOf(p, effects).Tempo[1].Where)
}
