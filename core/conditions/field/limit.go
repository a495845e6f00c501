package field

import (
	"slices"

	"allcoats/core/base/message"
)

// LimitInfo is what there is to say of a limit: Missed when it is not kept, Of what it
// measures, empty for one that is kept or not without a figure.
type LimitInfo struct {
	Limit  Limit  `json:"limit"`
	Missed string `json:"missed"`
	Of     string `json:"of,omitempty"`
	// said is a sentence's part that tells that it is not kept, with what it needs.
	said string
}

// Limits lists the limits.
var Limits = []LimitInfo{
	{AirMin, "air too cold", "air", "the air is below %v"},
	{AirMax, "air too warm", "air", "the air is above %v"},
	{SurfaceMin, "surface too cold", "surface", "the surface is below %v"},
	{SurfaceMax, "surface too warm", "surface", "the surface is above %v"},
	{Humidity, "too humid", "humidity", "humidity is above %v"},
	{Spread, "too near the dew point", "above dew point", "the surface is less than %v above the dew point"},
	{Polygon, "outside the product's field", "", "temperature and humidity are outside the product's field"},
	{Rain, "rain", "rain", "it rains"},
	{Wind, "too windy to spray", "wind", "the wind is above %v"},
	{Light, "dark", "", "it is dark"},
	{Hours, "outside working hours", "", "nobody works"},
	{Wetness, "surface wet", "", "the surface is wet"},
	{NoData, "weather not known", "", "the weather is not known"},
}

// Words puts a check that is not kept in words: "humidity is above 85 %".
func Words(c Check) message.Sentence {
	i := slices.IndexFunc(Limits, func(l LimitInfo) bool { return l.Limit == c.Limit })
	if i < 0 {
		return Words(Check{Limit: NoData})
	}
	return message.Fill(Limits[i].said, message.Val(c.Need, c.Unit))
}
