package mix

import (
	"strings"
	"testing"
	"time"

	"allcoats/core/base/fielderr/bounds"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// epoxy is mixed 2:1 by volume, base 1.1 and hardener 1.0 kg/L, solvent-free.
func epoxy() product.Sheet {
	return product.Sheet{Name: "epoxy", Kind: product.Fairing, Binder: product.Epoxy, VolumeSolidsPct: 100,
		RatioByVolume: product.Ratio{Base: 2, Hardener: 1}, BaseKgL: 1.1, HardenerKgL: 1,
		ThinnerMaxPct: 5, PotLife: cure.Table{{TempC: 10, Hours: 1}, {TempC: 20, Hours: 0.5}}}
}

// 0.9 L are 0.6 L of base, 660 g, and 0.3 L of hardener, 300 g, in a pot of 50 g.
func TestFillByScaleCupAndStroke(t *testing.T) {
	p, err := Fill(PotRequest{Sheet: epoxy(), Litres: 0.9, TareG: 50, PumpBaseML: 30, PumpHardenerML: 15})
	require.NoError(t, err)
	require.Len(t, p.Targets, 2)
	assert.InDelta(t, 710, *p.Targets[0].ScaleG, 1e-9)
	assert.InDelta(t, 1010, *p.Targets[1].ScaleG, 1e-9)
	assert.InDelta(t, 600, p.Targets[0].MarkML, 1e-9)
	assert.InDelta(t, 900, p.Targets[1].MarkML, 1e-9)
	assert.InDelta(t, 20, *p.Targets[0].Strokes, 1e-9)
	assert.InDelta(t, 20, *p.Targets[1].Strokes, 1e-9, "a pump for each part keeps the ratio stroke for stroke")
	assert.InDelta(t, 960, p.PotG, 1e-9)
	light := epoxy() // a part without a density cannot be weighed, nor what is poured on it
	light.BaseKgL = 0
	p, err = Fill(PotRequest{Sheet: light, Litres: 0.9, TareG: 50})
	require.NoError(t, err)
	assert.Nil(t, p.Targets[0].AddG)
	assert.Nil(t, p.Targets[0].ScaleG)
	assert.InDelta(t, 300, *p.Targets[1].AddG, 1e-9)
	assert.Nil(t, p.Targets[1].ScaleG)
}

// With phenolic microballoons to peanut butter: 2.2 volumes of 0.1 kg/L loose, 198 g
// in 0.9 L; they fill 198/0.21 mL of it.
func TestFillers(t *testing.T) {
	p, err := Fill(PotRequest{Sheet: epoxy(), Litres: 0.9, Filler: "phenolic", Stiffness: PeanutButter})
	require.NoError(t, err)
	last := p.Targets[2]
	assert.InDelta(t, 198, *last.AddG, 1e-9)
	assert.InDelta(t, 0.9+0.198/0.21, p.PotL, 1e-9)
	assert.InDelta(t, (0.96+0.198)/(0.9+0.198/0.21), p.CuredKgL, 1e-9)
	assert.Equal(t, "very easy", p.Sanding)
	stiff := 0.0
	for _, s := range Stiffnesses {
		for _, f := range Fillers {
			_, ok := f.Parts[s]
			assert.True(t, ok, "%s, %s", f.Name, s)
		}
		assert.True(t, s == Pourable || Fillers[0].Parts[s] > stiff, "more powder stands stiffer")
		stiff = Fillers[0].Parts[s]
	}
	_, err = Fill(PotRequest{Sheet: epoxy(), Litres: 200})
	assert.NoError(t, err)
	_, err = Fill(PotRequest{Sheet: epoxy(), Litres: 201})
	assert.ErrorContains(t, err, "litres")
	_, err = Fill(PotRequest{Sheet: epoxy(), Litres: 1, Filler: "sawdust"})
	assert.ErrorContains(t, err, "filler")
}

// A litre of resin thickened in each way: the grams of filler to each stiffness, and with the most of
// it the litres that come of it, the grains without their air.
func TestWhatAFillerTakes(t *testing.T) {
	for key, want := range map[string]struct {
		g      []float64
		litres float64
	}{
		"silica":   {[]float64{0, 25, 55, 100, 140}, 1.0636},
		"fibre":    {[]float64{0, 63, 126, 216, 288}, 1.192},
		"wood":     {[]float64{0, 100, 200, 350, 475}, 1.3393},
		"chalk":    {[]float64{0, 120, 240, 360, 520}, 1.1891},
		"glass":    {[]float64{0, 72, 126, 189, 252}, 2.68},
		"phenolic": {[]float64{0, 90, 150, 220, 290}, 2.3810},
	} {
		for i, s := range Stiffnesses {
			p, err := Fill(PotRequest{Sheet: epoxy(), Litres: 1, TareG: 50, Filler: key, Stiffness: s})
			require.NoError(t, err)
			if s == Pourable {
				assert.Len(t, p.Targets, 2, "it is poured without")
				continue
			}
			last := p.Targets[2]
			assert.InDelta(t, want.g[i], *last.AddG, 1e-9, "%s, %s", key, s)
			assert.InDelta(t, 50+2200.0/3+1000.0/3+want.g[i], *last.ScaleG, 1e-6)
			if s == Putty {
				assert.InDelta(t, want.g[i]/filler(t, key).BulkKgL, last.AddML, 1e-6, "%s, loose", key)
				assert.InDelta(t, 1000*want.litres, last.MarkML, 0.1, key)
			}
		}
	}
}

func filler(t *testing.T, key string) Filler {
	f, ok := FillerByKey(key)
	require.True(t, ok)
	return f
}

// Each figure of a pot and of pots may be as large as its bound and no larger.
func TestBoundsOfPots(t *testing.T) {
	for _, c := range []struct {
		path  string
		bound float64
		set   func(r *PotRequest, v float64)
	}{
		{"thinnerPct", 50, func(r *PotRequest, v float64) { r.ThinnerPct = v }},
		{"tareG", 50000, func(r *PotRequest, v float64) { r.TareG = v }},
		{"pumpBaseML", 1000, func(r *PotRequest, v float64) { r.PumpBaseML = v }},
		{"pumpHardenerML", 1000, func(r *PotRequest, v float64) { r.PumpHardenerML = v }},
	} {
		r := PotRequest{Sheet: epoxy(), Litres: 1}
		c.set(&r, c.bound)
		assert.NoError(t, r.check(), c.path)
		c.set(&r, c.bound+1)
		assert.ErrorContains(t, r.check(), c.path)
	}
	for _, c := range []struct {
		path     string
		in, past float64
		set      func(r *BatchRequest, v float64)
	}{
		{"litres", 1000, 1001, func(r *BatchRequest, v float64) { r.Litres = v }},
		{"litresH", 1000, 1001, func(r *BatchRequest, v float64) { r.LitresH = v }},
		{"potC", 60, 61, func(r *BatchRequest, v float64) { r.PotC = v }},
		{"potC", -20, -21, func(r *BatchRequest, v float64) { r.PotC = v }},
		{"residueL", 5, 6, func(r *BatchRequest, v float64) { r.ResidueL = v }},
	} {
		r := BatchRequest{Sheet: epoxy(), Litres: 1, LitresH: 10, PotC: 10}
		r.Sheet.PotLife = nil
		c.set(&r, c.in)
		_, err := Share(r)
		assert.NoError(t, err, "%s of %g", c.path, c.in)
		c.set(&r, c.past)
		_, err = Share(r)
		assert.ErrorContains(t, err, c.path, "%s of %g", c.path, c.past)
	}
}

// A ratio by weight of 100 : 45 with 1.12 and 0.98 kg/L is 89.29 to 45.92 L: of 2 kg 1379 g are base, and the
// whole fills 2/(0.6604·1.12 + 0.3396·0.98) L. Without densities it is shared by weight alone.
func TestMixByWeight(t *testing.T) {
	r := Request{ByWeight: product.Ratio{Base: 100, Hardener: 45}, TotalKg: 2}
	got, err := Compute(r)
	require.NoError(t, err)
	assert.InDelta(t, 1.37931, *got.BaseKg, 1e-5)
	assert.InDelta(t, 0.62069, *got.HardenerKg, 1e-5)
	assert.InDelta(t, 45, *got.Per100Grams, 1e-9)
	assert.Nil(t, got.TotalL)
	r.BaseKgL, r.HardenerKgL = 1.12, 0.98
	got, err = Compute(r)
	require.NoError(t, err)
	assert.InDelta(t, 1.37931, *got.BaseKg, 1e-5)
	assert.InDelta(t, 0.62069, *got.HardenerKg, 1e-5)
	assert.InDelta(t, 2, *got.TotalKg, 1e-9)
	assert.InDelta(t, 1.37931/1.12+0.62069/0.98, *got.TotalL, 1e-4)
	assert.InDelta(t, 45, *got.Per100Grams, 1e-9)
	assert.InDelta(t, 2/(1.37931/1.12+0.62069/0.98), *got.MixedKgL, 1e-4)
	assert.InDelta(t, (1.37931/1.12)/(0.62069/0.98), *got.PerVolume, 1e-4)
	check := func(r Request) error { _, err := Compute(r); return err }
	bounds.Try(t, r, check, map[string]bounds.Bound{
		"ratioByWeight.base": bounds.Above(0, 1000), "ratioByWeight.hardener": bounds.Above(0, 1000),
		"totalKg": bounds.From(0, 5000),
	})
	r.TotalKg, r.TotalL = 0, 1
	bounds.Try(t, r, check, map[string]bounds.Bound{"totalL": bounds.Above(0, 1000), // nothing else is given
		"baseKgL": bounds.Above(0, 10), "hardenerKgL": bounds.From(0, 10)}) // one that is missing is asked for at the first
	r.TotalL, r.BaseL = 0, 1
	bounds.Try(t, r, check, map[string]bounds.Bound{"baseL": bounds.From(0, 1000)})
}

// A resin of 1.18 kg/L with 2 % at 15 and 1.5 % at 25 °C takes 1.75 % at 20 °C:
// 20.65 g a litre, 17.96 mL of 1.15 kg/L.
func TestCatalystByTheDaysTemperature(t *testing.T) {
	s := product.Sheet{Name: "gelcoat", Kind: product.Gelcoat, BaseKgL: 1.18, Doses: []product.Dose{{TempC: 15, Pct: 2},
		{TempC: 25, Pct: 1.5}}}
	p, err := Fill(PotRequest{Sheet: s, Litres: 1, TempC: 20})
	require.NoError(t, err)
	assert.InDelta(t, 20.65, *p.Targets[1].AddG, 1e-9)
	assert.InDelta(t, 17.957, p.Targets[1].AddML, 1e-3)
	assert.Empty(t, p.Working.Warnings)
	p, err = Fill(PotRequest{Sheet: s, Litres: 1, TempC: 8})
	require.NoError(t, err)
	assert.NotEmpty(t, p.Working.Warnings, "below what the sheet doses for")
}

// 600 g of base want 272.7 g of hardener.
func TestOffTheRatio(t *testing.T) {
	for _, c := range []struct {
		hardener, off float64
		within        bool
		base, more    float64
	}{
		{272.727, 0, true, 0, 0},
		{280, 2.667, true, 16, 0},
		{300, 10, false, 60, 0},
		{240, -12, false, 0, 32.727},
	} {
		d, ok := Off(epoxy(), 600, c.hardener)
		require.True(t, ok)
		assert.InDelta(t, c.off, d.OffPct, 1e-3)
		assert.Equal(t, c.within, d.Within)
		assert.InDelta(t, c.base, d.AddBaseG, 1e-3)
		assert.InDelta(t, c.more, d.AddHardenerG, 1e-3)
	}
	_, ok := Off(product.Sheet{}, 600, 100)
	assert.False(t, ok, "a one-part product has no ratio")
	// 2 : 1 by volume, 1.5 and 1.0 kg/L: 300 g of base want 100 g.
	byVolume := product.Sheet{RatioByVolume: product.Ratio{Base: 2, Hardener: 1}, BaseKgL: 1.5, HardenerKgL: 1}
	d, ok := Off(byVolume, 300, 110)
	assert.True(t, ok)
	assert.InDelta(t, 10, d.OffPct, 1e-9)
	for _, edit := range []func(*product.Sheet){func(s *product.Sheet) { s.BaseKgL = 0 },
		func(s *product.Sheet) { s.HardenerKgL = 0 }} {
		s := byVolume
		edit(&s)
		_, ok := Off(s, 300, 110)
		assert.False(t, ok, "nothing weighs what has no density")
	}
}

// A small pot at 10 °C lives an hour: 0.7 h of laying at 0.2 L/h is 0.14 L, and 0.01
// are left each time; 0.5 L are four such pots.
func TestPotsWithinThePotLife(t *testing.T) {
	s := epoxy()
	b, err := Share(BatchRequest{Sheet: s, Litres: 0.5, LitresH: 0.2, PotC: 10, ResidueL: 0.01, Start: time.Unix(0, 0)})
	require.NoError(t, err)
	assert.InDelta(t, 0.15, b.MostL, 1e-6, "of 165 g, within the mass that the pot life is for")
	assert.InDelta(t, 1, b.PotLifeH, 1e-6)
	require.Len(t, b.Batches, 4)
	sum := 0.0
	for i, x := range b.Batches {
		sum += x.Litres - 0.01
		assert.LessOrEqual(t, x.Litres, b.MostL+1e-9)
		assert.False(t, x.OnBy.Before(x.LayAt.Add(time.Duration((x.Litres-0.01)/0.2*float64(time.Hour))-time.Second)),
			"pot %d is laid in time", i)
		if i > 0 {
			assert.Equal(t, b.Batches[i-1].LayAt.Add(
				time.Duration((b.Batches[i-1].Litres-0.01)/0.2*float64(time.Hour))).Unix(), x.LayAt.Unix())
		}
	}
	assert.InDelta(t, 0.5, sum, 1e-9)
	warm, err := Share(BatchRequest{Sheet: s, Litres: 0.5, LitresH: 0.2, PotC: 20, ResidueL: 0.01})
	require.NoError(t, err)
	assert.Greater(t, len(warm.Batches), len(b.Batches), "half the pot life")

	s.InductionMin = 60
	_, err = Share(BatchRequest{Sheet: s, Litres: 0.5, LitresH: 0.2, PotC: 20, ResidueL: 0.01})
	assert.ErrorContains(t, err, "the pot life is too short")
	// Only a large pot that cures by the clock heats itself, and only cold thick mixes do not stir out: five times
	// 200 g are 1 L.
	heats := func(s product.Sheet, litres, potC float64) (hot, cold bool) {
		b, err := Share(BatchRequest{Sheet: s, Litres: litres, LitresH: 1000, PotC: potC})
		require.NoError(t, err)
		for _, w := range b.Working.Warnings {
			hot = hot || strings.Contains(w.String(), "heats itself")
			cold = cold || strings.Contains(w.String(), "not stir out")
		}
		return hot, cold
	}
	slow := epoxy()
	for _, c := range []struct {
		solids, litres, potC float64
		hot, cold            bool
	}{{100, 0.95, 15, true, false}, {100, 0.9, 15, false, false}, {80, 0.95, 15, true, false}, {79, 5, 15, false, false},
		{100, 0.1, 9.9, false, true}, {100, 0.1, 10, false, false}} {
		slow.VolumeSolidsPct = c.solids
		hot, cold := heats(slow, c.litres, c.potC)
		assert.Equal(t, []bool{c.hot, c.cold}, []bool{hot, cold}, "%+v", c)
	}
	slow.PotLife = nil
	hot, _ := heats(slow, 5, 15)
	assert.False(t, hot, "what has no pot life does not")
	s.PotLife, s.InductionMin = nil, 0
	one, err := Share(BatchRequest{Sheet: s, Litres: 12, LitresH: 2, PotC: 20})
	require.NoError(t, err)
	assert.Len(t, one.Batches, 1, "what has no pot life is poured as it is used")
}

// Ten times the reference mass: 10^-0.3, a half. A mix with solvent is not shortened.
func TestMassShortensThePotLife(t *testing.T) {
	s := epoxy()
	s.PotMassKg = 0.11
	assert.InDelta(t, 0.501, PotLifeH(s, 1, 10), 1e-3)
	assert.Equal(t, 1.0, MassFactor(s, 0.1))
	s.PotMassKg = 0 // a sheet's pot life is for 200 g where it does not say: twice that has 2^-0.3 of it
	assert.InDelta(t, 0.8123, MassFactor(s, 0.4/1.1), 1e-4)
	assert.Equal(t, 1.0, MassFactor(s, 0.2/1.1))
	s.BaseKgL = 0
	assert.InDelta(t, 0.8123, MassFactor(s, 0.4), 1e-4, "a litre is taken for a kilogram")
	s.VolumeSolidsPct = 80
	assert.InDelta(t, 0.8123, MassFactor(s, 0.4), 1e-4)
	s.VolumeSolidsPct = 79.9
	assert.Equal(t, 1.0, MassFactor(s, 0.4), "solvent takes the heat away")
	s.BaseKgL = 1.1
	s.VolumeSolidsPct = 55
	assert.Equal(t, 1.0, MassFactor(s, 1))
}

// A catalysed filler takes its catalyst once: 2 % of 0.9 kg at 20 °C is 18 g, whatever
// ratio the sheet repeats beside its dose.
func TestPeroxideIsPouredOnce(t *testing.T) {
	s := product.Sheet{Name: "filler", Kind: product.Fairing, Binder: product.Polyester, BaseKgL: 0.9, HardenerKgL: 1.1,
		RatioByWeight: product.Ratio{Base: 100, Hardener: 2}, Doses: []product.Dose{{TempC: 10, Pct: 3},
			{TempC: 20, Pct: 2}}}
	p, err := Fill(PotRequest{Sheet: s, Litres: 1, TempC: 20})
	require.NoError(t, err)
	require.Len(t, p.Targets, 2)
	assert.Equal(t, "catalyst", p.Targets[1].Part)
	assert.InDelta(t, 18, *p.Targets[1].AddG, 1e-9)
	_, ok := Off(s, 900, 18)
	assert.False(t, ok, "a dose is no ratio of two parts")

	for _, s := range product.Examples() {
		if len(s.Doses) == 0 {
			continue
		}
		p, err := Fill(PotRequest{Sheet: s, Litres: 1, TempC: 18})
		require.NoError(t, err, s.Name)
		hardener, resin := 0.0, 0.0
		for _, target := range p.Targets {
			if target.Part == product.BasePart {
				resin += *target.AddG
			} else {
				hardener += *target.AddG
			}
		}
		assert.LessOrEqual(t, 100*hardener/resin, 3.0, "%s: peroxide, %% by weight", s.Name)
	}
}

func TestStands(t *testing.T) {
	assert.Contains(t, Stands(30), "any stiffness")
	assert.Contains(t, Stands(31), "peanut butter or putty")
}
