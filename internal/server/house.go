package server

import (
	"context"
	"net/http"
	"sync"
	"time"

	"github.com/alexedwards/scs/v2"
	"golang.org/x/time/rate"

	"shoal/internal/store"
)

// House is what is needed where others come in over the network: by which names the machine is known, and what shows that it is it.
type House struct {
	// Covers reports whether the machine is known by a name or an address: no other is answered to.
	Covers func(name string) bool
	// Authority is the certificate of Shoal's own authority, as PEM; nil: whoever gave the certificate is trusted already.
	Authority []byte
}

// house is a House with who is signed in to it. A server without one is this machine's own: everything is everybody's there.
type house struct {
	House
	sessions *scs.SessionManager
	tries    *limits // of signing in and of links, by address, by account, and by both
	changes  *limits // of whatever changes something, by person
}

// How long a sign-in holds: from its last use, and at most.
const (
	idleSession    = 30 * 24 * time.Hour
	longestSession = 365 * 24 * time.Hour
	// seenEvery is how often a session in use is written anew.
	seenEvery = time.Hour
	// sessionCookie says by its name that it came over HTTPS, from this host only.
	sessionCookie = "__Host-shoal"
)

// OpenTo lets others in over the network: from now on there are accounts, and roles in projects. It comes before the first request.
func (s *Server) OpenTo(ctx context.Context, h House) error {
	m := scs.New()
	m.Store = store.Sessions{S: s.store}
	m.Lifetime, m.IdleTimeout = longestSession, idleSession
	m.Cookie.Name, m.Cookie.Secure, m.Cookie.HttpOnly = sessionCookie, true, true
	m.Cookie.SameSite, m.Cookie.Path, m.Cookie.Persist = http.SameSiteLaxMode, "/", true
	s.house = &house{House: h, sessions: m, tries: newLimits(), changes: newLimits()}
	s.desk.mayUse = s.mayUse
	return s.store.AdoptProjects(ctx)
}

// limits hold a rate for each of many names. Who has not been heard of for long is forgotten.
type limits struct {
	mu  sync.Mutex
	all map[string]*rate.Limiter
}

func newLimits() *limits { return &limits{all: map[string]*rate.Limiter{}} }

// mostNames is how many names are kept in mind before those who are at rest are forgotten.
const mostNames = 4096

// allow takes one of what a name may do: at once up to burst, then one after every while.
func (l *limits) allow(name string, every time.Duration, burst int) bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	if len(l.all) >= mostNames {
		for k, r := range l.all {
			if r.Tokens() >= float64(r.Burst()) {
				delete(l.all, k)
			}
		}
	}
	r := l.all[name]
	if r == nil {
		r = rate.NewLimiter(rate.Every(every), burst)
		l.all[name] = r
	}
	return r.Allow()
}

// forget lets a name begin anew, as after it has proved itself.
func (l *limits) forget(name string) {
	l.mu.Lock()
	defer l.mu.Unlock()
	delete(l.all, name)
}
