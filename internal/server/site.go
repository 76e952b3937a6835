package server

import (
	"fmt"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// serveSite serves the built front end. Files that stand there compressed (as
// NAME.gz) are sent so; any other path gets the page, which knows its routes.
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
		if !exists(site, name) && !exists(site, name+".gz") {
			name = "index.html"
		}
		if strings.HasPrefix(name, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Header("Cache-Control", "no-cache")
		}
		if kind := mime.TypeByExtension(path.Ext(name)); kind != "" {
			c.Header("Content-Type", kind)
		}
		if exists(site, name+".gz") && strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
			c.Header("Content-Encoding", "gzip")
			c.Header("Vary", "Accept-Encoding")
			name += ".gz"
		}
		b, err := fs.ReadFile(site, name)
		if err != nil {
			c.String(http.StatusNotFound, "The front end has not been built into this program: run make build.")
			return
		}
		c.Status(http.StatusOK)
		_, _ = c.Writer.Write(b)
	}
}

// noMethod answers where there is a path, but not for what was to be done with it.
func noMethod(c *gin.Context) {
	fail(c, &refusal{http.StatusMethodNotAllowed, fmt.Errorf("%s is not for %s", c.Request.URL.Path, c.Request.Method)})
}

func exists(site fs.FS, name string) bool {
	i, err := fs.Stat(site, name)
	return err == nil && !i.IsDir()
}
