package formats

import (
	"bytes"
	"maps"
	"slices"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/physics/weather"
)

// ReadWeather reads an hourly record or forecast as people get them: a table with a header line, after any
// number of titles, parted by commas, semicolons, tabs or bars, its columns in any order and named in the
// languages round the northern seas, newest or oldest first, with units in the header or in the cells. A
// dew point stands in for a humidity. A time without a zone is in loc, or in what the header states. What
// could be meant otherwise is told in doubts. Every fault names its line; after twenty it stops. All or
// nothing: on error there is no series.
func ReadWeather(data []byte, loc *time.Location) (s weather.Series, doubts []string, err error) {
	return WeatherReader{Loc: loc}.Read(data)
}

// WeatherReader reads hourly records. Columns says what columns are, by their names as Names has them: a key of
// ColumnKinds, "" for one that is not read; the others are known by their names.
type WeatherReader struct {
	Loc     *time.Location
	Columns map[string]string
}

// Read is ReadWeather, or ReadArrays for what is JSON.
func (r WeatherReader) Read(data []byte) (weather.Series, []string, error) {
	data, loc, err := r.table(data)
	if err != nil {
		return nil, nil, err
	}
	return r.readTable(data, loc)
}

// table is the data as a table, and where its times are.
func (r WeatherReader) table(data []byte) ([]byte, *time.Location, error) {
	data = Text(data)
	if begins := bytes.TrimSpace(data); len(begins) > 0 && (begins[0] == '{' || begins[0] == '[') {
		return arraysTable(data, r.Loc)
	}
	return data, r.Loc, nil
}

// ColumnKind is what a column of a record can be.
type ColumnKind struct {
	Key  string `json:"key"`
	Name string `json:"name"`
}

// ColumnKinds lists them.
var ColumnKinds = []ColumnKind{
	{"time", "time"}, {"temp", "temperature"}, {"rh", "humidity"}, {"dew", "dew point"}, {"wind", "wind"},
	{"rain", "rain"}, {"cloud", "cloud"}, {"shortwave", "sunlight"},
}

// CheckColumns refuses what no column can be, and two columns that are the same.
func CheckColumns(columns map[string]string) error {
	seen := map[string]string{}
	for _, name := range slices.Sorted(maps.Keys(columns)) {
		key := columns[name]
		if key == "" {
			continue
		}
		if !slices.ContainsFunc(ColumnKinds, func(k ColumnKind) bool { return k.Key == key }) {
			return fielderr.At("columns", "“%s” cannot be %q", name, key)
		}
		if other, twice := seen[key]; twice {
			return fielderr.At("columns", "“%s” and “%s” are both said to be the same: leave one of them out", other,
				name)
		}
		seen[key] = name
	}
	return nil
}

// Column is a column of a record with its first figure, and what it is taken for, "" for nothing.
type Column struct {
	Name  string `json:"name"`
	First string `json:"first"`
	Is    string `json:"is"`
}

// Names lists the columns of a record, whether or not it can be read by them.
func (r WeatherReader) Names(data []byte) ([]Column, error) {
	data, loc, err := r.table(data)
	if err != nil {
		return nil, err
	}
	t, bad := tableOf(data, loc, r.Columns)
	if len(t.names) == 0 {
		return nil, bad
	}
	out := make([]Column, len(t.names))
	for i, n := range t.names {
		out[i].Name = n
		if len(t.sample) > 0 && i < len(t.sample[0]) {
			out[i].First = strings.TrimSpace(t.sample[0][i])
		}
	}
	for key, at := range t.column {
		out[at].Is = key
	}
	return out, nil
}
