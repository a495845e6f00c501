package formats

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"
)

// Table is a header with rows of texts and numbers, to be written as a file.
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
			line[i] = fmt.Sprint(v)
			if text, ok := v.(string); ok && formula(text) {
				line[i] = "'" + text
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
	for i, r := range t.Rows {
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
