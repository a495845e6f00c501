package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"time"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/spf13/cobra"
)

// withApp runs fn on the use cases over a database file.
func withApp(ctx context.Context, db string, fn func(*app.App) error) error {
	s, err := store.Open(ctx, db)
	if err != nil {
		return err
	}
	return over(ctx, s, fn)
}

// lookingAt is withApp for what changes nothing: the program may run on the file meanwhile.
func lookingAt(ctx context.Context, db string, fn func(*app.App) error) error {
	s, err := store.Open(ctx, db)
	if errors.Is(err, store.ErrHeld) {
		s, err = store.Beside(ctx, db)
	}
	if err != nil {
		return err
	}
	return over(ctx, s, fn)
}

func over(ctx context.Context, s *store.Store, fn func(*app.App) error) error {
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	if err == nil {
		err = fn(a)
	}
	return errors.Join(err, s.Close())
}

// with is withApp or lookingAt.
type with func(ctx context.Context, db string, fn func(*app.App) error) error

// onFile is a command on a database and files.
func onFile(use, short string, args cobra.PositionalArgs, open with, fn func(ctx context.Context, a *app.App,
	args []string) error) *cobra.Command {
	var db string
	c := &cobra.Command{Use: use, Short: short, Args: args, RunE: func(c *cobra.Command, args []string) error {
		return open(c.Context(), db, func(a *app.App) error { return fn(c.Context(), a, args) })
	}}
	c.Flags().StringVar(&db, "db", "allcoats.db", "database file")
	return c
}

func backupCommand() *cobra.Command {
	return onFile("backup FILE", "Write the whole database to a new file; the program may run meanwhile",
		cobra.ExactArgs(1), lookingAt, func(ctx context.Context, a *app.App, args []string) error {
			return a.Backup(ctx, args[0])
		})
}

func restoreCommand() *cobra.Command {
	return onFile("restore [FILE]",
		"Put a backup, or without FILE the newest copy of a day, in the place of everything in the database, all or nothing", cobra.MaximumNArgs(1), restoring,
		func(ctx context.Context, a *app.App, args []string) error {
			kept, err := restore(ctx, a, args)
			if err == nil {
				fmt.Printf("restored; what was there before is kept as %s\n", kept)
			}
			return err
		})
}

func restore(ctx context.Context, a *app.App, args []string) (kept string, err error) {
	if len(args) == 1 {
		raw, err := os.ReadFile(args[0])
		if err != nil {
			return "", err
		}
		return a.RestoreFile(ctx, raw)
	}
	all, err := a.Copies()
	if err != nil {
		return "", err
	}
	if len(all) == 0 {
		return "", errors.New("no copy of a day is kept beside the database: name a backup")
	}
	fmt.Printf("restoring the copy of %s\n", all[0].At.Format("2 January 2006"))
	return a.RestoreCopy(ctx, all[0].Name)
}

// restoring is withApp for a database that may be damaged: such a one is put aside first.
func restoring(ctx context.Context, db string, fn func(*app.App) error) error {
	err := withApp(ctx, db, fn)
	if !errors.Is(err, store.ErrDamaged) {
		return err
	}
	aside := fmt.Sprintf("%s.damaged-%s", db, time.Now().UTC().Format("20060102-150405"))
	for _, part := range []string{"", "-wal", "-shm"} {
		if err := os.Rename(db+part, aside+part); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	fmt.Printf("the database is damaged; it is put aside as %s\n", aside)
	return withApp(ctx, db, fn)
}

func exportCommand() *cobra.Command {
	return onFile("export BOAT FILE",
		"Write a boat, by her id, with all that belongs to her as a boat file; the program may run meanwhile",
		cobra.ExactArgs(2), lookingAt, func(ctx context.Context, a *app.App, args []string) error {
			raw, err := a.BoatFile(ctx, args[0])
			if err != nil {
				return err
			}
			return os.WriteFile(args[1], raw, 0o600)
		})
}

func importCommand() *cobra.Command {
	return onFile("import FILE", "Store a boat file; all or nothing", cobra.ExactArgs(1), withApp,
		func(ctx context.Context, a *app.App, args []string) error {
			raw, err := os.ReadFile(args[0])
			if err != nil {
				return err
			}
			t, err := a.TakeBoat(ctx, raw)
			if err == nil {
				fmt.Printf("%s: %d records added\n", t.Boat, t.Added)
			}
			return err
		})
}

func schemaCommand() *cobra.Command {
	return &cobra.Command{Use: "schema", Short: "Print the JSON Schema of boat files", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			dir, err := os.MkdirTemp("", "allcoats-schema")
			if err != nil {
				return err
			}
			defer os.RemoveAll(dir)
			return withApp(c.Context(), dir+"/schema.db", func(a *app.App) error {
				raw, err := a.BoatFileSchema(c.Context())
				if err == nil {
					fmt.Fprintln(c.OutOrStdout(), string(raw))
				}
				return err
			})
		}}
}
