package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/store"
)

type inAccount struct {
	Person string `path:"person"`
}

// Listing is an account in the list of all.
type Listing struct {
	store.Person
	Keeper  bool   `json:"keeper" required:"true"`
	Created string `json:"created" required:"true"`
	Closed  string `json:"closed" required:"true"` // since when; empty: it is open
}

// HandedOver is a link for somebody to hand over: it is shown this once.
type HandedOver struct {
	// Path is what comes behind the address of this Shoal. What opens is behind its #, which no server is sent.
	Path  string `json:"path" required:"true"`
	Until string `json:"until" required:"true"`
}

func lowered(name string) string { return strings.ToLower(strings.TrimSpace(project.ShortName(name))) }

func (s *Server) accounts(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	all, err := s.store.Accounts(c.Request.Context())
	list := make([]Listing, 0, len(all))
	for _, a := range all {
		list = append(list, Listing{a.Person, a.Keeper, a.Created, a.Closed})
	}
	answer(c, list, err)
}

// welcome is where a link leads.
const welcome = "/welcome#"

// handOver keeps a link and gives it to be handed over.
func handOver(ctx context.Context, st *store.Store, l store.Link) (HandedOver, error) {
	key := store.NewSecret()
	l.ID = project.NewID() + project.NewID()
	if err := st.AddLink(ctx, key, l); err != nil {
		return HandedOver{}, fmt.Errorf("make a link: %w", err)
	}
	return HandedOver{welcome + key, l.Until.UTC().Format(time.RFC3339)}, nil
}

// FirstLink gives the link that makes the first account, and takes back those that were given before; empty: there is one already.
func FirstLink(ctx context.Context, st *store.Store) (string, error) {
	all, err := st.Accounts(ctx)
	if err != nil || len(all) > 0 {
		return "", err
	}
	if err := st.EndLinksOf(ctx, crew.First, ""); err != nil {
		return "", err
	}
	h, err := handOver(ctx, st, store.Link{Link: crew.Link{Kind: crew.First, Uses: 1, Until: time.Now().Add(crew.FirstHolds)}})
	return h.Path, err
}

// ResetLink gives the link with which whoever has an account of a name chooses another password: for who keeps the machine.
func ResetLink(ctx context.Context, st *store.Store, name string) (string, error) {
	a, err := st.AccountCalled(ctx, name)
	if errors.Is(err, store.ErrNone) {
		return "", fmt.Errorf("there is no account called %q", name)
	}
	if err != nil {
		return "", err
	}
	h, err := resetOf(ctx, st, a, store.Person{})
	return h.Path, err
}

func resetOf(ctx context.Context, st *store.Store, a store.Account, by store.Person) (HandedOver, error) {
	if err := st.EndLinksOf(ctx, crew.Reset, a.ID); err != nil {
		return HandedOver{}, err
	}
	l := crew.Link{Kind: crew.Reset, Uses: 1, Until: time.Now().Add(crew.ResetHolds)}
	return handOver(ctx, st, store.Link{Link: l, Person: a.ID, By: by})
}

func (s *Server) accountLink(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	l := crew.Link{Kind: crew.Account, Uses: 1, Until: time.Now().Add(crew.AccountHolds)}
	h, err := handOver(c.Request.Context(), s.store, store.Link{Link: l, By: s.person(c)})
	s.notes(c, "", "made a link", "for an account")
	answer(c, h, err)
}

func (s *Server) resetLink(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	a, err := s.store.Account(c.Request.Context(), c.Param("person"))
	if err != nil {
		fail(c, err)
		return
	}
	h, err := resetOf(c.Request.Context(), s.store, a, s.person(c))
	s.notes(c, "", "made a link", "for another password of "+a.Name)
	answer(c, h, err)
}

func (s *Server) closeAccount(c *gin.Context) { s.setClosed(c, true) }

func (s *Server) openAccount(c *gin.Context) { s.setClosed(c, false) }

func (s *Server) setClosed(c *gin.Context, closed bool) {
	if !s.withAccounts(c) {
		return
	}
	person := c.Param("person")
	if closed && person == s.person(c).ID {
		fail(c, refuse(errors.New("this is your own account, and somebody has to keep this Shoal")))
		return
	}
	if err := s.store.CloseAccount(c.Request.Context(), person, closed); err != nil {
		fail(c, err)
		return
	}
	a, err := s.store.Account(c.Request.Context(), person)
	if closed {
		s.notes(c, "", "closed an account", a.Name)
		s.hub.dismiss("", person, "your account was closed: ask who keeps this Shoal")
	} else {
		s.notes(c, "", "opened an account again", a.Name)
	}
	answer(c, Health{true}, err)
}

// actsPage is how many entries of the record are given at once.
const actsPage = 100

func (s *Server) acts(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	before, err := strconv.ParseInt(c.DefaultQuery("before", "0"), 10, 64)
	if err != nil || before < 0 {
		fail(c, &refusal{http.StatusUnprocessableEntity, errors.New("before must be the number of an entry")})
		return
	}
	list, err := s.store.Acts(c.Request.Context(), before, actsPage)
	answer(c, list, err)
}
