package app_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSearch(t *testing.T) {
	a, s := launch(t)
	ctx := context.Background()
	first := func(q string) (kind, title string) {
		hits, err := a.Search(ctx, q, s.Boat.ID)
		require.NoError(t, err)
		if len(hits) == 0 {
			return "", ""
		}
		return hits[0].Kind, hits[0].Title
	}
	for q, want := range map[string][2]string{
		"log a wash on deck": {"do", "Log: wash, Deck"},
		"sanding deck":       {"do", "Log: sand, Deck"},
		"deck":               {"surface", "Deck"},
		"defect 1":           {"defect", "Defect 1, blister"},
		"stripe":             {"word", "stripe coat"},
		"WFT":                {"word", "wet film"},
		"marsh":              {"boat", "Marsh Lantern"},
		"non-skid deck p":    {"product", "Non-skid deck paint, textured"},
		"xyzzy":              {"", ""},
		"   ":                {"", ""},
	} {
		kind, title := first(q)
		assert.Equal(t, want, [2]string{kind, title}, q)
	}
	hits, err := a.Search(ctx, "primer topsides", s.Boat.ID)
	require.NoError(t, err)
	kinds := map[string]bool{}
	for _, h := range hits {
		kinds[h.Kind] = true
	}
	assert.True(t, kinds["task"] && kinds["log"], "tasks and entries: %v", hits)
	hits, err = a.Search(ctx, "wash deck", s.Boat.ID)
	require.NoError(t, err)
	assert.Equal(t, "/boats/"+s.Boat.ID+"/log?surface="+surfaceNamed(a, "Marsh Lantern", "Deck").ID+"&kind=wash",
		hits[0].Path)
}
