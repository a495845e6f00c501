// Package door lets the yard's phones in: a small certificate authority of its own, so that the server
// can be reached encrypted, and codes that pair a phone once, without a passphrase to type.
package door

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
	"math/big"
	"net"
	"net/netip"
	"os"
	"sync"
	"time"
)

// Authority signs certificates for the addresses of this machine, and can sign for nothing outside of
// private networks and those that the machine was on when it was made.
type Authority struct {
	cert  *x509.Certificate
	key   *ecdsa.PrivateKey
	clock func() time.Time

	mu     sync.Mutex
	leaves map[string]*tls.Certificate // by address or name
}

// Times that certificates hold: phones refuse leaves of more than 398 days.
const (
	authorityYears = 10
	leafDays       = 90
)

// private are the networks that an authority may always sign for.
var private = []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7",
	"fe80::/10", "::1/128"}

// Open reads the authority kept in a file, or makes one and keeps it there. One that has run out, or
// that may not sign for an address of this machine, is made anew: phones must install it again.
func Open(path string, addresses []netip.Addr, clock func() time.Time) (*Authority, error) {
	raw, err := os.ReadFile(path)
	if err == nil {
		a, err := parse(raw, clock)
		if err != nil {
			return nil, fmt.Errorf("%s: %w: move it away, and one is made anew", path, err)
		}
		if a.serves(addresses) {
			return a, nil
		}
	} else if !errors.Is(err, os.ErrNotExist) {
		return nil, err
	}
	a, raw, err := create(addresses, clock)
	if err != nil {
		return nil, err
	}
	part := path + ".part"
	if err := os.WriteFile(part, raw, 0o600); err != nil {
		return nil, err
	}
	return a, os.Rename(part, path)
}

func create(addresses []netip.Addr, clock func() time.Time) (*Authority, []byte, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, nil, err
	}
	now := clock()
	host, _ := os.Hostname()
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: "All Coats on " + host,
			Organization: []string{"All Coats"}},
		NotBefore: now.Add(-time.Hour), NotAfter: now.AddDate(authorityYears, 0, 0),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign,
		PermittedDNSDomainsCritical: true, PermittedDNSDomains: []string{"local", "localhost"},
	}
	if host != "" {
		t.PermittedDNSDomains = append(t.PermittedDNSDomains, host)
	}
	networks := private
	for _, a := range addresses {
		networks = append(networks[:len(networks):len(networks)], netip.PrefixFrom(a, a.BitLen()).String())
	}
	for _, n := range networks {
		_, network, err := net.ParseCIDR(n)
		if err != nil {
			return nil, nil, err
		}
		t.PermittedIPRanges = append(t.PermittedIPRanges, network)
	}
	der, err := x509.CreateCertificate(rand.Reader, t, t, &key.PublicKey, key)
	if err != nil {
		return nil, nil, err
	}
	secret, err := x509.MarshalECPrivateKey(key)
	if err != nil {
		return nil, nil, err
	}
	raw := append(pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}),
		pem.EncodeToMemory(&pem.Block{Type: "EC PRIVATE KEY", Bytes: secret})...)
	a, err := parse(raw, clock)
	return a, raw, err
}

func parse(raw []byte, clock func() time.Time) (*Authority, error) {
	pair, err := tls.X509KeyPair(raw, raw)
	if err != nil {
		return nil, err
	}
	key, ok := pair.PrivateKey.(*ecdsa.PrivateKey)
	if !ok || !pair.Leaf.IsCA {
		return nil, errors.New("holds no certificate authority")
	}
	return &Authority{cert: pair.Leaf, key: key, clock: clock, leaves: map[string]*tls.Certificate{}}, nil
}

// serves reports whether the authority holds for another month, and may sign for all addresses.
func (a *Authority) serves(addresses []netip.Addr) bool {
	if a.clock().AddDate(0, 1, 0).After(a.cert.NotAfter) {
		return false
	}
	for _, address := range addresses {
		ok := false
		for _, n := range a.cert.PermittedIPRanges {
			ok = ok || n.Contains(address.AsSlice())
		}
		if !ok {
			return false
		}
	}
	return true
}

func serial() *big.Int {
	n, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		panic(err) // the system has no randomness
	}
	return n
}

// Certificate is the authority's own, PEM: what a phone installs.
func (a *Authority) Certificate() []byte {
	return pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.cert.Raw})
}

// Fingerprint names the authority, to be compared on the phone.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.cert.Raw)
	return fmt.Sprintf("%X %X %X %X", sum[0:2], sum[2:4], sum[4:6], sum[6:8])
}

// Leaf is the certificate for the address or name that a client came to; it is signed when it is first
// wanted, and again before it runs out.
func (a *Authority) Leaf(hello *tls.ClientHelloInfo) (*tls.Certificate, error) {
	name := hello.ServerName
	if name == "" {
		host, _, err := net.SplitHostPort(hello.Conn.LocalAddr().String())
		if err != nil {
			return nil, err
		}
		name = host
	}
	return a.sign(name)
}

func (a *Authority) sign(name string) (*tls.Certificate, error) {
	a.mu.Lock()
	defer a.mu.Unlock()
	now := a.clock()
	if leaf := a.leaves[name]; leaf != nil && now.AddDate(0, 0, 7).Before(leaf.Leaf.NotAfter) {
		return leaf, nil
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: "All Coats"}, NotBefore: now.Add(-time.Hour),
		NotAfter: now.AddDate(0, 0, leafDays),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	if ip := net.ParseIP(name); ip != nil {
		t.IPAddresses = []net.IP{ip}
	} else {
		t.DNSNames = []string{name}
	}
	der, err := x509.CreateCertificate(rand.Reader, t, a.cert, &key.PublicKey, a.key)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, err
	}
	out := &tls.Certificate{Certificate: [][]byte{der, a.cert.Raw}, PrivateKey: key, Leaf: leaf}
	if len(a.leaves) > 100 {
		clear(a.leaves)
	}
	a.leaves[name] = out
	return out, nil
}

// Addresses are those of this machine that a phone in the same network can reach, IPv4 first.
func Addresses() ([]netip.Addr, error) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil, err
	}
	var four, six []netip.Addr
	for _, a := range all {
		p, err := netip.ParsePrefix(a.String())
		if err != nil || p.Addr().IsLoopback() || p.Addr().IsLinkLocalUnicast() {
			continue
		}
		if ip := p.Addr().Unmap(); ip.Is4() {
			four = append(four, ip)
		} else {
			six = append(six, ip)
		}
	}
	return append(four, six...), nil
}
