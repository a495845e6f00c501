package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"strings"

	"allcoats/app"

	"github.com/spf13/cobra"
)

// userCommand is about the people who may come in, for one who cannot get in to the page.
func userCommand() *cobra.Command {
	c := &cobra.Command{Use: "user", Short: "The people who may come in", Args: cobra.NoArgs}
	c.AddCommand(onFile("list", "List them, and what each may", cobra.NoArgs, lookingAt,
		func(ctx context.Context, a *app.App, _ []string) error {
			all, err := a.Users(ctx)
			for _, u := range all {
				fmt.Printf("%-24s %s\n", u.Name, u.May)
			}
			return err
		}), putUser(), onFile("remove NAME", "Shut a person out", cobra.ExactArgs(1), withApp,
		func(ctx context.Context, a *app.App, args []string) error {
			u, err := named(ctx, a, args[0])
			if err == nil && u.ID == "" {
				err = fmt.Errorf("nobody is called %s", args[0])
			}
			if err != nil {
				return err
			}
			return a.RemoveUser(ctx, u.ID)
		}))
	return c
}

// putUser adds a person, or gives one a new passphrase, which is read from the input: an argument would
// stand in the shell's history.
func putUser() *cobra.Command {
	var may string
	var in io.Reader
	c := onFile("set NAME", "Let a person in, or give one a new passphrase, the first line of the input",
		cobra.ExactArgs(1), withApp, func(ctx context.Context, a *app.App, args []string) error {
			line, err := bufio.NewReader(in).ReadString('\n')
			if err != nil && !errors.Is(err, io.EOF) {
				return err
			}
			u, err := named(ctx, a, args[0])
			if err != nil {
				return err
			}
			_, err = a.PutUser(ctx, u.ID, app.UserEdit{Name: args[0], May: app.May(may),
				Passphrase: strings.TrimRight(line, "\r\n")})
			return err
		})
	c.Flags().StringVar(&may, "may", string(app.MayAll), "what this person may: look, log, plan or all")
	c.PreRun = func(c *cobra.Command, _ []string) { in = c.InOrStdin() }
	return c
}

// named is the person of a name, the zero User if there is none.
func named(ctx context.Context, a *app.App, name string) (app.User, error) {
	all, err := a.Users(ctx)
	for _, u := range all {
		if strings.EqualFold(u.Name, name) {
			return u, nil
		}
	}
	return app.User{}, err
}
