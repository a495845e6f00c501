package formats

import (
	"fmt"
	"strings"

	"allcoats/core/base/fielderr"
)

// Bounds of a table of gaps: in bytes, and in cells once its rows are of one length.
const (
	mostGapBytes = 1 << 19
	mostGaps     = 1 << 16
)

// ReadGaps reads gaps in mm from a table, a row a line: numbers between tabs, semicolons
// or commas, an empty cell or a dash where none was read. A first line of words is
// passed over. Rows that are shorter have no readings at their end.
func ReadGaps(data []byte) ([][]*float64, error) {
	var bad fielderr.Errors
	if len(data) > mostGapBytes {
		return nil, fielderr.At("file", "%d kB of gaps; at most %d kB are read", len(data)>>10, mostGapBytes>>10)
	}
	sep := separator(data)
	if sep == ';' && !strings.ContainsRune(string(data), ';') && strings.ContainsRune(string(data), ',') {
		sep = ','
	}
	out := [][]*float64{}
	width := 0
	for i, row := range cells(data, sep, true) {
		if i == 0 && !anyNumber(row) {
			continue
		}
		line := []*float64{}
		for k, c := range row {
			c = strings.TrimSpace(c)
			if c == "" || c == "-" || c == "–" {
				line = append(line, nil)
				continue
			}
			v, ok := number(c, sep != ',')
			if !ok {
				bad.Add(fmt.Sprintf("line %d", i+1), "%q in column %d is no number", c, k+1)
				continue
			}
			line = append(line, &v)
		}
		width = max(width, len(line))
		out = append(out, line)
	}
	if len(out) == 0 && bad == nil {
		bad.Add("file", "there are no gaps in it")
	}
	if cells := width * len(out); cells > mostGaps {
		return nil, fielderr.At("file", "%d rows of %d gaps are %d; at most %d are read", len(out), width, cells,
			mostGaps)
	}
	for i := range out {
		for len(out[i]) < width {
			out[i] = append(out[i], nil)
		}
	}
	return out, bad.Err()
}

func anyNumber(row []string) bool {
	for _, c := range row {
		if _, ok := number(c, true); ok {
			return true
		}
	}
	return false
}
