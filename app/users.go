package app

import (
	"context"
	"errors"
	"slices"
	"strings"
	"sync"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/store"

	"golang.org/x/crypto/bcrypt"
)

// May is what a person may do; each holds those before it.
type May string

// What a person may: look at everything, log what was done, plan, and all, with people, backups
// and the clock.
const (
	MayLook May = "look"
	MayLog  May = "log"
	MayPlan May = "plan"
	MayAll  May = "all"
)

// Mays lists them, the least first.
var Mays = []May{MayLook, MayLog, MayPlan, MayAll}

// Holds reports whether m has what is asked.
func (m May) Holds(asked May) bool { return slices.Index(Mays, m) >= slices.Index(Mays, asked) }

// User is a person who may come in.
type User struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	May  May    `json:"may"`
}

// UserEdit is a person as typed. Without a passphrase an edit leaves the one that is.
type UserEdit struct {
	Name       string `json:"name"`
	May        May    `json:"may"`
	Passphrase string `json:"passphrase,omitempty"`
}

// How long a passphrase is: bcrypt reads no more than 72 bytes.
const (
	leastPassphrase = 10
	mostPassphrase  = 72
	// hashCost makes a guess take about a tenth of a second.
	hashCost = 11
)

// SessionDays is how long one stays in.
const SessionDays = 30

func (e UserEdit) validate(fresh bool) error {
	var bad fielderr.Errors
	if n := len(strings.TrimSpace(e.Name)); n == 0 || n > 60 {
		bad.Add("name", "give the person a name, of at most 60 letters")
	}
	fielderr.OneOf(&bad, "may", e.May, Mays)
	if n := len(e.Passphrase); (fresh || n > 0) && (n < leastPassphrase || n > mostPassphrase) {
		bad.Add("passphrase", "must have %d to %d letters", leastPassphrase, mostPassphrase)
	}
	return bad.Err()
}

// Users lists the people who may come in.
func (a *App) Users(ctx context.Context) ([]User, error) {
	rows, err := a.store.Read(ctx).Users(ctx)
	out := make([]User, len(rows))
	for i, r := range rows {
		out[i] = User{r.ID, r.Name, May(r.May)}
	}
	return out, err
}

// PutUser lets a person in, or with an id changes one. There is always one who may all.
func (a *App) PutUser(ctx context.Context, id string, e UserEdit) (User, error) {
	fresh := id == ""
	if fresh {
		id = newID()
	}
	e.Name = strings.TrimSpace(e.Name)
	if err := e.validate(fresh); err != nil {
		return User{}, err
	}
	hash, err := []byte(nil), error(nil)
	if e.Passphrase != "" {
		if hash, err = bcrypt.GenerateFromPassword([]byte(e.Passphrase), hashCost); err != nil {
			return User{}, err
		}
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		all, err := q.Users(ctx)
		if err != nil {
			return err
		}
		row := store.User{ID: id, Name: e.Name, Hash: hash, May: string(e.May), CreatedAt: time.Now().Unix()}
		known := fresh
		owner := e.May == MayAll
		for _, u := range all {
			switch {
			case u.ID == id:
				known = true
				if hash == nil {
					row.Hash = u.Hash
				}
			case strings.EqualFold(u.Name, e.Name):
				return fielderr.At("name", "is another's name already")
			default:
				owner = owner || May(u.May) == MayAll
			}
		}
		switch {
		case !known:
			return ErrNotFound
		case !owner:
			return fielderr.At("may", "somebody must be allowed all: let this one, or another first")
		}
		if hash != nil && !fresh { // who knew the old one is out
			if err := q.EndSessions(ctx, nil, id); err != nil {
				return err
			}
		}
		return q.PutUser(ctx, row)
	})
	return User{id, e.Name, e.May}, err
}

// RemoveUser shuts a person out. The last who may all goes last of all.
func (a *App) RemoveUser(ctx context.Context, id string) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		all, err := q.Users(ctx)
		if err != nil {
			return err
		}
		rest := slices.DeleteFunc(all, func(u store.User) bool { return u.ID == id })
		if len(rest) > 0 && !slices.ContainsFunc(rest, func(u store.User) bool { return May(u.May) == MayAll }) {
			return fielderr.At("id", "is the last who may all: let another first")
		}
		return q.RemoveUser(ctx, id)
	})
}

// ErrWrong means that a name and a passphrase do not belong together.
var ErrWrong = errors.New("the name or the passphrase is wrong")

// nobody is hashed against where no such person is, so that a guess takes as long.
var nobody = sync.OnceValue(func() []byte {
	hash, _ := bcrypt.GenerateFromPassword([]byte("nobody has this one"), hashCost) // fails for long ones alone
	return hash
})

// Login lets a person in by name and passphrase, for SessionDays, who shows the secret of which
// token is kept from then on.
func (a *App) Login(ctx context.Context, name, passphrase string, token []byte, now time.Time) (User, error) {
	rows, err := a.store.Read(ctx).Users(ctx)
	if err != nil {
		return User{}, err
	}
	found := store.User{Hash: nobody()}
	for _, u := range rows {
		if strings.EqualFold(u.Name, strings.TrimSpace(name)) {
			found = u
		}
	}
	if err := bcrypt.CompareHashAndPassword(found.Hash, []byte(passphrase)); err != nil || found.ID == "" {
		return User{}, ErrWrong
	}
	err = a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.AddSession(ctx, token, found.ID, now, now.AddDate(0, 0, SessionDays))
	})
	return User{found.ID, found.Name, May(found.May)}, err
}

// SessionUser is who shows a token, ErrNotFound if nobody does.
func (a *App) SessionUser(ctx context.Context, token []byte, now time.Time) (User, error) {
	u, err := a.store.Read(ctx).SessionUser(ctx, token, now)
	return User{u.ID, u.Name, May(u.May)}, err
}

// Logout ends a session.
func (a *App) Logout(ctx context.Context, token []byte) error {
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error { return q.EndSessions(ctx, token, "") })
}

// AuditEntry is who changed what.
type AuditEntry struct {
	At   time.Time `json:"at"`
	Who  string    `json:"who"`
	What string    `json:"what"`
	Path string    `json:"path"`
}

// mostAudited is how many are listed.
const mostAudited = 500

// Audit lists who changed what, the newest first.
func (a *App) Audit(ctx context.Context) ([]AuditEntry, error) {
	rows, err := a.store.Read(ctx).Audit(ctx, mostAudited)
	out := make([]AuditEntry, len(rows))
	for i, r := range rows {
		out[i] = AuditEntry{time.Unix(r.At, 0).UTC(), r.Who, r.What, r.Path}
	}
	return out, err
}

type userKey struct{}

// As is a context of a person: what is written under it says who did what.
func As(ctx context.Context, u User, what, path string, at time.Time) context.Context {
	return store.By(With(ctx, u), store.AuditEntry{At: at.Unix(), Who: u.Name, What: what, Path: path})
}

// With is a context of a person who asks.
func With(ctx context.Context, u User) context.Context { return context.WithValue(ctx, userKey{}, u) }

// UserOf is the person of a context, the zero User without one.
func UserOf(ctx context.Context) User {
	u, _ := ctx.Value(userKey{}).(User)
	return u
}
