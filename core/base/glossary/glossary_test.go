package glossary

import (
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTermsAreToldOnce(t *testing.T) {
	seen := map[string]string{}
	names := make([]string, len(Terms))
	for i, term := range Terms {
		names[i] = strings.ToLower(term.Name)
		assert.NotEmpty(t, term.Says, term.Name)
		assert.NotNil(t, term.Also, "%s: a list in JSON, not null", term.Name)
		assert.True(t, strings.HasSuffix(term.Says, "."), "%s: a sentence ends", term.Name)
		assert.Less(t, len(term.Says), 260, "%s: short", term.Name)
		for _, w := range append([]string{term.Name}, term.Also...) {
			assert.Empty(t, seen[strings.ToLower(w)], "%s stands for %s too", w, term.Name)
			seen[strings.ToLower(w)] = term.Name
		}
	}
	assert.True(t, slices.IsSorted(names[:len(names)-1]), "by name")
}

// TestWordsOnScreensAreExplained reads the screens: every word that they mark as explained is.
func TestWordsOnScreensAreExplained(t *testing.T) {
	marked := regexp.MustCompile(`<Term>\{tr\("([^"]+)"\)\}</Term>`)
	n := 0
	err := filepath.WalkDir("../../../web/src", func(path string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".tsx") {
			return err
		}
		raw, err := os.ReadFile(path)
		for _, m := range marked.FindAllStringSubmatch(string(raw), -1) {
			_, ok := Find(strings.Join(strings.Fields(m[1]), " "))
			assert.True(t, ok, "%s: %q is marked as explained, and is not", path, m[1])
			n++
		}
		return err
	})
	require.NoError(t, err)
	assert.Greater(t, n, 10, "the screens explain their words")
}
