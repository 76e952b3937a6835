package main

import (
	"context"
	"crypto/tls"
	_ "embed"
	"errors"
	"fmt"
	"html/template"
	"io"
	"net"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"shoal/internal/certificate"
	"shoal/internal/server"
	"shoal/internal/store"
)

// network is what is said of a Shoal that others reach.
type network struct {
	certFile, keyFile string
	names             []string
}

// onLoopback reports whether an address is this machine's own only.
func onLoopback(addr string) (bool, error) {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return false, fmt.Errorf("address %q: %w", addr, err)
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback(), nil
}

// machine is what the machine is known by: what was given as files, or of Shoal's own making.
func (n network) machine(data, addr string) (*certificate.Machine, error) {
	if (n.certFile == "") != (n.keyFile == "") {
		return nil, fmt.Errorf("a certificate comes with its key: give --cert FILE and --key FILE, or neither")
	}
	if n.certFile != "" {
		return certificate.FromFiles(n.certFile, n.keyFile)
	}
	names := append(certificate.Names(), n.names...)
	if host, _, err := net.SplitHostPort(addr); err == nil && host != "" && !net.ParseIP(host).IsUnspecified() {
		names = append(names, strings.ToLower(host))
	}
	return certificate.Own(filepath.Join(data, "certificates"), names)
}

// reached is the address that others are told.
func reached(m *certificate.Machine, l net.Listener) string {
	_, port, _ := net.SplitHostPort(l.Addr().String())
	leaf := m.TLS.Leaf
	for _, ip := range leaf.IPAddresses {
		if !ip.IsLoopback() {
			return "https://" + net.JoinHostPort(ip.String(), port)
		}
	}
	for _, name := range leaf.DNSNames {
		if name != "localhost" {
			return "https://" + net.JoinHostPort(strings.TrimPrefix(name, "*."), port)
		}
	}
	return "https://" + net.JoinHostPort("localhost", port)
}

// open lets others in, and says what they need: where Shoal is, what to trust, and the link that makes the first account.
func open(ctx context.Context, out io.Writer, srv *server.Server, st *store.Store, m *certificate.Machine, at string) error {
	h := server.House{Covers: m.Covers, Authority: m.Authority}
	if err := srv.OpenTo(ctx, h); err != nil {
		return fmt.Errorf("let others in: %w", err)
	}
	if m.Authority != nil {
		fmt.Fprintf(out, "Others open http%s first: it shows them how to trust this machine. Its authority is\n  %s\n",
			strings.TrimPrefix(at, "https"), m.Fingerprint())
	}
	first, err := server.FirstLink(ctx, st)
	if err != nil {
		return fmt.Errorf("make the first link: %w", err)
	}
	if first != "" {
		fmt.Fprintf(out, "There is no account yet. This link makes the first one, once, within an hour:\n  %s%s\n", at, first)
	}
	return nil
}

// split gives what is TLS to one server and all else to another, by the first byte of a connection: both are at one address.
type split struct {
	net.Listener
	tls, plain queue
	room       chan struct{}
	mu         sync.Mutex
	from       map[string]int // how many are open, by address
}

// queue is a listener whose connections come from elsewhere.
type queue struct {
	net.Listener
	conns chan net.Conn
	done  chan struct{}
}

func (q queue) Accept() (net.Conn, error) {
	select {
	case c := <-q.conns:
		return c, nil
	case <-q.done:
		return nil, net.ErrClosed
	}
}

func (q queue) give(c net.Conn) {
	select {
	case q.conns <- c:
	case <-q.done:
		_ = c.Close()
	}
}

// How many connections are open at once, and of them from one address: who comes when there is no room waits, and one address
// that wants more than its share is hung up on.
const (
	mostConnections = 1024
	mostFromOne     = 256
)

// firstByte is how long a new connection may say nothing.
const firstByte = 10 * time.Second

func newSplit(l net.Listener) *split {
	done := make(chan struct{})
	return &split{
		Listener: l, tls: queue{l, make(chan net.Conn), done}, plain: queue{l, make(chan net.Conn), done},
		room: make(chan struct{}, mostConnections), from: map[string]int{},
	}
}

// run takes connections in until the listener ends.
func (s *split) run() {
	defer close(s.tls.done)
	for {
		s.room <- struct{}{}
		c, err := s.Accept()
		if errors.Is(err, net.ErrClosed) {
			return
		}
		if err != nil { // such as no more files: it passes
			<-s.room
			time.Sleep(50 * time.Millisecond)
			continue
		}
		if x := s.count(c); x != nil {
			go s.sort(x)
		}
	}
}

// count takes a connection in, or (nil) hangs up on it.
func (s *split) count(c net.Conn) *counted {
	address, _, err := net.SplitHostPort(c.RemoteAddr().String())
	if err != nil {
		address = c.RemoteAddr().String()
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.from[address] >= mostFromOne {
		<-s.room
		_ = c.Close()
		return nil
	}
	s.from[address]++
	return &counted{Conn: c, gone: func() {
		<-s.room
		s.mu.Lock()
		defer s.mu.Unlock()
		if s.from[address]--; s.from[address] == 0 {
			delete(s.from, address)
		}
	}}
}

func (s *split) sort(c *counted) {
	_ = c.SetReadDeadline(time.Now().Add(firstByte))
	var b [1]byte
	if _, err := io.ReadFull(c.Conn, b[:]); err != nil {
		_ = c.Close()
		return
	}
	_ = c.SetReadDeadline(time.Time{})
	c.first, c.has = b[0], true
	if b[0] == handshake {
		s.tls.give(c)
	} else {
		s.plain.give(c)
	}
}

// handshake is the type of the first record of TLS (RFC 8446, 5.1).
const handshake = 22

// counted is a connection that gives its room back, and whose first byte was read already.
type counted struct {
	net.Conn
	gone  func()
	first byte
	has   bool
	once  sync.Once
}

func (c *counted) Close() error {
	c.once.Do(c.gone)
	return c.Conn.Close()
}

func (c *counted) Read(p []byte) (int, error) {
	if !c.has || len(p) == 0 {
		return c.Conn.Read(p)
	}
	p[0], c.has = c.first, false
	return 1, nil
}

//go:embed way.html
var wayPage string

var way = template.Must(template.New("way").Parse(wayPage))

// wayIn answers over plain HTTP with the way to HTTPS, and with nothing else.
func wayIn(m *certificate.Machine, at string) http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /shoal-authority.crt", func(w http.ResponseWriter, r *http.Request) {
		if m.Authority == nil {
			http.NotFound(w, r)
			return
		}
		w.Header().Set("Content-Type", "application/x-x509-ca-cert")
		w.Header().Set("Content-Disposition", `attachment; filename="shoal-authority.crt"`)
		_, _ = w.Write(m.Authority)
	})
	mux.HandleFunc("/", func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'none'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Content-Type", "text/html; charset=utf-8")
		to := at
		if host, _, err := net.SplitHostPort(r.Host); err == nil && m.Covers(host) {
			to = "https://" + r.Host
		}
		if m.Authority == nil && (r.Method == http.MethodGet || r.Method == http.MethodHead) {
			http.Redirect(w, r, to+r.URL.RequestURI(), http.StatusPermanentRedirect)
			return
		}
		if r.URL.Path != "/" {
			w.WriteHeader(http.StatusUpgradeRequired)
		}
		_ = way.Execute(w, map[string]any{"At": to, "Fingerprint": m.Fingerprint(), "Own": m.Authority != nil})
	})
	return mux
}

// overTLS makes a listener of TLS.
func overTLS(l net.Listener, m *certificate.Machine) net.Listener {
	return tls.NewListener(l, &tls.Config{
		MinVersion: tls.VersionTLS12, Certificates: []tls.Certificate{m.TLS}, NextProtos: []string{"http/1.1"},
	})
}
