package door

import (
	"crypto/tls"
	"crypto/x509"
	"net"
	"net/http"
	"net/netip"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A client that trusts the authority, and nothing else, comes through to an address and to a name; one
// that was made for another network does not hold for a public one.
func TestAuthoritySignsForThisMachine(t *testing.T) {
	file := filepath.Join(t.TempDir(), "authority.pem")
	mine := []netip.Addr{netip.MustParseAddr("192.0.2.7")}
	a, err := Open(file, mine, time.Now)
	require.NoError(t, err)
	info, err := os.Stat(file)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "the key is nobody else's")

	ln, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	server := &http.Server{Handler: http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		w.WriteHeader(204)
	}), TLSConfig: &tls.Config{GetCertificate: a.Leaf}}
	go server.ServeTLS(ln, "", "")
	t.Cleanup(func() { server.Close() })
	pool := x509.NewCertPool()
	require.True(t, pool.AppendCertsFromPEM(a.Certificate()))
	client := http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: pool},
		DialContext: (&net.Dialer{}).DialContext}}
	res, err := client.Get("https://" + ln.Addr().String())
	require.NoError(t, err)
	assert.Equal(t, 204, res.StatusCode)

	verify := func(a *Authority, name string) error {
		leaf, err := a.sign(name)
		require.NoError(t, err)
		_, err = leaf.Leaf.Verify(x509.VerifyOptions{Roots: pool, DNSName: name})
		return err
	}
	require.NoError(t, verify(a, "192.0.2.7"))
	require.NoError(t, verify(a, "10.1.2.3"))
	require.NoError(t, verify(a, "slip.local"))
	assert.Error(t, verify(a, "192.0.2.8"), "outside of private networks")
	assert.Error(t, verify(a, "example.com"))

	again, err := Open(file, mine, time.Now)
	require.NoError(t, err)
	assert.Equal(t, a.Fingerprint(), again.Fingerprint(), "kept")
	other, err := Open(file, []netip.Addr{netip.MustParseAddr("198.51.100.4")}, time.Now)
	require.NoError(t, err)
	assert.NotEqual(t, a.Fingerprint(), other.Fingerprint(), "made anew for an address that it may not sign for")
	late, err := Open(file, mine, func() time.Time { return time.Now().AddDate(9, 11, 20) })
	require.NoError(t, err)
	assert.NotEqual(t, other.Fingerprint(), late.Fingerprint(), "made anew before it runs out")
	require.NoError(t, os.WriteFile(file, []byte("no key"), 0o600))
	_, err = Open(file, mine, time.Now)
	assert.ErrorContains(t, err, "move it away")
}

// A leaf is kept while it holds, and signed anew a week before it runs out.
func TestLeavesAreRenewed(t *testing.T) {
	now := time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC)
	a, _, err := create(nil, func() time.Time { return now })
	require.NoError(t, err)
	first, err := a.sign("10.0.0.1")
	require.NoError(t, err)
	now = now.AddDate(0, 0, 82)
	same, _ := a.sign("10.0.0.1")
	assert.Same(t, first, same)
	now = now.AddDate(0, 0, 2)
	anew, _ := a.sign("10.0.0.1")
	assert.NotSame(t, first, anew)
	assert.True(t, anew.Leaf.NotAfter.After(now.AddDate(0, 0, 89)))
}

// A code lets one phone in, for ten minutes; five wrong ones shut the door for a minute.
func TestCodes(t *testing.T) {
	now := time.Date(2026, 5, 9, 9, 0, 0, 0, time.UTC)
	p := Pairing{Clock: func() time.Time { return now }}
	assert.ErrorIs(t, p.Use(""), ErrCode, "none is out")
	code, until := p.New()
	assert.Len(t, code, 8)
	assert.Equal(t, now.Add(10*time.Minute), until)
	assert.NoError(t, p.Use(code[:4]+"-"+code[4:]))
	assert.ErrorIs(t, p.Use(code), ErrCode, "once")
	code, _ = p.New()
	now = now.Add(10 * time.Minute)
	assert.ErrorIs(t, p.Use(code), ErrCode, "too late")
	code, _ = p.New()
	for range 3 {
		assert.ErrorIs(t, p.Use("22222222"), ErrCode)
	}
	assert.ErrorIs(t, p.Use(code), ErrShut)
	now = now.Add(time.Minute)
	assert.NoError(t, p.Use(code))

	token, kept := Token()
	assert.Equal(t, kept, Kept(token))
	other, _ := Token()
	assert.NotEqual(t, token, other)
	assert.NotEqual(t, kept, Kept(other))
}
