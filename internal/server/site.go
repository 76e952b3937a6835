package server

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"
)

// serveSite serves the built front end. Files that stand there compressed (as NAME.gz) are sent so to those who take them so; any
// path that is not a file gets the page, which knows its routes, but for parts of a front end, of which there are older ones.
func serveSite(site fs.FS) gin.HandlerFunc {
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean("/"+c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") || name == "api" {
			fail(c, &refusal{http.StatusNotFound, fmt.Errorf("there is no %s", c.Request.URL.Path)})
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			c.Header("Allow", "GET, HEAD")
			noMethod(c)
			return
		}
		part := strings.HasPrefix(name, "assets/")
		if !exists(site, name) && !exists(site, name+".gz") {
			if part {
				c.Header("Cache-Control", "no-cache")
				fail(c, &refusal{http.StatusNotFound, fmt.Errorf("there is no %s: reload the page", c.Request.URL.Path)})
				return
			}
			name = "index.html"
		}
		if err := send(c, site, name, part); err != nil {
			c.Header("Cache-Control", "no-cache")
			c.String(http.StatusNotFound, "The front end has not been built into this program: run make build.")
		}
	}
}

// send sends a file; forever says that its name is another when it says something else.
func send(c *gin.Context, site fs.FS, name string, forever bool) error {
	b, err := fs.ReadFile(site, name)
	if err != nil {
		if b, err = compressed(c, site, name); err != nil {
			return err
		}
	}
	c.Header("Cache-Control", "no-cache")
	if forever {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	}
	kind := mime.TypeByExtension(path.Ext(name))
	if kind == "" {
		kind = "application/octet-stream"
	}
	c.Header("Content-Length", strconv.Itoa(len(b)))
	c.Data(http.StatusOK, kind, b)
	return nil
}

// compressed gives a file that stands there compressed, taken apart for those who do not take it so.
func compressed(c *gin.Context, site fs.FS, name string) ([]byte, error) {
	b, err := fs.ReadFile(site, name+".gz")
	if err != nil {
		return nil, err
	}
	c.Header("Vary", "Accept-Encoding")
	if takesGzip(c.GetHeader("Accept-Encoding")) {
		c.Header("Content-Encoding", "gzip")
		return b, nil
	}
	z, err := gzip.NewReader(bytes.NewReader(b))
	if err != nil {
		return nil, err
	}
	return io.ReadAll(z)
}

// takesGzip reads an Accept-Encoding (RFC 9110, section 12.5.3): a weight of 0 refuses.
func takesGzip(accepts string) bool {
	for part := range strings.SplitSeq(accepts, ",") {
		name, weight, _ := strings.Cut(strings.ReplaceAll(part, " ", ""), ";q=")
		if strings.EqualFold(name, "gzip") {
			q, err := strconv.ParseFloat(weight, 64)
			return err != nil || q > 0
		}
	}
	return false
}

// noMethod answers where there is a path, but not for what was to be done with it.
func noMethod(c *gin.Context) {
	fail(c, &refusal{http.StatusMethodNotAllowed, fmt.Errorf("%s is not for %s", c.Request.URL.Path, c.Request.Method)})
}

func exists(site fs.FS, name string) bool {
	i, err := fs.Stat(site, name)
	return err == nil && !i.IsDir()
}
