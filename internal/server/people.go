package server

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/project"
	"shoal/internal/store"
)

// keyCookie holds the secret by which a browser is known; idCookie held the id, which is public, before there were secrets.
const (
	keyCookie = "shoal_key"
	idCookie  = "shoal_person"
)

// secret is what the browser that asks proves with that it is a person's; empty: it has none.
func secret(c *gin.Context) string {
	key, err := c.Cookie(keyCookie)
	if err != nil || len(key) > 64 {
		return ""
	}
	return key
}

// person is who is asking; without a name given it is a newcomer without one.
func (s *Server) person(c *gin.Context) store.Person {
	if s.house != nil {
		return s.account(c).Person
	}
	if p, known := c.Get(whoAsks); known {
		return p.(store.Person)
	}
	key := secret(c)
	if key == "" {
		return store.Person{}
	}
	p, err := s.store.PersonBy(c.Request.Context(), key)
	if err != nil {
		return store.Person{}
	}
	c.Set(whoAsks, p)
	return p
}

// whoAsks is where a request keeps whom it comes from, once that was looked up.
const whoAsks = "who asks"

// author is who is asking, and an error if they have no name yet.
func (s *Server) author(c *gin.Context) (string, error) {
	p := s.person(c)
	if p.ID == "" {
		return "", &refusal{http.StatusUnauthorized, fmt.Errorf("say who you are first: changes carry a name")}
	}
	return p.ID, nil
}

// named lets nobody through who has no name.
func (s *Server) named(c *gin.Context) bool {
	if _, err := s.author(c); err != nil {
		fail(c, err)
		return false
	}
	return true
}

func (s *Server) me(c *gin.Context) {
	w := s.who(c)
	if w.ID == "" && s.house == nil {
		w.Person = s.comeBack(c)
	}
	c.JSON(http.StatusOK, w)
}

// comeBack gives a secret to who is known by their id only, from before there were any: once, from then on the id opens nothing.
func (s *Server) comeBack(c *gin.Context) store.Person {
	id, err := c.Cookie(idCookie)
	if err != nil || id == "" || len(id) > 64 {
		return store.Person{}
	}
	p, err := s.store.PersonWithoutKey(c.Request.Context(), id)
	if err != nil {
		return store.Person{}
	}
	key := store.NewSecret()
	if err := s.store.PutPerson(c.Request.Context(), p, key); err != nil {
		return store.Person{}
	}
	remember(c, key)
	return p
}

func (s *Server) setMe(c *gin.Context) {
	name, ok := newName(c, "your name")
	if !ok {
		return
	}
	p, key := s.person(c), secret(c)
	if s.house != nil {
		s.rename(c, p, name)
		return
	}
	if p.ID == "" {
		p.ID, key = project.NewID()+project.NewID(), store.NewSecret()
	}
	p.Name = name
	if err := s.store.PutPerson(c.Request.Context(), p, key); err != nil {
		fail(c, err)
		return
	}
	remember(c, key)
	c.JSON(http.StatusOK, Who{Person: p})
}

// rename gives an account another name, which nobody else has.
func (s *Server) rename(c *gin.Context, p store.Person, name string) {
	err := s.store.RenameAccount(c.Request.Context(), p.ID, name)
	if errors.Is(err, store.ErrTaken) {
		err = refuse(err)
	}
	if err == nil {
		s.notes(c, "", "changed their name", p.Name+" to "+name)
		c.Set(accountHere, s.signedIn(c))
	}
	answer(c, s.who(c), err)
}

// remember lets the browser keep a secret, out of reach of scripts and of other sites.
func remember(c *gin.Context, key string) {
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie(keyCookie, key, 10*365*24*3600, "/", "", false, true)
	c.SetCookie(idCookie, "", -1, "/", "", false, true)
}
