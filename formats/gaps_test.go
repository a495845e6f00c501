package formats

import (
	"strings"
	"testing"

	"allcoats/core/exposure/reading"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func values(rows [][]*float64) (out [][]any) {
	for _, r := range rows {
		line := []any{}
		for _, v := range r {
			if v == nil {
				line = append(line, nil)
			} else {
				line = append(line, *v)
			}
		}
		out = append(out, line)
	}
	return out
}

func TestReadGaps(t *testing.T) {
	for text, want := range map[string][][]any{
		"0;1,5;2\n1;-;3\n":         {{0.0, 1.5, 2.0}, {1.0, nil, 3.0}},
		"0,1.5,2\n1,,3\n":          {{0.0, 1.5, 2.0}, {1.0, nil, 3.0}},
		"a\tb\n0\t4\n2\n":          {{0.0, 4.0}, {2.0, nil}},
		"frame 1;frame 2\n1,0;2,5": {{1.0, 2.5}},
	} {
		got, err := ReadGaps([]byte(text))
		require.NoError(t, err, text)
		assert.Equal(t, want, values(got), text)
	}
	_, err := ReadGaps([]byte("1;2\n1;deep\n"))
	assert.ErrorContains(t, err, `line 2: "deep" in column 2`)
	_, err = ReadGaps(nil)
	assert.ErrorContains(t, err, "no gaps")
}

func TestReadGauge(t *testing.T) {
	for _, c := range []struct {
		text, unit string
		want       []float64
	}{
		{"210\n195\n", "", []float64{210, 195}},
		{"no;film µm\n1;210,5\n2;195\n", "", []float64{210.5, 195}},
		{"n,DFT mil\n1,8\n2,7.5\n", "", []float64{203.2, 190.5}},
		{"8\n", "mil", []float64{203.2}},
	} {
		got, err := ReadGauge([]byte(c.text), c.unit)
		require.NoError(t, err, c.text)
		assert.InDeltaSlice(t, c.want, got, 1e-9)
	}
	_, err := ReadGauge([]byte("210\nthick\n"), "")
	assert.ErrorContains(t, err, `line 2: "thick" is no number`)
}

func TestReadValueLines(t *testing.T) {
	got, err := ReadValueLines([]byte(`{"at":"2026-05-09T10:00:00Z","value":0.5,"unit":"kg"}`+"\n\n"+
		`{"at":"2026-05-09T10:00:01Z","value":501,"unit":"g"}`), reading.Scale)
	require.NoError(t, err)
	require.Len(t, got, 2)
	assert.Equal(t, 500.0, got[0].Value)
	for where, line := range map[string]string{
		"line 1.unit":  `{"at":"2026-05-09T10:00:00Z","value":3,"unit":"mil"}`,
		"line 1.at":    `{"value":3,"unit":"g"}`,
		"line 1.value": `{"at":"2026-05-09T10:00:00Z","value":1e9,"unit":"g"}`,
		"line 1":       `{"grams":3}`,
		"file":         "\n",
	} {
		_, err := ReadValueLines([]byte(line), reading.Scale)
		assert.ErrorContains(t, err, where)
	}
}

func FuzzReadGaps(f *testing.F) {
	f.Add([]byte("0;1,5;2\n1;-;3\n"))
	f.Add([]byte("a,b\n0,1\n,2\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadGaps(data)
		if err != nil {
			return
		}
		for _, row := range got {
			if len(row) != len(got[0]) {
				t.Fatalf("rows of %d and %d readings", len(got[0]), len(row))
			}
		}
	})
}

func FuzzReadGauge(f *testing.F) {
	f.Add([]byte("no;film µm\n1;210,5\n"))
	f.Add([]byte("8\n7.5\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadGauge(data, "")
		if err != nil {
			return
		}
		for _, v := range got {
			if v < 0 || v > 50e3 {
				t.Fatalf("%g µm were taken", v)
			}
		}
	})
}

func FuzzReadValueLines(f *testing.F) {
	f.Add([]byte(`{"at":"2026-05-09T10:00:00Z","value":0.5,"unit":"kg"}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := ReadValueLines(data, reading.Scale)
		if err == nil && len(got) == 0 {
			t.Fatal("neither values nor an error")
		}
	})
}

// What would take more memory than a table of gaps is worth is refused before it is read, or filled up.
func TestGapsAreBound(t *testing.T) {
	_, err := ReadGaps([]byte(strings.Repeat("1,", 1<<19)))
	assert.ErrorContains(t, err, "1024 kB of gaps; at most 512 kB")
	wide := strings.Repeat("1;", 2000) + "1\n" + strings.Repeat("1\n", 100)
	_, err = ReadGaps([]byte(wide))
	assert.ErrorContains(t, err, "101 rows of 2001 gaps are 202101; at most 65536")
	got, err := ReadGaps([]byte(strings.Repeat("1;", 600) + "1\n" + strings.Repeat("2\n", 100)))
	require.NoError(t, err)
	assert.Len(t, got[100], 601)
}
