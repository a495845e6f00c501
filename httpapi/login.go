package httpapi

import (
	"context"
	"crypto/sha256"
	"crypto/subtle"
	_ "embed"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"strconv"
	"strings"
	"sync"
	"time"

	"allcoats/app"
	"allcoats/door"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"golang.org/x/time/rate"
)

// sessionCookie is what a browser shows whose user has logged in.
const sessionCookie = "allcoats-session"

//go:embed login.html
var loginHTML string

type login struct{ Name, To, Wrong string }

func showLogin(c *gin.Context, status int, l login) {
	showForm(c, status, loginHTML, "{Name}", l.Name, "{To}", l.To, "{Wrong}", l.Wrong)
}

// tries holds guesses back: of one address five at once and then one in twelve seconds, of all together
// one a second after thirty. Its zero value is ready to use.
type tries struct {
	sync.Mutex
	all *rate.Limiter
	of  map[string]*rate.Limiter
}

// mostAddresses is how many addresses are told apart; beyond them the limit of all holds.
const mostAddresses = 4096

// left reports whether an address has a try left; one that fails takes one.
func (t *tries) left(address string) (take func(), ok bool) {
	t.Lock()
	defer t.Unlock()
	if t.all == nil || len(t.of) > mostAddresses {
		t.all, t.of = rate.NewLimiter(1, 30), map[string]*rate.Limiter{}
	}
	if t.of[address] == nil {
		t.of[address] = rate.NewLimiter(rate.Every(12*time.Second), 5)
	}
	own := t.of[address]
	return func() { own.Allow(); t.all.Allow() }, own.Tokens() >= 1 && t.all.Tokens() >= 1
}

// owner is who comes with the passphrase that the program was started with, or sits at a machine that
// nobody has to log in to.
func owner(name string) app.User { return app.User{Name: name, May: app.MayAll} }

// who finds who asks: by a session, by basic authentication with the passphrase of the start, by what a
// paired phone has, or because nobody has to log in to this machine.
func (o Options) who(c *gin.Context, a *app.App, t *tries) (u app.User, in bool, err error) {
	if token, err := c.Cookie(sessionCookie); err == nil {
		u, err := a.SessionUser(c, door.Kept(token), time.Now())
		if err == nil {
			return u, true, nil
		}
		if !errors.Is(err, app.ErrNotFound) {
			return u, false, err
		}
	}
	if _, given, ok := c.Request.BasicAuth(); ok && o.Passphrase != "" {
		return owner("owner"), o.guess(c, t, "owner", given), nil
	}
	if d, ok := letIn(c, a); o.Yard != nil && ok {
		return app.User{Name: d.Name, May: d.May}, true, nil
	}
	own := Loopback(c.Request.Host) && (o.Yard == nil || Loopback(c.Request.RemoteAddr))
	if !own || o.Passphrase != "" {
		return u, false, nil
	}
	people, err := a.Users(c)
	return owner("this computer"), len(people) == 0 && err == nil, err
}

// guess tells whether the passphrase of the start was given, unless too many were wrong.
func (o Options) guess(c *gin.Context, t *tries, name, given string) bool {
	take, ok := t.left(address(c))
	if !ok {
		return false
	}
	want, got := sha256.Sum256([]byte(o.Passphrase)), sha256.Sum256([]byte(given))
	if o.Passphrase != "" && strings.EqualFold(name, "owner") && subtle.ConstantTimeCompare(got[:], want[:]) == 1 {
		return true
	}
	take()
	slog.WarnContext(c, "wrong passphrase", "name", name, "from", address(c))
	return false
}

// address is who a request comes from, without the port.
func address(c *gin.Context) string {
	host, _, err := net.SplitHostPort(c.Request.RemoteAddr)
	if err != nil {
		return c.Request.RemoteAddr
	}
	return host
}

// logsIn serves the page to log in and what it sends. It reports whether it answered.
func (o Options) logsIn(c *gin.Context, a *app.App, t *tries) bool {
	switch c.Request.Method + " " + c.Request.URL.Path {
	case "GET /login":
		showLogin(c, http.StatusOK, login{To: c.Query("to")})
		return true
	case "POST /login":
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 8<<10)
		o.login(c, a, t, login{Name: c.PostForm("name"), To: c.PostForm("to")}, c.PostForm("passphrase"))
		return true
	}
	return false
}

// sleepS is how long one who has guessed too often is told to wait, s.
const sleepS = 12

func (o Options) login(c *gin.Context, a *app.App, t *tries, l login, passphrase string) {
	take, ok := t.left(address(c))
	if !ok {
		l.Wrong = "Too many were wrong. Wait a little, then try again."
		c.Header("Retry-After", strconv.Itoa(sleepS))
		showLogin(c, http.StatusTooManyRequests, l)
		return
	}
	token, kept := door.Token()
	u, err := a.Login(c, l.Name, passphrase, kept, time.Now())
	switch {
	case errors.Is(err, app.ErrWrong):
		take()
		slog.WarnContext(c, "wrong passphrase", "name", l.Name, "from", address(c))
		l.Wrong = "The name or the passphrase is wrong."
		showLogin(c, http.StatusForbidden, l)
		return
	case err != nil:
		slog.ErrorContext(c, "log in", "err", err)
		l.Wrong = "The program could not let you in; its log says why."
		showLogin(c, http.StatusInternalServerError, l)
		return
	}
	slog.InfoContext(c, "logged in", "name", u.Name, "from", address(c))
	http.SetCookie(c.Writer, session(c, token, app.SessionDays*24*60*60))
	to := l.To
	if !strings.HasPrefix(to, "/") || strings.HasPrefix(to, "//") || strings.HasPrefix(to, "/\\") {
		to = "/" // here, and nowhere else
	}
	c.Redirect(http.StatusSeeOther, to)
	c.Abort()
}

func session(c *gin.Context, token string, maxAge int) *http.Cookie {
	return &http.Cookie{Name: sessionCookie, Value: token, Path: "/", HttpOnly: true, Secure: c.Request.TLS != nil,
		SameSite: http.SameSiteLaxMode, MaxAge: maxAge}
}

// guarded lets in who is known: see who. Without people, a passphrase or phones only this machine's own
// names are answered, so that no web page can reach the server by a name of its own.
func guarded(a *app.App, o Options) gin.HandlerFunc {
	t := &tries{}
	return func(c *gin.Context) {
		own := Loopback(c.Request.Host) && (o.Yard == nil || Loopback(c.Request.RemoteAddr))
		if o.Yard != nil && o.Yard.doorstep(c, a) || t.feeds(c, a) {
			return
		}
		if (own || o.Passphrase != "" || o.Yard != nil || anybody(c, a)) && o.logsIn(c, a, t) {
			return
		}
		u, in, err := o.who(c, a, t)
		switch {
		case err != nil:
			slog.ErrorContext(c, "who asks", "err", err)
			c.AbortWithStatus(http.StatusInternalServerError)
		case in:
			c.Request = c.Request.WithContext(app.With(c.Request.Context(), u))
		case !own && o.Passphrase == "" && o.Yard == nil && !anybody(c, a):
			c.AbortWithStatus(http.StatusMisdirectedRequest)
		case !strings.Contains(c.GetHeader("Accept"), "text/html"):
			c.AbortWithStatus(http.StatusUnauthorized)
		case o.Yard != nil && !own:
			showPairing(c, http.StatusUnauthorized, pairing{})
			c.Abort()
		default:
			showLogin(c, http.StatusUnauthorized, login{To: c.Request.URL.RequestURI()})
		}
	}
}

// feedPath is where calendar programs ask, which cannot log in: the token in it lets them in there alone.
const feedPath = "/calendar/"

// feeds answers a calendar program. It reports whether it answered.
func (t *tries) feeds(c *gin.Context, a *app.App) bool {
	token, feed := strings.CutPrefix(c.Request.URL.Path, feedPath)
	token, named := strings.CutSuffix(token, ".ics")
	if !feed || !named || c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		return false
	}
	take, ok := t.left(address(c))
	if !ok {
		c.AbortWithStatus(http.StatusTooManyRequests)
		return true
	}
	raw, err := a.FeedCalendar(c, token)
	switch {
	case errors.Is(err, app.ErrNotFound):
		take()
		c.AbortWithStatus(http.StatusNotFound)
	case err != nil:
		slog.ErrorContext(c, "calendar", "err", err)
		c.AbortWithStatus(http.StatusInternalServerError)
	default:
		c.Data(http.StatusOK, "text/calendar; charset=utf-8", raw)
		c.Abort()
	}
	return true
}

// anybody reports whether there is somebody who could log in.
func anybody(c *gin.Context, a *app.App) bool {
	people, err := a.Users(c)
	return err == nil && len(people) > 0
}

// Who is the person who asks.
type Who struct {
	Name string  `json:"name"`
	May  app.May `json:"may"`
	// LogsIn says that the person logged in, and can log out.
	LogsIn bool `json:"logsIn"`
}

// people adds what is done about who may come in.
func people(api huma.API, a *app.App) {
	get(api, "who", "/api/who", "Who asks, and what that person may",
		func(ctx context.Context, _ *none) (Who, error) {
			u := app.UserOf(ctx)
			return Who{u.Name, u.May, u.ID != ""}, nil
		})
	get(api, "list-users", "/api/users", "The people who may come in",
		func(ctx context.Context, _ *none) ([]app.User, error) { return a.Users(ctx) })
	post(api, "add-user", "/api/users", "Let a person in",
		func(ctx context.Context, in *body[app.UserEdit]) (app.User, error) {
			return a.PutUser(ctx, "", in.Body)
		})
	put(api, "edit-user", "/api/users/{id}",
		"Change a person; a new passphrase ends what is logged in by the old one",
		func(ctx context.Context, in *bodyByID[app.UserEdit]) (app.User, error) {
			return a.PutUser(ctx, in.ID, in.Body)
		})
	del(api, "remove-user", "/api/users/{id}", "Shut a person out",
		func(ctx context.Context, in *byID) (none, error) {
			return none{}, a.RemoveUser(ctx, in.ID)
		})
	get(api, "audit", "/api/audit", "Who changed what, the last first",
		func(ctx context.Context, _ *none) ([]app.AuditEntry, error) { return a.Audit(ctx) })
	huma.Register(api, huma.Operation{OperationID: "logout", Method: http.MethodDelete, Path: "/api/session",
		Summary: "Log out"},
		func(ctx context.Context, in *struct {
			Token string `cookie:"allcoats-session"`
		}) (*cookied, error) {
			err := a.Logout(ctx, door.Kept(in.Token))
			if err != nil {
				return nil, problem(ctx, err)
			}
			return &cookied{SetCookie: http.Cookie{Name: sessionCookie, Path: "/", HttpOnly: true,
				SameSite: http.SameSiteLaxMode, MaxAge: -1}}, nil
		})
}

// What operations ask a person to be allowed. A GET asks to look, any other to plan, but for these.
var asked = map[app.May][]string{
	app.MayLook: {"calc-", "preview-", "read-", "doubt-", "judge-", "lay-edge", "play-panel", "coats-for", "draw-boat",
		"answer", "compare-schools", "try-move", "visit-demo", "leave-demo", "logout"},
	app.MayLog: {"add-entry", "edit-entry", "remove-entry", "restore-entry", "add-entry-photo", "add-photo",
		"remove-photo", "add-defect", "edit-defect", "remove-defect", "put-pot", "put-piece", "take-readings",
		"import-readings", "set-fairing", "remove-fairing", "add-stock", "edit-stock", "remove-stock"},
	app.MayAll: {"restore", "restore-copy", "backup", "backups", "import-boat", "remove-boat", "set-clock",
		"set-currency", "pair-phone", "remove-phone", "list-users", "add-user", "edit-user", "remove-user", "audit"},
}

// asks is what an operation asks a person to be allowed.
func asks(op *huma.Operation) app.May {
	for may, ids := range asked {
		for _, id := range ids {
			if op.OperationID == id || strings.HasSuffix(id, "-") && strings.HasPrefix(op.OperationID, id) {
				return may
			}
		}
	}
	if op.Method == http.MethodGet || strings.HasPrefix(op.Path, "/api/calc/") {
		return app.MayLook
	}
	return app.MayPlan
}

// allowed refuses what the person who asks may not, and has what is written say who wrote it.
func allowed(api huma.API) func(ctx huma.Context, next func(huma.Context)) {
	return func(ctx huma.Context, next func(huma.Context)) {
		op, u := ctx.Operation(), app.UserOf(ctx.Context())
		if may := asks(op); u.Name != "" && !u.May.Holds(may) {
			_ = huma.WriteErr(api, ctx, http.StatusForbidden, u.Name+" may "+string(u.May)+", and this asks for “"+
				string(may)+"”: ask one who may all")
			return
		}
		if op.Method != http.MethodGet && u.Name != "" {
			url := ctx.URL()
			ctx = huma.WithContext(ctx, app.As(ctx.Context(), u, op.Summary, url.Path, time.Now()))
		}
		next(ctx)
	}
}
