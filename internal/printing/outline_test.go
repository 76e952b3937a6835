package printing

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// An outline shows what the live stages of a treatment give, with their lines, and neither gain nor fades of the clip.
func TestAnOutlineShowsWhatATreatmentGives(t *testing.T) {
	p, row, folder := song(t)
	id := row.Clips[0].ID
	none, err := Outline(t.Context(), p, folder, id)
	require.NoError(t, err)
	require.Nil(t, none, "nothing runs live")
	source, err := folder.Overview(row.Clips[0].Audio)
	require.NoError(t, err)

	trim, off, gain, fade := project.NewID(), true, -12.0, int64(9000)
	p = made(t, p, &project.TrimClip{ID: id, Edge: "begin", By: 10 * audiofile.OverviewFrames},
		&project.SetClip{ID: id, Gain: &gain, FadeIn: &fade},
		&project.TreatClips{Clips: []string{id}, Effect: "trim", ID: trim},
		&project.SetParam{Owner: trim, Name: "gain", Value: -20})
	x, _ := p.ClipByID(id)
	first := x.Offset / audiofile.OverviewFrames
	require.Zero(t, x.Offset%audiofile.OverviewFrames)
	outline := func() []byte {
		t.Helper()
		b, err := Outline(t.Context(), p, folder, id)
		require.NoError(t, err)
		return b
	}
	b := outline()
	require.Len(t, b, 2*int((x.Frames+audiofile.OverviewFrames-1)/audiofile.OverviewFrames))
	level := func(v byte) float64 { return math.Pow(float64(v)/255, 2) }
	for i := 0; i < len(b)-2; i += 2 {
		require.InDelta(t, level(source[2*int(first)+i])/10, level(b[i]), 0.003, "pair %d", i/2)
	}
	require.Equal(t, b, outline(), "it is kept")

	p = made(t, p, &project.SetLine{Owner: trim, Name: "gain", Points: []project.Point{
		{Tick: 0, Value: -60, Shape: project.Hold}, {Tick: 500, Value: 0, Shape: project.Hold}}})
	moved := outline()
	require.Less(t, level(moved[0]), 0.01)
	at := int(p.Clock().Frame(500)/audiofile.OverviewFrames) + 2
	require.InDelta(t, level(source[2*(int(first)+at)]), level(moved[2*at]), 0.003)

	p = made(t, p, &project.SetChain{Owner: x.Treatment, Bypass: &off})
	require.Nil(t, outline())
	_, err = Outline(t.Context(), p, folder, "gone")
	require.ErrorContains(t, err, "no longer there")
}
