// Command allcoats plans, computes and records the coats of boats.
package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"os"
	"os/signal"
	"syscall"
	"time"
	_ "time/tzdata" // zones without help from the system

	"allcoats/app"
	"allcoats/calc"
	"allcoats/core/base/fielderr"
	"allcoats/demo"
	"allcoats/httpapi"
	"allcoats/store"

	"github.com/spf13/cobra"
)

// version is set by the build.
var version = "dev"

func main() {
	slog.SetDefault(slog.New(slog.NewTextHandler(os.Stderr, nil)))
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := root().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "allcoats:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use: "allcoats", Short: "Plan, compute and record the coats of a boat", SilenceUsage: true, SilenceErrors: true,
	}
	c.AddCommand(serveCommand(), demoCommand(), calcCommand(), simCommand(), openAPICommand(), backupCommand(),
		restoreCommand(), exportCommand(), importCommand(), schemaCommand(), userCommand(), &cobra.Command{
			Use: "version", Short: "Print the version", Args: cobra.NoArgs,
			Run: func(c *cobra.Command, _ []string) { fmt.Fprintln(c.OutOrStdout(), version) },
		})
	return c
}

func serveCommand() *cobra.Command {
	var l listen
	c := &cobra.Command{
		Use: "serve", Short: "Serve the application on a database, creating it if it is not there", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error { return l.serve(c.Context(), nil) },
	}
	l.flags(c, "allcoats.db")
	return c
}

func demoCommand() *cobra.Command {
	var l listen
	var follow bool
	c := &cobra.Command{
		Use: "demo", Short: "Serve a made-up yard with three boats, made anew in a database of its own",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if err := clearDemo(c.Context(), l.db); err != nil {
				return err
			}
			return l.serve(c.Context(), func(ctx context.Context, a *app.App) error {
				if follow {
					return demo.Build(ctx, a, time.Now(), app.RealClock)
				}
				return demo.Build(ctx, a, demo.Now, app.FixedClock)
			})
		},
	}
	l.flags(c, "allcoats-demo.db")
	c.Flags().BoolVar(&follow, "follow", false, "build the demo around the real time and follow the real clock")
	return c
}

// clearDemo removes a demo made before; any other file at path is refused and left.
func clearDemo(ctx context.Context, path string) error {
	if _, err := os.Stat(path); errors.Is(err, os.ErrNotExist) {
		return nil
	}
	isNew, err := store.Identify(ctx, path)
	if err != nil {
		return fmt.Errorf("%s: %w; the demo is not put in its place", path, err)
	}
	if !isNew {
		s, err := store.Open(ctx, path)
		if err != nil {
			return err
		}
		isDemo, err := app.IsDemo(ctx, s)
		if err = errors.Join(err, s.Close()); err != nil {
			return err
		}
		if !isDemo {
			return fmt.Errorf("%s holds something else than the demo and is left as it is: name another file with --db",
				path)
		}
	}
	for _, end := range []string{"", "-wal", "-shm"} {
		if err := os.Remove(path + end); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	return nil
}

func calcCommand() *cobra.Command {
	var lines bool
	c := &cobra.Command{
		Use:   "calc [name]",
		Short: "Answer a calculator's JSON request from standard input; without a name list the calculators",
		Args:  cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			out := json.NewEncoder(c.OutOrStdout())
			if len(args) == 0 {
				for _, k := range calc.All {
					if err := out.Encode(k.Info()); err != nil {
						return err
					}
				}
				return nil
			}
			k, ok := calc.ByName(args[0])
			if !ok {
				return fmt.Errorf("there is no calculator %q; allcoats calc lists them", args[0])
			}
			contract := httpapi.NewContract(k)
			if lines {
				return calcLines(c.Context(), contract, k.MaxBytes(), c.InOrStdin(), out)
			}
			raw, err := io.ReadAll(io.LimitReader(c.InOrStdin(), k.MaxBytes()+1))
			if err != nil {
				return err
			}
			res, err := contract.Run(c.Context(), raw)
			if err != nil {
				return err
			}
			out.SetIndent("", " ")
			return out.Encode(res)
		},
	}
	c.Flags().BoolVar(&lines, "lines", false,
		"one request a line in, one answer a line out; a bad request answers {\"errors\": …} and the rest go on")
	return c
}

// calcLines answers a request a line. Whatever a line holds, the next is answered too.
func calcLines(ctx context.Context, k *httpapi.Contract, limit int64, in io.Reader, out *json.Encoder) error {
	r := bufio.NewReaderSize(in, 1<<16)
	for ctx.Err() == nil {
		line, err := readLine(r, limit)
		if len(bytes.TrimSpace(line)) > 0 {
			if err := out.Encode(answerLine(ctx, k, line)); err != nil {
				return err
			}
		}
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return err
		}
	}
	return ctx.Err()
}

// readLine reads a line without its end; of a longer one than limit, a byte more than that.
func readLine(r *bufio.Reader, limit int64) ([]byte, error) {
	var line []byte
	for {
		part, err := r.ReadSlice('\n')
		if room := limit + 1 - int64(len(line)); int64(len(part)) > room {
			part = part[:room]
		}
		line = append(line, part...)
		if !errors.Is(err, bufio.ErrBufferFull) {
			return bytes.TrimRight(line, "\r\n"), err
		}
	}
}

// answerLine is the answer to a request, or what is wrong with it.
func answerLine(ctx context.Context, k *httpapi.Contract, line []byte) any {
	res, err := k.Run(ctx, line)
	var bad fielderr.Errors
	if err != nil && !errors.As(err, &bad) {
		bad = fielderr.Errors{}
		bad.Add("", "%v", err)
	}
	if bad != nil {
		return map[string]fielderr.Errors{"errors": bad}
	}
	return res
}

func openAPICommand() *cobra.Command {
	return &cobra.Command{
		Use: "openapi", Short: "Print the OpenAPI document", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			doc, err := httpapi.OpenAPI("")
			if err != nil {
				return err
			}
			_, err = c.OutOrStdout().Write(doc)
			return err
		},
	}
}
