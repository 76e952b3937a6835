package server

import (
	"bytes"
	"encoding/json"
	"io"
	"log/slog"
	"math"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/preset"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

// desktop is a server for a test and a person who asks it.
type desktop struct {
	t      testing.TB
	srv    *Server
	dir    string
	cookie string
}

func newDesktop(t testing.TB) *desktop {
	dir := t.TempDir()
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	folder, err := audiofile.NewFolder(filepath.Join(dir, "audio"))
	require.NoError(t, err)
	tmp := filepath.Join(dir, "tmp")
	require.NoError(t, os.MkdirAll(tmp, 0o755))
	s, err := New(
		t.Context(), st, folder, filepath.Join(dir, "exports"), tmp, filepath.Join(dir, "recordings"),
		slog.New(slog.NewTextHandler(io.Discard, nil)),
	)
	require.NoError(t, err)
	t.Cleanup(func() {
		_ = s.Close(t.Context())
		_ = st.Close()
	})
	return &desktop{t: t, srv: s, dir: dir}
}

// ask sends a request; v, if not nil, takes the answer.
func (d *desktop) ask(method, path string, body, v any) (int, string) {
	d.t.Helper()
	var r io.Reader
	switch b := body.(type) {
	case nil:
	case []byte:
		r = bytes.NewReader(b)
	default:
		j, err := json.Marshal(b)
		require.NoError(d.t, err)
		r = bytes.NewReader(j)
	}
	q := httptest.NewRequestWithContext(d.t.Context(), method, "http://127.0.0.1"+path, r)
	if b, raw := body.([]byte); body != nil && (!raw || !bytes.HasPrefix(b, []byte("RIFF"))) {
		q.Header.Set("Content-Type", "application/json")
	}
	if d.cookie != "" {
		q.AddCookie(&http.Cookie{Name: keyCookie, Value: d.cookie})
	}
	w := httptest.NewRecorder()
	d.srv.ServeHTTP(w, q)
	for _, c := range w.Result().Cookies() {
		if c.Name == keyCookie {
			d.cookie = c.Value
		}
	}
	if v != nil {
		require.Equal(d.t, http.StatusOK, w.Code, w.Body.String())
		require.NoError(d.t, json.Unmarshal(w.Body.Bytes(), v))
	}
	return w.Code, w.Body.String()
}

// refused expects a problem document that says something.
func (d *desktop) refused(says, method, path string, body any) {
	d.t.Helper()
	code, text := d.ask(method, path, body, nil)
	var p Problem
	require.NoError(d.t, json.Unmarshal([]byte(text), &p), text)
	require.Equal(d.t, code, p.Status)
	require.GreaterOrEqual(d.t, code, 400)
	require.Contains(d.t, p.Detail, says)
}

func (d *desktop) open(id string) *project.Project {
	d.t.Helper()
	var o Opened
	d.ask("GET", "/api/projects/"+id, nil, &o)
	return &o.Project
}

func (d *desktop) change(id string, batch ...project.Change) {
	d.t.Helper()
	d.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: "Change", Changes: mustEncode(batch)}, &Revised{})
}

// begin gives a name and makes a project with one track that plays a second of a tone.
func (d *desktop) begin() (id string, track *project.Channel) {
	d.t.Helper()
	d.ask("PUT", "/api/me", NewName{"Ada"}, &store.Person{})
	var s store.Summary
	d.ask("POST", "/api/projects", NewProject{"Rope", 48000, 100, 4, 4, ""}, &s)
	d.ask(
		"POST",
		"/api/projects/"+s.ID+"/audio?name=tone.wav",
		sound(d.t, 1, func(i int) float64 { return 0.25 * math.Sin(float64(i)*0.1) }),
		&Revised{},
	)
	return s.ID, d.open(s.ID).Channels[0]
}

// sound is a WAV file.
func sound(t testing.TB, seconds float64, f func(i int) float64) []byte {
	name := filepath.Join(t.TempDir(), "x.wav")
	file, err := os.Create(name)
	require.NoError(t, err)
	w, err := audiofile.NewWAV(file, 48000, 1, 24, nil, nil)
	require.NoError(t, err)
	x := make([]float64, int(seconds*48000))
	for i := range x {
		x[i] = f(i)
	}
	require.NoError(t, w.Write([][]float64{x}))
	require.NoError(t, w.Close())
	require.NoError(t, file.Close())
	b, err := os.ReadFile(name)
	require.NoError(t, err)
	return b
}

func TestChangesCarryANameAndAreUndoneByTheirAuthor(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	d.cookie = ""
	mute := true
	d.refused(
		"say who you are first",
		"POST",
		"/api/projects/"+id+"/changes",
		Batch{Label: "Mute", Changes: mustEncode([]project.Change{&project.SetChannel{ID: track.ID, Mute: &mute}})},
	)
	d.ask("PUT", "/api/me", NewName{"Odile"}, &store.Person{})
	odile := d.cookie
	d.change(id, &project.SetChannel{ID: track.ID, Mute: &mute})
	d.cookie = ""
	d.ask("PUT", "/api/me", NewName{"Ben"}, &store.Person{})
	d.refused("nothing of yours to undo", "POST", "/api/projects/"+id+"/undo", nil)
	d.cookie = odile
	d.ask("POST", "/api/projects/"+id+"/undo", nil, &Revised{})
	require.False(t, d.open(id).Channels[0].Mute)
	d.ask("POST", "/api/projects/"+id+"/redo", nil, &Revised{})
	require.True(t, d.open(id).Channels[0].Mute)
	var page LogPage
	d.ask("GET", "/api/projects/"+id+"/logbook", nil, &page)
	log := page.Entries
	require.Equal(t, []string{"redo", "undo", "do", "do"}, []string{log[0].Kind, log[1].Kind, log[2].Kind, log[3].Kind})
	require.Equal(t, "Odile", log[0].Author.Name)
	var missed Missed
	d.ask("GET", "/api/projects/"+id+"/changes?since=2", nil, &missed)
	require.Len(t, missed.Changes, len(log)-1)
}

func TestWhatCannotBeDoneIsSaidInWords(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	changes := "/api/projects/" + id + "/changes"
	d.refused("sample rate 5", "POST", "/api/projects", NewProject{"x", 5, 100, 4, 4, ""})
	d.refused("a project needs a name", "POST", "/api/projects", NewProject{"", 48000, 100, 4, 4, ""})
	d.refused("cannot be read", "POST", changes, []byte(`{"label":`))
	d.refused(
		`no change called "stage.paint"`,
		"POST",
		changes,
		Batch{Label: "x", Changes: []project.Wire{{Type: "stage.paint", Do: []byte(`{}`)}}},
	)
	d.refused(
		"outside",
		"POST",
		changes,
		Batch{Label: "x", Changes: mustEncode([]project.Change{&project.SetParam{Owner: track.ID, Name: "fader", Value: 99}})},
	)
	d.refused("only 4 bytes", "POST", "/api/projects/"+id+"/audio?name=a.wav", []byte("RIFF"))
	d.refused("not a readable zip", "POST", "/api/bundles", []byte("PK"))
	d.refused("range to print is empty", "POST", "/api/projects/"+id+"/prints", printing.Spec{Channel: track.ID, Target: "track"})
	code, _ := d.ask("GET", "/api/projects/nowhere", nil, nil)
	require.Equal(t, http.StatusNotFound, code)
	require.Equal(t, 1, len(d.open(id).Channels)-1, "nothing was half done")
}

func TestOnlyThisMachineMayAsk(t *testing.T) {
	d := newDesktop(t)
	for host, want := range map[string]int{"127.0.0.1:4680": 200, "localhost": 200, "[::1]:80": 200, "shoal.example": 403, "10.0.0.7": 403} {
		q := httptest.NewRequestWithContext(t.Context(), "GET", "http://"+host+"/api/health", nil)
		w := httptest.NewRecorder()
		d.srv.ServeHTTP(w, q)
		require.Equal(t, want, w.Code, host)
		if want == 200 {
			require.Equal(t, "require-corp", w.Header().Get("Cross-Origin-Embedder-Policy"))
		}
	}
	q := httptest.NewRequestWithContext(t.Context(), "PUT", "http://127.0.0.1/api/me", bytes.NewReader([]byte(`{"name":"x"}`)))
	q.Header.Set("Origin", "http://elsewhere.example")
	w := httptest.NewRecorder()
	d.srv.ServeHTTP(w, q)
	require.Equal(t, http.StatusForbidden, w.Code)
}

func TestPresetsAreSavedRenamedDeletedAndTakenBack(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	node := &project.Node{Stage: project.NewStage("trim", 1, 80, "blend")}
	node.Stage.Params["gain"] = -9
	d.change(id, &project.AddNode{Owner: track.ID, Node: node})
	stage := node.ID()
	var p preset.Preset
	d.ask("POST", "/api/presets", NewPreset{id, "stage", stage, "Softer", "Less of it.", []string{"soft"}}, &p)
	list := func() (own int) {
		var all []preset.Preset
		d.ask("GET", "/api/presets", nil, &all)
		require.Greater(t, len(all), 90)
		for _, x := range all {
			if !x.Shipped {
				own++
			}
		}
		return own
	}
	require.Equal(t, 1, list())
	d.change(id, &project.SetParam{Owner: stage, Name: "gain", Value: 3})
	var taken Taken
	d.ask("GET", "/api/projects/"+id+"/presets?preset="+p.ID+"&target="+stage, nil, &taken)
	require.Equal(t, 3.0, d.open(id).Channels[0].Chain.Nodes[0].Stage.Params["gain"], "asking changes nothing")
	d.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: taken.Label, Changes: taken.Changes}, &Revised{})
	got := d.open(id).Channels[0].Chain.Nodes[0].Stage
	require.Equal(t, -9.0, got.Params["gain"])
	require.Equal(t, 80.0, got.Mix)

	d.ask("PUT", "/api/presets/"+p.ID, PresetWords{"Much softer", "", []string{}}, &p)
	require.Equal(t, "Much softer", p.Name)
	d.ask("DELETE", "/api/presets/"+p.ID, nil, &Health{})
	require.Zero(t, list())
	d.ask("POST", "/api/presets/"+p.ID+"/restore", nil, &Health{})
	require.Equal(t, 1, list())

	shipped := preset.Shipped()[0]
	d.refused("stays as it is: save a copy", "PUT", "/api/presets/"+shipped.ID, PresetWords{"Mine", "", nil})
	d.refused("stays as it is", "DELETE", "/api/presets/"+shipped.ID, nil)
	d.refused("no longer there", "GET", "/api/projects/"+id+"/presets?preset=none&target="+stage, nil)
	d.refused("holds no presets", "POST", "/api/preset-files", PresetFile{Version: 1})
	bad := PresetFile{1, []preset.Preset{p, {Kind: "stage", Name: "No effect"}}}
	d.refused("preset 2 of the file", "POST", "/api/preset-files", bad)
	require.Equal(t, 1, list(), "all or none")
	var in []preset.Preset
	d.ask("POST", "/api/preset-files", PresetFile{1, []preset.Preset{p}}, &in)
	require.NotEqual(t, p.ID, in[0].ID)
	require.Equal(t, 2, list())
}

func TestTrialsAreComparedByWhatTheyMeasure(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	soft := &project.Node{Stage: project.NewStage("trim", 1, 100, "blend")}
	soft.Stage.Params["gain"] = -6
	late := &project.Node{Stage: project.NewStage("limiter", 1, 100, "blend")}
	d.change(
		id,
		&project.AddTrial{ID: "trialb", Channel: track.ID},
		&project.AddNode{Owner: "trialb", Node: soft},
		&project.AddNode{Owner: "trialb", Index: 1, Node: late},
	)
	var c printing.Comparison
	d.ask("POST", "/api/projects/"+id+"/trials", CompareSpec{track.ID, 0, 48000}, &c)
	require.Len(t, c.Alternatives, 2)
	a, b := c.Alternatives[0], c.Alternatives[1]
	require.Equal(t, []string{"A", "B"}, []string{a.Letter, b.Letter})
	require.InDelta(t, a.Loudness-6, b.Loudness, 0.05)
	require.InDelta(t, 6, b.Match, 0.05)
	require.Zero(t, a.Latency)
	require.Equal(t, 72, b.Latency)
	require.InDelta(t, a.Crest, b.Crest, 0.05)
	loudest := 0
	for i := range a.Bands {
		if a.Bands[i] > a.Bands[loudest] {
			loudest = i
		}
	}
	require.InDelta(t, 764, c.Hz[loudest], 764*0.13) // 0.1 radians a frame
	require.InDelta(t, -6, b.Bands[loudest]-a.Bands[loudest], 0.1)
	d.refused("range to compare over is empty", "POST", "/api/projects/"+id+"/trials", CompareSpec{track.ID, 5, 5})
	d.refused("no longer there", "POST", "/api/projects/"+id+"/trials", CompareSpec{"gone", 0, 5})
}

func TestASoundIsLoadedForAStageThatUsesOne(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	conv := &project.Node{Stage: project.NewStage("convolver", 1, 100, "blend")}
	trim := &project.Node{Stage: project.NewStage("trim", 1, 100, "blend")}
	d.change(id, &project.AddNode{Owner: track.ID, Node: conv}, &project.AddNode{Owner: track.ID, Index: 1, Node: trim})
	load := func(stage string) string { return "/api/projects/" + id + "/sounds?name=ir.wav&stage=" + stage }
	click := sound(t, 0.2, func(i int) float64 { return math.Exp(-float64(i) / 500) })
	d.refused("this effect uses no sound", "POST", load(trim.ID()), click)
	d.refused("no longer there", "POST", load("gone"), click)
	d.refused("ir.wav: it is silent", "POST", load(conv.ID()), sound(t, 0.2, func(int) float64 { return 0 }))
	d.refused("lasts at most 12 s", "POST", load(conv.ID()), sound(t, 12.5, func(i int) float64 { return 0.1 }))
	d.ask("POST", load(conv.ID()), click, &Revised{})
	s := d.open(id).Channels[0].Chain.Nodes[0].Stage
	require.Len(t, s.Sound, 64)
	// and it can be printed, though its pages are not in memory
	var job printing.Status
	d.ask(
		"POST",
		"/api/projects/"+id+"/prints",
		printing.Spec{Channel: track.ID, To: 48000, Tail: true, Target: "file", Format: "wav32f"},
		&job,
	)
	require.Eventually(t, func() bool {
		var list []printing.Status
		d.ask("GET", "/api/projects/"+id+"/prints", nil, &list)
		require.NotEqual(t, "failed", list[0].State, list[0].Error)
		return list[0].State == "done"
	}, 2*time.Minute, 50*time.Millisecond)
	code, file := d.ask("GET", "/api/prints/"+job.ID+"/file", nil, nil)
	require.Equal(t, http.StatusOK, code)
	require.Equal(t, "RIFF", file[:4])
}
