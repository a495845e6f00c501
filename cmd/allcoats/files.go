package main

import (
	"context"
	"errors"
	"fmt"
	"os"

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
	a, err := app.New(ctx, s, instruments.Forecast{Seed: demo.Seed})
	if err == nil {
		err = fn(a)
	}
	return errors.Join(err, s.Close())
}

// onFile is a command on a database and a file.
func onFile(use, short string, n int, fn func(ctx context.Context, a *app.App, args []string) error) *cobra.Command {
	var db string
	c := &cobra.Command{Use: use, Short: short, Args: cobra.ExactArgs(n), RunE: func(c *cobra.Command, args []string) error {
		return withApp(c.Context(), db, func(a *app.App) error { return fn(c.Context(), a, args) })
	}}
	c.Flags().StringVar(&db, "db", "allcoats.db", "database file")
	return c
}

func backupCommand() *cobra.Command {
	return onFile("backup FILE", "Write the whole database to a new file; the program may run meanwhile", 1, func(ctx context.Context, a *app.App, args []string) error {
		if _, err := os.Stat(args[0]); err == nil {
			return fmt.Errorf("%s is there already", args[0])
		}
		return a.Backup(ctx, args[0])
	})
}

func restoreCommand() *cobra.Command {
	return onFile("restore FILE", "Put a backup in the place of everything in the database, all or nothing", 1, func(ctx context.Context, a *app.App, args []string) error {
		raw, err := os.ReadFile(args[0])
		if err != nil {
			return err
		}
		kept, err := a.RestoreFile(ctx, raw)
		if err == nil {
			fmt.Printf("restored; what was there before is kept as %s\n", kept)
		}
		return err
	})
}

func exportCommand() *cobra.Command {
	return onFile("export BOAT FILE", "Write a boat, by her id, with all that belongs to her as a boat file", 2, func(ctx context.Context, a *app.App, args []string) error {
		raw, err := a.BoatFile(ctx, args[0])
		if err != nil {
			return err
		}
		return os.WriteFile(args[1], raw, 0o600)
	})
}

func importCommand() *cobra.Command {
	return onFile("import FILE", "Store a boat file; all or nothing", 1, func(ctx context.Context, a *app.App, args []string) error {
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
	return &cobra.Command{Use: "schema", Short: "Print the JSON Schema of boat files", Args: cobra.NoArgs, RunE: func(c *cobra.Command, _ []string) error {
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
