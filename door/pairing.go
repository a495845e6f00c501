package door

import (
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"strings"
	"sync"
	"time"
)

// Pairing gives out codes that let one phone in each. The zero value has none out.
type Pairing struct {
	Clock func() time.Time // nil: the system's

	mu    sync.Mutex
	code  string
	until time.Time
	wrong int
	shut  time.Time // no code is taken before
}

// What a code is made of, how long it may be used, and after how many wrong ones none is taken for a
// while.
const (
	letters    = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"
	codeLength = 8
	codeTime   = 10 * time.Minute
	mostWrong  = 5
	shutTime   = time.Minute
)

// Why a code is not taken.
var (
	ErrCode = errors.New("this code is not the one that is shown, or it was used or has run out: have a new one shown")
	ErrShut = errors.New("too many wrong codes: wait a minute")
)

func (p *Pairing) now() time.Time {
	if p.Clock == nil {
		return time.Now()
	}
	return p.Clock()
}

// New gives out a code in the place of the last one, and tells until when it may be used.
func (p *Pairing) New() (code string, until time.Time) {
	raw := make([]byte, codeLength)
	_, _ = rand.Read(raw) // never fails
	for i, b := range raw {
		raw[i] = letters[int(b)%len(letters)]
	}
	p.mu.Lock()
	defer p.mu.Unlock()
	p.code, p.until = string(raw), p.now().Add(codeTime)
	return p.code, p.until
}

// Use takes a code, once; case, spaces and hyphens do not matter.
func (p *Pairing) Use(code string) error {
	code = strings.ToUpper(strings.NewReplacer(" ", "", "-", "").Replace(code))
	p.mu.Lock()
	defer p.mu.Unlock()
	now := p.now()
	if now.Before(p.shut) {
		return ErrShut
	}
	if p.code != "" && now.Before(p.until) && subtle.ConstantTimeCompare([]byte(code), []byte(p.code)) == 1 {
		p.code, p.wrong = "", 0
		return nil
	}
	if p.wrong++; p.wrong >= mostWrong {
		p.wrong, p.shut = 0, now.Add(shutTime)
	}
	return ErrCode
}

// Token makes the secret that a paired phone shows, and what is kept of it here.
func Token() (token string, kept []byte) {
	raw := make([]byte, 32)
	_, _ = rand.Read(raw) // never fails
	token = base64.RawURLEncoding.EncodeToString(raw)
	return token, Kept(token)
}

// Kept is what is kept of a token: it cannot be shown in its place.
func Kept(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}
