package httpapi

import (
	"context"
	"errors"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"

	"allcoats/app"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"
)

// Options are what a server can be told.
type Options struct {
	Version string
	// Web holds the built front end.
	Web fs.FS
	// Passphrase, if set, lets the owner in by basic authentication, beside the people who log in.
	// Without one and without people only this machine's own names are answered, and phones that
	// Yard let in.
	Passphrase string
	Yard       *Yard // nil: phones are not let in
	// Demo makes the demo yard for those who want to look round, nil: there is none. It is the same
	// at every call.
	Demo func(context.Context) (*app.App, error)
	// Stopping is closed when the server stops: who listens for changes is let go. Nil: it never does.
	Stopping <-chan struct{}
	// visiting is set for the demo yard itself.
	visiting bool
}

// Handler serves the whole application.
func Handler(a *app.App, o Options) http.Handler {
	v := &visits{}
	v.own = handler(a, a, o, v.entering(a, o))
	return v
}

// handler serves the application of a to those whom the one of door lets in.
func handler(a, door *app.App, o Options, enter func(context.Context) error) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.Use(gin.CustomRecovery(func(c *gin.Context, err any) {
		slog.Error("panic", "err", err, "path", c.Request.URL.Path)
		c.AbortWithStatus(http.StatusInternalServerError)
	}))
	r.Use(logged, deadlined, secured, guarded(door, o))
	r.GET("/healthz", func(c *gin.Context) {
		if err := a.Healthy(c); err != nil {
			said := "the database does not answer"
			if errors.Is(err, app.ErrFull) {
				said = app.ErrFull.Error()
			}
			c.String(http.StatusServiceUnavailable, said)
			return
		}
		c.String(http.StatusOK, "ok")
	})
	r.Use(timed(a))
	newAPI(r, a, o, enter)
	r.NoRoute(web(o.Web, r))
	return http.NewCrossOriginProtection().Handler(gzhttp.GzipHandler(r))
}

// logged writes a line for every request, with neither query nor headers nor the token of a calendar.
func logged(c *gin.Context) {
	start := time.Now()
	c.Next()
	level := slog.LevelDebug
	if c.Writer.Status() >= 500 {
		level = slog.LevelError
	}
	path := c.Request.URL.Path
	if strings.HasPrefix(path, feedPath) { // who has the rest of it is let in
		path = feedPath
	}
	slog.Log(c, level, "request", "method", c.Request.Method, "path", path, "status", c.Writer.Status(), "ms",
		time.Since(start).Milliseconds())
}

// timed tells the program's time with every answer of the interface, so that a client
// can run its clocks on while the program is away.
func timed(a *app.App) gin.HandlerFunc {
	return func(c *gin.Context) {
		if now, err := a.Now(c); err == nil && strings.HasPrefix(c.Request.URL.Path, "/api/") {
			c.Header("X-Program-Time", now.Format(time.RFC3339))
		}
	}
}

// answerTime is how long an answer, or a line of a stream, may take to be written.
const answerTime = 2 * time.Minute

type deadlineKey struct{}

// deadlined lets an operation that answers in lines put off the server's deadlines, by
// goOn, and lets a slow connection send as long as it sends.
func deadlined(c *gin.Context) {
	control := http.NewResponseController(c.Writer)
	c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), deadlineKey{}, control))
	c.Request.Body = &patient{c.Request.Body, control, time.Now().Add(sendingTime)}
}

// A request may pause for pauseTime while it is sent, and take sendingTime in all: a photo by a phone
// at the edge of the network, a backup by a slow line.
const (
	pauseTime   = 30 * time.Second
	sendingTime = 30 * time.Minute
)

// patient is a body that is read as long as something comes.
type patient struct {
	io.ReadCloser
	control *http.ResponseController
	until   time.Time
}

func (p *patient) Read(b []byte) (int, error) {
	by := time.Now().Add(pauseTime)
	if by.After(p.until) {
		by = p.until
	}
	_ = p.control.SetReadDeadline(by) // a server without deadlines has none to put off
	_ = p.control.SetWriteDeadline(by.Add(answerTime))
	n, err := p.ReadCloser.Read(b)
	if err != nil { // it is here; that its client waits on is no reading
		_ = p.control.SetReadDeadline(time.Time{})
	}
	return n, err
}

// goOn gives the answer of ctx's request a further answerTime from now.
func goOn(ctx context.Context) {
	if control, ok := ctx.Value(deadlineKey{}).(*http.ResponseController); ok {
		// A server without deadlines has none to put off.
		_ = control.SetReadDeadline(time.Time{})
		_ = control.SetWriteDeadline(time.Now().Add(answerTime))
	}
}

// policy allows the shipped files and nothing else.
const policy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'; font-src 'self'; img-src 'self' data: blob:; worker-src 'self'; connect-src 'self'; " +
	"manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

func secured(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", policy)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		h.Set("Cache-Control", "no-store")
	}
}

// Loopback reports whether a host or host:port names this machine only.
func Loopback(hostport string) bool {
	host, _, err := net.SplitHostPort(hostport)
	if err != nil {
		host = hostport
	}
	host = strings.Trim(host, "[]")
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback()
}
