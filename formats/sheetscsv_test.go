package formats

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

const onePrimer = `name,kind,volume solids %,film least µm,film typical µm,film greatest µm,cures above °C,base by volume,hardener by volume,air from °C,pot life,recoat from,laid by,packs
"Grey, quick",high-build-primer,55,75,100,150,5,3,1,10,10:6 20:3,10:12 20:6,roller brush,"2.5 L kit=2.5@9900; 1 L base=1@4000/base"
`

func TestADataSheetIsReadFromATable(t *testing.T) {
	got, err := ReadSheets("csv", []byte(onePrimer))
	require.NoError(t, err)
	require.Len(t, got, 1)
	s := got[0]
	assert.Equal(t, "Grey, quick", s.Name)
	assert.Equal(t, product.Film{MinUm: 75, TypicalUm: 100, MaxUm: 150}, s.Film)
	assert.Equal(t, cure.Table{{TempC: 10, Hours: 12}, {TempC: 20, Hours: 6}}, s.Recoat[0].Min)
	assert.True(t, s.Recoat[0].NeverCloses, "no maximum in the table")
	assert.Equal(t, 10.0, *s.Limits.AirMinC)
	assert.Equal(t, []string{"roller", "brush"}, s.Methods)
	assert.Equal(t, []product.Tin{{Name: "2.5 L kit", Litres: 2.5, PriceCents: 9900},
		{Name: "1 L base", Litres: 1, PriceCents: 4000, Part: "base"}}, s.Tins)
}

func TestFaultsOfATableNameTheirLine(t *testing.T) {
	for name, c := range map[string]struct{ old, new, want string }{
		"column":  {"cures above °C", "cures at", `line 1: "cures at" is no column`},
		"figure":  {",55,", ",many,", "line 2: volume solids %"},
		"range":   {",55,", ",155,", "line 2"},
		"hours":   {"10:12 20:6", "10-12", "10:4 20:2"},
		"packs":   {"2.5@9900", "2.5", "name=litres@cents"},
		"ordered": {"10:12 20:6", "20:6 10:12", "line 2"},
	} {
		_, err := ReadSheets("csv", []byte(strings.Replace(onePrimer, c.old, c.new, 1)))
		assert.ErrorContains(t, err, c.want, name)
	}
	for format, file := range map[string]string{"csv": "name\n", "json": "[]", "xml": "<a/>"} {
		_, err := ReadSheets(format, []byte(file))
		assert.Error(t, err, format)
	}
	_, err := ReadSheets("json", []byte(`[{"name":"x","solids":50}]`))
	assert.ErrorContains(t, err, "solids", "a misspelt field is not dropped")
	_, err = ReadSheets("json", []byte(`[{"name":"","kind":"varnish"}]`))
	assert.ErrorContains(t, err, "[0].name")
}

// What is written reads back: all of a sheet as JSON, and as CSV what its
// columns hold.
func TestTheLibraryReadsBack(t *testing.T) {
	all := product.Examples()
	raw, err := json.Marshal(all)
	require.NoError(t, err)
	got, err := ReadSheets("json", raw)
	require.NoError(t, err)
	assert.Equal(t, all, got)

	table, err := SheetsCSV(all)
	require.NoError(t, err)
	back, err := ReadSheets("csv", table)
	require.NoError(t, err)
	require.Len(t, back, len(all))
	for i, s := range back {
		assert.Equal(t, all[i].Name, s.Name)
		assert.Equal(t, all[i].Film, s.Film)
		assert.Equal(t, all[i].Limits.AirMinC, s.Limits.AirMinC)
		assert.Equal(t, all[i].TouchDry, s.TouchDry)
		assert.Equal(t, all[i].Tins, s.Tins)
		assert.ElementsMatch(t, all[i].Methods, s.Methods)
		assert.Equal(t, all[i].Example, s.Example)
	}
}

func TestATableIsWrittenAsTextAndWorkbook(t *testing.T) {
	table := Table{Name: "List", Header: []string{"product", "L"}, Rows: [][]any{{`White, "two-part"`, 2.5},
		{"=1+1", 3}}}
	raw, err := table.CSV()
	require.NoError(t, err)
	assert.Equal(t, "product,L\n\"White, \"\"two-part\"\"\",2.5\n'=1+1,3\n", string(raw))
	raw, err = table.XLSX()
	require.NoError(t, err)
	f, err := excelize.OpenReader(bytes.NewReader(raw))
	require.NoError(t, err)
	defer f.Close()
	rows, err := f.GetRows("List")
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"product", "L"}, {`White, "two-part"`, "2.5"}, {"=1+1", "3"}}, rows)
	kind, err := f.GetCellType("List", "B2")
	require.NoError(t, err)
	assert.NotEqual(t, excelize.CellTypeSharedString, kind, "a number stays a number")
}
