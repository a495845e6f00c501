package formats

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/weather"
)

// ReadArrays reads a forecast as services give it: a JSON document with hourly arrays alike in
// length, or an array of hours, under whatever names. It is read as the table that it is
// (ReadWeather): a unit may stand in a name, or under the same name in an object of units. Times
// without a zone are in the document's time zone if it names one, else in loc; whole numbers are
// seconds or milliseconds of 1970.
func ReadArrays(data []byte, loc *time.Location) (weather.Series, []string, error) {
	return WeatherReader{Loc: loc}.Read(data)
}

// arraysTable is such a document as a table, and where its times are.
func arraysTable(data []byte, loc *time.Location) ([]byte, *time.Location, error) {
	d := json.NewDecoder(bytes.NewReader(data))
	d.UseNumber()
	var doc any
	if err := d.Decode(&doc); err != nil {
		return nil, nil, fielderr.At("file", "cannot be read as a forecast: %v", err)
	}
	names, columns := longestTable(doc, 0)
	if len(columns) == 0 {
		return nil, nil, fielderr.At("file", "has no hourly arrays of one length, nor an array of hours")
	}
	if top, ok := doc.(map[string]any); ok {
		for _, key := range []string{"timezone", "timeZone", "time_zone", "tz"} {
			if name, ok := top[key].(string); ok {
				if l, err := time.LoadLocation(name); err == nil {
					loc = l
				}
			}
		}
	}
	units := map[string]string{}
	findUnits(doc, names, units)
	var table bytes.Buffer
	w := csv.NewWriter(&table)
	head := make([]string, len(names))
	for i, n := range names {
		head[i] = n
		if u := units[n]; u != "" {
			head[i] += " (" + u + ")"
		}
	}
	_ = w.Write(head) // a buffer takes all
	row := make([]string, len(names))
	for h := range columns[0] {
		for i := range names {
			row[i] = cell(names[i], columns[i][h])
		}
		_ = w.Write(row)
	}
	w.Flush()
	return table.Bytes(), loc, nil
}

// deepest is how far down a document is looked into.
const deepest = 8

// longestTable is the largest set of arrays of one length in a document, by name in their order.
func longestTable(v any, depth int) (names []string, columns [][]any) {
	if depth > deepest {
		return nil, nil
	}
	better := func(n []string, c [][]any) {
		if len(c) > 0 && (len(columns) == 0 || len(c[0]) > len(columns[0])) {
			names, columns = n, c
		}
	}
	switch v := v.(type) {
	case map[string]any:
		lists := map[int][]string{}
		for _, k := range slices.Sorted(maps.Keys(v)) {
			if list, ok := v[k].([]any); ok && len(list) > 1 && plain(list) {
				lists[len(list)] = append(lists[len(list)], k)
			}
			better(longestTable(v[k], depth+1))
		}
		for _, keys := range lists {
			if len(keys) < 2 {
				continue
			}
			c := make([][]any, len(keys))
			for i, k := range keys {
				c[i] = v[k].([]any)
			}
			better(keys, c)
		}
	case []any:
		better(hoursOf(v))
		for _, one := range v[:min(len(v), 20)] {
			better(longestTable(one, depth+1))
		}
	}
	return names, columns
}

// plain tells that a list holds no lists or objects.
func plain(list []any) bool {
	return !slices.ContainsFunc(list, func(v any) bool {
		switch v.(type) {
		case map[string]any, []any:
			return true
		}
		return false
	})
}

// hoursOf turns an array of objects into columns; what is an object in an object goes by both names.
func hoursOf(list []any) (names []string, columns [][]any) {
	at := map[string]int{}
	for h, one := range list {
		o, ok := one.(map[string]any)
		if !ok {
			return nil, nil
		}
		flat := map[string]any{}
		flatten("", o, flat, 0)
		for _, k := range slices.Sorted(maps.Keys(flat)) {
			i, known := at[k]
			if !known {
				i = len(names)
				at[k] = i
				names, columns = append(names, k), append(columns, make([]any, len(list)))
			}
			columns[i][h] = flat[k]
		}
	}
	return names, columns
}

func flatten(under string, v map[string]any, into map[string]any, depth int) {
	for k, one := range v {
		name := strings.TrimSpace(under + " " + k)
		switch one := one.(type) {
		case map[string]any:
			if depth < deepest {
				flatten(name, one, into, depth+1)
			}
		case []any:
		default:
			into[name] = one
		}
	}
}

// findUnits takes up what stands under the names of columns as text in an object of its own.
func findUnits(v any, names []string, units map[string]string) {
	o, ok := v.(map[string]any)
	if !ok {
		return
	}
	for key, one := range o {
		if inner, ok := one.(map[string]any); ok {
			if strings.Contains(strings.ToLower(key), "unit") {
				for _, n := range names {
					if u, ok := inner[n].(string); ok {
						units[n] = u
					}
				}
			}
			findUnits(inner, names, units)
		}
	}
}

// cell is a figure as it stands in a table; a time in seconds or milliseconds becomes one in words.
func cell(name string, v any) string {
	switch v := v.(type) {
	case nil:
		return ""
	case json.Number:
		if f, err := v.Float64(); err == nil && f > 1e8 && f == math.Trunc(f) && has(name, "time", "date", "dt",
			"epoch", "valid") {
			if f > 1e11 {
				f /= 1000
			}
			return time.Unix(int64(f), 0).UTC().Format(time.RFC3339)
		}
		return v.String()
	case bool:
		return strconv.FormatBool(v)
	}
	return fmt.Sprint(v)
}
