package core

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// floors are the rooms of core from the ground up: a package imports packages of its
// own room and of rooms below.
var floors = []string{"base", "physics", "geometry", "boat", "catalog", "film", "exposure", "readiness", "job", "planning", "finish"}

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
