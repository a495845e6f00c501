package surface

import (
	"slices"
	"sync"

	"allcoats/core/physics/weather"
)

// followed are courses of faces over the same conditions. It is safe for concurrent use.
type followed struct {
	sync.Mutex
	courses map[alike]Course
}

// alike is a face that was not washed, to be compared.
type alike struct {
	heat, core, inner, soak, absorptance, emissivity, sky, inside, tilt float64
	facing                                                              [2]float64
	sides                                                               int
	roofed                                                              bool
}

// course is that of a face, made if there is none of one like it.
func (k *followed) course(f Face, follow func() Course) Course {
	like := alike{f.HeatJM2K, f.CoreWM2K, f.InnerJM2K, f.SoakMM, f.Absorptance, f.Emissivity, f.SkyView, f.InsideWM2K,
		f.TiltDeg, [2]float64{}, len(f.AzimuthDeg), f.Roofed}
	if k == nil || len(f.Washed) > 0 || like.sides > len(like.facing) {
		return follow()
	}
	copy(like.facing[:], f.AzimuthDeg)
	k.Lock()
	out, ok := k.courses[like]
	k.Unlock()
	if ok {
		return out
	}
	out = follow()
	k.Lock()
	defer k.Unlock()
	if k.courses == nil {
		k.courses = map[alike]Course{}
	}
	k.courses[like] = out
	return out
}

// Memory keeps the conditions that were asked for last, with the faces that were followed
// over them. The zero value is empty; it is safe for concurrent use.
type Memory struct {
	mutex sync.Mutex
	kept  []known
}

// known are conditions with what they were made of.
type known struct {
	lat, lon   float64
	air        weather.Series
	conditions Conditions
}

// mostKept is how many conditions a memory keeps.
const mostKept = 8

// Outdoors is that of the package, made once for the same air at the same place.
func (m *Memory) Outdoors(lat, lon float64, air weather.Series) Conditions {
	if m == nil {
		return Outdoors(lat, lon, air)
	}
	m.mutex.Lock()
	defer m.mutex.Unlock()
	for i, k := range m.kept {
		if k.lat == lat && k.lon == lon && slices.EqualFunc(k.air, air, weather.Hour.Equal) {
			m.kept = append(slices.Delete(m.kept, i, i+1), k)
			return k.conditions
		}
	}
	k := known{lat, lon, air, Outdoors(lat, lon, air)}
	m.kept = append(m.kept[max(0, len(m.kept)+1-mostKept):], k)
	return k.conditions
}
