// Command shots draws the pictures of docs/screenshots from the demo data.
package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"

	"allcoats/e2e"
)

type shot struct {
	name, path string
	boat       int    // which of the demo's boats, by name
	craft      string // adds ?craft=
	surface    string // adds ?surface=<id> of the surface of that name
	press      []string
	fill       [][2]string // fields by their label
	phone      bool
	whole      bool // the page rather than the window
	see        string
}

var shots = []shot{
	// First of all: what it plays, all others tell.
	{name: "plan-risk", path: "plan", press: []string{"Risk"}, whole: true, see: "A day costs"},
	{name: "start", path: "/start", fill: [][2]string{{"What", "Topcoat, one-part enamel"},
		{"The weather, today and on", "8 to 16, sunny, dry, light wind; tomorrow 6 to 12, rain from 14"}},
		see: "the working"},
	{name: "new-boat", path: "/boats/new", press: []string{"round bilge"}, fill: [][2]string{{"Her name", "Tern"},
		{"Length over all", "9.5"}, {"Beam", "3.1"}}, whole: true, see: "Guessed: waterline"},
	{name: "yard", path: "/yard", see: "Late:"},
	{name: "today", path: "today", see: "In this order today"},
	{name: "survey", path: "survey", see: "Defects and repairs"},
	{name: "build-up", path: "build-up", surface: "Bottom", see: "The film, cut through"},
	{name: "non-skid", path: "finishes", surface: "Deck", craft: "non-skid", see: "in the order to lay them"},
	{name: "brightwork", path: "finishes", boat: 1, surface: "Mizzen mast", craft: "brightwork", see: "coat's hours"},
	{name: "antifouling", path: "finishes", surface: "Bottom", craft: "antifouling", see: "Windows"},
	{name: "stores", path: "stores", whole: true, see: "On the shelf"},
	{name: "weather", path: "weather", surface: "Topsides port", see: "Hour by hour"},
	{name: "tent", path: "weather", boat: 2, press: []string{"Tent and heat"}, whole: true, see: "under each"},
	{name: "plan-season", path: "plan", see: "Weekends are shaded"},
	{name: "fairing", path: "fairing", boat: 2, surface: "Topsides port", whole: true, see: "What it takes"},
	{name: "log", path: "log", see: "Clocks running"},
	{name: "bench-phone", path: "bench", phone: true, whole: true, see: "Before you open the tin"},
	{name: "report", path: "report", boat: 1, whole: true, see: "Upkeep"},
	{name: "library", path: "/library", see: "Add a product"},
}

func main() {
	dir := "docs/screenshots"
	if len(os.Args) > 1 {
		dir = os.Args[1]
	}
	if err := run(context.Background(), dir, os.Args[min(2, len(os.Args)):]); err != nil {
		fmt.Fprintln(os.Stderr, "shots:", err)
		os.Exit(1)
	}
}

// run draws the shots named in only, or all.
func run(ctx context.Context, dir string, only []string) error {
	tmp, err := os.MkdirTemp("", "shots")
	if err != nil {
		return err
	}
	defer os.RemoveAll(tmp)
	site, err := e2e.Serve(ctx, tmp, true)
	if err != nil {
		return err
	}
	defer site.Close()
	browser, cancel, err := e2e.Browser(ctx)
	if err != nil {
		return err
	}
	defer cancel()
	boats, err := site.App.Boats(ctx)
	if err != nil {
		return err
	}
	products, err := site.App.Products(ctx)
	if err != nil {
		return err
	}
	wanted := func(name string) bool {
		for _, o := range only {
			if o == name {
				return true
			}
		}
		return len(only) == 0
	}
	for _, s := range shots {
		if !wanted(s.name) {
			continue
		}
		boat := boats[s.boat].ID
		survey, err := site.App.Survey(ctx, boat)
		if err != nil {
			return err
		}
		path := s.path
		if path == "/library/" {
			path += products[0].ID
		} else if path[0] != '/' {
			path = "/boats/" + boat + "/" + path
		}
		for _, f := range survey.Surfaces {
			if f.Name == s.surface {
				path += "?surface=" + f.ID
				if s.craft != "" {
					path += "&craft=" + s.craft
				}
			}
		}
		p := e2e.Open(browser, site)
		if s.phone {
			p.Size(390, 844, true)
		} else {
			p.Size(1280, 800, false)
		}
		p.Go(path)
		for _, name := range s.press {
			p.Press(name)
		}
		for _, f := range s.fill {
			p.Type(f[0], f[1])
		}
		p.See(s.see).Shot(filepath.Join(dir, s.name+".png"), s.whole)
		err = p.Err()
		p.Close()
		if err != nil {
			return fmt.Errorf("%s: %w", s.name, err)
		}
	}
	return nil
}
