package server

import (
	"errors"
	"log/slog"
	"net/http"
	"runtime/debug"

	"github.com/gin-gonic/gin"

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
		fail(c, errors.New("this request met a mistake of Shoal's; nothing was changed"))
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

// fail answers with a problem document.
func fail(c *gin.Context, err error) {
	status := http.StatusInternalServerError
	var r *refusal
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &r):
		status = r.status
	case errors.Is(err, store.ErrNone):
		status = http.StatusNotFound
	case errors.As(err, &tooLarge):
		status = http.StatusRequestEntityTooLarge
	}
	if status == http.StatusInternalServerError {
		slog.Error("request failed", "path", c.Request.URL.Path, "error", err)
	}
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(status, Problem{Type: "about:blank", Title: http.StatusText(status), Status: status, Detail: err.Error()})
}
