package server

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/shelf"
	"shoal/internal/store"
)

func (d *desktop) onShelf() (own, shipped []shelf.Thing) {
	d.t.Helper()
	var list []shelf.Thing
	d.ask("GET", "/api/shelf", nil, &list)
	for _, t := range list {
		if t.Shipped {
			shipped = append(shipped, t)
		} else {
			own = append(own, t)
		}
	}
	return own, shipped
}

func TestTheShelfOverTheWire(t *testing.T) {
	d := newDesktop(t)
	id, row := d.begin()
	clip := d.open(id).Channels[0].Clips[0]
	own, shipped := d.onShelf()
	require.Empty(t, own)
	require.Greater(t, len(shipped), 29)

	var x shelf.Thing
	d.ask(
		"POST", "/api/shelf",
		NewThing{Project: id, Clips: []string{clip.ID}, ThingWords: ThingWords{Says: "A tone.", Tags: []string{"rope"}}}, &x,
	)
	require.Equal(t, clip.Name, x.Name, "what is not named is called as its clip")
	require.Equal(t, "Ada", x.From.Author)
	require.NotEmpty(t, x.From.Time)
	path := "/api/shelf/" + x.ID
	d.ask("PUT", path, ThingWords{Name: "Long tone", Says: "A tone.", Tags: []string{}}, &x)
	own, _ = d.onShelf()
	require.Equal(t, "Long tone", own[0].Name)

	// in a project at another rate it is resampled; what was made of it is not lost with the shelf
	var s store.Summary
	d.ask("POST", "/api/projects", NewProject{"Far", 44100, 100, 4, 4, ""}, &s)
	d.change(s.ID, &project.NewRow{ID: "track", Kind: project.Track})
	var taken Taken
	d.ask("GET", "/api/projects/"+s.ID+"/shelf/"+x.ID+"?row=track&at=22060&grid=960", nil, &taken)
	require.Equal(t, "Put down Long tone", taken.Label)
	var next Taken
	d.ask("GET", "/api/projects/"+s.ID+"/shelf/"+x.ID+"?row=track&at=26461&next=960", nil, &next)
	require.Contains(t, string(next.Changes[0].Do), `"at":52920`, "the beat after, of 26460 frames")
	d.ask("POST", "/api/projects/"+s.ID+"/changes", Batch{Label: taken.Label, Changes: taken.Changes}, &Revised{})
	put := d.open(s.ID).Channels[0].Clips[0]
	require.Equal(t, int64(44100), put.Frames)
	d.ask("DELETE", path, nil, &Health{})
	own, _ = d.onShelf()
	require.Empty(t, own)
	require.Len(t, d.open(s.ID).Channels[0].Clips, 1)
	used, err := d.srv.store.Mentioned(t.Context())
	require.NoError(t, err)
	require.True(t, used[put.Audio] && used[x.Heard] && used[clip.Audio], "what lies in the bin can come back")
	d.ask("POST", path+"/restore", nil, &Health{})
	own, _ = d.onShelf()
	require.Len(t, own, 1)

	d.refused("stays on the shelf", "DELETE", "/api/shelf/"+shipped[0].ID, nil)
	d.refused("stays on the shelf", "PUT", "/api/shelf/"+shipped[0].ID, ThingWords{Name: "Mine"})
	d.refused("1 to 80 letters", "PUT", path, ThingWords{Name: " "})
	d.refused("no longer on the shelf", "GET", "/api/projects/"+id+"/shelf/none?row="+row.ID, nil)
	d.refused("whole number", "GET", "/api/projects/"+id+"/shelf/"+x.ID+"?at=soon", nil)
	d.refused("select clips", "POST", "/api/shelf", NewThing{Project: id})
	nobody := &desktop{t: t, srv: d.srv}
	code, _ := nobody.ask("POST", "/api/shelf", NewThing{Project: id, Clips: []string{clip.ID}}, nil)
	require.Equal(t, http.StatusUnauthorized, code)
}
