package project_test

import (
	"encoding/json"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// full has a stage of every effect, with a choice other than the usual wherever there is one, and lines on them.
func full() *project.Project {
	r := rand.New(rand.NewPCG(5, 5))
	p := project.New("Full", 48000, 100, 4, 4)
	main := p.MainChannel()
	for _, k := range effect.Kinds() {
		s := project.NewStage(k.ID, k.Version, k.Mix, k.MixLaw)
		for _, d := range k.Params {
			if d.Stepped() {
				s.Params[d.Name] = float64(r.IntN(int(d.Max) + 1))
				if !d.Structural && len(p.Lines) < 20 {
					p.Lines = append(
						p.Lines,
						&project.Line{Owner: s.ID, Name: d.Name, Points: []project.Point{{Value: d.Max, Shape: project.Hold}}},
					)
				}
			} else {
				s.Params[d.Name] = d.Default + (d.Max-d.Default)*r.Float64()
			}
		}
		main.Chain.Nodes = append(
			main.Chain.Nodes,
			project.Forked(project.Copies, k.Name, project.NewPath("a", &project.Node{Stage: s}), project.NewPath("b")),
		)
	}
	return p
}

func TestAFileWithNamesIsTheSameDocument(t *testing.T) {
	p := full()
	require.NoError(t, p.Validate(engine.EffectInfo))
	b, err := project.Named(p, engine.EffectInfo)
	require.NoError(t, err)
	assert.Contains(t, string(b), `"shape3": "`)
	assert.NotContains(t, string(b), `"shape3": 1`)
	back, err := project.Read(b, engine.EffectInfo)
	require.NoError(t, err)
	want, err := project.Canonical(p)
	require.NoError(t, err)
	got, err := project.Canonical(back)
	require.NoError(t, err)
	assert.Equal(t, string(want), string(got))
	// and with numbers, as files of before have them
	plain, err := json.Marshal(p)
	require.NoError(t, err)
	back, err = project.Read(plain, engine.EffectInfo)
	require.NoError(t, err)
	got, err = project.Canonical(back)
	require.NoError(t, err)
	assert.Equal(t, string(want), string(got))
}

func TestALineOfAChoiceHasNamesToo(t *testing.T) {
	p := project.New("Line", 48000, 100, 4, 4)
	s := project.NewStage("filter", 1, 100, "blend")
	p.MainChannel().Chain.Nodes = []*project.Node{{Stage: s}}
	k, _ := effect.Find("filter")
	choice := ""
	for _, d := range k.Params {
		if len(d.Choices) > 0 && !d.Structural {
			choice = d.Name
		}
	}
	require.NotEmpty(t, choice)
	p.Lines = []*project.Line{{Owner: s.ID, Name: choice, Points: []project.Point{{Value: 1, Shape: project.Hold}}}}
	b, err := project.Named(p, engine.EffectInfo)
	require.NoError(t, err)
	assert.Contains(t, string(b), `"value": "`+k.Params[k.Index(choice)].Choices[1]+`"`)
	back, err := project.Read(b, engine.EffectInfo)
	require.NoError(t, err)
	assert.Equal(t, 1.0, back.Lines[0].Points[0].Value)
}

func TestAWrongNameIsRefusedWithThoseThatThereAre(t *testing.T) {
	p := project.New("Wrong", 48000, 100, 4, 4)
	s := project.NewStage("equaliser", 1, 100, "blend")
	s.Params["shape2"] = 3
	p.MainChannel().Chain.Nodes = []*project.Node{{Stage: s}}
	b, err := project.Named(p, engine.EffectInfo)
	require.NoError(t, err)
	k, _ := effect.Find("equaliser")
	word, _ := k.Params[k.Index("shape2")].Word(3)
	wrong := []byte(strings.Replace(string(b), `"`+word+`"`, `"sparkle"`, 1))
	_, err = project.Read(wrong, engine.EffectInfo)
	require.ErrorContains(t, err, `there is no choice "sparkle"`)
	assert.ErrorContains(t, err, "bell")
	// a word where a number belongs
	_, err = project.Read([]byte(`{"version":"one"}`), engine.EffectInfo)
	assert.ErrorContains(t, err, "version")
}

func TestEveryChoiceOfEveryEffectIsReadByItsName(t *testing.T) {
	for _, k := range effect.Kinds() {
		for _, p := range k.Params {
			for i := range p.Choices {
				word, ok := p.Word(float64(i))
				require.True(t, ok)
				v, err := p.Read(word)
				require.NoError(t, err, k.ID)
				require.Equal(t, float64(i), v, "%s %s: %s", k.ID, p.Name, word)
			}
		}
	}
}
