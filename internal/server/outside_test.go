package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"slices"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/recording"
	"shoal/internal/store"
)

// with sends a request with one cookie, and gives the person that the server takes it for.
func (d *desktop) with(name, value string) (store.Person, []*http.Cookie) {
	d.t.Helper()
	q := httptest.NewRequestWithContext(d.t.Context(), "GET", "http://127.0.0.1/api/me", nil)
	q.AddCookie(&http.Cookie{Name: name, Value: value})
	w := httptest.NewRecorder()
	d.srv.ServeHTTP(w, q)
	require.Equal(d.t, http.StatusOK, w.Code)
	var p store.Person
	require.NoError(d.t, json.Unmarshal(w.Body.Bytes(), &p))
	return p, w.Result().Cookies()
}

// What is published of a person, in presence and the logbook, does not let anybody act as them.
func TestNobodyActsAsAnotherByWhatIsPublished(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	var log LogPage
	d.ask("GET", "/api/projects/"+id+"/logbook", nil, &log)
	require.NotEmpty(t, log.Entries)
	ada := log.Entries[0].Author
	require.Equal(t, "Ada", ada.Name)
	for _, cookie := range []string{keyCookie, idCookie} {
		p, set := d.with(cookie, ada.ID)
		require.Empty(t, p.ID, cookie)
		require.Empty(t, set)
	}
	p, _ := d.with(keyCookie, d.cookie)
	require.Equal(t, ada, p)
	var kept string
	require.NoError(t, d.srv.store.DB.QueryRow(`SELECT key FROM people WHERE id = ?`, ada.ID).Scan(&kept))
	require.NotContains(t, kept, d.cookie)
	require.NotEqual(t, d.cookie, kept)

	// another name is the same person, with the same secret
	before := d.cookie
	var renamed store.Person
	d.ask("PUT", "/api/me", NewName{"Ada L."}, &renamed)
	require.Equal(t, ada.ID, renamed.ID)
	require.Equal(t, before, d.cookie)
}

// Who gave a name before there were secrets comes back once by the id, and by a secret from then on.
func TestWhoWasHereBeforeGetsASecret(t *testing.T) {
	d := newDesktop(t)
	_, err := d.srv.store.DB.Exec(`INSERT INTO people (id, name, created) VALUES ('old', 'Odile', '')`)
	require.NoError(t, err)
	p, set := d.with(idCookie, "old")
	require.Equal(t, store.Person{ID: "old", Name: "Odile"}, p)
	key := ""
	for _, c := range set {
		if c.Name == keyCookie {
			key = c.Value
			require.True(t, c.HttpOnly)
			require.Equal(t, http.SameSiteStrictMode, c.SameSite)
		}
	}
	require.Len(t, key, 43)
	p, _ = d.with(keyCookie, key)
	require.Equal(t, "old", p.ID)
	p, _ = d.with(idCookie, "old")
	require.Empty(t, p.ID, "the id has had its turn")
}

// Without a name nothing is changed, and whatever is asked in nonsense is refused in words: never with an empty answer, never as
// a mistake of Shoal's.
func TestWhateverIsAskedIsAnsweredInWords(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	named := d.cookie
	at := strings.NewReplacer(":id", id, ":hash", track.Clips[0].Audio, ":fork", "x", ":clip", track.Clips[0].ID, ":passage", "x",
		":print", "x", ":preset", "x", ":thing", "x", ":key", "x", ":name", "x", ":recording", "x", ":page", "0", ":row", track.ID)
	for _, r := range table() {
		path := at.Replace(r.path)
		if r.method != http.MethodGet && !slices.Contains(anonymous, r.method+" "+r.path) {
			d.cookie = ""
			code, text := d.ask(r.method, path, []byte("{}"), nil)
			require.Equal(t, http.StatusUnauthorized, code, "%s %s: %s", r.method, r.path, text)
		}
		d.cookie = named
		if r.in == nil || r.method == http.MethodGet || r.method == http.MethodDelete {
			continue
		}
		for _, body := range []string{"", "null", "{}", "[]", "[null]", "7", `"x"`, `{"clips":null}`, `{"clips":[null]}`, `{"changes":[null]}`,
			`{"presets":[null]}`, `{"name":"` + strings.Repeat("x", 500) + `"}`, "{", "\x00\xff", `{"rows":[null]}`, strings.Repeat("[", 20000)} {
			code, text := d.ask(r.method, path, []byte(body), nil)
			d.cookie = named
			what := fmt.Sprintf("%s %s %.40q: %d %s", r.method, r.path, body, code, text)
			require.NotEqual(t, http.StatusInternalServerError, code, what)
			if code >= 400 {
				var p Problem
				require.NoError(t, json.Unmarshal([]byte(text), &p), what)
				require.NotEmpty(t, p.Detail, what)
				require.NotContains(t, p.Detail, "server.", what)
				require.NotContains(t, p.Detail, "project.", what)
				require.NotContains(t, p.Detail, d.dir, what)
			}
		}
	}
}

// A full disk is one sentence with a status of its own, whatever it was that had no room; no answer names a path of the machine.
func TestAFullDiskIsSaidInOneSentence(t *testing.T) {
	for _, err := range []error{
		&os.PathError{Op: "write", Path: "/var/shoal/audio/x.partial", Err: syscall.ENOSPC},
		refuse(fmt.Errorf("drum.wav: %w", &os.PathError{Op: "write", Path: "/var/shoal/x", Err: syscall.ENOSPC})),
		fmt.Errorf("store change 7: %w", syscall.EDQUOT),
	} {
		status, says := statusOf(err)
		require.Equal(t, http.StatusInsufficientStorage, status, "%v", err)
		require.Equal(t, diskFull, says)
	}
	// whoever knows better what is to be done keeps their own words
	status, says := statusOf(&refusal{http.StatusInsufficientStorage, fmt.Errorf("%w: make some, then record", recording.ErrNoRoom)})
	require.Equal(t, http.StatusInsufficientStorage, status)
	require.Contains(t, says, "make some, then record")
	for _, err := range []error{
		refuse(&os.PathError{Op: "open", Path: "/var/shoal/audio/x", Err: syscall.EACCES}),
		errors.New("at /var/shoal something broke"),
		&os.LinkError{Op: "rename", Old: "/var/a", New: "/var/b", Err: syscall.EXDEV},
	} {
		status, says := statusOf(err)
		require.Equal(t, http.StatusInternalServerError, status, "%v", err)
		require.NotContains(t, says, "/var")
	}
}

// The database has no room: the change is refused so, nothing of it is there, and with room again it can be made.
func TestAChangeWithoutRoomIsRefusedAndCanBeMadeAgain(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	var pages int
	require.NoError(t, d.srv.store.DB.QueryRow(`PRAGMA page_count`).Scan(&pages))
	_, err := d.srv.store.DB.Exec(fmt.Sprintf(`PRAGMA max_page_count = %d`, pages))
	require.NoError(t, err)
	rename := func() (int, string) {
		say := strings.Repeat("a long name ", 6)
		return d.ask("POST", "/api/projects/"+id+"/changes",
			Batch{Label: "Name it", Changes: mustEncode([]project.Change{&project.SetChannel{ID: track.ID, Name: &say}})}, nil)
	}
	code, text := 0, ""
	for range 200 { // until the pages that are there are full
		if code, text = rename(); code != http.StatusOK {
			break
		}
	}
	require.Equal(t, http.StatusInsufficientStorage, code, text)
	require.Contains(t, text, "the disk that Shoal keeps its data on is full")
	revision := d.revision(id)
	code, _ = d.ask("POST", "/api/projects/"+id+"/undo", nil, nil)
	require.Equal(t, http.StatusInsufficientStorage, code)
	require.Equal(t, revision, d.revision(id))
	_, err = d.srv.store.DB.Exec(`PRAGMA max_page_count = 1073741823`)
	require.NoError(t, err)
	code, text = rename()
	require.Equal(t, http.StatusOK, code, text)
	require.Equal(t, revision+1, d.revision(id))
}

func (d *desktop) revision(id string) int64 {
	var o Opened
	d.ask("GET", "/api/projects/"+id, nil, &o)
	return o.Revision
}

// An upload that is too large, or has no room, is refused before it is sent.
func TestAnUploadIsRefusedBeforeItIsSent(t *testing.T) {
	d := newDesktop(t)
	id, _ := d.begin()
	for bytes, status := range map[int64]int{MaxUpload + 1: http.StatusRequestEntityTooLarge} {
		q := httptest.NewRequestWithContext(t.Context(), "POST", "http://127.0.0.1/api/projects/"+id+"/audio?name=x.wav", neverRead{t})
		q.ContentLength = bytes
		q.AddCookie(&http.Cookie{Name: keyCookie, Value: d.cookie})
		w := httptest.NewRecorder()
		d.srv.ServeHTTP(w, q)
		require.Equal(t, status, w.Code, w.Body.String())
	}
}

type neverRead struct{ t *testing.T }

func (n neverRead) Read([]byte) (int, error) {
	require.Fail(n.t, "the body was read")
	return 0, errors.New("read")
}

// Names have so many letters as people count them, and what is cut ends with a letter.
func TestLettersAreCountedAsPeopleDo(t *testing.T) {
	d := newDesktop(t)
	const family = "👨‍👩‍👧‍👦" // one letter, seven runes, 25 bytes
	var p store.Person
	d.ask("PUT", "/api/me", NewName{strings.Repeat(family, 80)}, &p)
	d.refused("1 to 80 letters", "PUT", "/api/me", NewName{strings.Repeat(family, 81)})
	d.refused("1 to 80 letters", "PUT", "/api/me", NewName{"x" + strings.Repeat("\u0301", 9000)}) // one letter under a heap of marks
	id, track := d.begin()
	long := strings.Repeat(family, 500)
	d.ask("POST", "/api/projects/"+id+"/changes",
		Batch{Label: long, Changes: mustEncode([]project.Change{&project.SetChannel{ID: track.ID, Name: &p.Name}})}, &Revised{})
	var log LogPage
	d.ask("GET", "/api/projects/"+id+"/logbook", nil, &log)
	require.Equal(t, strings.Repeat(family, 300), log.Entries[0].Label)
	d.refused("nothing to change", "POST", "/api/projects/"+id+"/changes", Batch{Label: "Nothing", Changes: []project.Wire{}})
	d.refused("at most 120 letters", "POST", "/api/projects/"+id+"/changes",
		Batch{Label: "Name", Changes: mustEncode([]project.Change{&project.SetSections{Sections: []project.Section{{ID: "s", Name: long}}}})})
}
