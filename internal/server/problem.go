package server

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"runtime/debug"
	"syscall"

	"github.com/gin-gonic/gin"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"

	"shoal/internal/project"
	"shoal/internal/recording"
	"shoal/internal/store"
)

// recovery answers for a handler that panicked, and lets an answer break off that was under way. What a request
// carried, cookies among it, is no matter for the log.
func recovery(c *gin.Context) {
	defer func() {
		r := recover()
		if r == nil {
			return
		}
		if err, ok := r.(error); ok && errors.Is(err, http.ErrAbortHandler) {
			panic(http.ErrAbortHandler) // the server of the standard library cuts the connection
		}
		slog.Error("a handler panicked", "path", c.Request.URL.Path, "panic", r, "stack", string(debug.Stack()))
		if c.Writer.Written() {
			panic(http.ErrAbortHandler)
		}
		fail(c, errors.New("this request met a mistake of Shoal's"))
	}()
	c.Next()
}

// Problem is an RFC 9457 problem document.
type Problem struct {
	Type   string `json:"type" required:"true"`
	Title  string `json:"title" required:"true"`
	Status int    `json:"status" required:"true"`
	Detail string `json:"detail" required:"true"`
}

// refusal is an error with the status that it deserves.
type refusal struct {
	status int
	err    error
}

func (r *refusal) Error() string { return r.err.Error() }
func (r *refusal) Unwrap() error { return r.err }

// refuse marks an error as the asker's own.
func refuse(err error) error { return &refusal{http.StatusUnprocessableEntity, err} }

// diskFull is what is said whatever it was that had no room.
const diskFull = "the disk that Shoal keeps its data on is full: nothing was changed, and nothing is lost." +
	" Free some room and do it again; until then you can listen, look and export to this computer"

// statusOf is the status that an error deserves, and what is said of it.
func statusOf(err error) (int, string) {
	var r *refusal
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &r) && r.status == http.StatusInsufficientStorage: // somebody has said it better
		return r.status, err.Error()
	case full(err):
		return http.StatusInsufficientStorage, diskFull
	case errors.Is(err, os.ErrDeadlineExceeded):
		return http.StatusRequestTimeout, "nothing more came of this for too long; send it again"
	case errors.As(err, &tooLarge):
		return http.StatusRequestEntityTooLarge, fmt.Sprintf("this is larger than the %d bytes that are taken in at once", tooLarge.Limit)
	case ofMachine(err):
		return http.StatusInternalServerError, ""
	case errors.As(err, &r):
		return r.status, err.Error()
	case errors.Is(err, store.ErrNone):
		return http.StatusNotFound, err.Error()
	case errors.Is(err, context.Canceled):
		return 499, "it was called off" // nobody reads it
	}
	return http.StatusInternalServerError, ""
}

// full reports whether an error is that a disk has no room.
func full(err error) bool {
	var s *sqlite.Error
	return errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) || errors.Is(err, recording.ErrNoRoom) ||
		errors.As(err, &s) && s.Code()&0xff == sqlite3.SQLITE_FULL
}

// ofMachine reports whether an error is one of files, which names what lies where on this machine.
func ofMachine(err error) bool {
	var p *fs.PathError
	var l *os.LinkError
	var s *os.SyscallError
	return errors.As(err, &p) || errors.As(err, &l) || errors.As(err, &s)
}

// fail answers with a problem document. What is Shoal's own mistake, or the machine's, stands in the log under a mark.
func fail(c *gin.Context, err error) {
	status, says := statusOf(err)
	if status == http.StatusInternalServerError || status == http.StatusInsufficientStorage {
		mark := project.NewID()
		slog.Error("request failed", "path", c.Request.URL.Path, "mark", mark, "error", err)
		if says == "" {
			says = "this met a mistake of Shoal's own, or of this machine's; nothing was changed. Its log says more, under " + mark
		}
	}
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(status, Problem{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: says})
}
