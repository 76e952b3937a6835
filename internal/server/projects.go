package server

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/template"
)

// add stores a new project and answers with its summary.
func (s *Server) add(c *gin.Context, p *project.Project) {
	if err := p.Validate(engine.EffectInfo); err != nil {
		fail(c, refuse(err))
		return
	}
	b, err := json.Marshal(p)
	if err == nil {
		err = s.store.AddOwned(c.Request.Context(), p.ID, p.Name, b, s.account(c).ID)
	}
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, store.Summary{ID: p.ID, Name: p.Name, Revision: 1})
}

func (s *Server) newProject(c *gin.Context) {
	var n NewProject
	if err := body(c, &n); err != nil {
		fail(c, err)
		return
	}
	if n.Name = strings.TrimSpace(n.Name); !project.ValidName(n.Name) {
		fail(c, refuse(fmt.Errorf("a project needs a name of 1 to 80 letters")))
		return
	}
	p := project.New(n.Name, n.SampleRate, n.Tempo, n.Beats, n.Unit)
	if n.Template == "" {
		s.add(c, p)
		return
	}
	t, ok := template.Find(n.Template)
	if !ok {
		fail(c, refuse(fmt.Errorf("there is no template %q: choose one of those that are offered, or none", n.Template)))
		return
	}
	if err := p.Validate(engine.EffectInfo); err != nil { // a template asks for a tempo and a meter that can be
		fail(c, refuse(err))
		return
	}
	filled, err := t.Fill(p)
	if err != nil {
		fail(c, err)
		return
	}
	s.add(c, filled)
}

func (s *Server) copyProject(c *gin.Context) {
	p, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	copied := project.Clone(p)
	copied.ID = project.NewID()
	copied.Name += " copy"
	s.add(c, copied)
}

func (s *Server) project(c *gin.Context) {
	if at := c.Query("differs"); at != "" {
		slog.Warn("a window had another document, and takes it anew", "project", c.Param("id"), "revision", at)
	}
	p, revision, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	role, exports, err := s.roleOf(c, c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Opened{revision, role, exports, *p})
}

func (s *Server) bin(c *gin.Context) { s.setBin(c, true) }

func (s *Server) restore(c *gin.Context) { s.setBin(c, false) }

func (s *Server) setBin(c *gin.Context, in bool) {
	if err := s.store.Bin(c.Request.Context(), c.Param("id"), in); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Health{true})
}
