package sounding

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// A brake pulls a row whose reverb stands behind it in the chain's order, or before it: as it is really
// measured, with each tail rule.
func TestATailThatComesBackIsNoticed(t *testing.T) {
	look := func(tail string, seconds int) []Sounding {
		s := newSession()
		lib := pages.New(64)
		n := int64(seconds * rate)
		lib.Sound(projecttest.Hash("tone"), n, 1)
		for i := 0; i*pages.Frames < int(n); i++ {
			page := make([]float32, pages.Frames)
			for k := range page {
				page[k] = float32(0.3 * math.Sin(2*math.Pi*330*float64(i*pages.Frames+k)/rate))
			}
			lib.Put(projecttest.Hash("tone"), i, pages.Page{page})
		}
		s.doc.Audio = []project.Audio{{Hash: projecttest.Hash("tone"), Name: "tone", Frames: n, Channels: 1}}
		s.a.Sends = nil
		s.a.Clips = []*project.Clip{{ID: project.NewID(), Name: "tone", Audio: projecttest.Hash("tone"), Frames: n}}
		brake := stageOf("spindown", 100, "blend", nil)
		put(s.a, stageOf("reverb", 40, "add", map[string]float64{"decay": 6}), brake)
		target := func(name string, v float64) project.CourseTarget {
			return project.CourseTarget{Owner: brake.ID, Name: name, From: v, To: v}
		}
		length := target("time", 1)
		length.Length = 0.9
		s.doc.Passages = []*project.Passage{
			{
				ID:      "p",
				Name:    "Stop",
				From:    4 * 960,
				To:      6 * 960,
				Rows:    []string{s.a.ID},
				Tail:    tail,
				Fade:    480,
				Brought: []string{},
				Courses: []*project.Course{
					{
						Name:    "Stop",
						Points:  []project.Point{{Shape: project.Hold, Value: 1}},
						Targets: []project.CourseTarget{target("stop", 1), target("sync", 1), length},
					},
				},
			},
		}
		require.NoError(t, s.doc.Validate(engine.EffectInfo))
		f, err := engine.Measure(context.Background(), s.doc, lib, 6*rate, nil, nil)
		require.NoError(t, err)
		require.Len(t, f.Tails, 1)
		var out []Sounding
		for _, x := range Look(&Survey{Doc: s.doc, Figures: &f}) {
			if x.Rule == "tail-after-stop" {
				out = append(out, x)
			}
		}
		return out
	}
	list := look(project.TailRing, 3)
	require.Len(t, list, 1)
	assert.Contains(t, list[0].Says, "Stop ends in silence on A")
	assert.Equal(t, "Hold it until the next sound", list[0].Fixes[0].Says)
	assert.Empty(t, look(project.TailHold, 3), "what the fix does")
	assert.Empty(t, look(project.TailCut, 3))
	assert.Empty(t, look(project.TailRing, 30), "the row plays on: that is no tail")
}
