package httpapi

import (
	"context"
	_ "embed"
	"encoding/base64"
	"errors"
	"html"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"time"

	"allcoats/app"
	"allcoats/core/base/fielderr"
	"allcoats/door"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"github.com/skip2/go-qrcode"
)

// Yard lets phones in the same network in, once they are paired.
type Yard struct {
	Authority *door.Authority
	Pairing   *door.Pairing
	// HTTPPort and TLSPort are where the server listens for them.
	HTTPPort, TLSPort string
	Addresses         func() ([]netip.Addr, error)
}

// Phones is how a phone comes to the program, and which were let in. Without Open the server listens to
// this machine alone.
type Phones struct {
	Open        bool         `json:"open"`
	Ways        []PhoneWay   `json:"ways" doc:"the encrypted one of each address first"`
	Certificate PhoneWay     `json:"certificate" doc:"where the authority's certificate is installed from"`
	Fingerprint string       `json:"fingerprint"`
	Devices     []app.Device `json:"devices"`
}

// PhoneWay is an address with a picture to scan it by.
type PhoneWay struct {
	URL    string `json:"url"`
	Secure bool   `json:"secure"`
	QR     string `json:"qr" doc:"a PNG as a data address"`
}

// PhoneCode lets one phone in.
type PhoneCode struct {
	Code  string     `json:"code"`
	Until time.Time  `json:"until"`
	Ways  []PhoneWay `json:"ways"`
}

const qrPixels = 240

func wayTo(secure bool, host, port, path string) (PhoneWay, error) {
	scheme := map[bool]string{true: "https", false: "http"}[secure]
	url := scheme + "://" + net.JoinHostPort(host, port) + path
	png, err := qrcode.Encode(url, qrcode.Medium, qrPixels)
	return PhoneWay{url, secure, "data:image/png;base64," + base64.StdEncoding.EncodeToString(png)}, err
}

// ways are those to a path, at every address.
func (y *Yard) ways(path string) ([]PhoneWay, error) {
	out := []PhoneWay{}
	addresses, err := y.Addresses()
	if err != nil {
		return out, err
	}
	for _, a := range addresses {
		for _, secure := range []bool{true, false} {
			w, err := wayTo(secure, a.String(), map[bool]string{true: y.TLSPort, false: y.HTTPPort}[secure], path)
			if err != nil {
				return out, err
			}
			out = append(out, w)
		}
	}
	return out, nil
}

func phones(api huma.API, a *app.App, y *Yard) {
	get(api, "get-phones", "/api/phones",
		"How a phone comes to the program, and which were let in", func(ctx context.Context, _ *none) (Phones, error) {
			out := Phones{Open: y != nil, Ways: []PhoneWay{}}
			var err error
			if out.Devices, err = a.Devices(ctx); err != nil || y == nil {
				return out, err
			}
			if out.Ways, err = y.ways("/"); err != nil || len(out.Ways) == 0 {
				return out, err
			}
			out.Fingerprint = y.Authority.Fingerprint()
			host, _, _ := strings.Cut(strings.TrimPrefix(out.Ways[0].URL, "https://"), "/")
			host, _, err = net.SplitHostPort(host)
			if err != nil {
				return out, err
			}
			out.Certificate, err = wayTo(false, host, y.HTTPPort, "/authority.crt")
			return out, err
		})
	act(api, "pair-phone", "/api/phones/code", "Have a code shown that lets one phone in",
		func(context.Context, *none) (PhoneCode, error) {
			if y == nil {
				return PhoneCode{}, fielderr.At("", "the server listens to this machine alone: start it with --yard")
			}
			var out PhoneCode
			out.Code, out.Until = y.Pairing.New()
			var err error
			out.Ways, err = y.ways("/pair?code=" + out.Code)
			return out, err
		})
	del(api, "remove-phone", "/api/phones/{id}", "Shut a phone out again",
		func(ctx context.Context, in *byID) (none, error) {
			return none{}, a.RemoveDevice(ctx, in.ID)
		})
}

// tokenCookie is what a paired phone shows.
const tokenCookie = "allcoats-phone"

// tokenYears is how long a phone stays let in.
const tokenYears = 2

//go:embed pair.html
var pairHTML string

// pairPolicy is that of the pages which pair and log in: they have their style in them, and a form.
const pairPolicy = "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"

type pairing struct{ Code, Name, Wrong string }

func showPairing(c *gin.Context, status int, p pairing) {
	showForm(c, status, pairHTML, "{Code}", p.Code, "{Name}", p.Name, "{Wrong}", p.Wrong)
}

// showForm answers with a page of its own that has a form, which no cache keeps; fill are names in the page, each
// with the text to put there. For html/template the linker would keep every method of every type, a third of the
// program.
func showForm(c *gin.Context, status int, page string, fill ...string) {
	for i := 1; i < len(fill); i += 2 {
		fill[i] = html.EscapeString(fill[i])
	}
	c.Header("Content-Security-Policy", pairPolicy)
	c.Header("Referrer-Policy", "same-origin") // else the form comes from nowhere, and is refused
	c.Header("Cache-Control", "no-store")
	c.Data(status, "text/html; charset=utf-8", []byte(strings.NewReplacer(fill...).Replace(page)))
	c.Abort()
}

// doorstep serves what a phone needs before it is let in: the authority's certificate and the page that
// pairs. It reports whether it answered.
func (y *Yard) doorstep(c *gin.Context, a *app.App) bool {
	switch c.Request.Method + " " + c.Request.URL.Path {
	case "GET /authority.crt":
		c.Header("Content-Disposition", `attachment; filename="all-coats.crt"`)
		c.Data(http.StatusOK, "application/x-x509-ca-cert", y.Authority.Certificate())
	case "GET /pair":
		showPairing(c, http.StatusOK, pairing{Code: c.Query("code")})
	case "POST /pair":
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 4<<10)
		y.pair(c, a, pairing{Code: c.PostForm("code"), Name: c.PostForm("name")})
	default:
		return false
	}
	c.Abort()
	return true
}

func (y *Yard) pair(c *gin.Context, a *app.App, p pairing) {
	if strings.TrimSpace(p.Name) == "" {
		p.Name = "a phone"
	}
	if err := y.Pairing.Use(p.Code); err != nil {
		p.Wrong = err.Error()
		status := http.StatusForbidden
		if errors.Is(err, door.ErrShut) {
			status = http.StatusTooManyRequests
		}
		showPairing(c, status, p)
		return
	}
	token, kept := door.Token()
	if err := a.AddDevice(c, p.Name, kept, time.Now()); err != nil {
		p.Wrong = err.Error() + "; have a new code shown"
		showPairing(c, http.StatusUnprocessableEntity, p)
		return
	}
	http.SetCookie(c.Writer, &http.Cookie{Name: tokenCookie, Value: token, Path: "/", HttpOnly: true,
		Secure: c.Request.TLS != nil, SameSite: http.SameSiteLaxMode,
		Expires: time.Now().AddDate(tokenYears, 0, 0)})
	c.Redirect(http.StatusSeeOther, "/")
}

// letIn is the phone that shows what a paired one has.
func letIn(c *gin.Context, a *app.App) (d app.Device, ok bool) {
	token, err := c.Cookie(tokenCookie)
	if err != nil {
		return d, false
	}
	d, err = a.KnowsDevice(c, door.Kept(token))
	return d, err == nil
}
