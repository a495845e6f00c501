package formats

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/mesh"
)

// ReadOffsets reads a table of offsets as CSV and lofts it. The header is a
// word for the stations' column, then the waterlines' heights in rising order,
// and optionally a column "keel". Each row is a station's distance from aft,
// its half-breadths at the waterlines, and the height of the keel there; cells
// above the sheer and below the keel are empty. Separated by commas, or by
// semicolons or tabs, and then decimals may have a comma. Faults name the line.
func ReadOffsets(data []byte) (mesh.Mesh, error) {
	table, err := readTable(data)
	if err != nil {
		return mesh.Mesh{}, err
	}
	var bad fielderr.Errors
	var o mesh.Offsets
	keel := -1
	for i, name := range table[0].cells[1:] {
		if strings.EqualFold(name, "keel") {
			keel = i + 1
			continue
		}
		z, ok := number(name, table[0].comma)
		if !ok {
			bad.Add("line 1", "column %d: %q is no waterline's height and not \"keel\"", i+2, name)
		}
		o.Waterlines = append(o.Waterlines, z)
	}
	if bad != nil {
		return mesh.Mesh{}, bad
	}
	for _, row := range table[1:] {
		place := fmt.Sprintf("line %d", row.line)
		if len(row.cells) != len(table[0].cells) {
			bad.Add(place, "has %d columns, the header %d", len(row.cells), len(table[0].cells))
			continue
		}
		s := mesh.Section{Halves: make([]*float64, 0, len(o.Waterlines))}
		for i, cell := range row.cells {
			var v *float64
			if cell != "" {
				f, ok := number(cell, row.comma)
				if !ok {
					bad.Add(place, "%q is not a number", cell)
				}
				v = &f
			}
			switch {
			case i == 0 && v == nil:
				bad.Add(place, "the station's distance is missing")
			case i == 0:
				s.X = *v
			case i == keel:
				s.Keel = v
			default:
				s.Halves = append(s.Halves, v)
			}
		}
		o.Sections = append(o.Sections, s)
	}
	if bad != nil {
		return mesh.Mesh{}, bad
	}
	m, err := o.Loft()
	var where fielderr.Errors
	if errors.As(err, &where) { // stations are lines of the file
		for i, f := range where {
			var n int
			if _, scan := fmt.Sscanf(f.Path, "sections[%d]", &n); scan == nil {
				where[i].Path = fmt.Sprintf("line %d", table[n+1].line)
			} else {
				where[i].Path = "line 1"
			}
		}
	}
	return m, err
}

// maxTableRows is the most rows that a table may have.
const maxTableRows = 400

// tableRow is a line of a table; comma says that decimals have one.
type tableRow struct {
	line  int
	cells []string
	comma bool
}

// csvReader reads CSV separated by commas or, if the first line has more of
// them, semicolons, with or without a byte order mark.
func csvReader(data []byte) *csv.Reader {
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	r := csv.NewReader(bytes.NewReader(data))
	r.FieldsPerRecord = -1
	r.TrimLeadingSpace = true
	first, _, _ := bytes.Cut(data, []byte("\n"))
	switch {
	case bytes.Count(first, []byte("\t")) > 0 && !bytes.Contains(first, []byte(";")):
		r.Comma = '\t'
	case bytes.Contains(first, []byte(";")): // decimals of a header may have more commas
		r.Comma = ';'
	}
	return r
}

// csvPlace names the line of a CSV reader's error.
func csvPlace(err error) string {
	var parse *csv.ParseError
	if errors.As(err, &parse) {
		return fmt.Sprintf("line %d", parse.Line)
	}
	return "file"
}

// readTable reads a CSV file's rows, trimmed, the header first.
func readTable(data []byte) ([]tableRow, error) {
	r := csvReader(data)
	var out []tableRow
	for {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, fielderr.At(csvPlace(err), "cannot be read: %v", err)
		}
		line, _ := r.FieldPos(0)
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
		}
		if out = append(out, tableRow{line, row, r.Comma != ','}); len(out) > maxTableRows {
			return nil, lineFault(line, "more than %d rows", maxTableRows)
		}
	}
	if len(out) < 2 {
		return nil, lineFault(1, "there is no header line with rows below it")
	}
	return out, nil
}
