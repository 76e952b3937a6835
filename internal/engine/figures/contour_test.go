package figures

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// A passage that takes a fader down by 20 dB within a bar is seen with it and without, and turned off as well as on.
func TestAContourShowsWhatAPassageDoes(t *testing.T) {
	doc, lib := row(t, sine(997, 10))
	doc.Channels[0].Pan = 0
	bar := int64(4 * 960)
	down := []project.Point{{Shape: project.Ramp}, {Tick: project.CourseParts, Value: 1, Shape: project.Hold}}
	x := &project.Passage{
		ID:   "x",
		Name: "Down",
		From: 2 * bar,
		To:   3 * bar,
		Rows: []string{doc.Channels[0].ID},
		Tail: project.TailRing,
		Fade: 960,
		Courses: []*project.Course{{Name: "Down", Points: down, Targets: []project.CourseTarget{
			{Owner: doc.Channels[0].ID, Name: "fader", From: 0, To: -20}}}},
	}
	doc.Passages = []*project.Passage{x}
	require.NoError(t, doc.Validate(engine.EffectInfo))
	for _, off := range []bool{false, true} {
		x.Off = off
		c, err := OfPassage(t.Context(), doc, lib, "x", nil, nil)
		require.NoError(t, err)
		require.Len(t, c.Rows, 1)
		r := c.Rows[0]
		assert.Equal(t, [2]int64{0, 5 * 96000}, [2]int64{c.From, c.To}, "two bars to both sides")
		level := r.Without[20]
		at := func(bars float64) int { return int(bars / 5 * contourPoints) }
		for _, v := range r.Without[4 : contourPoints-4] {
			assert.InDelta(t, level, v, 0.1, "a sine stands still")
		}
		assert.InDelta(t, level, r.With[at(1)], 0.1, "before it")
		assert.InDelta(t, level-20, r.With[at(2.98)], 1, "at its end")
		assert.Less(t, r.With[at(2.75)], r.With[at(2.5)])
		assert.InDelta(t, level, r.With[at(4)], 0.1, "after it")
	}
	_, err := OfPassage(t.Context(), doc, lib, "nowhere", nil, nil)
	assert.ErrorContains(t, err, "no longer there")
}

// What a brake leaves behind a passage is said in words: nothing, where the row is held, else what goes on.
func TestWhatIsLeftIsSaid(t *testing.T) {
	brake := stage("spindown", nil)
	doc, lib := row(t, sine(440, 2.1), brake)
	at := func(name string, from, to, length float64) project.CourseTarget {
		return project.CourseTarget{Owner: brake.ID(), Name: name, From: from, To: to, Length: length}
	}
	step := []project.Point{{Value: 1, Shape: project.Hold}}
	x := &project.Passage{
		ID:   "x",
		Name: "Brake",
		From: 960,
		To:   1920,
		Rows: []string{doc.Channels[0].ID},
		Tail: project.TailHold,
		Fade: 960,
		Courses: []*project.Course{
			{Name: "Stop", Points: step, Targets: []project.CourseTarget{at("stop", 0, 1, 0), at("sync", 0, 1, 0), at("time", 1, 1, 1)}},
		},
	}
	doc.Passages = []*project.Passage{x}
	require.NoError(t, doc.Validate(engine.EffectInfo))
	c, err := OfPassage(t.Context(), doc, lib, x.ID, nil, nil)
	require.NoError(t, err)
	assert.Less(t, c.Rows[0].Left, -100.0)
	assert.Contains(t, c.Rows[0].Says, "Nothing is left in the ")
	assert.Greater(t, c.Rows[0].Without[60], -30.0)
	x.Tail = project.TailRing // the brake lets go, and the sound goes on
	c, err = OfPassage(t.Context(), doc, lib, x.ID, nil, nil)
	require.NoError(t, err)
	assert.Regexp(t, `^-1\d dB are left in the \d\.\d s after its end\.$`, c.Rows[0].Says)
}
