package server

import (
	"fmt"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"shoal/internal/project"
	"shoal/internal/store"
)

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
