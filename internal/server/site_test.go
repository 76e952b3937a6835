package server

import (
	"bytes"
	"compress/gzip"
	"io"
	"net/http"
	"net/http/httptest"
	"testing"
	"testing/fstest"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/require"
)

// built is a front end as it stands in the program: what is large only as it is sent to nearly everybody.
func built(t *testing.T) http.Handler {
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	_, err := w.Write([]byte("let tide = 1"))
	require.NoError(t, err)
	require.NoError(t, w.Close())
	g := gin.New()
	g.NoRoute(serveSite(fstest.MapFS{
		"index.html":        {Data: []byte("<!doctype html>")},
		"assets/app.js.gz":  {Data: b.Bytes()},
		"assets/plain.woff": {Data: []byte("letters")},
	}))
	return g
}

func fetched(t *testing.T, site http.Handler, path, accepts string) (*http.Response, string) {
	q := httptest.NewRequest(http.MethodGet, path, nil)
	if accepts != "" {
		q.Header.Set("Accept-Encoding", accepts)
	}
	w := httptest.NewRecorder()
	site.ServeHTTP(w, q)
	r := w.Result()
	body := io.Reader(r.Body)
	if r.Header.Get("Content-Encoding") == "gzip" {
		z, err := gzip.NewReader(r.Body)
		require.NoError(t, err)
		body = z
	}
	b, err := io.ReadAll(body)
	require.NoError(t, err)
	return r, string(b)
}

// What stands compressed in the program reaches those who take it so, and those who do not: some proxies ask for them.
func TestEverybodyGetsTheFrontEndWhateverTheyAccept(t *testing.T) {
	site := built(t)
	for _, accepts := range []string{"", "gzip", "br, gzip;q=0.5", "identity", "gzip;q=0", "br"} {
		r, body := fetched(t, site, "/assets/app.js", accepts)
		require.Equal(t, http.StatusOK, r.StatusCode, accepts)
		require.Equal(t, "let tide = 1", body, accepts)
		require.Contains(t, r.Header.Get("Content-Type"), "javascript", accepts)
		require.Contains(t, r.Header.Get("Cache-Control"), "immutable", accepts)
		require.Equal(t, "Accept-Encoding", r.Header.Get("Vary"), accepts)
		compressed := accepts == "gzip" || accepts == "br, gzip;q=0.5"
		require.Equal(t, compressed, r.Header.Get("Content-Encoding") == "gzip", accepts)
	}
	r, body := fetched(t, site, "/project/slackwater", "gzip")
	require.Equal(t, "<!doctype html>", body, "the page knows its routes")
	require.Equal(t, "no-cache", r.Header.Get("Cache-Control"))
}

// A part of an older front end is not there any more: the page is no answer, and that it is missing must not be remembered for a year.
func TestAPartThatIsNotThereIsMissingAndNotForAYear(t *testing.T) {
	r, _ := fetched(t, built(t), "/assets/older.js", "gzip")
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	require.Equal(t, "no-cache", r.Header.Get("Cache-Control"))
	require.Equal(t, "application/problem+json", r.Header.Get("Content-Type"))
}
