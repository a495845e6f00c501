package app

import (
	"fmt"
	"sync"

	"allcoats/core/base/fault"

	"github.com/ringsaturn/tzf"
)

// zones lets one question at a time build the map of time zones: it is large, asked for when a place is
// made, and not kept.
var zones sync.Mutex

// TimeZoneAt is the time zone of a position, by the borders of the zones; at sea the one of its longitude.
func TimeZoneAt(latitudeDeg, longitudeDeg float64) (string, error) {
	var bad fault.Errors
	bad.Range("latitudeDeg", latitudeDeg, -90, 90, "°")
	bad.Range("longitudeDeg", longitudeDeg, -180, 180, "°")
	if bad != nil {
		return "", bad
	}
	zones.Lock()
	defer zones.Unlock()
	finder, err := tzf.NewDefaultFinder()
	if err != nil {
		return "", fmt.Errorf("time zones: %w", err)
	}
	return finder.GetTimezoneName(longitudeDeg, latitudeDeg), nil
}
