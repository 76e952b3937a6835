package server

import (
	"errors"
	"io"
	"net/http"
	"sync/atomic"
	"time"

	"github.com/gin-gonic/gin"
)

// standsStill is how long a body may stand still, coming or going, in nanoseconds, until its connection is given up: whoever
// sends nothing must not hold anything. Tests have less time.
var standsStill atomic.Int64

func init() { standsStill.Store(int64(30 * time.Second)) }

func soon() time.Time { return time.Now().Add(time.Duration(standsStill.Load())) }

// patient lets every piece of a body that is read or written put off the end of its connection.
func patient(c *gin.Context) {
	turn := http.NewResponseController(c.Writer)
	if c.Request.ContentLength != 0 {
		_ = turn.SetReadDeadline(soon()) // for those too who answer without reading it: the rest is read past
		c.Request.Body = &patientBody{c.Request.Body, turn}
	}
	c.Writer = &patientWriter{c.Writer, turn}
	c.Next()
}

type patientBody struct {
	io.ReadCloser
	turn *http.ResponseController
}

func (b *patientBody) Read(p []byte) (int, error) {
	_ = b.turn.SetReadDeadline(soon()) // what has no deadline, such as a test's, goes without
	n, err := b.ReadCloser.Read(p)
	if errors.Is(err, io.EOF) { // it is whole: what is made of it may take its time
		_ = b.turn.SetReadDeadline(time.Time{})
	}
	return n, err
}

type patientWriter struct {
	gin.ResponseWriter
	turn *http.ResponseController
}

func (w *patientWriter) Write(p []byte) (int, error) {
	_ = w.turn.SetWriteDeadline(soon())
	return w.ResponseWriter.Write(p)
}

func (w *patientWriter) WriteString(s string) (int, error) { return w.Write([]byte(s)) }

// Unwrap lets a response controller reach the connection.
func (w *patientWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }
