package e2e

import (
	"context"
	"crypto/tls"
	"errors"
	"net"
	"net/http"
	"path/filepath"
	"time"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/demo/standing"
	"allcoats/door"
	"allcoats/httpapi"
	"allcoats/instruments"
	"allcoats/store"
	"allcoats/web"
)

// Site is the application served on a database of its own.
type Site struct {
	URL    string
	App    *app.App
	addr   string
	dir    string
	server *http.Server
	tls    *http.Server // nil while no phone is let in
	stop   func() error
}

// Serve serves the application on a new database in dir, with the demo yard in
// it if withDemo is set.
func Serve(ctx context.Context, dir string, withDemo bool) (*Site, error) {
	path := filepath.Join(dir, "e2e.db")
	if withDemo {
		if err := standing.Write(path); err != nil {
			return nil, err
		}
	}
	s, err := store.Open(ctx, path)
	if err != nil {
		return nil, err
	}
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	if err != nil {
		return nil, err
	}
	if !withDemo {
		if err := a.SetClock(ctx, app.FixedClock, demo.Now); err != nil {
			return nil, err
		}
	}
	ln, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	demoYard, leave := lookRound(dir)
	server := &http.Server{Handler: httpapi.Handler(a, httpapi.Options{Version: "test", Web: web.Files(),
		Demo: demoYard}), ReadHeaderTimeout: 5 * time.Second}
	go func() { _ = server.Serve(ln) }()
	site := &Site{URL: "http://" + ln.Addr().String(), App: a, addr: ln.Addr().String(), dir: dir, server: server}
	site.stop = func() error {
		err := site.server.Close()
		if site.tls != nil {
			err = errors.Join(err, site.tls.Close())
		}
		return errors.Join(err, leave(), s.Close())
	}
	return site, nil
}

// lookRound is the demo yard for who looks round it from a site of his own.
func lookRound(dir string) (enter func(context.Context) (*app.App, error), leave func() error) {
	shut := func() error { return nil }
	enter = func(ctx context.Context) (*app.App, error) {
		path := filepath.Join(dir, "visited.db")
		if err := standing.Write(path); err != nil {
			return nil, err
		}
		s, err := store.Open(ctx, path)
		if err != nil {
			return nil, err
		}
		shut = s.Close
		return app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	}
	return enter, func() error { return shut() }
}

// Down lets the site answer nothing; its database stays open.
func (s *Site) Down() error { return s.server.Close() }

// Up lets it answer again at the same address.
func (s *Site) Up() error {
	ln, err := net.Listen("tcp", s.addr)
	if err != nil {
		return err
	}
	s.server = &http.Server{Handler: s.server.Handler, ReadHeaderTimeout: 5 * time.Second}
	go func() { _ = s.server.Serve(ln) }()
	return nil
}

// Close stops the server and closes the database.
func (s *Site) Close() error { return s.stop() }

// elsewhere is a name by which the browser reaches the site as from another machine: on
// plain http, without what browsers keep for secure pages.
const elsewhere = "laptop.local"

// From lets the site be reached by that name, with a passphrase.
func (s *Site) From(passphrase string) {
	s.server.Handler = httpapi.Handler(s.App, httpapi.Options{Version: "test", Web: web.Files(),
		Passphrase: passphrase})
	_, port, _ := net.SplitHostPort(s.addr) // an address that was listened on
	s.URL = "http://" + net.JoinHostPort(elsewhere, port)
}

// Yard lets phones in as --yard does, and returns the site's addresses by its name in the network, in
// the clear and encrypted.
func (s *Site) Yard() (plain, encrypted string, err error) {
	authority, err := door.Open(filepath.Join(s.dir, "authority.pem"), nil, time.Now)
	if err != nil {
		return "", "", err
	}
	ln, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", "", err
	}
	_, httpPort, _ := net.SplitHostPort(s.addr) // addresses that are listened on
	_, tlsPort, _ := net.SplitHostPort(ln.Addr().String())
	yard := &httpapi.Yard{Authority: authority, Pairing: &door.Pairing{}, HTTPPort: httpPort, TLSPort: tlsPort,
		Addresses: door.Addresses}
	s.server.Handler = httpapi.Handler(s.App, httpapi.Options{Version: "test", Web: web.Files(), Yard: yard})
	s.tls = &http.Server{Handler: s.server.Handler, ReadHeaderTimeout: 5 * time.Second,
		TLSConfig: &tls.Config{GetCertificate: authority.Leaf, MinVersion: tls.VersionTLS12}}
	go func() { _ = s.tls.ServeTLS(ln, "", "") }()
	return "http://" + net.JoinHostPort(elsewhere, httpPort), "https://" + net.JoinHostPort(elsewhere, tlsPort), nil
}
