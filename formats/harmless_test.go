package formats

import (
	"bytes"
	"encoding/csv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// What people type is never read as a formula by the program that opens a table, and figures stay figures.
func TestTablesAreHarmless(t *testing.T) {
	typed := []string{"=1+1", "+cmd", "@SUM(A1)", "-2+3", "\t=1", "\r=1", "-3.5", "−3", "a=b"}
	table := Table{Name: "t", Header: []string{"x"}}
	for _, s := range typed {
		table.Rows = append(table.Rows, []any{s})
	}
	table.Rows = append(table.Rows, []any{-3.5})
	raw, err := table.CSV()
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(raw)).ReadAll()
	require.NoError(t, err)
	var got []string
	for _, r := range rows[1:] {
		got = append(got, r[0])
	}
	assert.Equal(t, []string{"'=1+1", "'+cmd", "'@SUM(A1)", "'-2+3", "'\t=1", "'\r=1", "-3.5", "−3", "a=b", "-3.5"},
		got)
	raw, err = table.XLSX()
	require.NoError(t, err)
	f, err := excelize.OpenReader(bytes.NewReader(raw))
	require.NoError(t, err)
	defer f.Close()
	for i := range table.Rows {
		formula, err := f.GetCellFormula("t", "A"+string(rune('2'+i)))
		if i < 8 {
			require.NoError(t, err)
			assert.Empty(t, formula)
		}
	}
}

// A name with line ends cannot put a line of its own into a calendar.
func TestCalendarsAreHarmless(t *testing.T) {
	at := time.Date(2026, 5, 9, 10, 0, 0, 0, time.UTC)
	for _, end := range []string{"\r\n", "\n", "\r"} {
		evil := "Tern" + end + "END:VEVENT" + end + "BEGIN:VEVENT" + end + "UID:evil"
		text := string(WriteCalendar(evil, at,
			[]Event{{ID: evil, Start: at, End: at.Add(time.Hour), Summary: evil, Description: evil, AlarmMin: 30}}))
		begins, lone := 0, strings.ReplaceAll(text, "\r\n", "")
		for _, line := range strings.FieldsFunc(text, func(r rune) bool { return r == '\r' || r == '\n' }) {
			if strings.HasPrefix(line, "BEGIN:VEVENT") || strings.HasPrefix(line, "UID:evil") {
				begins++
			}
		}
		assert.Equal(t, 1, begins, "%q", end)
		assert.NotContains(t, lone, "\r")
		assert.NotContains(t, lone, "\n")
	}
}
