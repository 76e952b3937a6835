package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/printing"
)

func (s *Server) listPrints(c *gin.Context) {
	list, err := s.prints.List(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, list)
}

func (s *Server) addPrint(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var spec printing.Spec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	st, err := s.prints.Add(c.Request.Context(), c.Param("id"), author, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, st)
}

func (s *Server) cancelPrint(c *gin.Context) {
	if err := s.prints.Cancel(c.Request.Context(), c.Param("print")); err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, Health{true})
}

func (s *Server) printFile(c *gin.Context) {
	path, name, err := s.prints.File(c.Request.Context(), c.Param("print"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Content-Disposition", disposition(name))
	c.File(path)
}
