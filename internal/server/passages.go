package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/passage"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// passageKinds lists the kinds of passages that ship.
func (s *Server) passageKinds(c *gin.Context) { c.JSON(http.StatusOK, passage.Kinds()) }

// makePassage makes a passage of a kind, with the stages that it needs, as one change.
func (s *Server) makePassage(c *gin.Context) {
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	var spec passage.Spec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	list, says, err := passage.Make(doc, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	kind, _ := passage.Find(spec.Kind)
	if err := s.desk.Change(
		c.Request.Context(),
		id,
		author,
		"Make a passage: "+kind.Name,
		func(*project.Project) []project.Change { return list },
	); err != nil {
		fail(c, err)
		return
	}
	s.revised(c, id, says)
}

// passageContour tells what a passage does to the level of its rows.
func (s *Server) passageContour(c *gin.Context) {
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
	f, err := printing.Contour(c.Request.Context(), doc, s.folder, lib, c.Param("passage"), s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, f)
}
