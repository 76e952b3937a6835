package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/store"
)

// Who is who asks, and what there is to be known of this Shoal by them.
type Who struct {
	store.Person
	Accounts bool `json:"accounts" required:"true"` // there are accounts: who has no name signs in
	Keeper   bool `json:"keeper" required:"true"`   // they keep this Shoal
}

// SignIn is what somebody signs in with.
type SignIn struct {
	Name     string `json:"name" required:"true"`
	Password string `json:"password" required:"true"`
}

// NewPassword changes one's own password.
type NewPassword struct {
	Old string `json:"old" required:"true"`
	New string `json:"new" required:"true"`
}

// ofPeople are the operations of signing in and of accounts.
func ofPeople() []route {
	return []route{
		{"GET", "/api/me", "Who is asking.", (*Server).me, nil, Who{}},
		{"PUT", "/api/me", "Give or change one's name.", (*Server).setMe, NewName{}, Who{}},
		{"POST", "/api/session", "Sign in.", (*Server).signIn, SignIn{}, Who{}},
		{"DELETE", "/api/session", "Sign out.", (*Server).signOut, nil, Health{}},
		{"GET", "/api/sessions", "Where one is signed in.", (*Server).sessions, nil, []store.Session{}},
		{"DELETE", "/api/sessions/:session", "Sign out somewhere else.", (*Server).endSession, struct {
			Session string `path:"session"`
		}{}, Health{}},
		{"PUT", "/api/password", "Change one's password: all other sign-ins end.", (*Server).setPassword, NewPassword{}, Health{}},
		{"GET", "/api/accounts", "All accounts.", (*Server).accounts, nil, []Listing{}},
		{"POST", "/api/accounts/links", "Make a link with which somebody makes an account.", (*Server).accountLink, nil, HandedOver{}},
		{"POST", "/api/accounts/:person/reset", "Make a link with which somebody chooses another password.", (*Server).resetLink,
			inAccount{}, HandedOver{}},
		{"DELETE", "/api/accounts/:person", "Close an account: nobody signs in to it.", (*Server).closeAccount, inAccount{}, Health{}},
		{"POST", "/api/accounts/:person/restore", "Open a closed account again.", (*Server).openAccount, inAccount{}, Health{}},
		{"GET", "/api/acts", "What was done: sign-ins, refusals, roles, exports; the newest first.", (*Server).acts, struct {
			Before int64 `query:"before"`
		}{}, []store.Act{}},
		{"POST", "/api/links/look", "What a link opens.", (*Server).lookAtLink, LinkKey{}, LinkSays{}},
		{"POST", "/api/links/take", "Take what a link opens.", (*Server).takeLink, TakeLink{}, TakenLink{}},
	}
}

// accountHere is where a request keeps the account that it comes from.
const accountHere = "account"

// account is the account of who asks; empty: they are not signed in.
func (s *Server) account(c *gin.Context) store.Account {
	if a, known := c.Get(accountHere); known {
		return a.(store.Account)
	}
	a := s.signedIn(c)
	c.Set(accountHere, a)
	return a
}

func (s *Server) signedIn(c *gin.Context) store.Account {
	ctx, token, err := s.session(c)
	if err != nil || token == "" {
		return store.Account{}
	}
	m := s.house.sessions
	a, err := s.store.Account(ctx, m.GetString(ctx, "person"))
	if err != nil || a.Closed != "" {
		return store.Account{}
	}
	if time.Since(time.Unix(m.GetInt64(ctx, "seen"), 0)) > seenEvery {
		m.Put(ctx, "seen", time.Now().Unix())
		if token, until, err := m.Commit(ctx); err == nil {
			m.WriteSessionCookie(ctx, c.Writer, token, until)
		}
	}
	return a
}

// session is what is kept of a sign-in, in a context, and its token.
func (s *Server) session(c *gin.Context) (context.Context, string, error) {
	token, err := c.Cookie(sessionCookie)
	if err != nil || len(token) > 128 {
		return c.Request.Context(), "", nil
	}
	ctx, err := s.house.sessions.Load(c.Request.Context(), token)
	return ctx, token, err
}

// begin signs somebody in: whoever had the browser before is signed out.
func (s *Server) begin(c *gin.Context, a store.Account) error {
	m := s.house.sessions
	ctx, token, err := s.session(c)
	if err == nil && token != "" {
		err = m.Destroy(ctx)
	}
	if err == nil {
		ctx, err = m.Load(c.Request.Context(), "")
	}
	if err != nil {
		return fmt.Errorf("begin a session: %w", err)
	}
	m.Put(ctx, "person", a.ID)
	m.Put(ctx, "seen", time.Now().Unix())
	token, until, err := m.Commit(ctx)
	if err == nil {
		err = s.store.NoteSession(ctx, token, a.ID, short(c.Request.UserAgent(), 200))
	}
	if err != nil {
		return fmt.Errorf("begin a session: %w", err)
	}
	m.WriteSessionCookie(ctx, c.Writer, token, until)
	c.Set(accountHere, a)
	return nil
}

// How often somebody may try: from one address for one account, from one address, and for one account from anywhere.
const (
	triesAtOnce, triesEvery          = 5, 10 * time.Second
	addressAtOnce, addressEvery      = 30, 2 * time.Second
	accountAtOnce, accountTriesEvery = 60, time.Minute
	linksAtOnce, linksEvery          = 20, 3 * time.Second
	wrongPassword                    = "there is no account of this name with this password"
	tooManyTries                     = "this was tried too often: wait a minute and try again"
)

// tries reports whether somebody may try to sign in once more.
func (s *Server) tries(c *gin.Context, name string) bool {
	t, address := s.house.tries, addressOf(c)
	return t.allow("address "+address, addressEvery, addressAtOnce) && t.allow("both "+address+" "+name, triesEvery, triesAtOnce) &&
		t.allow("account "+name, accountTriesEvery, accountAtOnce)
}

// withAccounts lets only through what is about accounts where there are some.
func (s *Server) withAccounts(c *gin.Context) bool {
	if s.house == nil {
		fail(c, &refusal{http.StatusNotFound, errors.New("there are no accounts here: this Shoal is for this machine only")})
	}
	return s.house != nil
}

func (s *Server) signIn(c *gin.Context) {
	var in SignIn
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &in); err != nil {
		fail(c, err)
		return
	}
	name := lowered(in.Name)
	if !s.tries(c, name) {
		s.notes(c, "", "too many tries", "to sign in as "+name)
		c.Header("Retry-After", "60")
		fail(c, &refusal{http.StatusTooManyRequests, errors.New(tooManyTries)})
		return
	}
	a, err := s.store.AccountCalled(c.Request.Context(), name)
	if err != nil && !errors.Is(err, store.ErrNone) {
		fail(c, err)
		return
	}
	if !crew.SamePassword(a.Password, in.Password) || a.Closed != "" {
		s.notes(c, "", "sign-in refused", "as "+name)
		fail(c, &refusal{http.StatusUnauthorized, errors.New(wrongPassword)})
		return
	}
	s.house.tries.forget("both " + addressOf(c) + " " + name)
	s.comesIn(c, a, "signed in")
}

// comesIn begins a session and answers with who it is.
func (s *Server) comesIn(c *gin.Context, a store.Account, what string) {
	if err := s.begin(c, a); err != nil {
		fail(c, err)
		return
	}
	s.notes(c, "", what, short(c.Request.UserAgent(), 120))
	c.JSON(http.StatusOK, s.who(c))
}

func (s *Server) who(c *gin.Context) Who {
	if s.house == nil {
		return Who{Person: s.person(c)}
	}
	a := s.account(c)
	return Who{Person: a.Person, Accounts: true, Keeper: a.Keeper}
}

func (s *Server) signOut(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	ctx, token, err := s.session(c)
	if err == nil && token != "" {
		s.notes(c, "", "signed out", "")
		err = s.house.sessions.Destroy(ctx)
	}
	c.SetSameSite(http.SameSiteLaxMode)
	c.SetCookie(sessionCookie, "", -1, "/", "", true, true)
	answer(c, Health{true}, err)
}

func (s *Server) sessions(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	_, token, err := s.session(c)
	if err != nil {
		fail(c, err)
		return
	}
	list, err := s.store.SessionsOf(c.Request.Context(), s.account(c).ID, token)
	answer(c, list, err)
}

func (s *Server) endSession(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	a := s.account(c)
	err := s.store.EndSession(c.Request.Context(), a.ID, c.Param("session"))
	if err == nil {
		s.notes(c, "", "ended a sign-in", "")
		s.hub.dismiss("", a.ID, "") // its windows show by coming back that they may
	}
	answer(c, Health{true}, err)
}

func (s *Server) setPassword(c *gin.Context) {
	var n NewPassword
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &n); err != nil {
		fail(c, err)
		return
	}
	a := s.account(c)
	if !s.tries(c, lowered(a.Name)) {
		fail(c, &refusal{http.StatusTooManyRequests, errors.New(tooManyTries)})
		return
	}
	if !crew.SamePassword(a.Password, n.Old) {
		fail(c, refuse(errors.New("your old password is another")))
		return
	}
	if err := crew.CheckPassword(a.Name, n.New); err != nil {
		fail(c, refuse(err))
		return
	}
	_, token, err := s.session(c)
	if err == nil {
		err = s.store.SetPassword(c.Request.Context(), a.ID, crew.HashPassword(n.New), token)
	}
	if err == nil {
		s.notes(c, "", "changed their password", "")
		s.hub.dismiss("", a.ID, "")
	}
	answer(c, Health{true}, err)
}
