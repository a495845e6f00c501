// Package climate gives every surface of a boat its own weather: the record of
// the place, corrected by what was measured, in the open, in a tent or under a
// roof.
package climate

import (
	"slices"
	"sort"
	"time"

	"allcoats/core/boat/survey"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/reading"
	"allcoats/core/exposure/surface"
	"allcoats/core/exposure/tent"
	"allcoats/core/physics/weather"
)

// Site is where and when.
type Site struct {
	LatitudeDeg, LongitudeDeg float64
	Loc                       *time.Location
	Now                       time.Time
	Memory                    *surface.Memory // nil to work everything out anew
}

// Surface is a surface of the boat.
type Surface struct {
	ID      string
	Face    surface.Face
	AreaM2  float64
	Shelter survey.Shelter
}

// Instrument is what an instrument at the place showed, in order of time;
// SurfaceID is where it sits if it measures a surface.
type Instrument struct {
	Kind      reading.Kind
	SurfaceID string
	Readings  []reading.Reading
}

// Boat is all that bears on the weather at her surfaces. Air is the record of
// the place as it came, from a day or more before what matters.
type Boat struct {
	Site
	Air         weather.Series
	Instruments []Instrument
	Tent        *tent.Tent // nil if none is described
	Surfaces    []Surface
}

// Climate is the weather at every surface, by its id.
type Climate struct {
	// Open is the air in the open after correction, Correction how far the
	// logger was from the record.
	Open       weather.Series
	Correction reading.Departure
	// Tent is the air in the tent and what it took, nil without one.
	Tent    *tent.Climate
	Surface map[string]field.Weather
	// Course is each surface before readings on it were laid over.
	Course map[string]surface.Course
	// Bias is how far the probe on a surface was from the model.
	Bias map[string]reading.Departure
}

// readings gathers those of one kind, of one surface if it is named.
func (b Boat) readings(surfaceID string, kinds ...reading.Kind) []reading.Reading {
	var out []reading.Reading
	n := 0
	for _, i := range b.Instruments {
		for _, k := range kinds {
			if i.Kind == k && i.SurfaceID == surfaceID {
				out = append(out, i.Readings...)
				n++
			}
		}
	}
	if n > 1 {
		sort.SliceStable(out, func(i, j int) bool { return out[i].At.Before(out[j].At) })
	}
	return out
}

// Of computes the climate of a boat. Surfaces in a tent that is not described
// lie in still air of the temperature in the open.
func Of(b Boat) Climate {
	c := Climate{Surface: map[string]field.Weather{}, Course: map[string]surface.Course{},
		Bias: map[string]reading.Departure{}}
	c.Open, c.Correction = reading.Air(b.Air, b.readings("", reading.InOpen), b.Now, b.Loc)
	b.settle(&c, b.Memory.Outdoors(b.LatitudeDeg, b.LongitudeDeg, c.Open))
	return c
}

// Ahead computes the weather at the surfaces over a course of the air that is
// corrected already, such as one that reaches beyond the forecast or a future.
func (b Boat) Ahead(air weather.Series) map[string]field.Weather {
	return b.AheadIn(air, b.Memory.Outdoors(b.LatitudeDeg, b.LongitudeDeg, air))
}

// AheadIn is Ahead where the conditions in the open are known.
func (b Boat) AheadIn(air weather.Series, open surface.Conditions) map[string]field.Weather {
	return b.ahead(air, open).Surface
}

// InFuture is AheadIn in one of the futures, with what the model of the surfaces may be off by.
func (b Boat) InFuture(air weather.Series, open surface.Conditions, f Future) map[string]field.Weather {
	c := b.ahead(air, open)
	for id, w := range c.Surface {
		w.SurfaceC = b.blurred(c, id, open.At, w.SurfaceC, f)
		c.Surface[id] = w
	}
	return c.Surface
}

func (b Boat) ahead(air weather.Series, open surface.Conditions) Climate {
	var kept []Instrument
	for _, i := range b.Instruments {
		if i.Kind != reading.InOpen {
			kept = append(kept, i)
		}
	}
	b.Instruments = kept
	if !slices.ContainsFunc(b.Surfaces, b.tented) {
		b.Tent = nil // nobody asks for its air
	}
	c := Climate{Open: air, Surface: map[string]field.Weather{}, Course: map[string]surface.Course{},
		Bias: map[string]reading.Departure{}}
	b.settle(&c, open)
	return c
}

// settle computes tent and surfaces from the air in the open.
func (b Boat) settle(c *Climate, open surface.Conditions) {
	var inOpen, inTent []surface.Face
	var openIDs, tentIDs []string
	var covered []tent.Covered
	for _, s := range b.Surfaces {
		if s.Shelter == survey.Tent && b.Tent != nil {
			covered = append(covered, tent.Covered{Face: s.Face, AreaM2: s.AreaM2})
			inTent, tentIDs = append(inTent, s.Face), append(tentIDs, s.ID)
		} else {
			inOpen, openIDs = append(inOpen, s.Face), append(openIDs, s.ID)
		}
	}
	b.lay(c, c.Open, openIDs, open, inOpen)
	if b.Tent == nil {
		return
	}
	t := tent.Simulate(*b.Tent, open, c.Open, covered, b.Loc)
	if rs := b.readings("", reading.InTent); len(rs) > 0 {
		t.Air, _ = reading.Air(t.Air, rs, b.Now, b.Loc)
	}
	c.Tent = &t
	if len(inTent) > 0 {
		b.lay(c, t.Air, tentIDs, open.Under(t.Air, t.Light), inTent)
	}
}

// lay lays the readings on surfaces over the courses of their faces in the conditions that an air makes.
func (b Boat) lay(c *Climate, air weather.Series, ids []string, in surface.Conditions, faces []surface.Face) {
	for k, course := range in.Courses(faces) {
		id := ids[k]
		c.Course[id] = course
		temps := course.TempC
		if rs := b.readings(id, reading.OnSurface, reading.Spot); len(rs) > 0 {
			temps, _, c.Bias[id] = reading.Adjust(in.At, temps, reading.Hourly(rs), func(r reading.Reading) float64 {
				return r.TempC
			}, b.Now, b.Loc)
		}
		c.Surface[id] = field.Weather{Air: air, SurfaceC: temps, Wet: course.Wet, DewC: in.DewC}
	}
}

// without leaves out what was read in a tent.
func without(all []Instrument) []Instrument {
	var out []Instrument
	for _, i := range all {
		if i.Kind != reading.InTent {
			out = append(out, i)
		}
	}
	return out
}
