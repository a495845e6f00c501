package product

import (
	"slices"
	"strings"
	"testing"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/fielderr/bounds"
	"allcoats/core/physics/cure"

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
		{"falling temperatures", func(s *Sheet) {
			s.PotLife = cure.Table{{TempC: 20, Hours: 3},
				{TempC: 10, Hours: 5}}
		}, "potLife[1].tempC"},
		{"zero hours", func(s *Sheet) { s.TouchDry = cure.Table{{TempC: 10, Hours: 0}, {TempC: 20, Hours: 5}} },
			"touchDry[0].hours"},
		{"maximum under minimum", func(s *Sheet) {
			s.Recoat[0].Max = cure.Table{{TempC: 10, Hours: 0.1},
				{TempC: 20, Hours: 0.1}}
		}, "recoat[0].max[0].hours"},
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
			var bad fielderr.Errors
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

func TestThereAreThirtyExamples(t *testing.T) {
	all := Examples()
	assert.GreaterOrEqual(t, len(all), 30)
	for _, s := range all {
		assert.Empty(t, s.Doubts(), s.Name)
		if s.IsCoat() {
			assert.NotEmpty(t, s.Binder, s.Name)
			assert.Positive(t, s.ShelfLifeMonths, s.Name)
		}
	}
}

func TestGradesAndDoses(t *testing.T) {
	var barrier, gelcoat Sheet
	for _, s := range Examples() {
		switch {
		case s.Kind == Barrier && len(s.Grades) > 0:
			barrier = s
		case s.Kind == Gelcoat && len(s.Doses) > 0:
			gelcoat = s
		}
	}
	cold, ok := barrier.With("low-temperature")
	require.True(t, ok)
	assert.Less(t, cold.MinCureC, barrier.MinCureC)
	a, _ := barrier.TouchDry.TauH(10, cure.Minimum)
	b, _ := cold.TouchDry.TauH(10, cure.Minimum)
	assert.Less(t, b, a)
	assert.NotEqual(t, barrier.ThroughDry, cold.ThroughDry)
	require.NotNil(t, cold.Limits.AirMinC)
	assert.Equal(t, 0.0, *cold.Limits.AirMinC, "its own limits")
	assert.Equal(t, 10.0, *barrier.Limits.AirMinC)
	assert.Equal(t, barrier.Limits.RHMaxPct, cold.Limits.RHMaxPct)
	bare := Sheet{ThroughDry: barrier.ThroughDry, Recoat: barrier.Recoat, Limits: barrier.Limits,
		Grades: []Grade{{Name: "winter", MinCureC: -5}}}
	winter, _ := bare.With("winter")
	assert.Empty(t, winter.ThroughDry, "what it leaves out is not known")
	assert.Empty(t, winter.Recoat)
	assert.Equal(t, -5.0, *winter.Limits.SurfaceMinC)
	same, ok := barrier.With("")
	assert.True(t, ok)
	assert.Equal(t, barrier, same)
	_, ok = barrier.With("tropical")
	assert.False(t, ok)

	for temp, want := range map[float64]float64{5: 3, 12: 3, 15: 2.5, 25: 1.5, 40: 1.2} {
		got, ok := gelcoat.DosePct(temp)
		assert.True(t, ok)
		assert.InDelta(t, want, got, 1e-9, "%g °C", temp)
	}
	_, ok = Sheet{}.DosePct(20)
	assert.False(t, ok)
}

func TestBaseShare(t *testing.T) {
	assert.Equal(t, 1.0, Sheet{}.BaseShare())
	assert.Equal(t, 0.75, Sheet{RatioByVolume: Ratio{3, 1}}.BaseShare())
	// 100 : 50 by weight at 1.2 and 1.0 kg/L is 83.3 : 50 by volume.
	assert.InDelta(t, 0.625, Sheet{RatioByWeight: Ratio{100, 50}, BaseKgL: 1.2, HardenerKgL: 1}.BaseShare(), 1e-12)
}

func TestDoubts(t *testing.T) {
	s := Sheet{TouchDry: cure.Table{{TempC: 10, Hours: 4}, {TempC: 20, Hours: 4}},
		Recoat: []Recoat{{Over: AnyKind, Min: cure.Table{{TempC: 10, Hours: 4}, {TempC: 20, Hours: 4}}}}}
	assert.Len(t, s.Doubts(), 2)
	assert.Contains(t, s.Doubts()[0].String(), "4 h at 20 °C is not shorter than 4 h at 10 °C")
}

// What would hurt somebody, in every example sheet.
func TestExamplesSayWhatHurts(t *testing.T) {
	for _, s := range Examples() {
		all := strings.Join(append(s.Cautions, s.Notes), " ")
		if s.Binder == Polyurethane && (s.RatioByVolume != (Ratio{}) || s.Humidity == cure.MoistureCured) {
			assert.Contains(t, strings.ToLower(all), "isocyanate", s.Name)
		}
		if s.Copper {
			assert.NotContains(t, all, "For aluminium", s.Name)
			assert.Contains(t, all, "aluminium", s.Name)
		}
		if len(s.Doses) > 0 {
			assert.Zero(t, s.RatioByWeight, s.Name)
			assert.Zero(t, s.RatioByVolume, s.Name)
			assert.Contains(t, all, "eroxide", s.Name)
		}
	}
}

func TestMoreFieldsAreChecked(t *testing.T) {
	good := Examples()[0]
	for path, change := range map[string]func(*Sheet){
		"binder":          func(s *Sheet) { s.Binder = "glue" },
		"humidity":        func(s *Sheet) { s.Humidity = "wet" },
		"sheetDate":       func(s *Sheet) { s.SheetDate = "spring" },
		"hidingUm":        func(s *Sheet) { s.HidingUm = -1 },
		"maxPassMM":       func(s *Sheet) { s.MaxPassMM = 1e6 },
		"shelfLifeMonths": func(s *Sheet) { s.ShelfLifeMonths = -2 },
		"lossPct.brush":   func(s *Sheet) { s.LossPct = map[string]float64{"brush": 95} },
		"doses[0].pct":    func(s *Sheet) { s.Doses = []Dose{{20, 0}} },
		"doses[1].tempC":  func(s *Sheet) { s.Doses = []Dose{{20, 2}, {10, 2}} },
		"grades[0].name":  func(s *Sheet) { s.Grades = []Grade{{}} },
		"grades[0].potLife[0].hours": func(s *Sheet) {
			s.Grades = []Grade{{Name: "x", PotLife: cure.Table{{TempC: 10, Hours: -1}, {TempC: 20, Hours: 1}}}}
		},
		"ratioByVolume": func(s *Sheet) { s.RatioByWeight, s.Doses = Ratio{}, []Dose{{20, 2}} },
		"tins":          func(s *Sheet) { s.Tins = make([]Tin, MaxTins+1) },
		"tins[0].part": func(s *Sheet) {
			s.RatioByVolume, s.RatioByWeight, s.PotLife = Ratio{}, Ratio{}, nil
			s.Tins = []Tin{{Name: "x", Litres: 1, PriceCents: 1, Part: BasePart}}
		},
		"tins[0].supplier": func(s *Sheet) { s.Tins = []Tin{{Name: "x", Litres: 1, Supplier: "a; b"}} },
		"tins[0].partNo": func(s *Sheet) {
			s.Tins = []Tin{{Name: "x", Litres: 1, PartNo: strings.Repeat("9", 81)}}
		},
	} {
		s := good
		change(&s)
		var bad fielderr.Errors
		require.ErrorAs(t, s.Validate(), &bad, path)
		assert.Equal(t, path, bad[0].Path)
	}
}

// What cannot be true together is refused at its field; the examples' figures, which fit, pass.
func TestWhatCannotBeTrueTogether(t *testing.T) {
	sheet := func(name string) Sheet {
		i := slices.IndexFunc(Examples(), func(s Sheet) bool { return strings.HasPrefix(s.Name, name) })
		require.GreaterOrEqual(t, i, 0, name)
		return Examples()[i]
	}
	two, one := sheet("Topcoat, two-part"), sheet("Topcoat, one-part")
	for _, c := range []struct {
		path   string
		of     Sheet
		change func(*Sheet)
	}{
		{"ratioByWeight", two, func(s *Sheet) { s.RatioByWeight.Hardener = 46 }},
		{"ratioByWeight", two, func(s *Sheet) { s.HardenerKgL = 1.2 }},
		{"potLife", two, func(s *Sheet) { s.PotLife = nil }},
		{"potLife", one, func(s *Sheet) { s.PotLife = two.PotLife }},
		{"volumeSolidsPct", one, func(s *Sheet) { s.BaseKgL = 4.5 }},
		{"volumeSolidsPct", one, func(s *Sheet) { s.VolumeSolidsPct, s.BaseKgL = 20, 0.7 }},
		{"tackFree", two, func(s *Sheet) { s.TackFree = cure.Table{{TempC: 10, Hours: 7}, {TempC: 20, Hours: 3}} }},
		{"sandable", two, func(s *Sheet) { s.Sandable = cure.Table{{TempC: 10, Hours: 9}, {TempC: 20, Hours: 5}} }},
		{"throughDry", two, func(s *Sheet) {
			s.ThroughDry = cure.Table{{TempC: 10, Hours: 30},
				{TempC: 20, Hours: 15}}
		}},
		{"immersion", two, func(s *Sheet) { s.Immersion = cure.Table{{TempC: 10, Hours: 4}, {TempC: 20, Hours: 2}} }},
		{"recoat[0].min", two, func(s *Sheet) {
			s.Recoat = []Recoat{{Over: AnyKind, Min: cure.Table{{TempC: 10, Hours: 3}, {TempC: 20, Hours: 2}},
				NeverCloses: true}}
		}},
	} {
		require.NoError(t, c.of.Validate())
		s := c.of
		c.change(&s)
		var bad fielderr.Errors
		require.ErrorAs(t, s.Validate(), &bad, c.path)
		assert.Equal(t, c.path, bad[0].Path)
	}
	two.RatioByWeight.Hardener = 42.9 // 2 : 1 at 1.26 and 1.05 kg/L is 100 : 41.67, and 3 % may be off
	assert.NoError(t, two.Validate())
}

func TestBoundsOfASheet(t *testing.T) {
	sheet := Examples()[slices.IndexFunc(Examples(), func(s Sheet) bool { return s.Kind == Varnish && s.IsCoat() })]
	sheet.LossPct = map[string]float64{"brush": 10}
	bounds.Try(t, sheet, Sheet.Validate, map[string]bounds.Bound{
		"hidingUm":        bounds.From(0, 2000),
		"sagUprightUm":    bounds.From(0, 50_000),
		"sagOverheadUm":   bounds.From(0, 50_000),
		"shrinkagePct":    bounds.From(0, 60),
		"maxPassMM":       bounds.From(0, 100),
		"uvPerUm":         bounds.From(0, 1),
		"leastTotalUm":    bounds.From(0, 10_000),
		"launchMaxH":      bounds.From(0, 20_000),
		"polishUmYear":    bounds.From(0, 2000),
		"polishUm1000NM":  bounds.From(0, 2000),
		"shelfLifeMonths": bounds.From(0, 240),
		"potMassKg":       bounds.From(0, 50),
		"minCureC":        bounds.From(-30, 40),
		"lossPct.brush":   bounds.From(0, 90),
	})
}

// A millimetre of open, porous filler takes up a twentieth of itself.
func TestWhatPorousFillerTakesUp(t *testing.T) {
	assert.InDelta(t, 0.05, Sheet{Porous: true}.SoakMM(1000), 1e-12)
	assert.InDelta(t, 0.01, Sheet{Porous: true}.SoakMM(200), 1e-12)
	assert.Zero(t, Sheet{}.SoakMM(1000))
}

func TestOrderOfKinds(t *testing.T) {
	assert.Equal(t, 0, Kinds[0].Kind.Order())
	assert.Equal(t, len(Kinds)-1, Kinds[len(Kinds)-1].Kind.Order())
	assert.Equal(t, len(Kinds), Kind("no such kind").Order())
}

// What a log found slower is slower in every least time, of the sheet and of its grades; greatest times stand, and none is shortened.
func TestSlower(t *testing.T) {
	hours := func(h float64) cure.Table { return cure.Table{{TempC: 20, Hours: h}} }
	s := Sheet{TouchDry: hours(1), TackFree: hours(2), Sandable: hours(3), ThroughDry: hours(4),
		Immersion: hours(5), PotLife: hours(6),
		Recoat: []Recoat{{Over: AnyKind, Min: hours(7), Max: hours(8)}},
		Grades: []Grade{{Name: "slow", TouchDry: hours(10), TackFree: hours(11), Sandable: hours(12), ThroughDry: hours(13), Immersion: hours(14),
			PotLife: hours(15), Recoat: []Recoat{{Over: AnyKind, Min: hours(16), Max: hours(17)}}}}}
	of := func(s Sheet) []float64 {
		g := s.Grades[0]
		var out []float64
		for _, table := range []cure.Table{s.TouchDry, s.TackFree, s.Sandable, s.ThroughDry, s.Immersion, s.PotLife,
			s.Recoat[0].Min, s.Recoat[0].Max,
			g.TouchDry, g.TackFree, g.Sandable, g.ThroughDry, g.Immersion, g.PotLife, g.Recoat[0].Min, g.Recoat[0].Max} {
			out = append(out, table[0].Hours)
		}
		return out
	}
	was := of(s)
	assert.Equal(t, []float64{1.5, 3, 4.5, 6, 7.5, 6, 10.5, 8, 15, 16.5, 18, 19.5, 21, 15, 24, 17}, of(s.Slower(1.5)))
	assert.Equal(t, was, of(s), "the sheet itself is as it was")
	assert.Equal(t, was, of(s.Slower(0.8)))
	assert.Equal(t, 1.5, s.Slower(1.5).SlowerBy)
	assert.Zero(t, s.Slower(1).SlowerBy)
}

func TestGritsBetweenGloss(t *testing.T) {
	grits := func(k, over Kind) [2]int { from, to := k.Grits(over); return [2]int{from, to} }
	assert.Equal(t, [2]int{120, 400}, grits(Varnish, WoodSealer))
	assert.Equal(t, [2]int{220, 400}, grits(Varnish, Varnish))
	assert.Equal(t, [2]int{60, 220}, grits(HighBuild, TopcoatTwo))
}

func TestIsocyanate(t *testing.T) {
	two := Ratio{Base: 3, Hardener: 1}
	assert.True(t, Sheet{Binder: Polyurethane, RatioByVolume: two}.Isocyanate())
	assert.False(t, Sheet{Binder: Epoxy, RatioByVolume: two}.Isocyanate())
	assert.False(t, Sheet{Binder: Polyurethane}.Isocyanate(), "one part that dries")
	assert.True(t, Sheet{Binder: Polyurethane, Humidity: cure.MoistureCured}.Isocyanate())
	assert.InDelta(t, 0.1, Sheet{Porous: true}.SoakMM(2000), 1e-12, "a twentieth of 2 mm")
	assert.Zero(t, Sheet{}.SoakMM(2000))
}
