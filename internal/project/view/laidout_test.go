package view_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/view"
)

func TestThereIsRoomWhereNothingLiesYet(t *testing.T) {
	p := project.New("Rope", 48000, 60, 4, 4) // a bar is four seconds
	const bar = 4 * 48000
	end := func() int64 { return view.TimelineOf(p, engine.EffectInfo).Shown }
	require.EqualValues(t, 16*bar, end(), "an empty song")
	p.Sections = []project.Section{{ID: "a", Name: "Ebb"}, {ID: "b", Name: "Flood", Tick: p.Clock().Bar(20)}}
	require.EqualValues(t, 28*bar, end(), "a last section in which nothing lies")
	spans := view.TimelineOf(p, engine.EffectInfo).Sections
	require.EqualValues(t, 28*bar, spans[1].To)
	require.EqualValues(t, 20*bar, spans[0].To)

	row := project.NewChannel(project.Track, "Bells", p.MainChannel().ID)
	row.Clips = []*project.Clip{{ID: "x", Start: 0, Frames: 22 * bar}}
	p.Channels = append(p.Channels, row)
	require.EqualValues(t, 22*bar, end(), "where something lies the song ends with it")
	p.Passages = []*project.Passage{{ID: "p", From: p.Clock().Bar(24), To: p.Clock().Bar(25)}}
	require.EqualValues(t, 25*bar, end(), "or with a passage behind it")
	require.EqualValues(t, 22*bar, view.TimelineOf(p, engine.EffectInfo).End, "what is printed of it ends with the last clip")
}
