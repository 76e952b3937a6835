package server

import (
	"bytes"
	"encoding/json"
	"io"
	"math"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/store"
)

// studio is a Shoal that several people reach over the network.
type studio struct {
	*desktop
	first string
}

func newStudio(t *testing.T) *studio {
	d := newDesktop(t)
	require.NoError(t, d.srv.OpenTo(t.Context(), House{Covers: func(name string) bool { return name == "shoal.test" }}))
	link, err := FirstLink(t.Context(), d.srv.store)
	require.NoError(t, err)
	return &studio{d, link}
}

// member is somebody with a browser of their own.
type member struct {
	s      *studio
	cookie string
	id     string
	from   string // address
}

func (m *member) ask(method, path string, body, v any) (int, string) {
	t := m.s.t
	t.Helper()
	var r io.Reader
	if b, raw := body.([]byte); raw {
		r = bytes.NewReader(b)
	} else if body != nil {
		j, err := json.Marshal(body)
		require.NoError(t, err)
		r = bytes.NewReader(j)
	}
	q := httptest.NewRequestWithContext(t.Context(), method, "https://shoal.test"+path, r)
	if r != nil {
		q.Header.Set("Content-Type", "application/json")
	}
	if m.from != "" {
		q.RemoteAddr = m.from + ":4711"
	}
	if m.cookie != "" {
		q.AddCookie(&http.Cookie{Name: sessionCookie, Value: m.cookie})
	}
	w := httptest.NewRecorder()
	m.s.srv.ServeHTTP(w, q)
	for _, c := range w.Result().Cookies() {
		if c.Name == sessionCookie {
			require.True(t, c.HttpOnly && c.Secure && c.SameSite == http.SameSiteLaxMode && c.Path == "/", "%v", c)
			m.cookie = c.Value
		}
	}
	if v != nil {
		require.Equal(t, http.StatusOK, w.Code, w.Body.String())
		require.NoError(t, json.Unmarshal(w.Body.Bytes(), v))
	}
	return w.Code, w.Body.String()
}

func keyOfLink(path string) string { return strings.TrimPrefix(path, welcome) }

// come makes an account by a link.
func (s *studio) come(link, name string) *member {
	s.t.Helper()
	m := &member{s: s, from: "10.0.0." + string(rune('0'+len(name)))}
	var w TakenLink
	m.ask("POST", "/api/links/take", TakeLink{LinkKey{keyOfLink(link)}, name, "seven boats at noon"}, &w)
	require.Equal(s.t, name, w.Name)
	m.id = w.ID
	return m
}

// joined brings somebody in with a role.
func (s *studio) joined(owner *member, project, name string, role crew.Role) *member {
	s.t.Helper()
	var h HandedOver
	owner.ask("POST", "/api/projects/"+project+"/links", Invite{string(role), 1, 24}, &h)
	return s.come(h.Path, name)
}

// song makes a project with one track that plays a second of a tone.
func (m *member) song() (id string, track *project.Channel) {
	m.s.t.Helper()
	var p store.Summary
	m.ask("POST", "/api/projects", NewProject{"Rope", 48000, 100, 4, 4, ""}, &p)
	wav := sound(m.s.t, 1, func(i int) float64 { return 0.25 * math.Sin(float64(i)*0.1) })
	m.ask("POST", "/api/projects/"+p.ID+"/audio?name=tone.wav", wav, &Revised{})
	var o Opened
	m.ask("GET", "/api/projects/"+p.ID, nil, &o)
	return p.ID, o.Project.Channels[0]
}

// Who may do what, by hand: a letter for each that is let through, of who is not signed in (-), signed in but not in the project (s),
// a listener (l), an engineer (e), an owner (o), and the keeper, who is in no project (k). It does not look at the server's own table.
var mayDo = map[string]string{
	"GET /api/health": "-sleok", "GET /api/openapi.json": "-sleok", "GET /api/me": "-sleok", "POST /api/session": "-sleok",
	"POST /api/links/look": "-sleok", "POST /api/links/take": "-sleok",

	"DELETE /api/session": "sleok", "GET /api/sessions": "sleok", "DELETE /api/sessions/:session": "sleok", "PUT /api/me": "sleok",
	"PUT /api/password": "sleok", "GET /api/effects": "sleok", "GET /api/params": "sleok", "GET /api/templates": "sleok",
	"GET /api/passages": "sleok", "GET /api/inputs": "sleok", "GET /api/projects": "sleok", "POST /api/projects": "sleok",
	"POST /api/bundles": "sleok", "POST /api/demo": "sleok", "GET /api/demo": "sleok", "GET /api/presets": "sleok",
	"POST /api/presets": "sleok", "PUT /api/presets/:preset": "sleok", "DELETE /api/presets/:preset": "sleok",
	"POST /api/presets/:preset/restore": "sleok", "GET /api/preset-files": "sleok", "POST /api/preset-files": "sleok",
	"GET /api/shelf": "sleok", "POST /api/shelf": "sleok", "PUT /api/shelf/:thing": "sleok", "DELETE /api/shelf/:thing": "sleok",
	"POST /api/shelf/:thing/restore": "sleok",

	"GET /api/accounts": "k", "POST /api/accounts/links": "k", "POST /api/accounts/:person/reset": "k", "DELETE /api/accounts/:person": "k",
	"POST /api/accounts/:person/restore": "k", "GET /api/acts": "k",

	"GET /api/projects/:id": "leo", "GET /api/projects/:id/live": "leo", "GET /api/projects/:id/changes": "leo",
	"GET /api/projects/:id/logbook": "leo", "GET /api/projects/:id/prints": "leo", "POST /api/projects/:id/stems": "leo",
	"GET /api/projects/:id/works": "leo", "POST /api/projects/:id/works/:key": "leo",
	"GET /api/projects/:id/audio/:hash/pcm/:page": "leo", "GET /api/projects/:id/audio/:hash/overview": "leo",
	"POST /api/projects/:id/trials": "leo", "GET /api/projects/:id/forks/:fork": "leo", "POST /api/projects/:id/clips/levels": "leo",
	"POST /api/projects/:id/clips/untreated": "leo", "GET /api/projects/:id/clips/:clip/outline": "leo",
	"POST /api/projects/:id/clips/marks": "leo", "GET /api/projects/:id/steps/:hash": "leo", "POST /api/projects/:id/steps/:hash/now": "leo",
	"GET /api/projects/:id/passages/:passage": "leo", "GET /api/projects/:id/shelf/:thing": "leo", "GET /api/projects/:id/presets": "leo",
	"GET /api/projects/:id/crew": "leo", "DELETE /api/projects/:id/crew/:person": "o",

	"GET /api/projects/:id/undo": "leo", "GET /api/projects/:id/versions": "leo",
	"GET /api/projects/:id/versions/:version/differences": "leo", "POST /api/projects/:id/versions/:version/match": "leo",
	"GET /api/projects/:id/changes/:revision": "leo",

	"POST /api/projects/:id/versions": "eo", "PUT /api/projects/:id/versions/:version": "eo",
	"DELETE /api/projects/:id/versions/:version": "eo", "POST /api/projects/:id/versions/:version/back": "eo",
	"POST /api/projects/:id/versions/:version/copies": "eo", "POST /api/projects/:id/changes/:revision/back": "eo",

	"POST /api/projects/:id/copies": "eo", "GET /api/projects/:id/bundle": "eo", "GET /api/projects/:id/midi": "eo",
	"GET /api/projects/:id/logbook.csv": "eo", "POST /api/projects/:id/prints": "eo", "DELETE /api/prints/:print": "eo",
	"GET /api/prints/:print/file": "eo", "GET /api/prints/:print/files/:name": "eo",

	"POST /api/projects/:id/midi": "eo", "POST /api/projects/:id/changes": "leo", "POST /api/projects/:id/undo": "eo",
	"POST /api/projects/:id/redo": "eo", "POST /api/projects/:id/audio": "eo", "POST /api/projects/:id/sounds": "eo",
	"DELETE /api/projects/:id/works/:key": "eo", "POST /api/projects/:id/forks/:fork/level": "eo",
	"POST /api/projects/:id/clips/normalise": "eo", "POST /api/projects/:id/clips/print": "eo", "POST /api/projects/:id/clips/permanent": "eo",
	"POST /api/projects/:id/steps/:hash/again": "eo", "POST /api/projects/:id/steps/:hash/chain": "eo",
	"POST /api/projects/:id/passages":   "eo",
	"POST /api/projects/:id/recordings": "eo",

	// whose recording it is, and nobody else
	"PUT /api/recordings/:recording/rows/:row": "", "POST /api/recordings/:recording/end": "",

	"DELETE /api/projects/:id": "o", "POST /api/projects/:id/restore": "o", "PUT /api/projects/:id/crew": "o",
	"PUT /api/projects/:id/crew/:person": "o", "POST /api/projects/:id/links": "o", "DELETE /api/projects/:id/links/:link": "o",
}

// refusedAs is how somebody is refused, or empty: the answer is not one of who may do what.
func refusedAs(code int, body string) string {
	switch {
	case code == http.StatusUnauthorized && strings.Contains(body, "sign in first"):
		return "not signed in"
	case code == http.StatusForbidden && strings.Contains(body, "only who keeps this Shoal"):
		return "no keeper"
	case code == http.StatusForbidden && (strings.Contains(body, "here, and") || strings.Contains(body, "you hear and look")):
		return "no such role"
	case code == http.StatusNotFound && strings.Contains(body, "you are not in it"):
		return "outside"
	}
	return ""
}

// Every operation is tried by everybody there can be: whoever is not named for it is refused in words, and whoever is gets through.
func TestEveryOperationIsForWhomItIsFor(t *testing.T) {
	s := newStudio(t)
	keeper := s.come(s.first, "Ada")
	var h HandedOver
	keeper.ask("POST", "/api/accounts/links", nil, &h)
	owner := s.come(h.Path, "Odile")
	id, track := owner.song()
	keeper.ask("POST", "/api/accounts/links", nil, &h)
	people := map[rune]*member{
		'-': {s: s, from: "10.0.1.9"}, 's': s.come(h.Path, "Nils"), 'l': s.joined(owner, id, "Lemmi", crew.Listener),
		'e': s.joined(owner, id, "Edda Q", crew.Engineer), 'o': owner, 'k': keeper,
	}
	var print struct {
		ID string `json:"id"`
	}
	owner.ask(
		"POST", "/api/projects/"+id+"/prints", map[string]any{"target": "file", "channel": track.ID, "format": "wav16", "to": 4800},
		&print,
	)
	at := strings.NewReplacer(":id", id, ":hash", track.Clips[0].Audio, ":clip", track.Clips[0].ID, ":row", track.ID, ":print", print.ID,
		":page", "0", ":person", "nobody", ":session", "none", ":fork", "x", ":passage", "x", ":preset", "x", ":thing", "x", ":key", "x",
		":name", "x", ":recording", "x", ":link", "x", ":version", "x", ":revision", "2")
	tried := map[string]bool{}
	for _, r := range table() {
		op := r.method + " " + r.path
		tried[op] = true
		may, known := mayDo[op]
		require.True(t, known, "%s: nobody said whom it is for", op)
		if op == "DELETE /api/session" || op == "DELETE /api/projects/:id" {
			continue // they are tried below: nobody could go on after them
		}
		for who, m := range people {
			var in any
			if r.method == "POST" || r.method == "PUT" {
				in = []byte(`{"nonsense":1}`)
			}
			was := m.cookie
			code, body := m.ask(r.method, at.Replace(r.path), in, nil)
			m.cookie = was
			no := refusedAs(code, body)
			what := op + " by " + string(who) + ": " + http.StatusText(code) + " " + short(body, 200)
			if strings.Contains(r.path, ":recording") {
				require.True(t, no != "" || code == http.StatusGone, what)
				continue
			}
			require.NotEqual(t, http.StatusTooManyRequests, code, what)
			require.Equal(t, strings.ContainsRune(may, who), no == "", what)
			if who == '-' && no != "" {
				require.Equal(t, "not signed in", no, what)
			}
		}
	}
	for op := range mayDo {
		require.True(t, tried[op], "%s is there no longer", op)
	}
	for op := range needs {
		require.True(t, tried[op], "%s is there no longer", op)
	}
	for who, m := range people {
		if who != 'o' {
			code, body := m.ask("DELETE", "/api/projects/"+id, nil, nil)
			require.NotEmpty(t, refusedAs(code, body), "%c puts the project in the bin: %s", who, body)
		}
	}
}

// A hash is no permission: neither to hear a sound through a project of one's own, nor to put it into one.
func TestAHashIsNoPermission(t *testing.T) {
	s := newStudio(t)
	ada := s.come(s.first, "Ada")
	song, track := ada.song()
	var h HandedOver
	ada.ask("POST", "/api/accounts/links", nil, &h)
	nils := s.come(h.Path, "Nils")
	var own store.Summary
	nils.ask("POST", "/api/projects", NewProject{"Mine", 48000, 100, 4, 4, ""}, &own)
	hash := track.Clips[0].Audio
	pages := func(id string) string { return "/api/projects/" + id + "/audio/" + hash + "/pcm/0" }
	code, _ := ada.ask("GET", pages(song), nil, nil)
	require.Equal(t, http.StatusOK, code)
	code, body := nils.ask("GET", pages(own.ID), nil, nil)
	require.Equal(t, http.StatusNotFound, code, body)
	require.Contains(t, body, "no such sound")
	place := Batch{Label: "x", Changes: mustEncode([]project.Change{&project.PlaceSound{ID: "p", Name: "p",
		Audio: project.Audio{Hash: hash, Name: "tone", Frames: 48000, Channels: 1}}})}
	code, body = nils.ask("POST", "/api/projects/"+own.ID+"/changes", place, nil)
	require.Equal(t, http.StatusUnprocessableEntity, code, body)
	require.Contains(t, body, "import its file first")
	// who is in both takes it from one into the other, and it can then be heard there
	var into HandedOver
	ada.ask("POST", "/api/projects/"+song+"/links", Invite{"listener", 1, 1}, &into)
	nils.ask("POST", "/api/links/take", TakeLink{LinkKey: LinkKey{keyOfLink(into.Path)}}, &TakenLink{})
	nils.ask("POST", "/api/projects/"+own.ID+"/changes", place, &Revised{})
	code, _ = nils.ask("GET", pages(own.ID), nil, nil)
	require.Equal(t, http.StatusOK, code)
}

// Links open what they are for, as often as they may, until they end or are taken back.
func TestLinksOpenWhatTheyAreFor(t *testing.T) {
	s := newStudio(t)
	look := func(path string) (int, string) {
		return (&member{s: s, from: "10.1.0.1"}).ask("POST", "/api/links/look", LinkKey{keyOfLink(path)}, nil)
	}
	code, body := look(s.first)
	require.Equal(t, http.StatusOK, code)
	require.Contains(t, body, `"first"`)
	before := s.first
	again, err := FirstLink(t.Context(), s.srv.store)
	require.NoError(t, err)
	code, body = look(before)
	require.Equal(t, http.StatusGone, code, "a link that was printed before the last start opens nothing: %s", body)
	ada := s.come(again, "Ada")
	none, err := FirstLink(t.Context(), s.srv.store)
	require.NoError(t, err)
	require.Empty(t, none, "there is an account")
	code, body = look(again)
	require.Equal(t, http.StatusGone, code)
	require.Contains(t, body, "used already")
	id, _ := ada.song()
	var h HandedOver
	ada.ask("POST", "/api/projects/"+id+"/links", Invite{"engineer", 2, 1}, &h)
	code, body = look(h.Path)
	require.Equal(t, http.StatusOK, code)
	require.Contains(t, body, `"Rope"`)
	require.Contains(t, body, `"Ada"`)
	odile := s.come(h.Path, "Odile")
	var c Crew
	odile.ask("GET", "/api/projects/"+id+"/crew", nil, &c)
	require.Equal(t, "engineer", c.Role)
	require.Empty(t, c.Links, "links are for owners to see")
	require.Equal(t, "Ada", c.People[1].By)
	require.Len(t, c.Tellable, 1, "to oneself nothing is said")
	require.Equal(t, "Ada", c.Tellable[0].Name)
	// who is there already uses nothing up, and loses nothing by a lesser link
	var less HandedOver
	ada.ask("POST", "/api/projects/"+id+"/links", Invite{"listener", 1, 1}, &less)
	odile.ask("POST", "/api/links/take", TakeLink{LinkKey: LinkKey{keyOfLink(less.Path)}}, &TakenLink{})
	odile.ask("GET", "/api/projects/"+id+"/crew", nil, &c)
	require.Equal(t, "engineer", c.Role)
	ada.ask("GET", "/api/projects/"+id+"/crew", nil, &c)
	require.Len(t, c.Links, 2)
	for _, l := range c.Links {
		ada.ask("DELETE", "/api/projects/"+id+"/links/"+l.ID, nil, &Health{})
	}
	code, body = look(h.Path)
	require.Equal(t, http.StatusGone, code)
	require.Contains(t, body, "taken back")
	_, err = s.srv.store.DB.Exec(`UPDATE links SET ended = '', until = '2020-01-01T00:00:00Z'`)
	require.NoError(t, err)
	code, body = look(h.Path)
	require.Equal(t, http.StatusGone, code)
	require.Contains(t, body, "1 January 2020")
	for _, wrong := range []Invite{
		{"king", 1, 1}, {"owner", 0, 1}, {"listener", -1, 1}, {"listener", 1000, 1}, {"listener", 1, 0}, {"listener", 1, 1 << 40},
	} {
		code, _ := ada.ask("POST", "/api/projects/"+id+"/links", wrong, nil)
		require.Equal(t, http.StatusUnprocessableEntity, code, "%v", wrong)
	}
}

// A role is changed and taken away at once, and a project is never left without an owner.
func TestRolesHoldAtOnce(t *testing.T) {
	s := newStudio(t)
	ada := s.come(s.first, "Ada")
	id, track := ada.song()
	odile := s.joined(ada, id, "Odile", crew.Listener)
	path := "/api/projects/" + id
	mute := Batch{Label: "Mute", Changes: mustEncode([]project.Change{&project.SetChannel{ID: track.ID, Mute: ptr(true)}})}
	code, body := odile.ask("POST", path+"/changes", mute, nil)
	require.Equal(t, http.StatusForbidden, code)
	require.Contains(t, body, "you are a listener here")
	require.Contains(t, body, "Ada can make you one")
	code, _ = odile.ask("GET", path+"/bundle", nil, nil)
	require.Equal(t, http.StatusForbidden, code)
	ada.ask("PUT", path+"/crew", CrewRules{true}, &Health{})
	code, _ = odile.ask("GET", path+"/bundle", nil, nil)
	require.Equal(t, http.StatusOK, code)
	ada.ask("PUT", path+"/crew/"+odile.id, NewRole{"engineer"}, &Health{})
	odile.ask("POST", path+"/changes", mute, &Revised{})
	code, body = ada.ask("DELETE", path+"/crew/"+ada.id, nil, nil)
	require.Equal(t, http.StatusUnprocessableEntity, code)
	require.Contains(t, body, "needs an owner")
	code, _ = ada.ask("PUT", path+"/crew/"+ada.id, NewRole{"listener"}, nil)
	require.Equal(t, http.StatusUnprocessableEntity, code)
	code, _ = odile.ask("DELETE", path+"/crew/"+ada.id, nil, nil)
	require.Equal(t, http.StatusForbidden, code)
	ada.ask("DELETE", path+"/crew/"+odile.id, nil, &Health{})
	code, _ = odile.ask("GET", path, nil, nil)
	require.Equal(t, http.StatusNotFound, code)
	var log LogPage
	ada.ask("GET", path+"/logbook", nil, &log)
	require.Equal(t, "Odile", log.Entries[0].Author.Name, "what somebody did stays theirs")
	var acts []store.Act
	ada.ask("GET", "/api/acts", nil, &acts)
	var what []string
	for _, a := range acts {
		what = append(what, a.What)
	}
	for _, kind := range []string{"took a link", "refused", "changed a role", "took somebody out", "exported", "changed what listeners may"} {
		require.Contains(t, what, kind)
	}
}

// Who signs in is who they say; trying is limited; a new password ends what was signed in elsewhere.
func TestSigningIn(t *testing.T) {
	s := newStudio(t)
	ada := s.come(s.first, "Ada")
	other := &member{s: s, from: "10.2.0.1"}
	in := func(m *member, name, password string) int {
		code, _ := m.ask("POST", "/api/session", SignIn{name, password}, nil)
		return code
	}
	require.Equal(t, http.StatusUnauthorized, in(other, "Ada", "seven boats at one"))
	require.Equal(t, http.StatusUnauthorized, in(other, "Adam", "seven boats at noon"))
	require.Equal(t, http.StatusOK, in(other, " aDA", "seven boats at noon"), "however the name is written")
	var list []store.Session
	ada.ask("GET", "/api/sessions", nil, &list)
	require.Len(t, list, 2)
	for _, password := range []string{"short", "1234567890", "aaaaaaaaaaaa", "ada1234567", strings.Repeat("x y", 100)} {
		code, body := ada.ask("PUT", "/api/password", NewPassword{"seven boats at noon", password}, nil)
		require.Equal(t, http.StatusUnprocessableEntity, code, "%s: %s", password, body)
		s.srv.house.tries = newLimits()
	}
	ada.ask("PUT", "/api/password", NewPassword{"seven boats at noon", "eight boats at dusk"}, &Health{})
	var w Who
	other.ask("GET", "/api/me", nil, &w)
	require.Empty(t, w.ID, "the other browser is signed out")
	ada.ask("GET", "/api/me", nil, &w)
	require.Equal(t, ada.id, w.ID)
	require.True(t, w.Keeper && w.Accounts)
	var kept string
	require.NoError(t, s.srv.store.DB.QueryRow(`SELECT password FROM accounts`).Scan(&kept))
	require.Contains(t, kept, "$argon2id$v=19$m=19456,t=2,p=1$")
	guesser := &member{s: s, from: "10.3.0.1"}
	codes := []int{}
	for range 8 {
		codes = append(codes, in(guesser, "Ada", "is it this one then"))
	}
	require.Equal(t, http.StatusTooManyRequests, codes[7])
	require.Equal(t, http.StatusOK, in(other, "Ada", "eight boats at dusk"), "somebody else's guesses keep nobody out")
	ada.ask("DELETE", "/api/session", nil, &Health{})
	was := list[0].ID
	require.NotEmpty(t, was)
	ada.ask("GET", "/api/me", nil, &w)
	require.Empty(t, w.ID)
	// a session that was not used for long has ended
	_, err := s.srv.store.DB.Exec(`UPDATE sessions SET expiry = ?`, time.Now().Add(-time.Minute).UnixMilli())
	require.NoError(t, err)
	other.ask("GET", "/api/me", nil, &w)
	require.Empty(t, w.ID)
	// and whoever keeps the machine lets somebody in who has forgotten it
	link, err := ResetLink(t.Context(), s.srv.store, "ADA")
	require.NoError(t, err)
	ada.ask("POST", "/api/links/take", TakeLink{LinkKey: LinkKey{keyOfLink(link)}, Password: "nine boats at dawn"}, &TakenLink{})
	ada.ask("GET", "/api/me", nil, &w)
	require.Equal(t, ada.id, w.ID)
	// also from where they are signed in still
	link, err = ResetLink(t.Context(), s.srv.store, "ada")
	require.NoError(t, err)
	ada.ask("POST", "/api/links/take", TakeLink{LinkKey: LinkKey{keyOfLink(link)}, Password: "ten boats at dawn"}, &TakenLink{})
	ada.ask("GET", "/api/me", nil, &w)
	require.Equal(t, ada.id, w.ID)
}

// A page of another site changes nothing, whatever name it has for this machine.
func TestOtherSitesAreNotAnswered(t *testing.T) {
	s := newStudio(t)
	ada := s.come(s.first, "Ada")
	ask := func(method, url string, headers map[string]string) int {
		q := httptest.NewRequestWithContext(t.Context(), method, url, strings.NewReader("{}"))
		q.AddCookie(&http.Cookie{Name: sessionCookie, Value: ada.cookie})
		q.Header.Set("Content-Type", "application/json")
		for k, v := range headers {
			q.Header.Set(k, v)
		}
		w := httptest.NewRecorder()
		s.srv.ServeHTTP(w, q)
		for name, has := range map[string]string{"X-Content-Type-Options": "nosniff", "Referrer-Policy": "same-origin"} {
			require.Equal(t, has, w.Header().Get(name))
		}
		csp := w.Header().Get("Content-Security-Policy")
		require.Contains(t, csp, "frame-ancestors 'none'")
		require.NotContains(t, csp, "unsafe-inline")
		if strings.HasPrefix(url, "https://shoal.test") {
			require.Equal(t, "max-age=31536000", w.Header().Get("Strict-Transport-Security"))
		}
		return w.Code
	}
	at := "https://shoal.test/api/projects"
	require.Equal(t, http.StatusOK, ask("GET", at, nil))
	require.Equal(t, http.StatusForbidden, ask("GET", "https://rebound.example/api/projects", nil))
	require.Equal(t, http.StatusForbidden, ask("POST", at, map[string]string{"Origin": "https://rebound.example"}))
	require.Equal(t, http.StatusForbidden, ask("POST", at, map[string]string{"Origin": "http://shoal.test"}))
	require.Equal(t, http.StatusForbidden, ask("POST", at, map[string]string{"Origin": "null"}))
	require.Equal(t, http.StatusForbidden, ask("POST", at, map[string]string{"Sec-Fetch-Site": "cross-site"}))
	require.Equal(
		t, http.StatusForbidden,
		ask("GET", at+"/x/live", map[string]string{"Origin": "https://rebound.example", "Upgrade": "websocket"}),
	)
	require.Equal(t, http.StatusUnprocessableEntity, ask("POST", at, map[string]string{"Origin": "https://shoal.test"}))
	require.Equal(t, http.StatusUnsupportedMediaType, ask("POST", at, map[string]string{"Content-Type": "text/plain"}))
	require.True(
		t, slices.Contains([]int{http.StatusUnsupportedMediaType}, ask("POST", at, map[string]string{"Content-Type": ""})),
		"a body says what it is",
	)
}

func ptr[T any](v T) *T { return &v }
