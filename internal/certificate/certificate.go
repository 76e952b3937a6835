// Package certificate gives a Shoal that others reach over the network what its machine is known by: a certificate that was given
// as files, or one of its own making, which an authority of its own vouches for.
package certificate

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"strings"
	"time"
)

// How long an authority and a certificate hold, and how long before its end a certificate is made anew. Systems do not take one
// that holds for more than 825 days.
const (
	authorityHolds   = 20 * 365 * 24 * time.Hour
	certificateHolds = 800 * 24 * time.Hour
	renewBefore      = 60 * 24 * time.Hour
)

// Machine is what this machine is known by.
type Machine struct {
	TLS tls.Certificate
	// Authority is the certificate of Shoal's own authority, as PEM, to be trusted by others; nil where a certificate was given.
	Authority []byte
}

// FromFiles takes a certificate and its key from files (PEM).
func FromFiles(certFile, keyFile string) (*Machine, error) {
	c, err := tls.LoadX509KeyPair(certFile, keyFile)
	if err != nil {
		return nil, fmt.Errorf("take the certificate %s with the key %s: %w", certFile, keyFile, err)
	}
	if time.Now().After(c.Leaf.NotAfter) {
		return nil, fmt.Errorf("the certificate %s held until %s: take another", certFile, c.Leaf.NotAfter.Format(time.DateOnly))
	}
	return &Machine{TLS: c}, nil
}

// Own gives the certificate of Shoal's own authority for some names and addresses, both kept in a folder: they are made where they
// are not there, and the certificate anew where it comes to its end or lacks one of the names.
func Own(dir string, names []string) (*Machine, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make a folder for certificates: %w", err)
	}
	authority, err := kept(dir, "authority")
	if errors.Is(err, fs.ErrNotExist) {
		authority, err = issue(dir, "authority", authorityOf(names), nil)
	}
	if err != nil {
		return nil, err
	}
	c, err := kept(dir, "machine")
	if err == nil && (time.Until(c.Leaf.NotAfter) < renewBefore || !covers(c.Leaf, names) ||
		c.Leaf.CheckSignatureFrom(authority.Leaf) != nil) {
		err = fs.ErrNotExist
	}
	if errors.Is(err, fs.ErrNotExist) {
		c, err = issue(dir, "machine", machineOf(names), &authority)
	}
	if err != nil {
		return nil, err
	}
	return &Machine{TLS: c, Authority: written("CERTIFICATE", authority.Leaf.Raw)}, nil
}

// Covers reports whether the machine is known by a name or an address.
func (m *Machine) Covers(name string) bool { return m.TLS.Leaf.VerifyHostname(name) == nil }

// Fingerprint is the SHA-256 of what others are asked to trust, in pairs of digits.
func (m *Machine) Fingerprint() string {
	raw := m.TLS.Leaf.Raw
	if b, _ := pem.Decode(m.Authority); b != nil {
		raw = b.Bytes
	}
	return strings.ToUpper(strings.ReplaceAll(fmt.Sprintf("% x", sha256.Sum256(raw)), " ", ":"))
}

// Names are the names and addresses by which this machine is reached, by what it knows of itself.
func Names() []string {
	list := []string{"localhost"}
	if name, err := os.Hostname(); err == nil && name != "" && name != "localhost" {
		list = append(list, strings.ToLower(name))
		if !strings.Contains(name, ".") {
			list = append(list, strings.ToLower(name)+".local")
		}
	}
	addresses, _ := net.InterfaceAddrs() // without them the names have to do
	for _, a := range addresses {
		if n, ok := a.(*net.IPNet); ok && !n.IP.IsLinkLocalUnicast() {
			list = append(list, n.IP.String())
		}
	}
	return list
}

func covers(c *x509.Certificate, names []string) bool {
	for _, n := range names {
		if c.VerifyHostname(n) != nil {
			return false
		}
	}
	return true
}

func authorityOf(names []string) *x509.Certificate {
	return &x509.Certificate{
		Subject:  pkix.Name{CommonName: "Shoal's own authority on " + names[min(1, len(names)-1)]},
		NotAfter: time.Now().Add(authorityHolds), IsCA: true, MaxPathLenZero: true, BasicConstraintsValid: true,
		KeyUsage: x509.KeyUsageCertSign,
	}
}

func machineOf(names []string) *x509.Certificate {
	c := &x509.Certificate{
		Subject: pkix.Name{CommonName: "Shoal"}, NotAfter: time.Now().Add(certificateHolds), BasicConstraintsValid: true,
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	for _, n := range names {
		if ip := net.ParseIP(n); ip != nil {
			c.IPAddresses = append(c.IPAddresses, ip)
		} else {
			c.DNSNames = append(c.DNSNames, n)
		}
	}
	return c
}

// issue makes a certificate that by signs (nil: it signs itself) and keeps it with its key.
func issue(dir, name string, c *x509.Certificate, by *tls.Certificate) (tls.Certificate, error) {
	fail := func(err error) (tls.Certificate, error) {
		return tls.Certificate{}, fmt.Errorf("make the certificate of this %s: %w", name, err)
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return fail(err)
	}
	if c.SerialNumber, err = rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 127)); err != nil {
		return fail(err)
	}
	c.NotBefore = time.Now().Add(-24 * time.Hour) // clocks differ
	parent, signer := c, any(key)
	if by != nil {
		parent, signer = by.Leaf, by.PrivateKey
	}
	raw, err := x509.CreateCertificate(rand.Reader, c, parent, key.Public(), signer)
	if err != nil {
		return fail(err)
	}
	secret, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return fail(err)
	}
	// the key first: a certificate without its key would be taken for one
	if err := os.WriteFile(filepath.Join(dir, name+".key"), written("PRIVATE KEY", secret), 0o600); err != nil {
		return fail(err)
	}
	if err := os.WriteFile(filepath.Join(dir, name+".pem"), written("CERTIFICATE", raw), 0o600); err != nil {
		return fail(err)
	}
	return kept(dir, name)
}

func written(kind string, b []byte) []byte {
	return pem.EncodeToMemory(&pem.Block{Type: kind, Bytes: b})
}

func kept(dir, name string) (tls.Certificate, error) {
	c, err := tls.LoadX509KeyPair(filepath.Join(dir, name+".pem"), filepath.Join(dir, name+".key"))
	if err != nil {
		return c, fmt.Errorf("read the certificate of this %s: %w", name, err)
	}
	return c, nil
}
