package enquiry

import (
	"testing"

	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
)

// A data sheet begins with how it is laid and when the next coat may follow, rounded to the safe side. By hand: 50 µm
// of 50 % solids are 100 µm wet.
func TestADataSheetSaysHowItIsLaid(t *testing.T) {
	plain := product.Sheet{Kind: product.TopcoatOne, VolumeSolidsPct: 50, Film: product.Film{TypicalUm: 50}}
	assert.Equal(t, "Lay it 100 µm wet for 50 µm dry. It does not say when the next coat may follow.", OfSheet(plain).String())
	assert.Empty(t, OfSheet(product.Sheet{Kind: product.Thinner}))
	c := func(v float64) *float64 { return &v }
	at := func(tempC, hours float64) cure.Table {
		return cure.Table{{TempC: tempC, Hours: hours}, {TempC: tempC + 10, Hours: hours / 2}}
	}
	for want, edit := range map[string]func(*product.Sheet){
		"Lay it 125 µm wet for 50 µm dry, at 10 °C or more and up to 85 % humidity. At 20 °C the next coat may follow " +
			"after 16 h and, without sanding, within 3 days.": func(s *product.Sheet) {
			s.VolumeSolidsPct, s.Limits = 40, product.Limits{SurfaceMinC: c(10), RHMaxPct: c(85)}
			s.Recoat = []product.Recoat{{Over: product.AnyKind, Min: at(20, 15.2), Max: at(20, 95.9)}}
		},
		"Lay it 100 µm wet for 50 µm dry, at 5 °C to 35 °C. At 25 °C the next coat may follow after 45 min and, " +
			"without sanding, within 11.5 h.": func(s *product.Sheet) {
			s.Limits = product.Limits{AirMinC: c(5), AirMaxC: c(35)}
			s.Recoat = []product.Recoat{{Over: product.AnyKind, Min: at(25, 0.7), Max: at(25, 11.9)}}
		},
		"Lay it 100 µm wet for 50 µm dry, at 30 °C or less. At 20 °C the next coat may follow after 24 h.": func(
			s *product.Sheet) {
			s.Limits = product.Limits{AirMaxC: c(30)}
			s.Recoat = []product.Recoat{{Over: product.Varnish, Min: at(20, 24), NeverCloses: true}}
		},
	} {
		s := plain
		edit(&s)
		assert.Equal(t, want, OfSheet(s).String())
	}
}
