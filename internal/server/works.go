package server

import (
	"context"
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/working"
)

// inWork names what is worked out for a project.
type inWork struct {
	inProject
	Key string `path:"key"`
}

func newWorks(ctx context.Context, folder *audiofile.Folder, d *desk, h *hub) *working.Desk {
	return working.NewDesk(ctx, folder, d.Document, func(project string, list []working.Status) {
		h.send(project, Message{Worked: list})
	})
}

// listWorks looks at what a project needs: whoever opens it asks.
func (s *Server) listWorks(c *gin.Context) {
	list, err := s.works.Look(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, list)
}

func (s *Server) askWork(c *gin.Context) {
	s.onWork(c, s.works.Ask)
}

func (s *Server) cancelWork(c *gin.Context) {
	s.onWork(c, s.works.Cancel)
}

func (s *Server) onWork(c *gin.Context, do func(id, key string) error) {
	if err := do(c.Param("id"), c.Param("key")); err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, Health{true})
}
