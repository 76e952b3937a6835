package server

import (
	"encoding/json"
	"io"
	"math"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine/figures"
	"shoal/internal/engine/pages"
	"shoal/internal/passage"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

// A project is made, duplicated, put into the bin and taken out of it; bundled, it comes back as another one that
// is the same.
func TestAProjectsLife(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	list := func() map[string]store.Summary {
		var all []store.Summary
		d.ask("GET", "/api/projects", nil, &all)
		out := map[string]store.Summary{}
		for _, s := range all {
			out[s.ID] = s
		}
		return out
	}
	require.Equal(t, "Rope", list()[id].Name)
	var copied store.Summary
	d.ask("POST", "/api/projects/"+id+"/copies", nil, &copied)
	require.Equal(t, "Rope copy", copied.Name)
	mute := true
	d.change(copied.ID, &project.SetChannel{ID: track.ID, Mute: &mute})
	require.False(t, d.open(id).Channels[0].Mute, "the copy is its own")
	d.ask("DELETE", "/api/projects/"+copied.ID, nil, &Health{})
	require.NotEmpty(t, list()[copied.ID].Binned)
	d.ask("POST", "/api/projects/"+copied.ID+"/restore", nil, &Health{})
	require.Empty(t, list()[copied.ID].Binned)
	code, zip := d.ask("GET", "/api/projects/"+copied.ID+"/bundle", nil, nil)
	require.Equal(t, http.StatusOK, code)
	var back store.Summary
	d.ask("POST", "/api/bundles", []byte(zip), &back)
	require.NotEqual(t, copied.ID, back.ID)
	want, got := d.open(copied.ID), d.open(back.ID)
	got.ID, got.Name = want.ID, want.Name
	require.Equal(t, want, got)
	d.refused("does not exist", "DELETE", "/api/projects/nowhere", nil)
	d.refused("1 to 80 letters", "POST", "/api/projects", NewProject{"  ", 48000, 100, 4, 4, ""})
	d.refused("zip", "POST", "/api/bundles", []byte(zip[:len(zip)/2]))
}

// The audio of a project is fetched in pages, and drawn from an overview.
func TestAudioIsFetchedInPages(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	hash := track.Clips[0].Audio
	require.Equal(t, hash, d.open(id).Audio[0].Hash)
	code, body := d.ask("GET", "/api/projects/"+id+"/audio/"+hash+"/pcm/1", nil, nil)
	require.Equal(t, http.StatusOK, code)
	require.Len(t, body, 4*(48000-pages.Frames), "the second and last page of a second")
	code, body = d.ask("GET", "/api/projects/"+id+"/audio/"+hash+"/overview", nil, nil)
	require.Equal(t, http.StatusOK, code)
	require.GreaterOrEqual(t, len(body), 2*48000/512)
	require.InDelta(t, 255*math.Sqrt(0.25), float64(body[40]), 8, "the peak of a tone of -12 dBFS")
	d.refused("", "GET", "/api/projects/"+id+"/audio/"+hash+"/pcm/2", nil)
	d.refused("", "GET", "/api/projects/"+id+"/audio/no/pcm/0", nil)
	d.refused("", "GET", "/api/projects/"+id+"/audio/"+hash+"/pcm/x", nil)
}

// A print becomes a track beside its source, which is muted; it can be undone. One to a file is fetched. What has
// ended cannot be cancelled.
func TestAPrintIsMadeAndFetched(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	fader := -7.5
	d.change(id, &project.SetParam{Owner: track.ID, Name: "fader", Value: fader})
	add := func(spec printing.Spec) printing.Status {
		var s printing.Status
		d.ask("POST", "/api/projects/"+id+"/prints", spec, &s)
		require.Eventually(t, func() bool {
			var all []printing.Status
			d.ask("GET", "/api/projects/"+id+"/prints", nil, &all)
			for _, x := range all {
				if x.ID == s.ID {
					s = x
				}
			}
			return s.State == "done" || s.State == "failed"
		}, 2*time.Minute, 50*time.Millisecond)
		require.Equal(t, "done", s.State, s.Error)
		return s
	}
	add(printing.Spec{Channel: track.ID, To: 24000, Target: "track", Mute: true})
	p := d.open(id)
	require.Equal(t, track.Name+" print", p.Channels[1].Name)
	require.True(t, p.Channels[0].Mute)
	require.InDelta(t, fader, p.Channels[1].Fader, 0)
	require.EqualValues(t, 24000, p.Channels[1].Clips[0].Frames)
	d.ask("POST", "/api/projects/"+id+"/undo", nil, &Revised{})
	p = d.open(id)
	require.Len(t, p.Channels, 2)
	require.False(t, p.Channels[0].Mute)

	s := add(printing.Spec{Channel: p.MainChannel().ID, To: 24000, Target: "file", Format: "flac16"})
	code, file := d.ask("GET", "/api/prints/"+s.ID+"/file", nil, nil)
	require.Equal(t, http.StatusOK, code)
	require.True(t, strings.HasPrefix(file, "fLaC"))
	d.refused("has ended already", "DELETE", "/api/prints/"+s.ID, nil)
	d.refused("empty", "POST", "/api/projects/"+id+"/prints", printing.Spec{Channel: track.ID, From: 9, To: 9, Target: "track"})
}

// Whoever has a project open hears at once who else has, and what they change, with their name.
func TestPeopleInAProjectHearOfEachOther(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	house := httptest.NewServer(d.srv)
	defer house.Close()
	dial := func(cookie string) *websocket.Conn {
		conn, _, err := websocket.Dial(t.Context(), "ws"+strings.TrimPrefix(house.URL, "http")+"/api/projects/"+id+"/live",
			&websocket.DialOptions{HTTPHeader: http.Header{"Cookie": {keyCookie + "=" + cookie}}})
		require.NoError(t, err)
		return conn
	}
	next := func(c *websocket.Conn) (m Message) {
		_, b, err := c.Read(t.Context())
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(b, &m))
		return m
	}
	ada := dial(d.cookie)
	defer ada.CloseNow()
	require.Len(t, next(ada).Presence, 1)
	odile := newDesktopPerson(t, d, "Odile")
	other := dial(odile.cookie)
	came := next(ada).Came // only what differs
	require.Len(t, came, 1)
	require.Equal(t, "Odile", came[0].Person.Name)
	names := []string{}
	for _, p := range next(other).Presence { // who comes is told of everybody
		names = append(names, p.Person.Name)
	}
	require.ElementsMatch(t, []string{"Ada", "Odile"}, names)
	require.NoError(t, wsjson.Write(t.Context(), other, Whereabouts{At: track.ID}))
	moved := next(ada).Came
	require.Len(t, moved, 1)
	require.Equal(t, Presence{came[0].Window, came[0].Person, Whereabouts{At: track.ID}}, moved[0])
	mute := true
	odile.change(id, &project.SetChannel{ID: track.ID, Mute: &mute})
	c := next(ada).Change
	require.NotNil(t, c)
	require.Equal(t, "Odile", c.Author.Name)
	require.Equal(t, "do", c.Kind)
	require.Contains(t, string(c.Patch), "mute")
	var missed Missed
	d.ask("GET", "/api/projects/"+id+"/changes?since=1", nil, &missed)
	require.NotEmpty(t, missed.Changes)
	require.Equal(t, c.Revision, missed.Changes[len(missed.Changes)-1].Revision)
	require.NoError(t, other.Close(websocket.StatusNormalClosure, ""))
	require.Equal(t, []string{came[0].Window}, next(ada).Left)
	// what somebody waits for tells how far it is, under the name that they gave it
	spec, err := json.Marshal(CompareSpec{track.ID, 0, 48000})
	require.NoError(t, err)
	q, err := http.NewRequestWithContext(t.Context(), "POST", house.URL+"/api/projects/"+id+"/trials", strings.NewReader(string(spec)))
	require.NoError(t, err)
	q.Header.Set(workHeader, "mine")
	q.Header.Set("Content-Type", "application/json")
	answer, err := house.Client().Do(q)
	require.NoError(t, err)
	require.NoError(t, answer.Body.Close())
	require.Equal(t, http.StatusOK, answer.StatusCode)
	w := next(ada).Work
	for range 4 { // what has been worked out of the sound may be told just then
		if w == nil {
			w = next(ada).Work
		}
	}
	require.NotNil(t, w)
	require.Equal(t, "mine", w.ID)
	require.Less(t, w.Progress, 0.5)
}

// newDesktopPerson is somebody else at the same server.
func newDesktopPerson(t *testing.T, d *desktop, name string) *desktop {
	o := &desktop{t: t, srv: d.srv, dir: d.dir}
	o.ask("PUT", "/api/me", NewName{name}, &store.Person{})
	return o
}

// Passages are made over HTTP with what they need, and their contour is drawn before anybody plays.
func TestAPassageIsMadeAndItsContourDrawn(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	var kinds []passage.Kind
	d.ask("GET", "/api/passages", nil, &kinds)
	require.GreaterOrEqual(t, len(kinds), 10)
	var r Revised
	d.ask(
		"POST",
		"/api/projects/"+id+"/passages",
		passage.Spec{ID: "x", Kind: "stop", From: 12000, To: 36000, Rows: []string{track.ID}},
		&r,
	)
	require.Contains(t, r.Label, "Placed")
	p := d.open(id)
	require.Len(t, p.Channels[0].Chain.Nodes, 1)
	require.Equal(t, "spindown", p.Channels[0].Chain.Nodes[0].Stage.Effect)
	var c figures.Contour
	d.ask("GET", "/api/projects/"+id+"/passages/x", nil, &c)
	require.NotEmpty(t, c.Rows)
	d.refused(
		"kind of passage",
		"POST",
		"/api/projects/"+id+"/passages",
		passage.Spec{Kind: "none", From: 0, To: 9000, Rows: []string{track.ID}},
	)
}

// What the API says of itself is what it has.
func TestTheDescriptionNamesEveryOperation(t *testing.T) {
	d := newDesktop(t)
	var spec struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	d.ask("GET", "/api/openapi.json", nil, &spec)
	for _, r := range table() {
		path := r.path
		for _, part := range strings.Split(path, "/") {
			if strings.HasPrefix(part, ":") {
				path = strings.Replace(path, part, "{"+part[1:]+"}", 1)
			}
		}
		require.Contains(t, spec.Paths, path)
		require.Contains(t, spec.Paths[path], strings.ToLower(r.method), path)
	}
	var params Params
	d.ask("GET", "/api/params", nil, &params)
	require.NotEmpty(t, params.Cycles)
	require.InDelta(t, 40, params.Moves.Rate.Max, 0)
	d.refused("", "GET", "/api/nothing", nil)
}

// A bundle that lacks a sound is refused before a byte of it is sent; one that breaks off on the way does not end as if
// it were whole.
func TestABundleIsWholeOrRefused(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	file := d.srv.folder.Path(track.Clips[0].Audio)
	require.NoError(t, os.Rename(file, file+".away"))
	d.refused("is missing from Shoal's folder", "GET", "/api/projects/"+id+"/bundle", nil)
	// a folder in its place is there to be found and cannot be read
	require.NoError(t, os.Mkdir(file, 0o755))
	house := httptest.NewServer(d.srv)
	defer house.Close()
	r, err := http.Get(house.URL + "/api/projects/" + id + "/bundle")
	if err == nil {
		defer r.Body.Close()
		_, err = io.ReadAll(r.Body)
	}
	require.Error(t, err, "the connection breaks off")
}

// Only sounds that are there can be added, and no name leads out of the folder.
func TestASoundThatIsAddedMustBeThere(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	for says, hash := range map[string]string{"no hash of a sound": "../../x", "not in Shoal's folder": strings.Repeat("ab", 32)} {
		d.refused(says, "POST", "/api/projects/"+id+"/changes", Batch{Label: "Add", Changes: mustEncode([]project.Change{
			&project.AddAudio{Audio: project.Audio{Hash: hash, Name: "x", Frames: 10, Channels: 1}}})})
	}
	d.refused(
		"is empty",
		"POST",
		"/api/projects/"+id+"/changes",
		[]byte(
			`{"label":"x","changes":[{"type":"channel.add","do":{"channel":{"id":"n","kind":"track","name":"n","sends":[null]},"index":0}}]}`,
		),
	)
}
