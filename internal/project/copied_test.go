package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestClipsAreCopiedAsTheyLie(t *testing.T) {
	p, _ := sliced(t, 4000, 4000)
	p, _, err := Apply(p, []Change{&TreatClips{Clips: []string{"a"}, Effect: "trim"}}, fakeEffects)
	require.NoError(t, err)
	clips := p.Channels[0].Clips
	var ids []string
	for _, x := range clips {
		ids = append(ids, x.ID)
	}
	c, err := p.CopyClips(ids[1:])
	require.NoError(t, err)
	require.Zero(t, c.Clips[0].By, "the first of them in front")
	c, err = p.CopyClips(ids)
	require.NoError(t, err)
	clock := p.Clock()
	for i, x := range clips {
		require.Equal(t, x.BeginsAt(clock)-clips[0].BeginsAt(clock), c.Clips[i].By)
		require.Zero(t, c.Clips[i].Down)
	}
	require.Len(t, c.Audio, 1, "one sound once")
	require.Equal(t, p.Treatments, c.Treatments)
	_, err = p.CopyClips([]string{"gone"})
	require.Error(t, err)
}
