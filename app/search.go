package app

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"allcoats/core/base/glossary"
	"allcoats/core/film/step"
)

// Hit is something that a search found: what kind of thing, its name, where it stands, the page to go to.
type Hit struct {
	Kind   string `json:"kind"`
	Title  string `json:"title"`
	Detail string `json:"detail"`
	Path   string `json:"path"`

	rank int
}

// mostHits is how many hits are told.
const mostHits = 40

// allBoats is how many boats are searched through to their log; of more, the one that is asked for.
const allBoats = 6

// unsaid are words of a command that find nothing by themselves.
var unsaid = []string{"a", "an", "the", "on", "of", "log", "logged", "did", "in", "to", "at"}

// Search finds surfaces, defects, products, tasks, log entries and words of the glossary, each of whose
// words begins with one asked for, and commands such as "log a wash on deck". The boat's own come first.
func (a *App) Search(ctx context.Context, query, boatID string) ([]Hit, error) {
	find := finding{words: wordsOf(query), hits: []Hit{}}
	if len(find.words) == 0 {
		return find.hits, nil
	}
	boats, err := a.Boats(ctx)
	if err != nil {
		return nil, err
	}
	for _, b := range boats {
		away := 0
		if b.ID != boatID {
			away = 3
		}
		find.add(Hit{Kind: "boat", Title: b.Name, Detail: b.Type, Path: "/boats/" + b.ID + "/today"}, away)
		if len(boats) > allBoats && b.ID != boatID {
			continue
		}
		if err := a.searchBoat(ctx, b, &find, away); err != nil {
			return nil, err
		}
	}
	all, err := a.Products(ctx)
	if err != nil {
		return nil, err
	}
	for _, p := range all {
		find.add(Hit{Kind: "product", Title: p.Sheet.Name, Detail: p.Sheet.Kind.Name(), Path: "/library/" + p.ID}, 1)
	}
	for _, t := range glossary.Terms {
		if n, ok := matches(find.words, t.Name+" "+strings.Join(t.Also, " "), ""); ok {
			find.hits = append(find.hits, Hit{Kind: "word", Title: t.Name, Detail: t.Says, rank: 2 + n})
		}
	}
	slices.SortStableFunc(find.hits, func(a, b Hit) int { return cmp.Compare(a.rank, b.rank) })
	return find.hits[:min(len(find.hits), mostHits)], nil
}

// finding is a search on its way.
type finding struct {
	words []string
	hits  []Hit
}

// add takes a hit whose words are all asked for; fewer in its title and a greater rank come later.
func (f *finding) add(h Hit, rank int) {
	if n, ok := matches(f.words, h.Title, h.Detail); ok {
		h.rank = rank + n
		f.hits = append(f.hits, h)
	}
}

// searchBoat adds what is found of a boat, and what can be logged of her.
func (a *App) searchBoat(ctx context.Context, b Boat, find *finding, away int) error {
	base := "/boats/" + b.ID
	s, err := a.Survey(ctx, b.ID)
	if err != nil {
		return err
	}
	names := map[string]string{}
	for _, f := range s.Surfaces {
		names[f.ID] = f.Name
		find.add(Hit{Kind: "surface", Title: f.Name, Detail: b.Name, Path: base + "/survey?surface=" + f.ID}, away)
		for _, k := range step.Kinds {
			if k.Logged && k.OfSurface && commands(find.words, k.Name, f.Name) {
				find.hits = append(find.hits, Hit{Kind: "do", Title: fmt.Sprintf("Log: %s, %s", k.Name, f.Name),
					Detail: b.Name, Path: fmt.Sprintf("%s/log?surface=%s&kind=%s", base, f.ID, k.Work), rank: away - 2})
			}
		}
	}
	for _, d := range s.Defects {
		find.add(Hit{Kind: "defect", Title: fmt.Sprintf("Defect %d, %s", d.Number,
			strings.ReplaceAll(string(d.Kind), "-", " ")), Detail: fmt.Sprintf("%s, %s: %s %s", names[d.SurfaceID],
			b.Name, d.State, d.Note),
			Path: base + "/survey?defect=" + d.ID}, away+1)
	}
	j, err := a.Job(ctx, b.ID)
	if err != nil {
		return err
	}
	for _, c := range j.Surfaces {
		for _, t := range c.Tasks {
			find.add(Hit{Kind: "task", Title: fmt.Sprintf("%s: %s", names[t.SurfaceID], t.What),
				Detail: fmt.Sprintf("%s, %s", b.Name, t.State), Path: base + "/build-up?surface=" + t.SurfaceID},
				away+2)
		}
	}
	log, err := a.Log(ctx, b.ID)
	if err != nil {
		return err
	}
	for _, e := range log {
		if e.Deleted {
			continue
		}
		find.add(Hit{Kind: "log", Title: fmt.Sprintf("%s: %s %s", names[e.SurfaceID], e.Kind.Kind().Name, e.Product),
			Detail: fmt.Sprintf("%s, %s %s %s", b.Name, e.StartedAt.In(s.Place.location()).Format("2006-01-02"), e.Who,
				e.Note),
			Path: base + "/log?entry=" + e.ID}, away+2)
	}
	return nil
}

// wordsOf are the words of a text, in small letters.
func wordsOf(text string) []string {
	return strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return strings.ContainsRune(" ,:()-–/#.", r) })
}

// matches tells whether each of words begins one of the title's or the detail's, and how many only of the detail's.
func matches(words []string, title, detail string) (inDetail int, ok bool) {
	begins := func(text, w string) bool {
		return slices.ContainsFunc(wordsOf(text), func(t string) bool { return strings.HasPrefix(t, w) })
	}
	for _, w := range words {
		switch {
		case begins(title, w):
		case begins(detail, w):
			inDetail++
		default:
			return 0, false
		}
	}
	return inDetail, true
}

// commands tells whether words name a kind of work and a surface, and nothing else but what is unsaid.
func commands(words []string, kind, surface string) bool {
	var kinds, surfaces int
	for _, w := range words {
		_, isKind := matches([]string{w}, kind, "")
		_, isSurface := matches([]string{w}, surface, "")
		switch {
		case slices.Contains(unsaid, w):
		case isKind || strings.HasPrefix(w, kind): // "washed", "sanding"
			kinds++
		case isSurface:
			surfaces++
		default:
			return false
		}
	}
	return kinds > 0 && surfaces > 0
}
