package core

import (
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/reading"
	"allcoats/core/film/step"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// floors are the rooms of core from the ground up: a package imports packages of its
// own room and of rooms below.
var floors = []string{"base", "physics", "geometry", "boat", "catalog", "film", "exposure", "conditions", "job",
	"planning", "finish"}

// libraries are what core may import beside the standard library, by the room that may.
var libraries = map[string][]string{
	"github.com/peterstace/simplefeatures/geom": {"geometry"},
}

// TestArrowsRunOneWay reads every import of core: none runs to a higher room, none out
// of core, and none to a library that does not belong there.
func TestArrowsRunOneWay(t *testing.T) {
	rooms := map[string]bool{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		room, _, _ := strings.Cut(filepath.ToSlash(path), "/")
		rooms[room] = true
		at := slices.Index(floors, room)
		require.GreaterOrEqual(t, at, 0, "%s stands in no room", path)
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		for _, s := range f.Imports {
			name, err := strconv.Unquote(s.Path.Value)
			require.NoError(t, err)
			first, _, _ := strings.Cut(name, "/")
			switch {
			case strings.HasPrefix(name, "allcoats/core/"):
				to, _, _ := strings.Cut(strings.TrimPrefix(name, "allcoats/core/"), "/")
				assert.LessOrEqual(t, slices.Index(floors, to), at, "%s imports %s, which stands higher", path, name)
			case first == "allcoats":
				assert.Fail(t, "out of core", "%s imports %s", path, name)
			case strings.Contains(first, ".") && !strings.HasPrefix(name, "gonum.org/"):
				assert.Contains(t, libraries[name], room, "%s imports %s", path, name)
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Len(t, rooms, len(floors), "a room stands empty")
}

// TestEveryKindIsDescribed reads the constants of each type of kinds: every one has its
// entry in the list that describes them, and the list has no other.
func TestEveryKindIsDescribed(t *testing.T) {
	for _, c := range []struct {
		dir, of, key string
		list         any
		none         []string // constants that stand for no kind
	}{
		{"boat/area", "Part", "Part", area.Parts, nil},
		{"boat/area", "Method", "", area.Methods, nil},
		{"boat/survey", "Substrate", "Key", survey.Substrates, nil},
		{"boat/survey", "LayerKind", "", survey.LayerKinds, nil},
		{"catalog/product", "Kind", "Kind", product.Kinds, []string{"any"}},
		{"catalog/product", "Binder", "", product.Binders[1:], nil},
		{"exposure/reading", "Kind", "Kind", reading.Kinds, nil},
		{"film/step", "Work", "Work", step.Kinds, nil},
		{"conditions/field", "Limit", "Limit", field.Limits, nil},
	} {
		consts := append([]string{}, c.none...)
		files, err := filepath.Glob(filepath.Join(c.dir, "*.go"))
		require.NoError(t, err)
		for _, name := range files {
			f, err := parser.ParseFile(token.NewFileSet(), name, nil, 0)
			require.NoError(t, err)
			ast.Inspect(f, func(n ast.Node) bool {
				if v, ok := n.(*ast.ValueSpec); ok && len(v.Values) == 1 {
					typ, _ := v.Type.(*ast.Ident)
					lit, _ := v.Values[0].(*ast.BasicLit)
					if typ != nil && lit != nil && typ.Name == c.of && lit.Kind == token.STRING {
						value, err := strconv.Unquote(lit.Value)
						require.NoError(t, err)
						consts = append(consts, value)
					}
				}
				return true
			})
		}
		described := append([]string{}, c.none...)
		list := reflect.ValueOf(c.list)
		for i := range list.Len() {
			v := list.Index(i)
			if c.key != "" {
				v = v.FieldByName(c.key)
			}
			described = append(described, v.String())
		}
		slices.Sort(consts)
		assert.ElementsMatch(t, slices.Compact(consts), described, "%s of %s", c.of, c.dir)
	}
	for _, k := range product.Kinds {
		assert.True(t, k.Name != "" && (!k.Coat || k.FromGrit > 0 && k.FromGrit < k.ToGrit), k.Kind)
		assert.True(t, slices.ContainsFunc(product.Examples(), func(s product.Sheet) bool {
			return s.Kind == k.Kind
		}), "no example of %s", k.Kind)
	}
	for _, k := range step.Kinds {
		assert.True(t, k.Name != "" && (k.Planned || k.Logged) && (!k.Logged || k.Told != ""), k.Work)
	}
}
