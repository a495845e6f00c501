package purchase

import (
	"testing"
	"time"

	"allcoats/core/catalog/product"

	"github.com/stretchr/testify/assert"
)

func TestUse(t *testing.T) {
	for _, c := range []struct {
		name   string
		items  []Shelved
		litres float64
		share  float64
		want   []float64
	}{
		{"one part, the first first", []Shelved{{"", 1}, {"", 2}}, 1.5, 1, []float64{0, 1.5}},
		{"kits whole", []Shelved{{"", 5}}, 2, 0.75, []float64{3}},
		{"parts in ratio", []Shelved{{product.BasePart, 3}, {product.HardenerPart, 1}}, 2, 0.75, []float64{1.5, 0.5}},
		{"a kit, then its base alone", []Shelved{{"", 1}, {product.BasePart, 3}}, 3, 0.75, []float64{0, 1.5}},
		{"a kit, no more of the hardener alone", []Shelved{{"", 4}, {product.HardenerPart, 1}}, 4, 0.75,
			[]float64{0, 1}},
		{"a kit, then its hardener alone", []Shelved{{"", 1}, {product.HardenerPart, 3}}, 3, 0.75, []float64{0, 2.5}},
		{"more than there is", []Shelved{{"", 1}}, 9, 1, []float64{0}},
	} {
		items := make([]*Shelved, len(c.items))
		for i := range c.items {
			items[i] = &c.items[i]
		}
		Use(items, c.litres, c.share)
		for i, want := range c.want {
			assert.InDelta(t, want, c.items[i].LeftL, 1e-12, c.name)
		}
	}
}

func TestShelfLife(t *testing.T) {
	now := time.Date(2026, 5, 9, 8, 0, 0, 0, time.UTC)
	assert.Equal(t, "2026-06-01", Expiry("2026-06-01", "2025-01-01", 12), "what is printed goes first")
	assert.Equal(t, "2026-11-09", Expiry("", "2025-11-09", 12))
	assert.Empty(t, Expiry("", "2025-11-09", 0))
	assert.Empty(t, Expiry("", "", 12))
	for day, want := range map[string]bool{"": false, "2026-05-08": true, "2026-05-09": false, "2027-01-01": false} {
		expired, _ := ShelfLife(day, now)
		assert.Equal(t, want, expired, day)
	}
	_, worry := ShelfLife("2026-06-01", now)
	assert.Equal(t, "its shelf life ends on Mon 1 Jun 2026", worry.String())
	_, worry = ShelfLife("2027-01-01", now)
	assert.Empty(t, worry)
}
