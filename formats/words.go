package formats

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/physics/weather"
)

// MaxDaysTold is the most days that one may tell in words.
const MaxDaysTold = 14

// word is what a run of words says of a day: the patterns of a table are tried in their order, and
// what one took is not read again.
type word struct {
	is  func() *regexp.Regexp
	set func(d *told, m []string)
}

// told is a day with what was said of it.
type told struct {
	weather.SimpleDay
	min, max, one    float64
	temp, rain, cold bool
	sky              bool
	fahrenheit       bool
}

func says(words string, set func(d *told, m []string)) word {
	return word{pattern(`(?:^|[^\pL\pN])(?:` + words + `)(?:$|[^\pL\pN])`), set}
}

const (
	clockTime = `(\d{1,2})(?:[:.h](\d\d))?\s*(am|pm|h|o'clock)?`
	aFigure   = `([-−]?\d+(?:[.,]\d+)?)`
	degrees   = `\s*(?:°|deg(?:rees)?|º)?\s*([cf])?(?:elsius|ahrenheit)?`
	between   = `\s*(?:to|-|–|—|/|until|till|and|\.\.)\s*`
	raining   = `(?:rain(?:ing|s)?|drizzle|wet|showers)`
)

// dayWords are the words of a day. Times and figures with a unit come before bare temperatures.
var dayWords = []word{
	says(`(?:no|without)\s+(?:rain|showers|drizzle)`, func(d *told, _ []string) { d.Rain, d.rain = "dry", true }),
	says(raining+`\s+(?:from|between)?\s*`+clockTime+between+clockTime, func(d *told, m []string) {
		d.rains(at(m[1:4], m[6]), at(m[4:7], ""))
	}),
	says(raining+`\s+(?:from|after|at|by)\s+`+clockTime, func(d *told, m []string) { d.rains(at(m[1:4], ""), 24) }),
	says(raining+`\s+(?:until|till|before|to)\s+`+clockTime, func(d *told, m []string) { d.rains(0, at(m[1:4], "")) }),
	says(`dry\s+(?:until|till|before)\s+`+clockTime, func(d *told, m []string) { d.rains(at(m[1:4], ""), 24) }),
	says(`dry\s+(?:from|after)\s+`+clockTime, func(d *told, m []string) { d.rains(0, at(m[1:4], "")) }),
	says(`(?:`+raining+`\s+(?:in\s+the\s+|this\s+|all\s+)?morning|morning\s+`+raining+`)`, func(d *told, _ []string) { d.Rain, d.rain = "morning", true }),
	says(`(?:`+raining+`\s+(?:in\s+the\s+|this\s+|all\s+)?afternoon|afternoon\s+`+raining+`)`, func(d *told, _ []string) { d.Rain, d.rain = "afternoon", true }),
	says(`(?:`+raining+`\s+(?:in\s+the\s+|this\s+|at\s+)?(?:evening|night)|evening\s+`+raining+`)`,
		func(d *told, _ []string) { d.rains(18, 24) }),
	says(`(?:showers|showery|some\s+rain|now\s+and\s+then\s+rain)`, func(d *told, _ []string) { d.Rain, d.rain = "showers", true }),
	says(`(?:rain|raining|rainy|wet|drizzle|snow|sleet)(?:\s+all\s+day)?`, func(d *told, _ []string) { d.Rain, d.rain = "all-day", true }),
	says(aFigure+`(?:`+between+aFigure+`)?\s*%(?:\s*(?:rh|humidity|humid|damp))?`, func(d *told, m []string) {
		d.humid(m[1], m[2])
	}),
	says(`(?:rh|humidity)\s*(?:of|is|at|:)?\s*`+aFigure+`\s*%?`, func(d *told, m []string) { d.humid(m[1], "") }),
	says(`(?:wind|breeze)?\s*(?:of|at|:)?\s*`+aFigure+`(?:`+between+aFigure+
		`)?\s*(m/s|kn|kts?|knots?|km/h|kmh|mph)(?:\s*(?:of\s+)?(?:wind|breeze))?`, func(d *told, m []string) {
		d.blows(m[1], m[2], m[3])
	}),
	says(`(?:wind\s+)?(?:force|bft|beaufort|f)\s*(\d{1,2})(?:`+between+`(\d{1,2}))?`, func(d *told, m []string) {
		d.force(m[1], m[2])
	}),
	says(`(?:min(?:imum)?|low(?:est)?|coldest|night|overnight|at\s+night)\s*(?:of|is|at|:)?\s*`+aFigure+degrees,
		func(d *told, m []string) {
			d.min, d.temp, d.cold = number1(m[1]), d.temp || !math.IsNaN(d.max), true
			d.degree(m[2])
		}),
	says(`(?:max(?:imum)?|high(?:est)?|warmest|by\s+day|afternoon)\s*(?:of|is|at|:)?\s*`+aFigure+degrees,
		func(d *told, m []string) {
			d.max, d.temp = number1(m[1]), d.cold
			d.degree(m[2])
		}),
	says(aFigure+degrees+`\s*(?:at\s+night|overnight|in\s+the\s+night)`, func(d *told, m []string) {
		d.min, d.temp, d.cold = number1(m[1]), !math.IsNaN(d.max), true
		d.degree(m[2])
	}),
	says(aFigure+degrees+between+aFigure+degrees, func(d *told, m []string) {
		d.min, d.max, d.temp, d.cold = number1(m[1]), number1(m[3]), true, true
		d.degree(m[2] + m[4])
	}),
	says(aFigure+degrees+`(?:\s*(?:by\s+day|in\s+the\s+day))?`, func(d *told, m []string) {
		if math.IsNaN(d.max) {
			d.max, d.temp = number1(m[1]), d.cold
		} else {
			d.one = number1(m[1])
		}
		d.degree(m[2])
	}),
	says(
		`(?:sun(?:ny)?\s+and\s+cloud(?:s|y)?|part(?:ly|ial(?:ly)?)\s+(?:cloudy|sunny)|broken(?:\s+cloud)?|some\s+clouds?|bright\s+spells|sunny\s+(?:spells|intervals)|hazy)`, saysSky("broken")),
	says(`(?:overcast|grey|gray|dull)`, saysSky("overcast")),
	says(`(?:mostly\s+|very\s+)?cloudy|cloud`, saysSky("cloudy")),
	says(`(?:sunny|sun|clear|bright|fine|fair|cloudless|blue\s+sky)`, saysSky("clear")),
	says(`(?:calm|still|windless|no\s+wind)`, saysWind("calm")),
	says(`(?:strong(?:\s+winds?)?|gale|gusty|stormy)`, saysWind("strong")),
	says(`(?:fresh(?:\s+(?:wind|breeze))?|windy|breezy)`, saysWind("fresh")),
	says(`(?:light|gentle)(?:\s+(?:winds?|breeze|airs))?|breeze`, saysWind("light")),
	says(`(?:fog(?:gy)?|mist(?:y)?|heavy\s+dew)`, saysAir("fog")),
	says(`(?:damp|humid|muggy|moist)(?:\s+air)?`, saysAir("damp")),
	says(`(?:dry\s+air|crisp)`, saysAir("dry")),
	says(`dry`, func(d *told, _ []string) {
		if !d.rain {
			d.Rain, d.rain = "dry", true
		}
	}),
}

// filling are words that say nothing of the weather.
var filling = pattern(
	`(?:^|[^\pL\pN])(?:and|with|a|an|the|then|but|later|day|weather|about|around|some|it|is|be|will|all|in|of|wind|winds|air|degrees|temperature|temp|going|up|from|to|rising|rather|quite|mostly|very|now)(?:$|[^\pL\pN])`)

func saysSky(to string) func(*told, []string) {
	return func(d *told, _ []string) { d.Sky, d.sky = to, true }
}
func saysWind(to string) func(*told, []string) { return func(d *told, _ []string) { d.Wind = to } }
func saysAir(to string) func(*told, []string)  { return func(d *told, _ []string) { d.Air = to } }

// at is a time of day, h, from its hour, minute and half; other is the half of the time after it.
func at(m []string, other string) float64 {
	h, _ := strconv.ParseFloat(m[0], 64)
	minutes, _ := strconv.ParseFloat(m[1], 64)
	half := m[2]
	if half != "am" && half != "pm" {
		half = other
	}
	switch {
	case half == "pm" && h < 12:
		h += 12
	case half == "am" && h == 12:
		h = 0
	}
	return h + minutes/60
}

func number1(s string) float64 {
	v, err := strconv.ParseFloat(strings.NewReplacer(",", ".", "−", "-").Replace(s), 64)
	if err != nil {
		return math.NaN()
	}
	return v
}

func (d *told) rains(from, to float64) {
	d.Rain, d.RainFromH, d.RainToH, d.rain = weather.RainHours, from, to, true
}

// humid takes a humidity or the mean of two, %.
func (d *told) humid(a, b string) {
	v := number1(a)
	if b != "" {
		v = (v + number1(b)) / 2
	}
	d.RHPct = &v
}

var perMS = map[string]float64{"m/s": 1, "km/h": 1 / 3.6, "kmh": 1 / 3.6, "mph": 0.44704}

// blows takes the greater of two winds.
func (d *told) blows(a, b, unit string) {
	k, ok := perMS[unit]
	if !ok {
		k = 1852.0 / 3600
	}
	v := k * number1(a)
	if b != "" {
		v = max(v, k*number1(b))
	}
	d.WindMS = &v
}

// force takes the middle of a force of the Beaufort scale, the greater of two: 0.836·B^1.5.
func (d *told) force(a, b string) {
	v := number1(a)
	if b != "" {
		v = max(v, number1(b))
	}
	v = 0.836 * math.Pow(v, 1.5)
	d.WindMS = &v
}

func (d *told) degree(unit string) { d.fahrenheit = d.fahrenheit || strings.Contains(unit, "f") }

var (
	clauses = pattern(`[;\n]+`)
	// dayName is the day that a clause begins with, or that begins one within it.
	dayName = pattern(
		`(?:^|[^\pL\pN])(today|tomorrow|the day after|mon(?:day)?|tue(?:sday)?|wed(?:nesday)?|thu(?:rsday)?|fri(?:day)?|sat(?:urday)?|sunday|\d{4}-\d\d-\d\d)\s*(?::|,|-)?\s`)
)

// ReadDays reads days as one tells them: "8 to 16, sunny, dry, light wind; tomorrow 6 to 12, rain
// from 14". The first is today, each other one the day it names or the one after the last. What was
// not said, or not understood, is among the doubts: nothing is taken silently.
func ReadDays(text string, now time.Time, loc *time.Location) (days []weather.SimpleDay, doubts []message.Sentence,
	err error) {
	if len(text) > maxWords {
		return nil, nil, fielderr.At("weather",
			"is too long for days in words: at most %d characters, or paste the hours of a table", maxWords)
	}
	today := now.In(loc)
	last := -1
	for _, clause := range split(strings.ToLower(text)) {
		n := last + 1
		if m := dayName().FindStringSubmatch(clause + " "); m != nil {
			n = dayOf(m[1], today, n)
			clause = strings.Replace(clause, m[1], " ", 1)
		}
		if n <= last && last >= 0 {
			return nil, nil, fielderr.At("weather", "tell each day once, in their order")
		}
		last = n
		if len(days) == MaxDaysTold || n >= MaxDaysTold {
			return nil, nil, fielderr.At("weather", "tell at most %d days", MaxDaysTold)
		}
		d, more, err := readDay(clause)
		if err != nil {
			return nil, nil, err
		}
		for len(days) < n && len(days) > 0 { // a day between that was not told is as the one before
			gap := days[len(days)-1]
			gap.Date = today.AddDate(0, 0, len(days)).Format(time.DateOnly)
			days = append(days, gap)
			doubts = append(doubts, message.Of("You said nothing of %s: it is taken as the day before.", gap.Date))
		}
		if len(days) == 0 && n > 0 {
			return nil, nil, fielderr.At("weather", "begin with today")
		}
		d.Date = today.AddDate(0, 0, n).Format(time.DateOnly)
		days, doubts = append(days, d), append(doubts, more...)
	}
	if len(days) == 0 {
		return nil, nil, fielderr.At("weather",
			"say what the day is like: the coldest and the warmest, the rain, the sky, such as %q", Example)
	}
	return days, doubts, nil
}

// maxWords is the longest text of days in words that is read.
const maxWords = 4000

// Example is a day in words.
const Example = "8 to 16, sunny, dry, light wind"

// split parts the text into days: at line ends, semicolons and names of days.
func split(text string) []string {
	var out []string
	for _, c := range clauses().Split(text, -1) {
		from := 0
		for _, m := range dayName().FindAllStringSubmatchIndex(c+" ", -1) {
			if strings.TrimSpace(c[from:m[2]]) != "" {
				out = append(out, c[from:m[2]])
			}
			from = m[2]
		}
		if strings.TrimSpace(c[from:]) != "" {
			out = append(out, c[from:])
		}
	}
	return out
}

// dayOf is how many days from today a named day is.
func dayOf(name string, today time.Time, next int) int {
	switch name {
	case "today":
		return 0
	case "tomorrow":
		return 1
	case "the day after":
		return next
	}
	if t, err := time.ParseInLocation(time.DateOnly, name, today.Location()); err == nil {
		from := time.Date(today.Year(), today.Month(), today.Day(), 0, 0, 0, 0, time.UTC)
		return int(time.Date(t.Year(), t.Month(), t.Day(), 0, 0, 0, 0, time.UTC).Sub(from).Hours() / 24)
	}
	i := slices.IndexFunc([]string{"sun", "mon", "tue", "wed", "thu", "fri", "sat"}, func(d string) bool {
		return strings.HasPrefix(name, d)
	})
	return (i - int(today.Weekday()) + 7) % 7
}

// swing is from the coldest to the warmest of a day under a sky, K: rules of thumb.
var swing = map[string]float64{"clear": 11, "broken": 9, "cloudy": 6, "overcast": 4}

func readDay(text string) (weather.SimpleDay, []message.Sentence, error) {
	d := told{SimpleDay: weather.SimpleDay{Sky: "cloudy", Rain: "dry", Wind: "light", Air: "usual"}, min: math.NaN(),
		max: math.NaN(), one: math.NaN()}
	rest := strings.Map(func(r rune) rune {
		if r == '(' || r == ')' || r == '!' || r == '+' || r == '~' {
			return ' '
		}
		return r
	}, text)
	for _, w := range dayWords {
		for m := w.is().FindStringSubmatchIndex(rest); m != nil; m = w.is().FindStringSubmatchIndex(rest) {
			parts := make([]string, len(m)/2)
			for i := range parts {
				if m[2*i] >= 0 {
					parts[i] = rest[m[2*i]:m[2*i+1]]
				}
			}
			w.set(&d, parts)
			rest = rest[:m[0]] + " · " + rest[m[1]:]
		}
	}
	var doubts []message.Sentence
	doubt := func(template string, args ...any) { doubts = append(doubts, message.Of(template, args...)) }
	switch {
	case math.IsNaN(d.max) && math.IsNaN(d.min):
		return d.SimpleDay, nil, fielderr.At("weather", "say how warm and how cold it gets, such as %q", Example)
	case !math.IsNaN(d.one):
		return d.SimpleDay, nil, fielderr.At("weather",
			"has more temperatures than two: say the coldest and the warmest, such as %q", Example)
	}
	if !d.fahrenheit && max(d.max, d.min) > 45 {
		d.fahrenheit = true
		doubt("Over 45 without a unit is read as Fahrenheit.")
	}
	if d.fahrenheit {
		d.min, d.max = (d.min-32)/1.8, (d.max-32)/1.8
	}
	if !d.temp {
		k := swing[d.Sky]
		if math.IsNaN(d.min) {
			d.min = d.max - k
			doubt("You said one temperature: it is taken for the warmest, the night as %v cooler.", message.Val(k, "K"))
		} else {
			d.max = d.min + k
			doubt("You said the coldest only: the day is taken as %v warmer.", message.Val(k, "K"))
		}
	}
	d.MinC, d.MaxC = min(d.min, d.max), max(d.min, d.max)
	if !d.rain {
		doubt("You said nothing of rain: it is taken as dry.")
	}
	if !d.sky {
		doubt("You said nothing of the sky: it is taken as cloudy; a clear night brings more dew.")
	}
	for filling().MatchString(rest) {
		rest = filling().ReplaceAllString(rest, " ")
	}
	if left := strings.Fields(strings.Map(func(r rune) rune {
		if strings.ContainsRune("·,.:-–/", r) {
			return ' '
		}
		return r
	}, rest)); len(left) > 0 {
		doubt("Not understood, and left out: %q.", strings.Join(left, " "))
	}
	return d.SimpleDay, doubts, nil
}

// IsTable tells a table of hours from days in words: at least two lines that begin with a figure and
// hold three.
func IsTable(data []byte) bool {
	n := 0
	for line := range strings.Lines(string(data)) {
		line = strings.TrimSpace(strings.TrimPrefix(line, "\ufeff"))
		if line != "" && line[0] >= '0' && line[0] <= '9' && len(numbers(line)) >= 4 {
			n++
		}
	}
	return n >= 2
}
