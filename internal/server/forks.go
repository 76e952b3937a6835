package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/engine/figures"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// forkFigures tells what a fork does as a whole, by sending a test signal through a copy of it.
func (s *Server) forkFigures(c *gin.Context) {
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	lib, err := printing.Library(c.Request.Context(), doc, s.folder)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	f, err := figures.OfFork(c.Request.Context(), doc, lib, c.Param("fork"), printing.Pages(s.folder, lib))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, f)
}

// LevelSpec asks for a fork to be levelled over a range of song frames.
type LevelSpec struct {
	What string `json:"what" required:"true" enum:"paths,output"`
	From int64  `json:"from" required:"true"`
	To   int64  `json:"to" required:"true"`
}

// levelFork measures a fork and levels it, as one change.
func (s *Server) levelFork(c *gin.Context) {
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	var spec LevelSpec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	fork := c.Param("fork")
	list, err := printing.LevelFork(c.Request.Context(), doc, s.folder, fork, spec.What, spec.From, spec.To, s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	label := "Keep the level of a fork"
	if f, ch, ok := doc.ForkByID(fork); ok {
		label = "Keep the level of " + f.Title() + " on " + ch.Name
		if spec.What == printing.LevelPaths {
			label = "Level the paths of " + f.Title() + " on " + ch.Name
		}
	}
	if err := s.desk.Change(c.Request.Context(), id, author, label, func(*project.Project) []project.Change { return list }); err != nil {
		fail(c, err)
		return
	}
	s.revised(c, id, label)
}
