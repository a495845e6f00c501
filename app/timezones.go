package app

import (
	"bytes"
	_ "embed"
	"encoding/binary"
	"fmt"
	"io"
	"math"
	"slices"
	"sync"

	"allcoats/core/base/fielderr"

	"github.com/andybalholm/brotli"
)

// zoneBorders is the names of the world's time zones and every line between two of them, as tools/timezones packs them
// from the database of tzf-rel-lite, which is made available under the Open Database License.
//
//go:embed timezones.br
var zoneBorders []byte

// TimeZoneAt is the time zone of a position, by the borders of the zones; on the high seas the one of its longitude.
func TimeZoneAt(latitudeDeg, longitudeDeg float64) (string, error) {
	var bad fielderr.Errors
	bad.Range("latitudeDeg", latitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", longitudeDeg, -180, 180, "°")
	if bad != nil {
		return "", bad
	}
	in, err := unpackedZones()
	if err != nil {
		return "", fmt.Errorf("time zones: %w", err)
	}
	names := make([]string, in.unsigned())
	for i := range names {
		names[i] = in.text()
	}
	if i := slices.Index(in.within(len(names), latitudeDeg*1e4, longitudeDeg*1e4), true); i >= 0 {
		return names[i], nil
	}
	switch h := int(math.Round(longitudeDeg / 15)); { // signed as the database has them: west is plus
	case h < 0:
		return fmt.Sprintf("Etc/GMT+%d", -h), nil
	case h > 0:
		return fmt.Sprintf("Etc/GMT-%d", h), nil
	}
	return "Etc/GMT", nil
}

// unpackedZones is zoneBorders unpacked, once, and kept.
var unpackedZones = sync.OnceValues(func() (varints, error) {
	return io.ReadAll(brotli.NewReader(bytes.NewReader(zoneBorders)))
})

// varints reads what zoneBorders holds.
type varints []byte

func (in *varints) unsigned() uint64 {
	v, n := binary.Uvarint(*in)
	*in = (*in)[n:]
	return v
}

func (in *varints) signed() float64 {
	v, n := binary.Varint(*in)
	*in = (*in)[n:]
	return float64(v)
}

func (in *varints) text() string {
	n := in.unsigned()
	s := string((*in)[:n])
	*in = (*in)[n:]
	return s
}

// within is which of n zones a position in ten-thousandths of a degree lies in: those of whose lines an odd number is
// north of it. Each line has its zones, and its points as steps from the point before, the first from the last of all.
func (in *varints) within(n int, lat, lng float64) []bool {
	out := make([]bool, n)
	var x, y float64
	for len(*in) > 0 {
		of := make([]uint64, in.unsigned())
		for i := range of {
			of[i] = in.unsigned()
		}
		for k := range in.unsigned() {
			x0, y0 := x, y
			x, y = x+in.signed(), y+in.signed()
			if k > 0 && (x0 > lng) != (x > lng) && y0+(lng-x0)/(x-x0)*(y-y0) > lat {
				for _, z := range of {
					out[z] = !out[z]
				}
			}
		}
	}
	return out
}
