package app

import (
	"fmt"
	"sync"

	"allcoats/core/base/fielderr"

	"github.com/ringsaturn/tzf"
	tzfrellite "github.com/ringsaturn/tzf-rel-lite"
	tzfv1 "github.com/ringsaturn/tzf/gen/go/tzf/v1"
	"google.golang.org/protobuf/proto"
)

// zones lets one question at a time build the map of time zones: it is large, asked for when a place is
// made, and not kept.
var zones sync.Mutex

// TimeZoneAt is the time zone of a position, by the borders of the zones; at sea the one of its longitude.
func TimeZoneAt(latitudeDeg, longitudeDeg float64) (string, error) {
	var bad fielderr.Errors
	bad.Range("latitudeDeg", latitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", longitudeDeg, -180, 180, "°")
	if bad != nil {
		return "", bad
	}
	zones.Lock()
	defer zones.Unlock()
	if name, err := awayFromBorders(latitudeDeg, longitudeDeg); name != "" || err != nil {
		return name, err
	}
	finder, err := tzf.NewDefaultFinder()
	if err != nil {
		return "", fmt.Errorf("time zones: %w", err)
	}
	return finder.GetTimezoneName(longitudeDeg, latitudeDeg), nil
}

// awayFromBorders is the time zone of a position that lies in a tile of the map with one zone only,
// as most do; it takes an eighth of the time of the borders.
func awayFromBorders(latitudeDeg, longitudeDeg float64) (string, error) {
	var tiles tzfv1.PreindexTimezones
	if err := proto.Unmarshal(tzfrellite.PreindexData, &tiles); err != nil {
		return "", fmt.Errorf("time zones: %w", err)
	}
	finder, err := tzf.NewFuzzyFinderFromPB(&tiles)
	if err != nil {
		return "", fmt.Errorf("time zones: %w", err)
	}
	return finder.GetTimezoneName(longitudeDeg, latitudeDeg), nil
}
