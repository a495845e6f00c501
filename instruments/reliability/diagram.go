package reliability

import (
	"bytes"
	"fmt"
	"math"
	"slices"
)

// The diagram's panels: their side and the space about them, px.
const (
	side, gap  = 200, 70
	ink, faint = "#26323a", "#9aa5a8"
)

// shades are those of the usual errors and of the learned.
var shades = [2]string{"#b4532a", "#1f6f78"}

// Diagram draws reliability (Murphy & Winkler 1977): for each tenth of the odds the share that came,
// a dot as large as there are bets; on the slant odds are right. Two studies are drawn one over the
// other.
func Diagram(usual, learned []Table) []byte {
	names := []string{Starts, DryBy, RainWithin, LaunchBy}
	var b bytes.Buffer
	const y = side + 160 // of what is said below
	fmt.Fprintf(&b,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="13" fill="%s">`, len(names)*(side+gap)+20, y+36, ink)
	fmt.Fprintf(&b, `<rect width="100%%" height="100%%" fill="#faf8f3"/>`)
	for k, name := range names {
		x0, y0 := 50+k*(side+gap), 40
		at := func(odds, came float64) (x, y float64) {
			return float64(x0) + odds*side, float64(y0) + (1-came)*side
		}
		fmt.Fprintf(&b, `<text x="%d" y="%d" font-weight="bold">%s</text>`, x0, y0-14, name)
		fmt.Fprintf(&b, `<rect x="%d" y="%d" width="%d" height="%d" fill="none" stroke="%s"/>`, x0, y0, side, side,
			faint)
		fmt.Fprintf(&b, `<path d="M%d %d L%d %d" stroke="%s" stroke-dasharray="4 4"/>`, x0, y0+side, x0+side, y0, faint)
		for v := 0; v <= 100; v += 50 {
			x, y := at(float64(v)/100, float64(v)/100)
			fmt.Fprintf(&b,
				`<text x="%.0f" y="%d" text-anchor="middle" font-size="11">%d</text><text x="%d" y="%.0f" text-anchor="end" font-size="11">%d</text>`, x, y0+side+16, v, x0-6, y+4, v)
		}
		for s, tables := range [2][]Table{usual, learned} {
			i := slices.IndexFunc(tables, func(t Table) bool { return t.Name == name })
			if i < 0 {
				continue
			}
			for _, d := range tables[i].Deciles {
				if d.N == 0 {
					continue
				}
				x, y := at(d.Odds, d.Came)
				r := min(9, 1.5+6*math.Sqrt(float64(d.N)/float64(tables[i].N)))
				fmt.Fprintf(&b, `<circle cx="%.1f" cy="%.1f" r="%.1f" fill="%s" fill-opacity="0.75"/>`, x, y, r,
					shades[s])
			}
			t := tables[i]
			for line, text := range []string{
				fmt.Sprintf("%d bets, off by %.1f points", t.N, t.MeanGapInPoints),
				fmt.Sprintf("score %.3f of %.3f and %.3f", t.Brier, t.BrierClimate, t.BrierForecast),
			} {
				fmt.Fprintf(&b, `<text x="%d" y="%d" font-size="11" fill="%s">%s</text>`, x0, y0+side+36+14*line+32*s,
					shades[s], text)
			}
		}
	}
	for line, text := range []string{
		"Across: odds told, %. Up: how many of them came, %. Two simulated years.",
		fmt.Sprintf(
			`<tspan fill="%s">Usual errors</tspan>, <tspan fill="%s">errors learned from 60 days</tspan>. Scores: of the futures, of the usual share told every time, of the forecast at its word.`, shades[0], shades[1]),
	} {
		fmt.Fprintf(&b, `<text x="50" y="%d" font-size="12">%s</text>`, y+18*line, text)
	}
	b.WriteString("</svg>")
	return append(b.Bytes(), '\n')
}
