package server

import (
	"math"
	"net/http"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/crew"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

// A version is named, what has changed since is said, it is matched in loudness, gone back to as one change, and begun anew from.
func TestAVersionIsComparedAndGoneBackTo(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	path := "/api/projects/" + id
	var v store.Version
	d.ask("POST", path+"/versions", NewVersion{"Rough", 0}, &v)
	require.Equal(t, "Rough", v.Name)
	d.change(id, &project.SetParam{Owner: track.ID, Name: "fader", Value: -6})
	d.change(id, &project.AddChannel{Channel: project.NewChannel(project.Track, "Oar", d.open(id).MainChannel().ID)})
	var differs []project.RowDifference
	d.ask("GET", path+"/versions/"+v.ID+"/differences", nil, &differs)
	require.Len(t, differs, 2)
	require.Contains(t, strings.Join(append(differs[0].Says, differs[1].Says...), "; "), "level 0.0 dB to −6.0 dB")
	var m Matched
	d.ask("POST", path+"/versions/"+v.ID+"/match", MatchSpan{To: 48000}, &m)
	require.InDelta(t, -6, m.Gain, 0.02, "it was 6 dB louder then")
	now, err := printing.MatchOf(t.Context(), &m.Document, d.open(id), d.srv.folder, 0, 48000, nil)
	require.NoError(t, err)
	require.InDelta(t, 0, now, 0.02, "and is as loud now")
	d.refused("empty", "POST", path+"/versions/"+v.ID+"/match", MatchSpan{From: 48000, To: 48000})
	require.Empty(t, m.Worked)
	from, to := MatchSpan{At: 480000}.frames(48000)
	require.Equal(t, []int64{288000, 1056000}, []int64{from, to}, "where no range is drawn, from 4 s before to 12 s behind")
	row, _ := m.Document.Channel(track.ID)
	require.Zero(t, row.Fader)

	// a row alone, then all of it; each is one undo
	var r Revised
	d.ask("POST", path+"/versions/"+v.ID+"/back", BackRows{[]string{track.ID}}, &r)
	require.Equal(t, "Back to Rough: "+track.Name, r.Label)
	require.Zero(t, d.open(id).Channels[0].Fader)
	require.Len(t, d.open(id).Channels, 3)
	d.ask("POST", path+"/undo", nil, &r)
	at := func() float64 {
		c, _ := d.open(id).Channel(track.ID)
		return c.Fader
	}
	require.InDelta(t, -6.0, at(), 0)
	d.ask("POST", path+"/versions/"+v.ID+"/back", BackRows{[]string{}}, &r)
	require.Len(t, d.open(id).Channels, 2)
	d.ask("POST", path+"/undo", nil, &r)
	require.Len(t, d.open(id).Channels, 3)

	// what a change did is said, and one can go back to before it
	var log LogPage
	d.ask("GET", path+"/logbook", nil, &log)
	n := log.Entries[len(log.Entries)-2].Revision // the level
	d.ask("GET", path+"/changes/"+itoa(n), nil, &differs)
	require.Len(t, differs, 1)
	require.Contains(t, differs[0].Says[0], "to −6.0 dB")
	var early store.Version
	d.ask("POST", path+"/versions", NewVersion{"Before the level", n - 1}, &early)
	require.Equal(t, n-1, early.Revision)
	d.ask("POST", path+"/changes/"+itoa(n)+"/back", nil, &r)
	require.Zero(t, at())
	d.refused("no revision", "GET", path+"/changes/x", nil)
	d.refused("no such revision", "GET", path+"/changes/999", nil)

	var copied store.Summary
	d.ask("POST", path+"/versions/"+v.ID+"/copies", NewName{"Another way"}, &copied)
	require.Equal(t, "Another way", d.open(copied.ID).Name)
	require.Len(t, d.open(copied.ID).Channels, 2)
	d.ask("PUT", path+"/versions/"+v.ID, NewName{"Rough mix"}, &Health{})
	d.ask("DELETE", path+"/versions/"+early.ID, nil, &Health{})
	var list []store.Version
	d.ask("GET", path+"/versions", nil, &list)
	require.Len(t, list, 1)
	require.Equal(t, "Rough mix", list[0].Name)
	require.Equal(t, "Ada", list[0].By.Name)
	d.refused("1 to 80 letters", "POST", path+"/versions", NewVersion{" ", 0})
	code, _ := d.ask("GET", path+"/versions/none/differences", nil, nil)
	require.Equal(t, http.StatusNotFound, code)
}

func itoa(n int64) string { return strconv.FormatInt(n, 10) }

// The logbook is narrowed to a person, a row, a kind; undo says before what it takes back.
func TestTheLogbookIsNarrowedAndUndoSaysWhatItTakes(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	path := "/api/projects/" + id
	odile := newDesktopPerson(t, d, "Odile")
	var u Undoing
	odile.ask("GET", path+"/undo", nil, &u)
	require.Empty(t, u.Label)
	odile.ask("POST", path+"/changes", Batch{Label: "Softer", Changes: mustEncode([]project.Change{
		&project.SetParam{Owner: track.ID, Name: "fader", Value: -3}})}, &Revised{})
	d.ask(
		"POST", path+"/changes",
		Batch{Label: "Ask", Changes: mustEncode([]project.Change{&project.MakeRemark{At: track.ID, Text: "why?"}})}, &Revised{},
	)
	odile.ask("GET", path+"/undo", nil, &u)
	require.Equal(t, "Softer", u.Label)
	require.Empty(t, u.Passed)
	d.ask("POST", path+"/changes", Batch{Label: "Softer still", Changes: mustEncode([]project.Change{
		&project.SetParam{Owner: track.ID, Name: "fader", Value: -9}})}, &Revised{})
	odile.ask("GET", path+"/undo", nil, &u)
	require.Len(t, u.Passed, 1)
	require.Contains(t, u.Passed[0], "Level has been changed again since, to -9 dB")
	var me Who
	odile.ask("GET", "/api/me", nil, &me)
	labels := func(query string) (list []string) {
		var log LogPage
		d.ask("GET", path+"/logbook?"+query, nil, &log)
		for _, e := range log.Entries {
			list = append(list, e.Label)
		}
		return list
	}
	require.Equal(t, []string{"Softer"}, labels("person="+me.ID))
	require.Equal(t, []string{"Ask"}, labels("kind=remarks"))
	require.Contains(t, labels("row="+track.ID), "Softer still")
	require.NotContains(t, labels("row="+track.ID), "Ask")
	require.Empty(t, labels("row="+d.open(id).MainChannel().ID))
	d.refused("no kind", "GET", path+"/logbook?kind=noise", nil)
}

// A row that somebody has in hand is changed by others only after they were asked; nobody is locked out.
func TestOthersAreAskedBeforeARowInHandIsChanged(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	odile := newDesktopPerson(t, d, "Odile")
	d.change(id, &project.TakeInHand{ID: track.ID, Minutes: 60})
	d.change(id, &project.SetParam{Owner: track.ID, Name: "pan", Value: -0.1})
	b := Batch{Label: "Pan", Changes: mustEncode([]project.Change{&project.SetParam{Owner: track.ID, Name: "pan", Value: 0.2}})}
	odile.refused("is in Ada's hand for another 60 minutes: ask first", "POST", "/api/projects/"+id+"/changes", b)
	line := Batch{Label: "Line", Changes: mustEncode([]project.Change{&project.SetLine{Owner: track.ID, Name: "fader",
		Points: []project.Point{{Tick: 0, Value: -3, Shape: project.Ramp}}}})}
	odile.refused("ask first", "POST", "/api/projects/"+id+"/changes", line)
	other := Batch{
		Label:   "Main",
		Changes: mustEncode([]project.Change{&project.SetParam{Owner: d.open(id).MainChannel().ID, Name: "fader", Value: -math.Pi}}),
	}
	odile.ask("POST", "/api/projects/"+id+"/changes", other, &Revised{})
	b.Anyway = true
	odile.ask("POST", "/api/projects/"+id+"/changes", b, &Revised{})
	d.change(id, &project.TakeInHand{ID: track.ID})
	b.Anyway = false
	b.Changes = mustEncode([]project.Change{&project.SetParam{Owner: track.ID, Name: "pan", Value: 0.3}})
	odile.ask("POST", "/api/projects/"+id+"/changes", b, &Revised{})
}

// Who only hears a project remarks in their own name, and nothing else.
func TestAListenerRemarks(t *testing.T) {
	s := newStudio(t)
	ada := s.come(s.first, "Ada")
	id, track := ada.song()
	lem := s.joined(ada, id, "Lem", crew.Listener)
	forged := &project.MakeRemark{ID: "r", At: track.ID, Text: "too loud"}
	forged.By = &project.Speaker{ID: ada.id, Name: "Ada"}
	lem.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: "x", Changes: mustEncode([]project.Change{forged})}, &Revised{})
	var o Opened
	ada.ask("GET", "/api/projects/"+id, nil, &o)
	require.Equal(t, "Lem", o.Project.Remarks[0].Said[0].By.Name)
	code, body := lem.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: "x", Changes: mustEncode([]project.Change{
		&project.SettleRemark{Remark: "r", Settled: true}, &project.SetParam{Owner: track.ID, Name: "fader", Value: -3}})}, nil)
	require.Equal(t, http.StatusForbidden, code, body)
	meant := Batch{Label: "x", Changes: mustEncode([]project.Change{&project.SetMeant{Rule: "ghost", At: track.ID, By: "Ada", Meant: true}})}
	code, body = lem.ask("POST", "/api/projects/"+id+"/changes", meant, nil)
	require.Equal(t, http.StatusForbidden, code, body)
	odile := s.joined(ada, id, "Odile", crew.Engineer)
	odile.ask("POST", "/api/projects/"+id+"/changes", meant, &Revised{})
	ada.ask("GET", "/api/projects/"+id, nil, &o)
	require.Equal(t, "Odile", o.Project.Meant[0].By, "whoever says so, whatever is sent")
	code, body = ada.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: "x", Changes: []project.Wire{{Type: "remark.unsay",
		Do: []byte(`{"remark":"r","said":"x"}`)}}}, nil)
	require.Equal(t, http.StatusUnprocessableEntity, code)
	require.Contains(t, body, "undo and redo only")
}

// A version is heard with the treatments that its clips had, also where nothing of now needs them.
func TestAVersionBringsWhatItsClipsNeedWorkedOut(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	path := "/api/projects/" + id
	clip := d.open(id).Channels[0].Clips[0]
	d.change(id, &project.TreatClips{Clips: []string{clip.ID}, Effect: "backwards", ID: "turn"})
	var v store.Version
	d.ask("POST", path+"/versions", NewVersion{"Turned", 0}, &v)
	d.ask("POST", path+"/undo", nil, nil)
	require.Empty(t, d.open(id).Treatments)
	var m Matched
	d.ask("POST", path+"/versions/"+v.ID+"/match", MatchSpan{To: 48000}, &m)
	require.Len(t, m.Worked, 1)
	code, page := d.ask("GET", path+"/audio/"+m.Worked[0]+"/pcm/0", nil, nil)
	require.Equal(t, 200, code)
	require.NotEmpty(t, page)
}
