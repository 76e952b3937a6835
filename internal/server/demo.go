package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

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
	c.JSON(http.StatusOK, store.Summary{ID: demo.ID, Name: demo.Name, Revision: 1})
}

func (s *Server) demoMade(c *gin.Context) {
	part, _ := s.demoPart.Load().(float64)
	c.JSON(http.StatusOK, DemoMade{part})
}
