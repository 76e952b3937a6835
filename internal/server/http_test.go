package server

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// answered sends a request as it is and gives what comes back.
func (d *desktop) answered(method, path, kind, body string) *http.Response {
	q := httptest.NewRequestWithContext(d.t.Context(), method, "http://127.0.0.1"+path, strings.NewReader(body))
	if kind != "" {
		q.Header.Set("Content-Type", kind)
	}
	q.AddCookie(&http.Cookie{Name: keyCookie, Value: d.cookie})
	w := httptest.NewRecorder()
	d.srv.ServeHTTP(w, q)
	return w.Result()
}

func TestRequestsAreAnsweredAsHTTPSays(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	for _, c := range []struct {
		method, path, kind, body string
		status                   int
	}{
		{"GET", "/api/nothing", "", "", http.StatusNotFound},
		{"GET", "/api", "", "", http.StatusNotFound},
		{"POST", "/api/nothing", "", "", http.StatusNotFound},
		{"PATCH", "/api/me", "", "", http.StatusMethodNotAllowed},
		{"DELETE", "/api/health", "", "", http.StatusMethodNotAllowed},
		{"POST", "/", "", "", http.StatusMethodNotAllowed},
		{"HEAD", "/api/health", "", "", http.StatusOK},
		{"HEAD", "/api/projects/" + id, "", "", http.StatusOK},
		{"HEAD", "/api/projects/none", "", "", http.StatusNotFound},
		{"PUT", "/api/me", "text/plain", `{"name":"Ada"}`, http.StatusUnsupportedMediaType},
		{"PUT", "/api/me", "application/json; charset=utf-8", `{"name":"Ada"}`, http.StatusOK},
		{"PUT", "/api/me", "application/json", `{"name":"` + strings.Repeat("x", 17<<20) + `"}`, http.StatusRequestEntityTooLarge},
		{"GET", "/api/projects/" + id + "/audio/" + track.Clips[0].Audio + "/pcm/0", "", "", http.StatusOK},
		{"GET", "/api/projects/" + id + "/audio/" + track.Clips[0].Audio + "/pcm/1000000000000000", "", "", http.StatusNotFound},
		{"GET", "/api/projects/" + id + "/audio/" + track.Clips[0].Audio + "/pcm/9223372036854775807", "", "", http.StatusNotFound},
		{"GET", "/api/projects/" + id + "/audio/" + track.Clips[0].Audio + "/pcm/99999999999999999999", "", "", http.StatusNotFound},
		{"GET", "/api/projects/" + id + "/audio/" + track.Clips[0].Audio + "/pcm/-1", "", "", http.StatusNotFound},
	} {
		r := d.answered(c.method, c.path, c.kind, c.body)
		require.Equal(t, c.status, r.StatusCode, "%s %s", c.method, c.path)
		if c.status >= 400 {
			require.Equal(t, "application/problem+json", r.Header.Get("Content-Type"), "%s %s", c.method, c.path)
		}
		if c.status == http.StatusMethodNotAllowed {
			require.NotEmpty(t, r.Header.Get("Allow"), "%s %s", c.method, c.path)
		}
	}
	policy := d.answered("GET", "/api/health", "", "").Header
	require.Contains(t, policy.Get("Content-Security-Policy"), "frame-ancestors 'none'")
	require.Contains(t, policy.Get("Content-Security-Policy"), "connect-src 'self';")
	require.Equal(t, "same-origin", policy.Get("Referrer-Policy"))
}

// The piece of a body that comes puts off the end of its connection; one that stands still is given up.
func TestABodyThatStandsStillIsGivenUp(t *testing.T) {
	d := newDesktop(t)
	d.begin()
	defer func(was int64) { standsStill.Store(was) }(standsStill.Load())
	standsStill.Store(int64(150e6))
	s := httptest.NewServer(d.srv)
	defer s.Close()
	conn, err := net.Dial("tcp", s.Listener.Addr().String())
	require.NoError(t, err)
	defer conn.Close()
	_, err = fmt.Fprintf(
		conn, "PUT /api/me HTTP/1.1\r\nHost: %s\r\nContent-Length: 100\r\nContent-Type: application/json\r\n\r\n{\"na",
		s.Listener.Addr(),
	)
	require.NoError(t, err)
	r, err := http.ReadResponse(bufio.NewReader(conn), nil) // it would wait for ever
	require.NoError(t, err)
	defer r.Body.Close()
	require.Equal(t, http.StatusRequestTimeout, r.StatusCode)
}

// A connection that is kept takes no end over from the answer before: one without a body goes out too, however late, and a
// request may take longer to answer than its body may stand still.
func TestAKeptConnectionTakesNoEndOver(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	defer func(was int64) { standsStill.Store(was) }(standsStill.Load())
	standsStill.Store(int64(60e6))
	s := httptest.NewServer(d.srv)
	defer s.Close()
	conn, err := net.Dial("tcp", s.Listener.Addr().String())
	require.NoError(t, err)
	defer conn.Close()
	in := bufio.NewReader(conn)
	ask := func(method, path, body string) int {
		const head = "%s %s HTTP/1.1\r\nHost: %s\r\nCookie: %s=%s\r\nContent-Length: %d\r\nContent-Type: application/json\r\n\r\n"
		_, err := fmt.Fprintf(conn, head+"%s",
			method, path, s.Listener.Addr(), keyCookie, d.cookie, len(body), body)
		require.NoError(t, err)
		q, err := http.NewRequestWithContext(t.Context(), method, s.URL, nil)
		require.NoError(t, err)
		r, err := http.ReadResponse(in, q)
		require.NoError(t, err, "%s %s", method, path)
		_, err = io.Copy(io.Discard, r.Body)
		require.NoError(t, err)
		require.NoError(t, r.Body.Close())
		return r.StatusCode
	}
	require.Equal(t, http.StatusOK, ask("PUT", "/api/me", `{"name":"Ada"}`))
	time.Sleep(150 * time.Millisecond) // longer than a body may stand still
	require.Equal(t, http.StatusNoContent, ask("GET", "/api/projects/"+id+"/clips/"+track.Clips[0].ID+"/outline", ""))
	time.Sleep(150 * time.Millisecond)
	require.Equal(t, http.StatusOK, ask("GET", "/api/projects", ""))
}
