package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

func (s *Server) health(c *gin.Context) { c.JSON(http.StatusOK, Health{true}) }

func (s *Server) openapi(c *gin.Context) {
	b, err := OpenAPI()
	if err != nil {
		fail(c, err)
		return
	}
	c.Data(http.StatusOK, "application/json", b)
}

func (s *Server) effects(c *gin.Context) {
	c.JSON(http.StatusOK, effect.Infos())
}

func (s *Server) params(c *gin.Context) {
	p := Params{
		Fader:    param.Fader,
		Pan:      param.Pan,
		Send:     param.Send,
		Mix:      param.Mix,
		Path:     param.Path,
		Width:    param.Width,
		Trim:     param.Joined,
		Handle:   param.Handle,
		ClipGain: param.ClipGain,
		ClipFade: param.ClipFade,
		Moves:    param.Moves,
		Shapes:   project.Shapes,
	}
	for _, n := range effect.CycleNotes() {
		p.Cycles = append(p.Cycles, Cycle{n.Name, n.Quarters})
	}
	for n := range project.MaxBands - 1 {
		p.Crossovers, p.Linear = append(p.Crossovers, param.Crossover(n+1, false)), append(p.Linear, param.Crossover(n+1, true))
	}
	c.JSON(http.StatusOK, p)
}
