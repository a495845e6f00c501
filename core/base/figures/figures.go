// Package figures holds what the code takes for granted against the tables of docs/figures.md, for the tests: each figure
// stands in both, so that none changes unseen.
package figures

import (
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
)

// Rows are the figures of a table by what stands in its first column.
type Rows map[string][]float64

// Check fails where the table under a heading of docs/figures.md and rows differ, or one has a row that the other lacks.
func Check(t testing.TB, heading string, rows Rows) {
	t.Helper()
	told := table(page(t), heading)
	if len(told) == 0 {
		t.Fatalf("docs/figures.md has no table under %q", heading)
	}
	for name, want := range told {
		if got, ok := rows[name]; !ok || !slices.Equal(got, want) {
			t.Errorf("%s, %s: docs/figures.md tells %v, the code has %v", heading, name, want, got)
		}
	}
	for name, got := range rows {
		if _, ok := told[name]; !ok {
			t.Errorf("%s: docs/figures.md does not tell %s, %v", heading, name, got)
		}
	}
}

// CheckWords does the same of a table of words: what stands in the second column by what stands in the first.
func CheckWords(t testing.TB, heading string, rows map[string]string) {
	t.Helper()
	told := map[string]string{}
	for _, cells := range lines(page(t), heading) {
		if len(cells) > 1 {
			told[cells[0]] = cells[1]
		}
	}
	for name, got := range rows {
		if told[name] != got {
			t.Errorf("%s, %s: docs/figures.md tells %q, the code has %q", heading, name, told[name], got)
		}
	}
}

// table is that under a heading: the figures of each row, those of its cells that are numbers.
func table(page, heading string) Rows {
	out := Rows{}
	for _, cells := range lines(page, heading) {
		var figures []float64
		for _, c := range cells[1:] {
			if v, err := strconv.ParseFloat(c, 64); err == nil {
				figures = append(figures, v)
			}
		}
		if len(figures) > 0 {
			out[cells[0]] = figures
		}
	}
	return out
}

// lines are the cells of each line under a heading.
func lines(page, heading string) (out [][]string) {
	_, page, _ = strings.Cut(page, "\n## "+heading+"\n")
	page, _, _ = strings.Cut(page, "\n## ")
	for line := range strings.Lines(page) {
		cells := strings.Split(strings.Trim(strings.TrimSpace(line), "|"), "|")
		for i := range cells {
			cells[i] = strings.TrimSpace(cells[i])
		}
		out = append(out, cells)
	}
	return out
}

func page(t testing.TB) string {
	t.Helper()
	page, err := os.ReadFile(filepath.Join(root(t), "docs", "figures.md"))
	if err != nil {
		t.Fatal(err)
	}
	return string(page)
}

// root is the folder of the module.
func root(t testing.TB) string {
	t.Helper()
	dir, err := os.Getwd()
	if err != nil {
		t.Fatal(err)
	}
	for ; dir != filepath.Dir(dir); dir = filepath.Dir(dir) {
		if _, err := os.Stat(filepath.Join(dir, "go.mod")); err == nil {
			return dir
		}
	}
	t.Fatal("no module above")
	return ""
}
