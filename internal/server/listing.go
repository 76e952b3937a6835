package server

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/template"
)

// charts are projects drawn small, each as it was at a revision: a list is asked for often, and its projects seldom change.
type charts struct {
	mu  sync.Mutex
	all map[string]drawn
}

type drawn struct {
	revision int64
	chart    *project.Chart // nil: it cannot be read
}

// of draws a project, or gives what was drawn of that revision.
func (d *charts) of(ctx context.Context, st *store.Store, p store.Summary) *project.Chart {
	d.mu.Lock()
	x, ok := d.all[p.ID]
	d.mu.Unlock()
	if ok && x.revision == p.Revision {
		return x.chart
	}
	b, revision, err := st.Project(ctx, p.ID)
	if err != nil {
		return nil
	}
	x = drawn{revision: revision}
	if doc, err := project.Read(b, engine.EffectInfo); err == nil {
		c := doc.Chart()
		x.chart = &c
	}
	d.mu.Lock()
	d.all[p.ID] = x
	d.mu.Unlock()
	return x.chart
}

func (s *Server) projects(c *gin.Context) {
	all, err := s.store.Projects(c.Request.Context())
	if err != nil {
		fail(c, err)
		return
	}
	roles := map[string]string{}
	if s.house != nil {
		if roles, err = s.store.ProjectsOf(c.Request.Context(), s.account(c).ID); err != nil {
			fail(c, err)
			return
		}
	}
	list := []Listed{}
	for _, p := range all {
		role, in := roles[p.ID]
		if s.house == nil {
			role, in = string(crew.Owner), true
		}
		if !in {
			continue
		}
		list = append(list, Listed{p, s.hub.here(p.ID), role, s.charts.of(c.Request.Context(), s.store, p)})
	}
	c.JSON(http.StatusOK, list)
}

// here are the people who have a project open, by name, each once; a newcomer who has not given a name has none.
func (h *hub) here(project string) []store.Person {
	h.mu.Lock()
	defer h.mu.Unlock()
	list := []store.Person{}
	r := h.rooms[project]
	if r == nil {
		return list
	}
	for l := range r.here {
		if l.presence.Person.ID == "" || !slices.Contains(list, l.presence.Person) {
			list = append(list, l.presence.Person)
		}
	}
	slices.SortFunc(list, func(a, b store.Person) int { return strings.Compare(a.Name, b.Name) })
	return list
}

func (s *Server) templates(c *gin.Context) { c.JSON(http.StatusOK, template.List()) }
