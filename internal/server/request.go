package server

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"

	"github.com/gin-gonic/gin"

	"shoal/internal/project"
)

// body decodes a JSON body of at most 16 MiB.
func body(c *gin.Context, v any) error {
	if kind := c.ContentType(); kind != "application/json" {
		return &refusal{http.StatusUnsupportedMediaType, fmt.Errorf("this must be application/json, not %s", kind)}
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 16<<20)
	d := json.NewDecoder(c.Request.Body)
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return refuse(fmt.Errorf("the request cannot be read: %w", project.Unread(err)))
	}
	return nil
}

// newName reads the name that something is given; false: it has been answered.
func newName(c *gin.Context, of string) (string, bool) {
	var n NewName
	err := body(c, &n)
	if err == nil {
		if n.Name, err = project.CleanName(of, n.Name); err != nil {
			err = refuse(err)
		}
	}
	if err != nil {
		fail(c, err)
	}
	return n.Name, err == nil
}

// upload streams the body to a temporary file, which the caller closes; the
// file is unlinked at once, so nothing is left behind.
func (s *Server) upload(c *gin.Context) (*os.File, int64, error) {
	if err := s.roomFor(c.Request.ContentLength); err != nil {
		return nil, 0, err
	}
	f, err := os.CreateTemp(s.tmp, "upload-*")
	if err != nil {
		return nil, 0, fmt.Errorf("begin upload: %w", err)
	}
	_ = os.Remove(f.Name())
	n, err := io.Copy(f, http.MaxBytesReader(c.Writer, c.Request.Body, MaxUpload))
	if err == nil && c.Request.ContentLength > 0 && n != c.Request.ContentLength {
		err = fmt.Errorf("the upload was cut short: %d of %d bytes; try again", n, c.Request.ContentLength)
	}
	if err == nil {
		_, err = f.Seek(0, io.SeekStart)
	}
	if err != nil {
		_ = f.Close()
		return nil, 0, refuse(fmt.Errorf("take the file in (at most %d GiB): %w", MaxUpload>>30, err))
	}
	return f, n, nil
}

// roomFor refuses a body that is too large, or for which the disk has no room, before it is sent.
func (s *Server) roomFor(bytes int64) error {
	if bytes > MaxUpload {
		return &http.MaxBytesError{Limit: MaxUpload}
	}
	return s.folder.RoomFor(max(bytes, 0)) // uploads lie beside the sounds
}

// answer gives what was asked for, or says why not.
func answer(c *gin.Context, v any, err error) {
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, v)
}

// asked reads what is asked about a project, and gives the document as it is now; else the answer is given.
func (s *Server) asked(c *gin.Context, spec any) (*project.Project, bool) {
	if err := body(c, spec); err != nil {
		fail(c, err)
		return nil, false
	}
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return nil, false
	}
	return doc, true
}

// disposition names a download safely.
func disposition(name string) string {
	safe := strings.Map(func(r rune) rune {
		if r < 32 || r > 126 || strings.ContainsRune(`"\/:*?<>|`, r) {
			return '_'
		}
		return r
	}, name)
	return `attachment; filename="` + safe + `"`
}
