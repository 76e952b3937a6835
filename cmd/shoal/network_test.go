package main

import (
	"bytes"
	"context"
	"crypto/tls"
	"crypto/x509"
	"io"
	"net"
	"net/http"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// heard is what a program says, while it goes on.
type heard struct {
	mu sync.Mutex
	b  bytes.Buffer
}

func (h *heard) Write(p []byte) (int, error) {
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.b.Write(p)
}

func (h *heard) String() string {
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.b.String()
}

// Beyond loopback there is HTTPS at the one address, and over plain HTTP only the way there; the first link is said, and works once.
func TestBeyondLoopbackThereIsHTTPSAndTheWayThere(t *testing.T) {
	ctx, end := context.WithCancel(t.Context())
	out, gone := &heard{}, make(chan error, 1)
	p := place{addr: "0.0.0.0:0", data: t.TempDir()}
	go func() { gone <- serve(ctx, out, p, false, false) }()
	ready := regexp.MustCompile(`ready: https://\S+:(\d+)/`)
	require.Eventually(t, func() bool { return ready.MatchString(out.String()) }, 10*time.Second, 10*time.Millisecond)
	at := "127.0.0.1:" + ready.FindStringSubmatch(out.String())[1]
	require.Contains(t, out.String(), "/welcome#")
	get := func(c *http.Client, url string) (int, string) {
		a, err := c.Get(url)
		require.NoError(t, err, url)
		defer a.Body.Close()
		b, err := io.ReadAll(a.Body)
		require.NoError(t, err)
		return a.StatusCode, string(b)
	}
	code, way := get(http.DefaultClient, "http://"+at+"/")
	require.Equal(t, http.StatusOK, code)
	require.Contains(t, way, "https://"+at)
	code, _ = get(http.DefaultClient, "http://"+at+"/api/projects")
	require.Equal(t, http.StatusUpgradeRequired, code)
	code, authority := get(http.DefaultClient, "http://"+at+"/shoal-authority.crt")
	require.Equal(t, http.StatusOK, code)
	roots := x509.NewCertPool()
	require.True(t, roots.AppendCertsFromPEM([]byte(authority)))
	safe := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}}}
	code, body := get(safe, "https://"+at+"/api/projects")
	require.Equal(t, http.StatusUnauthorized, code, body)
	code, _ = get(safe, "https://"+at+"/api/health")
	require.Equal(t, http.StatusOK, code)
	code, _ = get(safe, "https://"+at+"/metrics")
	require.Equal(t, http.StatusForbidden, code)

	// who says nothing holds nobody up
	silent, err := net.Dial("tcp", at)
	require.NoError(t, err)
	defer silent.Close()
	code, _ = get(safe, "https://"+at+"/api/health")
	require.Equal(t, http.StatusOK, code)
	end()
	require.NoError(t, <-gone)
}

func TestAddressesAreRead(t *testing.T) {
	for addr, own := range map[string]bool{
		"127.0.0.1:1": true, "localhost:1": true, "[::1]:1": true, "0.0.0.0:1": false, "192.0.2.1:1": false, ":1": false,
		"studio.local:1": false,
	} {
		is, err := onLoopback(addr)
		require.NoError(t, err)
		require.Equal(t, own, is, addr)
	}
	_, err := onLoopback("nowhere")
	require.ErrorContains(t, err, "nowhere")
	_, err = network{certFile: "x"}.machine(t.TempDir(), "0.0.0.0:1")
	require.ErrorContains(t, err, "comes with its key")
	m, err := network{names: []string{"studio.example"}}.machine(t.TempDir(), "192.0.2.3:4680")
	require.NoError(t, err)
	require.True(t, m.Covers("studio.example") && m.Covers("192.0.2.3"))
}

// Who has forgotten a password is let in by whoever keeps the machine.
func TestAPasswordIsResetOnTheMachine(t *testing.T) {
	c := resetCommand()
	c.SetArgs([]string{"Ada", "--data", t.TempDir()})
	c.SetOut(io.Discard)
	c.SetErr(io.Discard)
	require.ErrorContains(t, c.ExecuteContext(t.Context()), `no account called "Ada"`)
	require.True(t, strings.HasPrefix(c.Use, "reset"))
}

// One address that opens more connections than its share is hung up on; whoever hangs up makes room.
func TestOneAddressHasItsShareOfConnections(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	s := newSplit(l)
	go s.run()
	t.Cleanup(func() { _ = l.Close() })
	open := func() net.Conn {
		c, err := net.Dial("tcp", l.Addr().String())
		require.NoError(t, err)
		return c
	}
	var all []net.Conn
	for range mostFromOne {
		all = append(all, open())
	}
	count := func() int {
		s.mu.Lock()
		defer s.mu.Unlock()
		return s.from["127.0.0.1"]
	}
	require.Eventually(t, func() bool { return count() == mostFromOne }, 5*time.Second, time.Millisecond)
	over := open()
	_, err = over.Read(make([]byte, 1))
	require.Error(t, err, "it is hung up on")
	for _, c := range all {
		_ = c.Close()
	}
	require.Eventually(t, func() bool { return count() == 0 }, 5*time.Second, time.Millisecond)
	c := open()
	_, err = c.Write([]byte("G"))
	require.NoError(t, err)
	in, err := s.plain.Accept()
	require.NoError(t, err)
	b := make([]byte, 1)
	_, err = in.Read(b)
	require.NoError(t, err)
	require.Equal(t, "G", string(b))
	require.NoError(t, in.Close())
}
