package server

import (
	"encoding/json"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

// inSteps names a sound of a project.
type inSteps struct {
	inProject
	Hash string `path:"hash"`
}

// mostChanges bounds how many changes are looked through for who made one.
const mostChanges = 2000

// steps says where a sound comes from, and whether each step still holds.
func (s *Server) steps(c *gin.Context) {
	id := c.Param("id")
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	doc, _, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		fail(c, err)
		return
	}
	var changes []store.Entry
	who := func(facet string, after int64) (by, at string) {
		if changes == nil {
			if changes, err = s.store.Latest(c.Request.Context(), id, mostChanges); err != nil {
				changes = []store.Entry{}
			}
		}
		return lastToTouch(changes, facet, after)
	}
	step, err := printing.StepsOf(doc, s.folder, hash, who)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, step)
}

// lastToTouch is who last touched a facet of the document after a revision, and when.
func lastToTouch(changes []store.Entry, facet string, after int64) (by, at string) {
	newest := after
	for _, e := range changes {
		var touched []string
		if e.Revision <= newest || json.Unmarshal([]byte(e.Touched), &touched) != nil || !project.Meet([]string{facet}, touched) {
			continue
		}
		newest, by, at = e.Revision, e.Name, e.Time
	}
	return by, at
}

// compareSteps renders what a print would be now, to be heard beside it.
func (s *Server) compareSteps(c *gin.Context) {
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	both, err := printing.BesideNow(c.Request.Context(), doc, s.folder, hash, s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	if err := s.store.NoteSounds(c.Request.Context(), c.Param("id"), both.Now); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, both)
}

// printAgain makes a print anew from what its row gives now.
func (s *Server) printAgain(c *gin.Context) {
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	author, id, doc, by, ok := s.printer(c)
	if !ok {
		return
	}
	keep := func(e audiofile.Entry, name string) error { return s.keepSound(c.Request.Context(), e, name, "print") }
	list, err := printing.Again(c.Request.Context(), doc, s.folder, by, hash, keep, s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	s.make(c, id, author, "Print again", list)
}

// putChainBack lets the chain of a print's row be as it was when that was printed.
func (s *Server) putChainBack(c *gin.Context) {
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	r, known, err := printing.RecordOf(s.folder, hash)
	if err == nil && !known {
		err = refuse(fmt.Errorf("nothing is known of where this sound comes from: it was not printed here"))
	}
	if err != nil {
		fail(c, err)
		return
	}
	list, err := r.ChainBack(doc)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	s.make(c, id, author, "Put the chain of "+r.Row+" back as it was", list)
}

// make applies changes that were worked out, under a label.
func (s *Server) make(c *gin.Context, id, author, label string, list []project.Change) {
	if s.changed(c, id, author, label, list...) {
		s.revised(c, id, label)
	}
}

// printer is who prints, and the document as it is; false: there is none, and the answer says so.
func (s *Server) printer(c *gin.Context) (author, id string, doc *project.Project, by printing.Printer, ok bool) {
	author, id, _, ok = s.writer(c)
	if !ok {
		return "", "", nil, by, false
	}
	doc, revision, err := s.desk.Document(c.Request.Context(), id)
	if err == nil {
		var who store.Person
		who, err = s.store.Person(c.Request.Context(), author)
		by = printing.Printer{Name: who.Name, Revision: revision}
	}
	if err != nil {
		fail(c, err)
		return "", "", nil, by, false
	}
	return author, id, doc, by, true
}
