package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"sync"
	"time"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/door"
	"allcoats/httpapi"
	"allcoats/instruments"
	"allcoats/store"
	"allcoats/web"

	"github.com/spf13/cobra"
)

// listen holds the flags of the commands that serve.
type listen struct {
	addr, db, yardTLS string
	yard              bool
}

func (l *listen) flags(c *cobra.Command, db string) {
	c.Flags().StringVar(&l.addr, "addr", "127.0.0.1:8080",
		"address to listen on; elsewhere than on this machine ALLCOATS_PASSPHRASE must be set")
	c.Flags().StringVar(&l.db, "db", db, "database file")
	c.Flags().BoolVar(&l.yard, "yard", false,
		"let phones in the same network in, once they are paired on the page “phone”")
	c.Flags().StringVar(&l.yardTLS, "yard-tls", ":8443", "address at which phones come encrypted")
}

// roomy lets the heap grow fourfold before it is swept, as long as that is little on a small machine, unless the
// environment says otherwise: futures leave much behind, and a fifth of their time went into the sweeping.
func roomy() {
	if os.Getenv("GOGC") == "" && os.Getenv("GOMEMLIMIT") == "" {
		debug.SetGCPercent(300)
		debug.SetMemoryLimit(heapEnough)
	}
}

const heapEnough = 400 << 20 // bytes

func (l *listen) serve(ctx context.Context, fill func(context.Context, *app.App) error) (err error) {
	roomy()
	passphrase := os.Getenv("ALLCOATS_PASSPHRASE")
	if err := l.mayListen(passphrase); err != nil {
		return err
	}
	s, err := store.Open(ctx, l.db)
	switch {
	case errors.Is(err, store.ErrDamaged):
		return fmt.Errorf("%w; “allcoats restore --db %s” puts it aside and the newest copy in its place", err, l.db)
	case err != nil:
		return err
	}
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	if err != nil {
		return err
	}
	if fill != nil {
		if err := fill(ctx, a); err != nil {
			return fmt.Errorf("demo: %w", err)
		}
	}
	ln, err := net.Listen("tcp", l.addr)
	if err != nil {
		return err
	}
	options := httpapi.Options{Version: version, Web: web.Files(), Passphrase: passphrase, Stopping: ctx.Done()}
	if fill == nil {
		var leave func() error
		options.Demo, leave = lookRound(s.Scratch)
		defer func() { err = errors.Join(err, leave()) }()
	}
	var encrypted net.Listener
	if l.yard {
		if encrypted, err = net.Listen("tcp", l.yardTLS); err != nil {
			return errors.Join(err, ln.Close())
		}
		if options.Yard, err = l.openYard(ln, encrypted); err != nil {
			return errors.Join(err, ln.Close(), encrypted.Close())
		}
	}
	// Work that goes on when the server stops is ended with its context.
	working, end := context.WithCancel(context.WithoutCancel(ctx))
	defer end()
	server := serverOf(working, httpapi.Handler(a, options))
	refreshed := make(chan struct{})
	go func() { defer close(refreshed); a.Run(ctx) }()
	failed := make(chan error, 2)
	go func() { failed <- server.Serve(ln) }()
	_, port, _ := net.SplitHostPort(ln.Addr().String()) // an address that is listened on
	if !l.yard {
		fmt.Printf("All Coats is at http://%s\n", ln.Addr())
	} else {
		server.TLSConfig = &tls.Config{GetCertificate: options.Yard.Authority.Leaf, MinVersion: tls.VersionTLS12}
		go func() { failed <- server.ServeTLS(encrypted, "", "") }()
		code, _ := options.Yard.Pairing.New()
		fmt.Printf(
			"All Coats is at http://127.0.0.1:%s, and lets phones in: see “phone” there, or go to https://THIS-COMPUTER:%s/pair with the code %s-%s within ten minutes\n", port, options.Yard.TLSPort, code[:4], code[4:])
	}
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	slog.Info("stopping")
	if err = shutdown(ctx, server, 5*time.Second); err != nil {
		end()
		err = shutdown(ctx, server, 5*time.Second)
	}
	<-refreshed
	return err
}

// mayListen turns the address into one of the whole yard where that is asked for, and refuses one that
// lets others in without a passphrase.
func (l *listen) mayListen(passphrase string) error {
	if l.yard && httpapi.Loopback(l.addr) {
		_, port, err := net.SplitHostPort(l.addr)
		if err != nil {
			return err
		}
		l.addr = ":" + port
	}
	if !l.yard && !httpapi.Loopback(l.addr) && passphrase == "" {
		return fmt.Errorf("listening on %s lets others in: set ALLCOATS_PASSPHRASE first", l.addr)
	}
	return nil
}

// serverOf is the server of a handler, whose requests end with working.
func serverOf(working context.Context, h http.Handler) *http.Server {
	return &http.Server{
		BaseContext:       func(net.Listener) context.Context { return working },
		Handler:           h,
		ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout:       time.Minute,
		WriteTimeout:      2 * time.Minute,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
	}
}

// lookRound makes the demo yard around the real time, once and when it is asked for, in a folder that leave removes.
func lookRound(folder func() (string, error)) (enter func(context.Context) (*app.App, error), leave func() error) {
	shut := func() error { return nil }
	build := sync.OnceValues(func() (*app.App, error) {
		dir, err := folder()
		if err != nil {
			return nil, err
		}
		// The yard outlives the request that asks for it.
		ctx := context.Background()
		s, err := store.Open(ctx, filepath.Join(dir, "demo.db"))
		if err != nil {
			return nil, errors.Join(err, os.RemoveAll(dir))
		}
		shut = func() error { return errors.Join(s.Close(), os.RemoveAll(dir)) }
		a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
		if err != nil {
			return nil, err
		}
		return a, demo.Build(ctx, a, demo.Now, app.FixedClock)
	})
	return func(context.Context) (*app.App, error) { return build() }, func() error { return shut() }
}

// shutdown waits for the requests in hand, for at most as long as wait.
func shutdown(ctx context.Context, server *http.Server, wait time.Duration) error {
	grace, cancel := context.WithTimeout(context.WithoutCancel(ctx), wait)
	defer cancel()
	return server.Shutdown(grace)
}

// openYard reads or makes the authority beside the database.
func (l *listen) openYard(plain, encrypted net.Listener) (*httpapi.Yard, error) {
	addresses, err := door.Addresses()
	if err != nil {
		return nil, err
	}
	authority, err := door.Open(l.db+".authority.pem", addresses, time.Now)
	if err != nil {
		return nil, err
	}
	_, httpPort, err := net.SplitHostPort(plain.Addr().String())
	if err != nil {
		return nil, err
	}
	_, tlsPort, err := net.SplitHostPort(encrypted.Addr().String())
	return &httpapi.Yard{Authority: authority, Pairing: &door.Pairing{}, HTTPPort: httpPort, TLSPort: tlsPort,
		Addresses: door.Addresses}, err
}
