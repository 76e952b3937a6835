package server

import (
	"errors"
	"fmt"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/store"
)

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
	if len(b.Changes) == 0 {
		fail(c, refuse(fmt.Errorf("there is nothing to change: the list of changes is empty")))
		return
	}
	batch, err := project.Decode(b.Changes)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	if err := s.mayChange(c, batch); err != nil {
		fail(c, err)
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
		made{author: author, label: b.Label, kind: "do", gesture: b.Gesture, batch: batch, asked: true, anyway: b.Anyway},
	)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Revised{Revision: rev, Label: b.Label})
}

// mayChange says why whoever asks may not make changes; nil: they may. Who hears a project may remark, in their own name.
func (s *Server) mayChange(c *gin.Context, batch []project.Change) error {
	p := s.person(c)
	if project.Inner(batch) {
		return refuse(errors.New("this is done by undo and redo only"))
	}
	if project.Speak(batch, project.Speaker{ID: p.ID, Name: p.Name}, store.Now()) {
		return nil
	}
	return s.may(c, c.Param("id"), crew.Change)
}

// undoing says what undo would take back, or redo would make again.
func (s *Server) undoing(c *gin.Context) {
	u, err := s.desk.undoing(c.Request.Context(), c.Param("id"), s.person(c).ID, c.Query("redo") != "")
	answer(c, u, err)
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

// revised answers with a project's newest revision.
func (s *Server) revised(c *gin.Context, id, label string) {
	_, rev, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Revised{Revision: rev, Label: label})
}
