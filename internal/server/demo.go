package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/demo"
	"shoal/internal/store"
)

// DemoMade tells how far the making of the demo is.
type DemoMade struct {
	Part float64 `json:"part" required:"true"` // 0 to 1; 0: nobody makes it
}

// makeDemo makes the demo for whoever waits for it; who goes away calls it off.
func (s *Server) makeDemo(c *gin.Context) {
	s.making.Lock()
	defer s.making.Unlock()
	ctx := c.Request.Context()
	defer s.demoPart.Store(0.0)
	if err := demo.Add(ctx, s.store, s.folder, false, func(part float64) { s.demoPart.Store(part) }); err != nil {
		fail(c, err)
		return
	}
	if err := s.store.Bin(ctx, demo.ID, false); err != nil {
		fail(c, err)
		return
	}
	if err := s.intoDemo(c); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, store.Summary{ID: demo.ID, Name: demo.Name, Revision: 1})
}

// intoDemo lets whoever asks into the demo, which is there for everybody: to hear, and to take a copy of their own.
func (s *Server) intoDemo(c *gin.Context) error {
	if s.house == nil {
		return nil
	}
	ctx, me := c.Request.Context(), s.account(c).ID
	if err := s.store.AdoptProjects(ctx); err != nil {
		return err
	}
	role, _, err := s.store.Standing(ctx, demo.ID, me)
	if err != nil || role != "" {
		return err
	}
	if err := s.store.LetListenersExport(ctx, demo.ID, true); err != nil {
		return err
	}
	return s.store.PutMember(ctx, demo.ID, me, string(crew.Listener), "")
}

func (s *Server) demoMade(c *gin.Context) {
	part, _ := s.demoPart.Load().(float64)
	c.JSON(http.StatusOK, DemoMade{part})
}
