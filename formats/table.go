package formats

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strconv"
	"strings"
	"time"
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
