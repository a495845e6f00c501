// Package enquiry answers the questions that people come with before there is a boat: may it go on
// today, how much is wanted, how is it mixed, when may the next coat follow, how thick is it wet.
package enquiry

import (
	"time"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/message"
	"allcoats/core/base/working"
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
	"allcoats/core/catalog/product"
	"allcoats/core/conditions/field"
	"allcoats/core/exposure/surface"
	"allcoats/core/film/film"
	"allcoats/core/job/application"
	"allcoats/core/physics/solar"
	"allcoats/core/physics/weather"
)

// Question is what one comes with.
type Question string

// The questions.
const (
	CoatToday Question = "coat-today"
	HowMuch   Question = "how-much"
	HowMixed  Question = "how-mixed"
	WhenAgain Question = "when-again"
	HowThick  Question = "how-thick"
)

// Asked is a question in words.
type Asked struct {
	Key  Question `json:"key"`
	Asks string   `json:"asks"`
}

// Questions lists them as they are asked.
var Questions = []Asked{
	{CoatToday, "Can I coat today?"}, {HowMuch, "How much do I need?"}, {HowMixed, "How do I mix it?"},
	{WhenAgain, "When can I recoat?"}, {HowThick, "How thick wet?"},
}

// Lies is how a surface lies that nobody has described.
type Lies struct {
	Key  string    `json:"key"`
	Name string    `json:"name"`
	Part area.Part `json:"part"`
	// Roofed keeps rain, sun and sky off.
	Roofed bool `json:"roofed"`
}

// Places lists where a coat may go.
var Places = []Lies{
	{"deck", "a deck, in the open", area.Deck, false}, {"sides", "the sides, in the open", area.Topsides, false},
	{"bottom", "the bottom, in the open", area.Bottom, false}, {"shed", "anything, under a roof", area.Topsides, true},
}

// Weather is the air that was told, and from Until on what is only supposed: the last day again.
type Weather struct {
	LatitudeDeg, LongitudeDeg float64
	Loc                       *time.Location
	Now, Until                time.Time
	Air                       weather.Series
}

// Ask is what is asked of a product.
type Ask struct {
	Sheet  product.Sheet
	Method string // empty is the sheet's first
	Place  string // of Places, empty is the first
	// AreaM2, ± AreaPct, is coated Coats times; a mix is of Litres or, without them, for a coat of
	// the area.
	AreaM2, AreaPct float64
	Coats           int
	Litres          float64
	// TempC is of the pot or the air.
	TempC float64
	// LaidAt is when the last coat went on, Over what kind goes over it, empty the same again.
	LaidAt time.Time
	Over   product.Kind
	// DFTUm is the dry film of a coat, 0 the sheet's usual; ThinnerPct of the unthinned volume.
	DFTUm, ThinnerPct float64
	// Currency is that of the prices, empty while none is set.
	Currency string
	Weather  Weather
}

// Fact is a figure that goes with the answer.
type Fact struct {
	Name string           `json:"name"`
	Says message.Sentence `json:"says"`
}

// Answer is what is said to a question: the decision, why, and what was supposed for want of being told.
type Answer struct {
	Says     message.Sentence   `json:"says"`
	Detail   message.Sentence   `json:"detail"`
	Facts    []Fact             `json:"facts"`
	Supposed []message.Sentence `json:"supposed"`
	Cautions []message.Sentence `json:"cautions"`
	Working  working.Working    `json:"working"`
	// Hours are the day's, each with its verdict, empty where the weather bears on nothing.
	Hours []field.Hour `json:"hours"`
}

// Find answers a question.
func Find(q Question, a Ask) (Answer, error) {
	out := Answer{Says: message.Sentence{}, Detail: message.Sentence{}, Facts: []Fact{}, Supposed: []message.Sentence{},
		Cautions: []message.Sentence{}, Working: working.New(), Hours: []field.Hour{}}
	if a.Sheet.Example {
		out.suppose("The figures of %q are an invented example: the data sheet of the tin in hand comes first.",
			a.Sheet.Name)
	}
	if !a.Sheet.IsCoat() {
		return out, fielderr.At("productId", "leaves no film: choose what is to be coated")
	}
	if a.Method == "" && len(a.Sheet.Methods) > 0 {
		a.Method = a.Sheet.Methods[0]
	}
	if a.DFTUm == 0 {
		a.DFTUm = a.Sheet.Film.TypicalUm
	}
	find := map[Question]func(*Answer, Ask) error{
		CoatToday: coatToday, HowMuch: howMuch, HowMixed: howMixed, WhenAgain: whenAgain, HowThick: howThick}[q]
	if find == nil {
		return out, fielderr.At("question", "is none of the questions that are answered")
	}
	return out, find(&out, a)
}

func (out *Answer) suppose(template string, args ...any) {
	out.Supposed = append(out.Supposed, message.Of(template, args...))
}

func (out *Answer) fact(name, template string, args ...any) {
	out.Facts = append(out.Facts, Fact{name, message.Of(template, args...)})
}

// gear adds what to wear and mind, and what comes before it.
func (out *Answer) gear(a Ask) {
	out.Cautions = append(append(out.Cautions, application.Gear(a.Sheet, a.Method)...), message.Lit(application.Defers))
}

// lies is where the coat goes.
func (a Ask) lies() (Lies, error) {
	for _, p := range Places {
		if p.Key == a.Place || a.Place == "" {
			return p, nil
		}
	}
	return Lies{}, fielderr.At("place", "is none of the places offered")
}

// faces are the weather at the faces of a place: of the sides that in the shade and that in the sun,
// since nobody said where they look.
func (a Ask) faces(p Lies) []field.Weather {
	d := survey.Usual(p.Part, survey.GRP)
	d.Shelter = survey.Open
	if p.Roofed {
		d.Shelter = survey.Shed
	}
	faces := []surface.Face{surface.Of(d, p.Part, area.Both, 0)}
	if p.Part == area.Topsides && !p.Roofed { // heading east, port looks north
		faces = []surface.Face{surface.Of(d, p.Part, area.Port, 90), surface.Of(d, p.Part, area.Starboard, 90)}
	}
	open := surface.Outdoors(a.Weather.LatitudeDeg, a.Weather.LongitudeDeg, a.Weather.Air)
	out := make([]field.Weather, len(faces))
	for i, c := range open.Courses(faces) {
		out[i] = field.Weather{Air: a.Weather.Air, SurfaceC: c.TempC, Wet: c.Wet}
	}
	return out
}

// job is the field that a coat wants; laying takes as long as the area, or an hour.
func (a Ask) job(p Lies) field.Job {
	m, _ := film.MethodByKey(a.Method)
	apply := time.Hour
	if a.AreaM2 > 0 && m.RateM2H > 0 {
		apply = hours(a.AreaM2 / m.RateM2H).Round(5 * time.Minute)
	}
	w := a.Weather
	from, to, _ := w.Air.Span()
	l := a.Sheet.Limits
	return field.Job{Limits: l, Apply: max(apply, 10*time.Minute), Hold: hours(l.HoldH), Dry: hours(l.RainFreeH),
		Spray:    m.Spray,
		Daylight: solar.Daylight(w.LatitudeDeg, w.LongitudeDeg, from, to), Sheltered: p.Roofed, Lights: p.Roofed}
}

func hours(h float64) time.Duration { return time.Duration(h * float64(time.Hour)) }

func (w Weather) clock(t time.Time) message.Span { return message.Clock(t, w.Now, w.Loc) }

// dayEnd is midnight after t.
func (w Weather) dayEnd(t time.Time) time.Time {
	l := t.In(w.Loc)
	return time.Date(l.Year(), l.Month(), l.Day()+1, 0, 0, 0, 0, w.Loc)
}
