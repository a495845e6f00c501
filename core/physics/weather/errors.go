package weather

// Growth is a figure that grows with the lead of a forecast, in days.
type Growth struct {
	AtOnce float64 `json:"atOnce"`
	PerDay float64 `json:"perDay"`
	Most   float64 `json:"most"`
}

// At is the figure so many days ahead.
func (g Growth) At(days float64) float64 { return min(g.AtOnce+g.PerDay*max(0, days), g.Most) }

// Errors are how far a place's forecasts are from what comes: standard deviations, of the wind's
// logarithm for the wind, of the hour at which a shower begins for the rain.
type Errors struct {
	TempK     Growth `json:"tempK"`
	DewPointK Growth `json:"dewPointK"`
	WindLog   Growth `json:"windLog"`
	CloudPct  Growth `json:"cloudPct"`
	ShiftH    Growth `json:"shiftH"`
	// FailPct is how many of the showers that are forecast do not come; as much rain comes
	// unannounced.
	FailPct Growth `json:"failPct"`
}

// UsualErrors are those of a good hourly forecast in middle latitudes: rules of thumb, to be
// replaced by what the place's own record tells.
var UsualErrors = Errors{
	TempK:     Growth{1, 0.2, 2.8},
	DewPointK: Growth{0.8, 0.25, 3},
	WindLog:   Growth{0.2, 0.04, 0.5},
	CloudPct:  Growth{15, 4, 35},
	ShiftH:    Growth{1, 0.8, 6},
	FailPct:   Growth{11, 4.5, 55},
}

// What errors remember, h: how long it takes until a third is left of one.
const (
	tempMemoryH   = 18
	dewMemoryH    = 18
	windMemoryH   = 12
	cloudMemoryH  = 8
	shiftMemoryH  = 18
	seasonMemoryH = 60 // of what days beyond the forecast are off the usual
)

// How showers that are not where the forecast has them differ: the logarithms of their length and
// amount; those that nobody announced last so long, h. Rules of thumb.
const (
	lengthLog    = 0.3
	amountLog    = 0.6
	unannouncedH = 2.5
	// unannouncedPart is how much of the hours of rain comes so for each per cent that fails: light
	// showers fail, which are short.
	unannouncedPart = 0.45
	mostUnderCloud  = 4   // times as likely as under the usual cover
	seenH           = 12  // h, for how long what was measured tells more than the forecast
	wetAmount       = 0.5 // mm an hour, where nothing says how much
	wetFloorRH      = 86  // % and more while it rains
	wetCloud        = 80
	// wetRH and wetCloudMean are what rain has on the mean, %, and brokenPct how much cloud is gone
	// where it fails.
	wetRH        = 88
	wetCloudMean = 88
	brokenPct    = 25
)
