package questions

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/view"
)

// Every question is answered about a small song, in the form that it is described in; what is asked wrongly is
// refused in words.
func TestEveryQuestionIsAnsweredAsDescribed(t *testing.T) {
	p := project.New("Questions", 48000, 120, 4, 4)
	ch := project.NewChannel(project.Track, "A", p.MainChannel().ID)
	stage := project.NewStage("reverb", 1, 30, "add")
	gate := project.NewStage("denoise", 1, 100, "blend")
	ch.Chain.Nodes = []*project.Node{{Stage: stage}, {Stage: gate}}
	clip := &project.Clip{ID: project.NewID(), Name: "Word", Audio: strings.Repeat("a", 64), Frames: 48000}
	ch.Clips = []*project.Clip{clip}
	p.Audio = []project.Audio{{Hash: clip.Audio, Name: "word.wav", Frames: 48000, Channels: 1}}
	p.Channels = append([]*project.Channel{ch}, p.Channels...)
	p.Lines = []*project.Line{
		{
			Owner:  ch.ID,
			Name:   "fader",
			Points: []project.Point{{Tick: 0, Value: -3, Shape: project.Ramp}, {Tick: 960, Value: -9, Shape: project.Ramp}},
		},
	}
	ada := project.Speaker{ID: "ada", Name: "Ada"}
	p.Remarks = []*project.Remark{
		{ID: "r", At: project.Spot{Called: "The song"}, Said: []project.Said{{ID: "s", By: ada, Time: "2026-11-30T12:00:00Z", Text: "x"}}},
	}
	p.Passages = []*project.Passage{
		{
			ID:      "p",
			Name:    "P",
			From:    0,
			To:      960,
			Rows:    []string{ch.ID},
			Tail:    project.TailRing,
			Fade:    240,
			Courses: []*project.Course{},
			Brought: []string{},
		},
	}
	require.NoError(t, p.Validate(engine.EffectInfo))
	e, err := engine.New(p, pages.New(0))
	require.NoError(t, err)
	a := Asked{e, p}
	asked := map[string]any{
		"copied": Clips{[]string{clip.ID}},
		"draw": Of{
			stage.ID,
		},
		"learn": Of{gate.ID},
		"reach": Of{ch.ID},
		"trace": Ways{ch.ID, p.MainChannel().ID},
		"line":  view.Seen{Owner: ch.ID, Name: "fader", To: 48000, Steps: 20},
		"thin": Thin{
			project.Stretch{Owner: ch.ID, Name: "fader", From: 0, To: 48000},
			1,
		},
		"movables":   Of{ch.ID},
		"passage":    Of{"p"},
		"lineValues": At{1000},
		"remarks":    Of{"ada"},
		"called":     project.About{At: ch.ID, To: 48000},
		"waits":      Nothing{},
	}
	for _, x := range All() {
		require.Contains(t, asked, x.Name, "ask it here too")
		require.IsType(t, x.In, asked[x.Name])
		q, err := json.Marshal(asked[x.Name])
		require.NoError(t, err)
		b, err := Answer(a, x.Name, q)
		require.NoError(t, err, x.Name)
		require.Greater(t, len(b), 2, x.Name)
		_, err = Answer(a, x.Name, []byte(`{"sparkle":1}`))
		require.ErrorContains(t, err, "sparkle", x.Name)
	}
	_, err = Answer(a, "weather", nil)
	require.ErrorContains(t, err, "nobody can answer")
	_, err = Answer(a, "draw", []byte(`{"id":"none"}`))
	require.ErrorContains(t, err, "no stage none")
}
