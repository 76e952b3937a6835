package printing

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

func TestPrintsAreBroughtToALevel(t *testing.T) {
	p, row, folder := song(t)
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": 7})}
	id := row.Clips[0].ID
	gain := func(l Level) float64 {
		list, err := InPlace(t.Context(), p, folder, Printer{}, PlaceSpec{Clips: []string{id}, Level: l},
			func(audiofile.Entry, string) error { return nil }, nil)
		require.NoError(t, err)
		q := made(t, p, list...)
		return q.Channels[0].Clips[0].Gain
	}
	require.Zero(t, gain(Level{}))
	require.InDelta(t, -7, gain(Level{To: SameLevel}), 0.02)
	loud := 20*math.Log10(0.2) + 7
	require.InDelta(t, -1-loud, gain(Level{To: PeakLevel, Peak: -1}), 0.02)
	for want, l := range map[string]Level{"is no level": {To: "loud"}, "-60 to 0": {To: PeakLevel, Peak: 3}} {
		_, err := InPlace(t.Context(), p, folder, Printer{}, PlaceSpec{Clips: []string{id}, Level: l}, nil, nil)
		require.ErrorContains(t, err, want)
	}
	silent := 0
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -120})}
	require.InDelta(t, silent, gain(Level{To: SameLevel}), 200, "silence is no mistake")
}

func TestPrintsAreSlicedAtOnce(t *testing.T) {
	p, row, folder := song(t)
	row.Clips[0].Frames, row.Clips[0].FadeOut = 12000, 11000
	for i := range int64(3) {
		n := *row.Clips[0]
		n.ID, n.Start = project.NewID(), (i+1)*24000
		row.Clips = append(row.Clips, &n)
	}
	var ids []string
	for _, x := range row.Clips {
		ids = append(ids, x.ID)
	}
	list, err := InPlace(t.Context(), p, folder, Printer{}, PlaceSpec{Clips: ids, Slice: true},
		func(audiofile.Entry, string) error { return nil }, nil)
	require.NoError(t, err)
	q := made(t, p, list...)
	now := q.Channels[0].Clips
	require.Len(t, now, 4, "one at each beginning")
	for i, x := range now {
		require.InDelta(t, float64(i)*24000, float64(x.Start), 480)
	}
}
