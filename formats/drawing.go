package formats

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"io"
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/polygon"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/goregular"
)

// Piece is an outline of a template with its name.
type Piece struct {
	Name  string
	Shape polygon.Shape
}

// Template is a drawing at 1:1 to be cut or printed: pieces in m, y up, with
// registration marks in the corners of the box round them.
type Template struct {
	Title  string
	Pieces []Piece
}

// Paired adds the mirror image of every piece, forward of what is there.
func (t Template) Paired() Template {
	lo, hi := t.bounds()
	out := Template{t.Title, append([]Piece{}, t.Pieces...)}
	for _, p := range t.Pieces {
		twin := p.Shape.Mirrored().Placed(func(q polygon.Point) polygon.Point {
			return polygon.Point{X: q.X + hi.X - lo.X + 0.1, Y: q.Y + lo.Y + hi.Y}
		})
		out.Pieces = append(out.Pieces, Piece{p.Name + " mirrored", twin})
	}
	return out
}

func (t Template) bounds() (lo, hi polygon.Point) {
	var all polygon.Shape
	for _, p := range t.Pieces {
		all = append(all, p.Shape...)
	}
	return all.Bounds()
}

const (
	markMM  = 10.0 // half of a registration mark
	frameMM = 20.0 // from the pieces to the marks
	checkMM = 100.0
)

// layout places the template in mm with the lower left mark at frame, frame.
type layout struct {
	Template
	lo   polygon.Point
	w, h float64 // mm, with the frame
}

func (t Template) layout() (layout, error) {
	lo, hi := t.bounds()
	if !(hi.X > lo.X) {
		return layout{}, fielderr.At("panel", "there is nothing to draw")
	}
	return layout{t, lo, 1000*(hi.X-lo.X) + 4*frameMM, 1000*(hi.Y-lo.Y) + 4*frameMM}, nil
}

// at is a point of the template in mm, y up.
func (l layout) at(p polygon.Point) (x, y float64) {
	return 1000*(p.X-l.lo.X) + 2*frameMM, 1000*(p.Y-l.lo.Y) + 2*frameMM
}

// marks are the lines of the registration marks, and a bar of 100 mm to check the
// printed size by, in mm.
func (l layout) marks() [][4]float64 {
	var out [][4]float64
	for _, x := range []float64{frameMM, l.w - frameMM} {
		for _, y := range []float64{frameMM, l.h - frameMM} {
			out = append(out, [4]float64{x - markMM, y, x + markMM, y}, [4]float64{x, y - markMM, x, y + markMM})
		}
	}
	y := frameMM / 2
	x := 2 * frameMM
	return append(out, [4]float64{x, y, x + checkMM, y}, [4]float64{x, y - 3, x, y + 3},
		[4]float64{x + checkMM, y - 3, x + checkMM, y + 3})
}

// WriteSVG draws a template as SVG, 1 unit a millimetre.
func WriteSVG(t Template) ([]byte, error) {
	l, err := t.layout()
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	text := func(x, y, size float64, s string) {
		fmt.Fprintf(&b, `<text x="%.3f" y="%.3f" font-family="sans-serif" font-size="%g" text-anchor="middle">`, x,
			l.h-y, size)
		_ = xml.EscapeText(&b, []byte(s)) // a buffer takes everything
		b.WriteString("</text>\n")
	}
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%.3fmm" height="%.3fmm" viewBox="0 0 %.3f %.3f">`+
		"\n", l.w, l.h, l.w, l.h)
	b.WriteString(`<g id="pieces" fill="none" stroke="#000" stroke-width="0.3">` + "\n")
	for _, p := range l.Pieces {
		b.WriteString(`<path d="`)
		for _, part := range p.Shape {
			for _, r := range append([]polygon.Ring{part.Outer}, part.Holes...) {
				for i, c := range r {
					x, y := l.at(c)
					fmt.Fprintf(&b, "%c%.3f %.3f", "ML"[min(i, 1)], x, l.h-y)
				}
				b.WriteString("Z")
			}
		}
		b.WriteString("\"/>\n")
	}
	b.WriteString("</g>\n" + `<g id="marks" fill="none" stroke="#000" stroke-width="0.2">` + "\n")
	for _, m := range l.marks() {
		fmt.Fprintf(&b, `<path d="M%.3f %.3fL%.3f %.3f"/>`+"\n", m[0], l.h-m[1], m[2], l.h-m[3])
	}
	b.WriteString("</g>\n")
	for _, p := range l.Pieces {
		if len(p.Shape) > 0 {
			x, y := l.at(p.Shape[0].Inner())
			text(x, y, 12, p.Name)
		}
	}
	text(2*frameMM+checkMM/2, frameMM/2+2, 5, "100 mm · "+l.Title)
	b.WriteString("</svg>\n")
	return b.Bytes(), nil
}

// WriteDXF draws a template as an ASCII DXF drawing in millimetres: closed polylines
// on the layer PIECES, marks on MARKS, names on NAMES.
func WriteDXF(t Template) ([]byte, error) {
	l, err := t.layout()
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	put := func(pairs ...any) {
		for i := 0; i < len(pairs); i += 2 {
			if v, ok := pairs[i+1].(float64); ok {
				fmt.Fprintf(&b, "%d\n%.4f\n", pairs[i], v)
			} else {
				fmt.Fprintf(&b, "%d\n%v\n", pairs[i], pairs[i+1])
			}
		}
	}
	put(0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1015", 9, "$INSUNITS", 70, 4, 0, "ENDSEC", 0, "SECTION", 2,
		"ENTITIES")
	for _, p := range l.Pieces {
		for _, part := range p.Shape {
			for _, r := range append([]polygon.Ring{part.Outer}, part.Holes...) {
				put(0, "LWPOLYLINE", 100, "AcDbEntity", 8, "PIECES", 100, "AcDbPolyline", 90, len(r), 70, 1)
				for _, c := range r {
					x, y := l.at(c)
					put(10, x, 20, y)
				}
			}
		}
		if len(p.Shape) > 0 {
			x, y := l.at(p.Shape[0].Inner())
			put(0, "TEXT", 100, "AcDbEntity", 8, "NAMES", 100, "AcDbText", 10, x, 20, y, 40, 12.0, 1, p.Name)
		}
	}
	for _, m := range l.marks() {
		put(0, "LINE", 100, "AcDbEntity", 8, "MARKS", 100, "AcDbLine", 10, m[0], 20, m[1], 11, m[2], 21, m[3])
	}
	put(0, "ENDSEC", 0, "EOF")
	return b.Bytes(), nil
}

// An A4 page in mm, the edge that printers leave white, and how far pages overlap.
const (
	pageW, pageH = 210.0, 297.0
	whiteMM      = 10.0
	overlapMM    = 10.0
	// MaxPages is the most pages of a tiled print.
	MaxPages = 150
)

// WriteTiles prints a template at 1:1 on A4 pages that overlap by 10 mm, each with its
// row and column, and crosses to glue them by. It returns how many there are.
func WriteTiles(w io.Writer, t Template) (int, error) {
	l, err := t.layout()
	if err != nil {
		return 0, err
	}
	stepX, stepY := pageW-2*whiteMM-overlapMM, pageH-2*whiteMM-overlapMM
	cols, rows := int(math.Ceil((l.w-overlapMM)/stepX)), int(math.Ceil((l.h-overlapMM)/stepY))
	if cols*rows > MaxPages {
		return 0, fielderr.At("panel",
			"%d pages of A4 are too many to glue: print panel by panel, or send the SVG or DXF to a plotter", cols*rows)
	}
	doc := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: pageW, Ht: pageH}})
	doc.SetAutoPageBreak(false, 0)
	doc.AddUTF8FontFromBytes(labelFont, "", goregular.TTF)
	for row := range rows {
		for col := range cols {
			doc.AddPage()
			// The top row first, as one reads.
			x0, y0 := float64(col)*stepX-whiteMM, float64(rows-1-row)*stepY-whiteMM
			l.tile(doc, x0, y0, fmt.Sprintf("%s: row %d of %d, page %d of %d across, printed at 100 %%", l.Title, row+1,
				rows, col+1, cols))
		}
	}
	if err := doc.Output(w); err != nil {
		return 0, fmt.Errorf("tiles: %w", err)
	}
	return cols * rows, nil
}

// labelFont is the letters of the labels.
const labelFont = "label"

// tile draws the page whose lower left corner is at x0, y0 of the template; a page has its y down.
func (l layout) tile(doc *fpdf.Fpdf, x0, y0 float64, title string) {
	doc.SetLineWidth(0.1)
	doc.Rect(whiteMM, whiteMM, pageW-2*whiteMM, pageH-2*whiteMM, "D")
	doc.SetLineWidth(0.4)
	for _, p := range l.Pieces {
		for _, part := range p.Shape {
			for _, r := range append([]polygon.Ring{part.Outer}, part.Holes...) {
				line := make([]fpdf.PointType, len(r))
				for i, c := range r {
					x, y := l.at(c)
					line[i] = fpdf.PointType{X: x - x0, Y: pageH - (y - y0)}
				}
				if onPage(line) {
					doc.Polygon(line, "D")
				}
			}
		}
	}
	marks := l.marks()
	// Where four pages meet, a cross on each of them.
	for _, x := range []float64{whiteMM + overlapMM/2, pageW - whiteMM - overlapMM/2} {
		for _, y := range []float64{whiteMM + overlapMM/2, pageH - whiteMM - overlapMM/2} {
			marks = append(marks, [4]float64{x + x0 - 4, y + y0, x + x0 + 4, y + y0},
				[4]float64{x + x0, y + y0 - 4, x + x0, y + y0 + 4})
		}
	}
	doc.SetLineWidth(0.2)
	for _, m := range marks {
		doc.Line(m[0]-x0, pageH-(m[1]-y0), m[2]-x0, pageH-(m[3]-y0))
	}
	label := func(x, y, points float64, s string) {
		doc.SetFont(labelFont, "", points)
		doc.Text(x, pageH-y, s)
	}
	for _, p := range l.Pieces {
		if len(p.Shape) > 0 {
			if x, y := l.at(p.Shape[0].Inner()); x > x0+whiteMM && x < x0+pageW-whiteMM && y > y0+whiteMM && y < y0+
				pageH-whiteMM {
				label(x-x0, y-y0, 30, p.Name)
			}
		}
	}
	label(whiteMM, 3, 9, title)
	if x, y := 2*frameMM-x0, frameMM/2-y0; x > 0 && x < pageW-40 && y > 0 && y < pageH {
		label(x, y+3, 9, "this bar is 100 mm: measure it before you cut")
	}
}

// onPage reports whether the box round a line meets the page.
func onPage(line []fpdf.PointType) bool {
	lo, hi := fpdf.PointType{X: math.Inf(1), Y: math.Inf(1)}, fpdf.PointType{X: math.Inf(-1), Y: math.Inf(-1)}
	for _, p := range line {
		lo.X, lo.Y, hi.X, hi.Y = min(lo.X, p.X), min(lo.Y, p.Y), max(hi.X, p.X), max(hi.Y, p.Y)
	}
	return lo.X < pageW && hi.X > 0 && lo.Y < pageH && hi.Y > 0
}
