package httpapi

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"allcoats/calc"
	"allcoats/calc/pocket"
	"allcoats/core/base/fielderr"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the command line refuses, HTTP refuses, at the same fields.
func TestCommandLineAndHTTPAreOneContract(t *testing.T) {
	c := serve(t, "", false)
	for name, k := range map[string]struct {
		calc, request string
		want          []string
	}{
		"missing": {"area-girth", `{"stations":[{"atM":0,"girthM":1},{"atM":1}],"sides":2}`,
			[]string{"stations[1].girthM"}},
		"null": {"area-girth", `{"stations":[{"atM":0,"girthM":null}],"sides":null}`,
			[]string{"sides", "stations[0].girthM"}},
		"null list": {"area-girth", `{"stations":null,"sides":2}`, []string{"stations"}},
		"unknown": {"area-girth", `{"stations":[{"atM":0,"girthM":1,"girth":1}],"sides":2}`,
			[]string{"stations[0].girth"}},
		"text":      {"convert", `{"value":"2","from":"in","to":"mm"}`, []string{"value"}},
		"overflow":  {"convert", `{"value":1e308,"from":"m","to":"µm"}`, []string{"value"}},
		"underflow": {"convert", `{"value":1e-320,"from":"µm","to":"m"}`, []string{"value"}},
		"not optional": {"consumption", `{"logged":[],"areaSdPct":{"a":8}}`,
			[]string{"plannedSurface", "reckonedLitresOfCoatsToCome"}},
		"coats none": {"film",
			`{"volumeSolidsPct":50,"dftUm":100,"thinnerPct":0,"areaM2":10,"coats":0,"lossPct":10}`, []string{"coats"}},
		"a share": {"film",
			`{"volumeSolidsPct":0.5,"dftUm":100,"thinnerPct":0,"areaM2":10,"coats":1,"lossPct":10}`,
			[]string{"volumeSolidsPct"}},
		"more water than the boat": {"wetted-surface",
			`{"hullForm":"medium","loaM":8,"lwlM":7,"beamM":2.6,"draughtM":1,"freeboardM":0.9,"displacementT":30}`,
			[]string{"displacementT"}},
		"humidity as a share": {"moist-air", `{"tempC":15,"rhPct":0.8}`, []string{"rhPct"}},
		"too humid":           {"moist-air", `{"tempC":15,"rhPct":140}`, []string{"rhPct"}},
		"too many": {"area-girth", `{"sides":2,"stations":[` + strings.Repeat(`{"atM":"x","girthM":1},`,
			40) + `{"atM":0,"girthM":1}]}`, nil},
	} {
		t.Run(name, func(t *testing.T) {
			calculator, ok := calc.ByName(k.calc)
			require.True(t, ok)
			_, err := NewContract(calculator).Run(t.Context(), []byte(k.request))
			var bad fielderr.Errors
			require.ErrorAs(t, err, &bad)
			status, problem := c.call("POST", "/api/calc/"+k.calc, json.RawMessage(k.request))
			assert.Equal(t, 422, status)
			var line, http []string
			for _, f := range bad {
				line = append(line, f.Path)
			}
			for _, l := range locations(problem) {
				http = append(http, strings.TrimPrefix(l, "body."))
			}
			if k.want == nil {
				assert.Len(t, http, 20)
				assert.Len(t, line, 21, "and how many more there are")
				assert.Contains(t, bad[20].Message, "20 more")
				return
			}
			assert.ElementsMatch(t, k.want, line)
			assert.ElementsMatch(t, k.want, http)
		})
	}
}

// Optional fields may be left out of both, and the longest request is the same.
func TestOptionalFieldsAndLengths(t *testing.T) {
	c := serve(t, "", false)
	request := `{"hullForm":"medium","loaM":8,"lwlM":7,"beamM":2.6,"draughtM":1,"freeboardM":0.9}`
	_, err := NewContract(calc.AreaPrincipal).Run(t.Context(), []byte(request))
	require.NoError(t, err)
	status, _ := c.call("POST", "/api/calc/area-principal", json.RawMessage(request))
	assert.Equal(t, 200, status)
	long := fmt.Sprintf(`{"value":1,"from":"in","to":"mm%s"}`, strings.Repeat(" ", int(pocket.Convert.MaxBytes())))
	_, err = NewContract(pocket.Convert).Run(t.Context(), []byte(long))
	assert.ErrorContains(t, err, "longer than")
	status, _ = c.call("POST", "/api/calc/convert", json.RawMessage(long))
	assert.Equal(t, 413, status)
}
