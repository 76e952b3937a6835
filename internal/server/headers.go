package server

import (
	"errors"
	"net"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
)

// policy is where what the page shows and runs may come from: from here, and from nowhere else. Styles in attributes are set by
// the page's own script, which no policy stands against.
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; img-src 'self' data:;" +
	" worker-src 'self' blob:; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"

// headers lets shared memory work in the page, and refuses names that are not this machine's own: who has such a name point here
// has a page of theirs speak for whoever opens it (DNS rebinding).
func (s *Server) headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Embedder-Policy", "require-corp")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Content-Security-Policy", policy)
	h.Set("Referrer-Policy", "same-origin")
	host := hostOf(c.Request)
	if s.house != nil && host != "localhost" { // what holds for a host holds for all of its ports
		h.Set("Strict-Transport-Security", "max-age=31536000")
	}
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store") // where it may be kept, what answers says so
	}
	if !s.known(host) {
		fail(c, &refusal{http.StatusForbidden, errors.New("this machine is not known by the name " + short(host, 100) +
			": use the address that Shoal gave when it was started")})
		return
	}
	if !s.sameOrigin(c) {
		fail(c, &refusal{http.StatusForbidden, errors.New("this was asked by a page of another site")})
		return
	}
	c.Next()
	route := c.FullPath()
	if route == "" {
		route = "site"
	}
	s.count.WithLabelValues(route, http.StatusText(c.Writer.Status())).Inc()
}

func hostOf(r *http.Request) string {
	host := r.Host
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	return strings.ToLower(strings.Trim(host, "[]"))
}

// known reports whether a name or an address is one of this machine's.
func (s *Server) known(host string) bool {
	if s.house != nil {
		return s.house.Covers(host)
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback()
}

// sameOrigin reports whether a request that may change something comes from a page of this Shoal's, or from no page at all.
func (s *Server) sameOrigin(c *gin.Context) bool {
	live := strings.EqualFold(c.GetHeader("Upgrade"), "websocket")
	if c.Request.Method == http.MethodGet && !live {
		return true
	}
	if site := c.GetHeader("Sec-Fetch-Site"); site == "cross-site" || site == "same-site" {
		return false
	}
	switch c.GetHeader("Origin") {
	case "", "https://" + c.Request.Host:
		return true
	case "http://" + c.Request.Host:
		return s.house == nil
	}
	return false
}

// authorityPath is where the certificate of Shoal's own authority is fetched, to be trusted.
const authorityPath = "/shoal-authority.crt"

func (s *Server) authority(c *gin.Context) {
	if s.house == nil || s.house.Authority == nil {
		fail(c, &refusal{http.StatusNotFound, errors.New("there is no authority of this Shoal's own")})
		return
	}
	c.Header("Content-Disposition", disposition("shoal-authority.crt"))
	c.Data(http.StatusOK, "application/x-x509-ca-cert", s.house.Authority)
}

// keepersOnly lets only who keeps this Shoal through, where there are accounts.
func (s *Server) keepersOnly(c *gin.Context) {
	if s.house != nil && !s.account(c).Keeper {
		fail(c, &refusal{http.StatusForbidden, errors.New("only who keeps this Shoal sees this")})
	}
}
