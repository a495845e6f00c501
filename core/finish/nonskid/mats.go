package nonskid

import (
	"cmp"
	"math"
	"slices"

	"allcoats/core/base/fielderr"
)

// Sheet is what mats are cut from.
type Sheet struct {
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
	// OneWay keeps the pattern along the boat: no mat is turned.
	OneWay bool    `json:"oneWay"`
	SpaceM float64 `json:"spaceM"` // between mats
}

func (s Sheet) validate() error {
	var bad fielderr.Errors
	bad.Above("lengthM", s.LengthM, 0, 50, "m")
	bad.Above("widthM", s.WidthM, 0, 50, "m")
	bad.Range("spaceM", s.SpaceM, 0, 0.5, "m")
	return bad.Err()
}

// Mat is a panel on a sheet: its box with the lower left corner at X, Y.
type Mat struct {
	Panel   string  `json:"panel"`
	Sheet   int     `json:"sheet"` // from 1
	X       float64 `json:"x"`
	Y       float64 `json:"y"`
	LengthM float64 `json:"lengthM"`
	WidthM  float64 `json:"widthM"`
	Turned  bool    `json:"turned"`
}

// Nest is how mats lie on sheets.
type Nest struct {
	Mats     []Mat    `json:"mats"`
	Sheets   int      `json:"sheets"`
	UsedPct  float64  `json:"usedPct"`
	TooLarge []string `json:"tooLarge"`
}

// shelf is a strip across a sheet, as high as its first mat.
type shelf struct {
	sheet     int
	y, height float64
	x         float64
}

// Pack lays the boxes of the panels on sheets, shelf by shelf, the highest first (first
// fit by decreasing height): near the fewest sheets, not always the fewest.
func (s Sheet) Pack(panels []Panel) Nest {
	out := Nest{Mats: []Mat{}, TooLarge: []string{}}
	var mats []Mat
	area := 0.0
	for _, p := range panels {
		if p.AreaM2 == 0 {
			continue
		}
		lo, hi := p.Shape.Bounds()
		m := Mat{Panel: p.Name, LengthM: hi.X - lo.X, WidthM: hi.Y - lo.Y}
		turn := !s.OneWay && (m.WidthM > m.LengthM || m.LengthM > s.LengthM || m.WidthM > s.WidthM)
		if turn && m.WidthM <= s.LengthM && m.LengthM <= s.WidthM {
			m.LengthM, m.WidthM, m.Turned = m.WidthM, m.LengthM, true
		}
		if m.LengthM > s.LengthM || m.WidthM > s.WidthM {
			out.TooLarge = append(out.TooLarge, p.Name)
			continue
		}
		mats = append(mats, m)
		area += p.AreaM2
	}
	slices.SortStableFunc(mats, func(a, b Mat) int { return cmp.Compare(b.WidthM, a.WidthM) })
	var shelves []shelf
	top := map[int]float64{} // how high a sheet is filled
	for _, m := range mats {
		at := slices.IndexFunc(shelves, func(h shelf) bool {
			return h.height >= m.WidthM && h.x+m.LengthM <= s.LengthM
		})
		if at < 0 {
			sheet := 1
			for sheet <= out.Sheets && top[sheet]+m.WidthM > s.WidthM {
				sheet++
			}
			out.Sheets = max(out.Sheets, sheet)
			shelves = append(shelves, shelf{sheet, top[sheet], m.WidthM, 0})
			top[sheet] += m.WidthM + s.SpaceM
			at = len(shelves) - 1
		}
		h := &shelves[at]
		m.Sheet, m.X, m.Y = h.sheet, h.x, h.y
		h.x += m.LengthM + s.SpaceM
		out.Mats = append(out.Mats, m)
	}
	if out.Sheets > 0 {
		out.UsedPct = math.Min(100, 100*area/(float64(out.Sheets)*s.LengthM*s.WidthM))
	}
	return out
}
