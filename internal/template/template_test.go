package template_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/sounding"
	"shoal/internal/template"
)

func TestEveryTemplateFillsAProject(t *testing.T) {
	require.GreaterOrEqual(t, len(template.List()), 4)
	for _, x := range template.List() {
		for _, rate := range []int{44100, 96000} {
			p, err := x.Fill(project.New("Begun", rate, x.Tempo, x.Beats, x.Unit))
			require.NoError(t, err, x.ID)
			require.NoError(t, p.Validate(engine.EffectInfo), x.ID)
			require.Len(t, p.Channels, len(x.Rows)+1, x.ID)
			require.Len(t, p.Sections, len(x.Sections), x.ID)
			for i, name := range x.Rows {
				require.Equal(t, name, p.Channels[i].Name, "in the order in which they are named")
			}
			require.NotEmpty(t, p.MainChannel().Chain.Nodes, "what goes out has a ceiling")
			b, err := json.Marshal(p)
			require.NoError(t, err)
			_, err = project.Read(b, engine.EffectInfo)
			require.NoError(t, err, "and can be opened again")
		}
	}
	_, ok := template.Find("no such")
	require.False(t, ok)
}

// What a newcomer begins with is as it should be: nothing in it is a mistake already.
func TestNothingInATemplateIsWrong(t *testing.T) {
	for _, x := range template.List() {
		p, err := x.Fill(project.New("Begun", 48000, x.Tempo, x.Beats, x.Unit))
		require.NoError(t, err)
		for _, s := range sounding.Look(&sounding.Survey{Doc: p}) {
			require.Fail(t, s.Title, "%s: %s", x.ID, s.Says)
		}
	}
}

// Two projects of one template share nothing: what is changed in one stays as it is in the other.
func TestEveryProjectIsItsOwn(t *testing.T) {
	x, _ := template.Find("ensemble")
	a, err := x.Fill(project.New("A", 48000, 96, 4, 4))
	require.NoError(t, err)
	b, err := x.Fill(project.New("B", 48000, 96, 4, 4))
	require.NoError(t, err)
	require.NotEqual(t, a.Channels[0].ID, b.Channels[0].ID)
	a.Channels[0].Chain.Nodes[0].Stage.Params["gain3"] = 11
	require.NotEqual(t, 11.0, b.Channels[0].Chain.Nodes[0].Stage.Params["gain3"])
}
