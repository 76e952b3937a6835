package server

import (
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/store"
)

// LinkKey is what a link opens with.
type LinkKey struct {
	Key string `json:"key" required:"true"`
}

// LinkSays says what a link opens.
type LinkSays struct {
	Kind    string `json:"kind" required:"true" enum:"first,account,reset,join"`
	Role    string `json:"role,omitempty"`    // that one is given
	Project string `json:"project,omitempty"` // its name
	By      string `json:"by,omitempty"`      // who gave it
	For     string `json:"for,omitempty"`     // whose password it resets
	Until   string `json:"until" required:"true"`
}

// TakeLink takes what a link opens: a name and a password where an account is made by it, or a password set.
type TakeLink struct {
	LinkKey
	Name     string `json:"name,omitempty"`
	Password string `json:"password,omitempty"`
}

// TakenLink says who one is now, and into which project one came.
type TakenLink struct {
	Who
	Project string `json:"project,omitempty"` // its id
}

// link reads a key and finds its link, which holds; false: it has been answered.
func (s *Server) link(c *gin.Context, key string) (store.Link, bool) {
	if !s.house.tries.allow("links "+addressOf(c), linksEvery, linksAtOnce) {
		fail(c, &refusal{http.StatusTooManyRequests, errors.New(tooManyTries)})
		return store.Link{}, false
	}
	l, err := s.store.LinkBy(c.Request.Context(), key)
	if errors.Is(err, store.ErrNone) {
		s.notes(c, "", "refused", "a link that there is not")
		err = &refusal{http.StatusNotFound, errors.New("there is no such link: was all of it copied?")}
	}
	if err == nil {
		if no := l.Holds(time.Now()); no != nil {
			err = &refusal{http.StatusGone, no}
		}
	}
	if err != nil {
		fail(c, err)
		return store.Link{}, false
	}
	return l, true
}

func (s *Server) lookAtLink(c *gin.Context) {
	var k LinkKey
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &k); err != nil {
		fail(c, err)
		return
	}
	l, ok := s.link(c, k.Key)
	if !ok {
		return
	}
	says := LinkSays{Kind: string(l.Kind), Role: string(l.Role), By: l.By.Name, Until: l.Until.UTC().Format(time.RFC3339)}
	if l.Kind == crew.Join {
		doc, _, err := s.desk.Document(c.Request.Context(), l.Project)
		if err != nil {
			fail(c, err)
			return
		}
		says.Project = doc.Name
	}
	if l.Kind == crew.Reset {
		p, err := s.store.Person(c.Request.Context(), l.Person)
		if err != nil {
			fail(c, err)
			return
		}
		says.For = p.Name
	}
	c.JSON(http.StatusOK, says)
}

func (s *Server) takeLink(c *gin.Context) {
	var in TakeLink
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &in); err != nil {
		fail(c, err)
		return
	}
	l, ok := s.link(c, in.Key)
	if !ok {
		return
	}
	a, err := s.opens(c, l, in)
	if err != nil {
		fail(c, err)
		return
	}
	if l.Kind == crew.First {
		if err := s.store.AdoptProjects(c.Request.Context()); err != nil {
			fail(c, err)
			return
		}
	}
	if s.account(c).ID != a.ID || l.Kind == crew.Reset { // which has ended what was signed in
		if err := s.begin(c, a); err != nil {
			fail(c, err)
			return
		}
	}
	s.notes(c, l.Project, "took a link", string(l.Kind)+" "+string(l.Role))
	if l.Kind == crew.Join {
		s.hub.send(l.Project, Message{Crew: true})
	}
	c.JSON(http.StatusOK, TakenLink{s.who(c), l.Project})
}

// opens does what a link is for, and gives whose account it was done for.
func (s *Server) opens(c *gin.Context, l store.Link, in TakeLink) (store.Account, error) {
	ctx := c.Request.Context()
	a, t := s.account(c), store.Taking{Link: l}
	switch {
	case l.Kind == crew.Reset:
		var err error
		if a, err = s.store.Account(ctx, l.Person); err != nil {
			return a, err
		}
		if err := crew.CheckPassword(a.Name, in.Password); err != nil {
			return a, refuse(err)
		}
		t.Reset = crew.HashPassword(in.Password)
	case l.Kind != crew.Join || a.ID == "":
		made, err := newAccount(in, l.Kind == crew.First)
		if err != nil {
			return a, refuse(err)
		}
		a, t.Account = made, &made
	}
	if l.Kind == crew.Join {
		t.Joins = a.ID
		has, _, err := s.store.Standing(ctx, l.Project, a.ID)
		if err != nil {
			return a, err
		}
		if crew.Role(has).Covers(l.Role) && has != "" {
			return a, nil // a link takes nobody's role away, and is not used up by who is there already
		}
	}
	err := s.store.TakeLink(ctx, t)
	switch {
	case errors.Is(err, store.ErrNone):
		err = &refusal{http.StatusGone, errors.New("this link was used by somebody else a moment ago: ask for another")}
	case errors.Is(err, store.ErrTaken):
		err = refuse(err)
	}
	return a, err
}

func newAccount(in TakeLink, keeper bool) (store.Account, error) {
	name, err := project.CleanName("your name", in.Name)
	if err != nil {
		return store.Account{}, err
	}
	if err := crew.CheckPassword(name, in.Password); err != nil {
		return store.Account{}, err
	}
	p := store.Person{ID: project.NewID() + project.NewID(), Name: name}
	return store.Account{Person: p, Password: crew.HashPassword(in.Password), Keeper: keeper}, nil
}

// Invite asks for a link into a project.
type Invite struct {
	Role  string `json:"role" required:"true" enum:"listener,engineer,owner"`
	Uses  int    `json:"uses" required:"true"`  // how often it can be used; 0: as often as wanted
	Hours int    `json:"hours" required:"true"` // how long it holds
}

func (s *Server) invite(c *gin.Context) {
	var in Invite
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &in); err != nil {
		fail(c, err)
		return
	}
	now := time.Now()
	hours := time.Duration(min(max(in.Hours, 0), 1<<16))
	l := crew.Link{Kind: crew.Join, Role: crew.Role(in.Role), Uses: in.Uses, Until: now.Add(hours * time.Hour)}
	if err := l.Check(now); err != nil {
		fail(c, refuse(err))
		return
	}
	h, err := handOver(c.Request.Context(), s.store, store.Link{Link: l, Project: c.Param("id"), By: s.person(c)})
	s.notes(c, c.Param("id"), "made a link", fmt.Sprintf("%s, %d times, %d hours", in.Role, in.Uses, in.Hours))
	answer(c, h, err)
}

func (s *Server) endInvite(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	err := s.store.EndLink(c.Request.Context(), c.Param("id"), c.Param("link"))
	s.notes(c, c.Param("id"), "took a link back", "")
	answer(c, Health{true}, err)
}
