package certificate

import (
	"crypto/tls"
	"crypto/x509"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Who trusts the authority is let in by every name that the machine has, and by no other.
func TestWhoTrustsTheAuthorityIsLetIn(t *testing.T) {
	dir := t.TempDir()
	m, err := Own(dir, []string{"localhost", "studio.local", "127.0.0.1", "192.0.2.7"})
	require.NoError(t, err)
	for _, name := range []string{"localhost", "studio.local", "192.0.2.7"} {
		require.True(t, m.Covers(name), name)
	}
	require.False(t, m.Covers("rebound.example"))
	require.False(t, m.Covers("192.0.2.8"))
	require.Len(t, m.Fingerprint(), 95)

	s := httptest.NewUnstartedServer(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusNoContent) }))
	s.TLS = &tls.Config{Certificates: []tls.Certificate{m.TLS}}
	s.StartTLS()
	defer s.Close()
	ask := func(roots *x509.CertPool, name string) error {
		c := http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots, ServerName: name}}, Timeout: 5 * time.Second}
		a, err := c.Get(s.URL)
		if err == nil {
			_ = a.Body.Close()
		}
		return err
	}
	trusting := x509.NewCertPool()
	require.True(t, trusting.AppendCertsFromPEM(m.Authority))
	require.NoError(t, ask(trusting, "studio.local"))
	require.Error(t, ask(trusting, "rebound.example"))
	require.Error(t, ask(x509.NewCertPool(), "studio.local"))
}

// What was made is kept, for its user only; the certificate is made anew where it lacks a name, and the authority stays.
func TestWhatWasMadeIsKept(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "certificates")
	a, err := Own(dir, []string{"localhost"})
	require.NoError(t, err)
	b, err := Own(dir, []string{"localhost"})
	require.NoError(t, err)
	require.Equal(t, a.TLS.Leaf.Raw, b.TLS.Leaf.Raw)
	c, err := Own(dir, []string{"localhost", "192.0.2.9"})
	require.NoError(t, err)
	require.Equal(t, a.Fingerprint(), c.Fingerprint(), "nobody has to trust anything anew")
	require.NotEqual(t, a.TLS.Leaf.Raw, c.TLS.Leaf.Raw)
	require.True(t, c.Covers("192.0.2.9"))
	for _, name := range []string{"authority.key", "machine.key"} {
		info, err := os.Stat(filepath.Join(dir, name))
		require.NoError(t, err)
		require.Equal(t, os.FileMode(0o600), info.Mode().Perm(), name)
	}
	require.NoError(t, os.WriteFile(filepath.Join(dir, "authority.pem"), []byte("no certificate"), 0o600))
	_, err = Own(dir, []string{"localhost"})
	require.ErrorContains(t, err, "authority")
}

func TestACertificateIsTakenFromFiles(t *testing.T) {
	dir := t.TempDir()
	_, err := Own(dir, []string{"studio.example"})
	require.NoError(t, err)
	m, err := FromFiles(filepath.Join(dir, "machine.pem"), filepath.Join(dir, "machine.key"))
	require.NoError(t, err)
	require.Nil(t, m.Authority, "who gave it is trusted already")
	require.True(t, m.Covers("studio.example"))
	_, err = FromFiles(filepath.Join(dir, "machine.pem"), filepath.Join(dir, "authority.key"))
	require.ErrorContains(t, err, "machine.pem")
	names := Names()
	require.Contains(t, names, "localhost")
	require.Contains(t, names, "127.0.0.1")
	for _, n := range names {
		require.Equal(t, strings.ToLower(n), n)
		require.True(t, net.ParseIP(n) != nil || !strings.Contains(n, ":"))
	}
}
