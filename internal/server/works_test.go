package server

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/working"
)

// worksOf asks until the only work of a project is in a state.
func (d *desktop) workIn(id, state string) (w working.Status) {
	d.t.Helper()
	require.Eventually(d.t, func() bool {
		var list []working.Status
		d.ask("GET", "/api/projects/"+id+"/works", nil, &list)
		if len(list) == 1 {
			w = list[0]
		}
		return len(list) == 1 && w.State == state
	}, 2*time.Minute, 20*time.Millisecond, state)
	return w
}

func TestWhatAClipNeedsIsWorkedOutAndFetchedByItsKey(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	d.change(id, &project.TreatClips{Clips: []string{clip.ID}, Effect: "backwards", ID: "turn"})
	w := d.workIn(id, working.Done)
	require.Equal(t, []string{clip.ID}, w.Clips)
	code, page := d.ask("GET", "/api/projects/"+id+"/audio/"+w.Key+"/pcm/0", nil, nil)
	require.Equal(t, 200, code)
	require.NotEmpty(t, page)
	code, shape := d.ask("GET", "/api/projects/"+id+"/audio/"+w.Key+"/overview", nil, nil)
	require.Equal(t, 200, code)
	require.NotEmpty(t, shape)
	d.refused("what it is made from has changed", "POST", "/api/projects/"+id+"/works/none", nil)
	d.refused("worked out already", "DELETE", "/api/projects/"+id+"/works/"+w.Key, nil)
	d.refused("print the row first", "POST", "/api/projects/"+id+"/changes",
		Batch{Label: "x", Changes: mustEncode([]project.Change{&project.AddStage{Owner: d.open(id).Channels[0].ID, Effect: "backwards"}})})
}

func TestATreatmentIsMadePermanentAndBroughtBack(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	d.change(
		id, &project.TreatClips{Clips: []string{clip.ID}, Effect: "pitch", ID: "turn"},
		&project.SetParam{Owner: "turn", Name: "semitones", Value: 3},
	)
	d.ask("POST", "/api/projects/"+id+"/clips/permanent", ClipList{Clips: []string{clip.ID}}, &Revised{})
	now := d.open(id).Channels[0].Clips[0]
	require.NotEqual(t, clip.Audio, now.Audio)
	require.Equal(t, clip.Audio, now.Made.Clips[0].Audio)
	d.ask("POST", "/api/projects/"+id+"/undo", nil, &Revised{})
	require.Equal(t, clip.Audio, d.open(id).Channels[0].Clips[0].Audio)
	d.refused("none of these clips", "POST", "/api/projects/"+id+"/clips/permanent", ClipList{Clips: []string{}})
}

// Looking at a clip does not make what is only made when somebody asks.
func TestMeasuringWaitsToBeAskedToo(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	clip, yes := d.open(id).Channels[0].Clips[0], true
	d.change(id, &project.SetProject{WorkWhenAsked: &yes}, &project.TreatClips{Clips: []string{clip.ID}, Effect: "backwards"})
	w := d.workIn(id, working.WhenAsked)
	d.refused("is not worked out yet", "POST", "/api/projects/"+id+"/clips/levels", ClipList{Clips: []string{clip.ID}})
	d.ask("POST", "/api/projects/"+id+"/works/"+w.Key, nil, nil)
	d.workIn(id, working.Done)
	require.Len(t, d.levelsOf(id, clip.ID), 1)
}
