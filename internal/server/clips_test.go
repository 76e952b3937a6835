package server

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/printing"
	"shoal/internal/project"
)

func (d *desktop) levelsOf(id string, clips ...string) []printing.ClipLevels {
	d.t.Helper()
	var levels []printing.ClipLevels
	d.ask("POST", "/api/projects/"+id+"/clips/levels", ClipList{clips}, &levels)
	return levels
}

// A tone's levels are known; brought to one it has that; two go together or each for itself; a treatment and a swell count.
func TestClipsAreMeasuredAndBroughtToALevel(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	one := d.open(id).Channels[0].Clips[0]
	soft := *one
	soft.ID, soft.Gain, soft.Start = "soft", -10, 96000
	d.change(id, &project.AddClip{Channel: track.ID, Index: 1, Clip: &soft})
	before := d.levelsOf(id, one.ID, "soft")
	require.Len(t, before, 2)
	require.InDelta(t, before[0].Peak-10, before[1].Peak, 0.01)
	require.InDelta(t, before[0].Peak, before[0].TruePeak, 0.3)
	require.Zero(t, before[0].Over)

	path := "/api/projects/" + id + "/clips/normalise"
	d.ask("POST", path, printing.NormaliseSpec{Clips: []string{one.ID, "soft"}, To: "peak", Level: -6}, &Revised{})
	for _, l := range d.levelsOf(id, one.ID, "soft") {
		require.InDelta(t, -6, l.Peak, 0.01, "each for itself")
	}
	d.ask("POST", "/api/projects/"+id+"/undo", nil, &Revised{})
	d.ask("POST", path, printing.NormaliseSpec{Clips: []string{one.ID, "soft"}, To: "truePeak", Level: -3, Together: true}, &Revised{})
	after := d.levelsOf(id, one.ID, "soft")
	require.InDelta(t, -3, after[0].TruePeak, 0.02)
	require.InDelta(t, -13, after[1].TruePeak, 0.02, "all by one amount")

	swell := []project.Swell{{At: 0, Gain: 9}}
	d.change(id, &project.SetClip{ID: one.ID, Swell: &swell}, &project.TreatClips{Clips: []string{"soft"}, Effect: "trim", ID: "louder"},
		&project.SetParam{Owner: "louder", Name: "gain", Value: 5})
	louder := d.levelsOf(id, one.ID, "soft")
	require.InDelta(t, after[0].Peak+9, louder[0].Peak, 0.01)
	require.Positive(t, louder[0].Over, "samples beyond full scale are counted")
	require.InDelta(t, after[1].Peak+5, louder[1].Peak, 0.01)
	var gains []printing.GainOfClip
	d.ask("POST", "/api/projects/"+id+"/clips/untreated", ClipList{[]string{"soft"}}, &gains)
	require.Len(t, gains, 1)
	require.InDelta(t, soft.Gain+5+(after[1].Peak-before[1].Peak), gains[0].Gain, 0.05, "as loud as with its treatment")
}

func TestWhatCannotBeNormalisedIsSaid(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	path := "/api/projects/" + id + "/clips/normalise"
	spec := func(to string, level float64, clips ...string) printing.NormaliseSpec {
		return printing.NormaliseSpec{Clips: clips, To: to, Level: level}
	}
	d.refused("no measure", "POST", path, spec("warmth", -6, clip.ID))
	d.refused("-60 to 0", "POST", path, spec("peak", 6, clip.ID))
	d.refused("no longer there", "POST", path, spec("peak", -6, "gone"))
	off := -120.0
	d.change(id, &project.SetClip{ID: clip.ID, Gain: &off})
	d.refused("is silent", "POST", path, spec("peak", -6, clip.ID))
}

func TestMarksLieInsideTheClip(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	path := "/api/projects/" + id + "/clips/marks"
	marks := func(s printing.MarkSpec) (m printing.Marks) {
		d.ask("POST", path, s, &m)
		return m
	}
	// at 100 a minute a quarter note is 28800 frames
	m := marks(printing.MarkSpec{Clip: clip.ID, By: "grid", Grid: 480})
	require.Equal(t, []int64{14400, 28800, 43200}, []int64{m.Marks[0].At, m.Marks[1].At, m.Marks[2].At})
	require.Len(t, m.Marks, 3)
	d.change(id, &project.SetSections{Sections: []project.Section{{ID: "s", Name: "Two", Tick: 960}}})
	m = marks(printing.MarkSpec{Clip: clip.ID, By: "sections"})
	require.Equal(t, []printing.Mark{{At: 28800, Strength: 1}}, m.Marks)
	require.Empty(t, marks(printing.MarkSpec{Clip: clip.ID, By: "onsets"}).Marks, "a tone that goes on begins once, at its begin")
	d.refused("too fine", "POST", path, printing.MarkSpec{Clip: clip.ID, By: "grid", Grid: 1})
	d.refused("onsets, at the grid or at sections", "POST", path, printing.MarkSpec{Clip: clip.ID, By: "luck"})
	d.refused("no longer there", "POST", path, printing.MarkSpec{Clip: "gone", By: "grid", Grid: 480})

	// half of the tone, later in the song: onsets are those of the clip's part
	start, offset, frames := int64(100000), int64(24000), int64(20000)
	d.change(id, &project.SetClip{ID: clip.ID, Start: &start, Offset: &offset, Frames: &frames})
	for _, x := range marks(printing.MarkSpec{Clip: clip.ID, By: "grid", Grid: 240}).Marks {
		require.Greater(t, x.At, start)
		require.Less(t, x.At, start+frames)
	}
}
