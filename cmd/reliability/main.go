// Command reliability holds the odds against two simulated years: it prints the table and draws
// the diagram into a file.
package main

import (
	"context"
	"fmt"
	"os"

	"allcoats/instruments/reliability"
)

func main() {
	if err := run(os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, "reliability:", err)
		os.Exit(1)
	}
}

func run(args []string) error {
	if len(args) != 1 {
		return fmt.Errorf("give the SVG file to draw into")
	}
	usual, err := reliability.Of(context.Background(), reliability.TwoYears)
	if err != nil {
		return err
	}
	own := reliability.TwoYears
	own.LearnDays = 60
	learned, err := reliability.Of(context.Background(), own)
	if err != nil {
		return err
	}
	fmt.Printf("Errors as they usually are\n%s\nErrors learned from 60 days\n%s", reliability.Text(usual),
		reliability.Text(learned))
	return os.WriteFile(args[0], reliability.Diagram(usual, learned), 0o644)
}
