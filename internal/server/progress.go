package server

import (
	"time"

	"github.com/gin-gonic/gin"
)

// workHeader names a piece of work that a window waits for, by a name of the window's own.
const workHeader = "X-Work"

// progressEvery is how often it is told at most how far a piece of work is.
const progressEvery = 150 * time.Millisecond

// progress tells everybody in the request's project how far its work is, if the request names it.
func (s *Server) progress(c *gin.Context) func(float64) {
	id, work, last := c.Param("id"), c.GetHeader(workHeader), time.Time{}
	if work == "" || len(work) > 64 {
		return nil
	}
	return func(part float64) {
		if now := time.Now(); now.Sub(last) >= progressEvery {
			last = now
			s.hub.send(id, Message{Work: &WorkMessage{work, part}})
		}
	}
}
