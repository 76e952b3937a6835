package server

import (
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/param"
	"shoal/internal/project"
	"shoal/internal/store"
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
		Fader:  param.Fader,
		Pan:    param.Pan,
		Send:   param.Send,
		Mix:    param.Mix,
		Path:   param.Path,
		Width:  param.Width,
		Trim:   param.Joined,
		Handle: param.Handle,
		Moves:  param.Moves,
		Shapes: project.Shapes,
	}
	for _, n := range effect.CycleNotes() {
		p.Cycles = append(p.Cycles, Cycle{n.Name, n.Quarters})
	}
	for n := range project.MaxBands - 1 {
		p.Crossovers, p.Linear = append(p.Crossovers, param.Crossover(n+1, false)), append(p.Linear, param.Crossover(n+1, true))
	}
	c.JSON(http.StatusOK, p)
}

// body decodes a JSON body of at most 16 MiB.
func body(c *gin.Context, v any) error {
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 16<<20)
	d := json.NewDecoder(c.Request.Body)
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return refuse(fmt.Errorf("the request cannot be read: %w", err))
	}
	return nil
}

const personCookie = "shoal_person"

// person is who is asking; without a name given it is a newcomer without one.
func (s *Server) person(c *gin.Context) store.Person {
	id, err := c.Cookie(personCookie)
	if err != nil || len(id) > 64 {
		return store.Person{}
	}
	p, err := s.store.Person(c.Request.Context(), id)
	if err != nil {
		return store.Person{}
	}
	return p
}

// writer is who asks for a change of the project that the path names, and its newest revision. Where
// either is missing the request has been answered.
func (s *Server) writer(c *gin.Context) (author, id string, doc *project.Project, ok bool) {
	author, err := s.author(c)
	if err == nil {
		id = c.Param("id")
		doc, _, err = s.desk.Document(c.Request.Context(), id)
	}
	if err != nil {
		fail(c, err)
		return "", "", nil, false
	}
	return author, id, doc, true
}

// author is who is asking, and an error if they have no name yet.
func (s *Server) author(c *gin.Context) (string, error) {
	p := s.person(c)
	if p.ID == "" {
		return "", &refusal{http.StatusUnauthorized, fmt.Errorf("say who you are first: changes carry a name")}
	}
	return p.ID, nil
}

func (s *Server) me(c *gin.Context) { c.JSON(http.StatusOK, s.person(c)) }

func (s *Server) setMe(c *gin.Context) {
	var n NewName
	if err := body(c, &n); err != nil {
		fail(c, err)
		return
	}
	n.Name = strings.TrimSpace(n.Name)
	if n.Name == "" || utf8.RuneCountInString(n.Name) > 60 {
		fail(c, refuse(fmt.Errorf("a name has 1 to 60 letters")))
		return
	}
	p := s.person(c)
	if p.ID == "" {
		p.ID = project.NewID() + project.NewID()
	}
	p.Name = n.Name
	if err := s.store.PutPerson(c.Request.Context(), p); err != nil {
		fail(c, err)
		return
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie(personCookie, p.ID, 10*365*24*3600, "/", "", false, true)
	c.JSON(http.StatusOK, p)
}

func (s *Server) projects(c *gin.Context) {
	list, err := s.store.Projects(c.Request.Context())
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, list)
}

// add stores a new project and answers with its summary.
func (s *Server) add(c *gin.Context, p *project.Project) {
	if err := p.Validate(engine.EffectInfo); err != nil {
		fail(c, refuse(err))
		return
	}
	b, err := json.Marshal(p)
	if err == nil {
		err = s.store.AddProject(c.Request.Context(), p.ID, p.Name, b)
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
	s.add(c, project.New(n.Name, n.SampleRate, n.Tempo, n.Beats, n.Unit))
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
	c.JSON(http.StatusOK, Opened{revision, *p})
}

func (s *Server) bin(c *gin.Context)     { s.setBin(c, true) }
func (s *Server) restore(c *gin.Context) { s.setBin(c, false) }

func (s *Server) setBin(c *gin.Context, in bool) {
	if err := s.store.Bin(c.Request.Context(), c.Param("id"), in); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Health{true})
}

func (s *Server) change(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var b Batch
	if err := body(c, &b); err != nil {
		fail(c, err)
		return
	}
	if len(b.Gesture) > 64 {
		fail(c, refuse(fmt.Errorf("the name of a gesture has at most 64 letters")))
		return
	}
	batch, err := project.Decode(b.Changes)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	o, err := s.desk.take(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	defer o.mu.Unlock()
	rev, err := s.desk.apply(
		c.Request.Context(),
		c.Param("id"),
		o,
		made{author: author, label: b.Label, kind: "do", gesture: b.Gesture, batch: batch},
	)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Revised{Revision: rev, Label: b.Label})
}

func (s *Server) undo(c *gin.Context) { s.takeBack(c, false) }
func (s *Server) redo(c *gin.Context) { s.takeBack(c, true) }

func (s *Server) takeBack(c *gin.Context, redo bool) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	rev, label, passed, err := s.desk.undo(c.Request.Context(), c.Param("id"), author, redo)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Revised{rev, label, passed})
}

const missedLimit = 500

func (s *Server) missed(c *gin.Context) {
	since, err := strconv.ParseInt(c.Query("since"), 10, 64)
	if err != nil {
		fail(c, refuse(fmt.Errorf("since must be a revision number")))
		return
	}
	list, err := s.store.Since(c.Request.Context(), c.Param("id"), since, missedLimit+1)
	if err != nil {
		fail(c, err)
		return
	}
	m := Missed{Changes: []ChangeMessage{}}
	if len(list) > missedLimit {
		m.Gap = true
		c.JSON(http.StatusOK, m)
		return
	}
	for _, e := range list {
		m.Changes = append(m.Changes, messageOf(e, store.Person{ID: e.Author, Name: e.Name}))
	}
	c.JSON(http.StatusOK, m)
}

func (s *Server) logbook(c *gin.Context) {
	list, err := s.store.Latest(c.Request.Context(), c.Param("id"), 200)
	if err != nil {
		fail(c, err)
		return
	}
	out := []Logged{}
	said := map[string]bool{}
	for _, e := range list {
		if e.Kind == "do" && e.Gesture != "" { // one gesture, one entry: what it came to
			if said[e.Author+e.Gesture] {
				continue
			}
			said[e.Author+e.Gesture] = true
		}
		out = append(out, Logged{e.Revision, store.Person{ID: e.Author, Name: e.Name}, e.Label, e.Kind, e.Spent, e.Time})
	}
	c.JSON(http.StatusOK, out)
}
