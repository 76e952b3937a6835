package view

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"
	"shoal/internal/project"
)

// away is a passage over the first row that moves its fader straight down.
func away(p *project.Project) *project.Passage {
	a := p.Channels[0]
	straightOn := []project.Point{{Shape: project.Ramp}, {Tick: project.CourseParts, Value: 1, Shape: project.Ramp}}
	return &project.Passage{ID: "away", Name: "Away", From: 7680, To: 9600, Rows: []string{a.ID}, Courses: []*project.Course{
		{Name: "Down", Points: straightOn, Targets: []project.CourseTarget{{Owner: a.ID, Name: "fader", To: -40, Here: true}}}}}
}

func TestPassagesAreSeenInWordsAndFigures(t *testing.T) {
	p := song(t)
	p = changed(t, p, &project.PutPassage{Passage: away(p)})
	x := away(p)
	x.Brought = []string{p.Channels[0].Chain.Nodes[1].ID()}
	p = changed(t, p, &project.PutPassage{Passage: x})
	v, err := Passage(p, "away", effects)
	require.NoError(t, err)
	assert.Equal(t, "3.5 to 4.3", v.Begin+" to "+v.End, "six eighths are 2880 ticks")
	assert.InDelta(t, 0.5, v.Courses[0].Path[coursePath/2], 1e-9)
	assert.Equal(t, param.Fader.Label, v.Courses[0].Targets[0].Param.Label)
	assert.Equal(t, []string{"reverb on A"}, v.Brought)
	tried := changed(t, p, &project.AddTrial{Channel: p.Channels[0].ID})
	in, err := Passage(tried, "away", effects)
	require.NoError(t, err)
	assert.Equal(t, []string{"reverb on A", "reverb on A, trial B"}, in.Brought)
	assert.Len(t, TimelineOf(p, effects).Passages, 1)
	_, err = Passage(p, "nowhere", effects)
	assert.ErrorContains(t, err, "no longer there")
}
