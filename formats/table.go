package formats

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/xuri/excelize/v2"
)

// Table is a header with rows of texts, numbers and instants, to be written as a file. A nil cell is
// empty. An instant is shown as it stands in its own place.
type Table struct {
	Name   string
	Header []string
	Rows   [][]any
}

// CSV writes the table separated by commas, as RFC 4180 has it. A text that a
// spreadsheet would take for a formula gets an apostrophe before it.
func (t Table) CSV() ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	_ = w.Write(t.Header) // to memory; Error tells
	for _, r := range t.Rows {
		line := make([]string, len(r))
		for i, v := range r {
			switch v := v.(type) {
			case nil:
			case time.Time:
				line[i] = v.Format("2006-01-02 15:04")
			case string:
				if line[i] = v; formula(v) {
					line[i] = "'" + v
				}
			default:
				line[i] = fmt.Sprint(v)
			}
		}
		_ = w.Write(line)
	}
	w.Flush()
	return b.Bytes(), w.Error()
}

// formula reports whether a table's program would reckon a text instead of showing it.
func formula(text string) bool {
	if text == "" || !strings.ContainsAny(text[:1], "=+-@\t\r") {
		return false
	}
	_, err := strconv.ParseFloat(text, 64)
	return err != nil
}

// XLSX writes the table as a workbook of one sheet.
func (t Table) XLSX() ([]byte, error) {
	f := excelize.NewFile()
	defer f.Close()
	if err := f.SetSheetName("Sheet1", t.Name); err != nil {
		return nil, fmt.Errorf("workbook: %w", err)
	}
	if err := f.SetSheetRow(t.Name, "A1", &t.Header); err != nil {
		return nil, fmt.Errorf("workbook: %w", err)
	}
	dated := "yyyy-mm-dd hh:mm"
	date, err := f.NewStyle(&excelize.Style{CustomNumFmt: &dated})
	if err != nil {
		return nil, fmt.Errorf("workbook: %w", err)
	}
	for i, r := range t.Rows {
		r = slices.Clone(r)
		for k, v := range r {
			at, ok := v.(time.Time)
			if !ok {
				continue
			}
			cell, err := excelize.CoordinatesToCellName(k+1, i+2)
			if err == nil {
				err = f.SetCellStyle(t.Name, cell, cell, date)
			}
			if err != nil {
				return nil, fmt.Errorf("workbook: %w", err)
			}
			y, m, d := at.Date() // a workbook knows no zones
			r[k] = time.Date(y, m, d, at.Hour(), at.Minute(), at.Second(), 0, time.UTC)
		}
		if err := f.SetSheetRow(t.Name, fmt.Sprintf("A%d", i+2), &r); err != nil {
			return nil, fmt.Errorf("workbook: %w", err)
		}
	}
	b, err := f.WriteToBuffer()
	if err != nil {
		return nil, fmt.Errorf("workbook: %w", err)
	}
	return b.Bytes(), nil
}
