package product

import (
	"testing"

	"allcoats/core/cure"
	"allcoats/core/fault"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestExamplesAreValidAndCoverEveryKind(t *testing.T) {
	seen := map[Kind]bool{}
	names := map[string]bool{}
	for _, s := range Examples() {
		require.NoError(t, s.Validate(), s.Name)
		assert.True(t, s.Example, "%s must be marked as an example", s.Name)
		assert.False(t, names[s.Name], "%s is there twice", s.Name)
		names[s.Name], seen[s.Kind] = true, true
		if s.IsCoat() {
			r, ok := s.RecoatOver(AnyKind)
			assert.True(t, ok && len(r.Min) >= 2, "%s needs a recoat table", s.Name)
			assert.NotEmpty(t, s.Tins, s.Name)
			assert.NotEmpty(t, s.Cautions, s.Name)
		}
	}
	for _, k := range Kinds {
		assert.True(t, seen[k.Kind], "no example of %s", k.Name)
	}
}

func TestValidateNamesTheField(t *testing.T) {
	cases := []struct {
		name   string
		change func(*Sheet)
		path   string
	}{
		{"no name", func(s *Sheet) { s.Name = "" }, "name"},
		{"no solids", func(s *Sheet) { s.VolumeSolidsPct = 0 }, "volumeSolidsPct"},
		{"130 % solids", func(s *Sheet) { s.VolumeSolidsPct = 130 }, "volumeSolidsPct"},
		{"hardener 0", func(s *Sheet) { s.RatioByVolume = Ratio{4, 0} }, "ratioByVolume.hardener"},
		{"humidity 140 %", func(s *Sheet) { v := 140.0; s.Limits.RHMaxPct = &v }, "limits.rhMaxPct"},
		{"crossed limits", func(s *Sheet) { v := 1.0; s.Limits.AirMaxC = &v }, "limits.airMaxC"},
		{"two corners", func(s *Sheet) { s.Limits.Polygon = []Corner{{10, 50}, {20, 50}} }, "limits.polygon"},
		{"one-point table", func(s *Sheet) { s.PotLife = cure.Table{{TempC: 20, Hours: 3}} }, "potLife"},
		{"falling temperatures", func(s *Sheet) { s.PotLife = cure.Table{{TempC: 20, Hours: 3}, {TempC: 10, Hours: 5}} }, "potLife[1].tempC"},
		{"zero hours", func(s *Sheet) { s.TouchDry = cure.Table{{TempC: 10, Hours: 0}, {TempC: 20, Hours: 5}} }, "touchDry[0].hours"},
		{"maximum under minimum", func(s *Sheet) { s.Recoat[0].Max[0].Hours = 0.1 }, "recoat[0].max[0].hours"},
		{"silent about the maximum", func(s *Sheet) { s.Recoat[0].Max = nil }, "recoat[0].max"},
		{"film upside down", func(s *Sheet) { s.Film.MaxUm = 1 }, "film.maxUm"},
		{"tin of nothing", func(s *Sheet) { s.Tins[0].Litres = 0 }, "tins[0].litres"},
		{"unknown kind", func(s *Sheet) { s.Kind = "glue" }, "kind"},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			var sheet Sheet
			for _, s := range Examples() {
				if s.Kind == HighBuild {
					sheet = s
				}
			}
			c.change(&sheet)
			var bad fault.Errors
			require.ErrorAs(t, sheet.Validate(), &bad)
			assert.Equal(t, c.path, bad[0].Path)
		})
	}
}

func TestRecoatOverPrefersTheNamedKind(t *testing.T) {
	for _, s := range Examples() {
		if s.Kind != Barrier {
			continue
		}
		named, _ := s.RecoatOver(SoftAntifoul)
		other, _ := s.RecoatOver(HighBuild)
		assert.Equal(t, SoftAntifoul, named.Over)
		assert.Equal(t, AnyKind, other.Over)
	}
	_, ok := Sheet{}.RecoatOver(Varnish)
	assert.False(t, ok)
}
