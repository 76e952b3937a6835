package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Where clips of a row sound at once it is said, once for all that touch; clips that only follow one another do not.
func TestOverlapsOfClipsAreSaid(t *testing.T) {
	p := New("Overlaps", 48000, 120, 4, 4)
	ch := NewChannel(Track, "A", p.MainChannel().ID)
	for _, x := range [][2]int64{{5000, 1000}, {0, 1000}, {1000, 500}, {1200, 1000}, {2100, 50}, {3000, 100}, {5100, 100}, {5150, 2000}} {
		ch.Clips = append(ch.Clips, &Clip{ID: NewID(), Start: x[0], Frames: x[1]})
	}
	p.Channels = append(p.Channels, ch)
	require.Equal(t, []Overlap{{ch.ID, 1200, 1500}, {ch.ID, 2100, 2150}, {ch.ID, 5100, 6000}}, p.Timeline(fakeEffects).Overlaps)
}
