package calc

import (
	"encoding/json"
	"slices"
	"testing"

	"allcoats/calc/pocket"
	"allcoats/core/base/fielderr"
	"allcoats/core/conditions/clock"
	"allcoats/core/job/rules"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestEveryExampleWorks(t *testing.T) {
	for _, c := range All {
		info := c.Info()
		raw, err := json.Marshal(info.Example)
		require.NoError(t, err)
		res, err := c.Run(t.Context(), raw)
		require.NoError(t, err, info.Name)
		out, err := json.Marshal(res)
		require.NoError(t, err)
		assert.NotContains(t, string(out), "null", info.Name)
	}
}

func TestBadRequestsNameTheField(t *testing.T) {
	cases := []struct{ calc, body, path string }{
		{"film", `{"volumeSolidsPct":"fifty","dftUm":100}`, "volumeSolidsPct"},
		{"film", `{"volumeSolidsPct":130,"dftUm":100}`, "volumeSolidsPct"},
		{"film", `{"volumeSolidsPct":50}`, "dftUm"},
		{"film", `{"volumeSolidsPct":50,"dftUm":100,"wftUm":200}`, "wftUm"},
		{"film", `{"volumeSolidsPct":50,"dftUm":100} {}`, ""},
		{"film", `{"solids":50}`, ""},
		{"moist-air", `{"tempC":10,"rhPct":140}`, "rhPct"},
		{"moist-air", `{"tempC":10,"rhPct":0}`, "rhPct"},
		{"recoat", `{"min":[{"tempC":20,"hours":5}],"minCureC":5,"surfaceTempsC":[20,20]}`, "min"},
		{"recoat", `{"min":[{"tempC":20,"hours":5},{"tempC":10,"hours":9}],"minCureC":5,"surfaceTempsC":[20,20]}`,
			"min[1].tempC"},
		{"recoat", `{"min":[{"tempC":10,"hours":9},{"tempC":20,"hours":5}],"minCureC":5,"surfaceTempsC":[]}`,
			"surfaceTempsC"},
		{"area-principal", `{"hullForm":"medium","loaM":6,"lwlM":5,"beamM":7,"draughtM":1,"freeboardM":1}`, "beamM"},
		{"area-principal", `{"hullForm":"medium","loaM":6,"lwlM":6.5,"beamM":2,"draughtM":1,"freeboardM":1}`, "lwlM"},
		{"field", `{"limits":{"holdH":1,"rainFreeH":0},"applyH":1,"latitudeDeg":95,"longitudeDeg":0,"air":[]}`,
			"latitudeDeg"},
		{"field", `{"limits":{"holdH":1,"rainFreeH":0},"applyH":1,"latitudeDeg":50,"longitudeDeg":0,"air":[
			{"at":"2026-05-09T10:00:00Z","tempC":10,"rhPct":50},{"at":"2026-05-09T10:00:00Z","tempC":10,"rhPct":50}]}`, "air[1].at"},
		{"convert", `{"value":1,"from":"mil","to":"kg"}`, "to"},
		{"findings", `{"part":"bottom","substrate":"cheese","steps":[]}`, "substrate"},
		{"findings",
			`{"part":"bottom","substrate":"grp","steps":[{"work":"coat","coats":1,"dftUm":50,"method":"roller","lossPct":0,"thinnerPct":0}]}`, "steps[0].sheet"},
		{"convert", `{"value":1,"from":"cubit","to":"m"}`, "from"},
	}
	for _, c := range cases {
		calc, ok := ByName(c.calc)
		require.True(t, ok)
		_, err := calc.Run(t.Context(), []byte(c.body))
		var bad fielderr.Errors
		require.ErrorAs(t, err, &bad, c.body)
		assert.Equal(t, c.path, bad[0].Path, c.body)
	}
}

// A table of one point works only where the user accepts the rule of thumb,
// and then says so.
func TestOnePointTable(t *testing.T) {
	const body = `{"min":[{"tempC":20,"hours":2}],"onePointTables":true,"minCureC":0,"surfaceTempsC":[20,20,20,20]}`
	res, err := pocket.Recoat.Run(t.Context(), []byte(body))
	require.NoError(t, err)
	got := res.(clock.Result)
	require.NotNil(t, got.OpensAfterH)
	assert.InDelta(t, 2, *got.OpensAfterH, 1e-3)
	require.NotEmpty(t, got.Working.Warnings)
	assert.Contains(t, got.Working.Warnings[0].String(), "rule of thumb")
}

// The example of the findings calculator is copper on aluminium: it stops, at its coat.
func TestFindingsTellWhatStops(t *testing.T) {
	got, err := Findings.Answer(t.Context(), exampleSteps())
	require.NoError(t, err)
	i := slices.IndexFunc(got.Findings, func(f rules.Finding) bool { return f.Rule == "copper-near-aluminium" })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, 3, got.Findings[i].Step)
	assert.Equal(t, rules.Stop, got.Findings[i].Severity)
	assert.NotEmpty(t, got.Findings[i].Source)
}
