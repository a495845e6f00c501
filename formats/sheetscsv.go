package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"allcoats/core/base/fielderr"
	"allcoats/core/catalog/product"
	"allcoats/core/physics/cure"
)

// sheetColumn is a column of the CSV form of data sheets: how a sheet's figure
// is written, and read back.
type sheetColumn struct {
	name string
	get  func(s *product.Sheet) string
	set  func(s *product.Sheet, text string) error
}

func text(name string, at func(s *product.Sheet) *string) sheetColumn {
	return sheetColumn{name, func(s *product.Sheet) string {
		return *at(
			s)
	}, func(s *product.Sheet, v string) error { *at(s) = v; return nil }}
}

func figure(name string, at func(s *product.Sheet) *float64) sheetColumn {
	return sheetColumn{name, func(s *product.Sheet) string {
		if *at(s) == 0 {
			return ""
		}
		return strconv.FormatFloat(*at(s), 'g', -1, 64)
	}, func(s *product.Sheet, v string) (err error) {
		if v != "" {
			*at(s), err = strconv.ParseFloat(v, 64)
		}
		return err
	}}
}

// limit is a figure that may be missing.
func limit(name string, at func(s *product.Sheet) **float64) sheetColumn {
	return sheetColumn{name, func(s *product.Sheet) string {
		if *at(s) == nil {
			return ""
		}
		return strconv.FormatFloat(**at(s), 'g', -1, 64)
	}, func(s *product.Sheet, v string) error {
		if v == "" {
			return nil
		}
		f, err := strconv.ParseFloat(v, 64)
		*at(s) = &f
		return err
	}}
}

// hours is a table written "10:4 20:2", °C:h.
func hours(name string, at func(s *product.Sheet) *cure.Table) sheetColumn {
	return sheetColumn{name, func(s *product.Sheet) string {
		parts := make([]string, len(*at(s)))
		for i, p := range *at(s) {
			parts[i] = fmt.Sprintf("%g:%g", p.TempC, p.Hours)
		}
		return strings.Join(parts, " ")
	}, func(s *product.Sheet, v string) error {
		for _, part := range strings.Fields(v) {
			var p cure.Point
			if _, err := fmt.Sscanf(part, "%g:%g", &p.TempC, &p.Hours); err != nil {
				return fmt.Errorf("%q is not temperature:hours, such as 10:4 20:2", part)
			}
			*at(s) = append(*at(s), p)
		}
		return nil
	}}
}

// anyRecoat is the recoat window over any product.
func anyRecoat(s *product.Sheet) *product.Recoat {
	for i := range s.Recoat {
		if s.Recoat[i].Over == product.AnyKind {
			return &s.Recoat[i]
		}
	}
	s.Recoat = append(s.Recoat, product.Recoat{Over: product.AnyKind})
	return &s.Recoat[len(s.Recoat)-1]
}

// nature is what a sheet says of a product with yes or no.
type nature struct {
	word string
	at   func(*product.Sheet) *bool
}

var natures = []nature{
	{"strong solvent", func(s *product.Sheet) *bool {
		return &s.StrongSolvent
	}}, {"copper", func(s *product.Sheet) *bool { return &s.Copper }},
	{"zinc", func(s *product.Sheet) *bool {
		return &s.Zinc
	}}, {"blushes", func(s *product.Sheet) *bool { return &s.Blushes }},
	{"porous", func(s *product.Sheet) *bool {
		return &s.Porous
	}}, {"air-inhibited", func(s *product.Sheet) *bool { return &s.AirInhibited }},
	{"waxed", func(s *product.Sheet) *bool {
		return &s.Waxed
	}}, {"no solvent wipe", func(s *product.Sheet) *bool { return &s.NoSolventWipe }},
	{"needs cover", func(s *product.Sheet) *bool {
		return &s.NeedsCover
	}}, {"underwater", func(s *product.Sheet) *bool { return &s.Underwater }},
	{"decks", func(s *product.Sheet) *bool { return &s.Decks }},
}

var sheetColumns = []sheetColumn{
	text("name", func(s *product.Sheet) *string { return &s.Name }),
	text("kind", func(s *product.Sheet) *string { return (*string)(&s.Kind) }),
	text("binder", func(s *product.Sheet) *string { return (*string)(&s.Binder) }),
	text("chemistry", func(s *product.Sheet) *string { return &s.Chemistry }),
	text("colour", func(s *product.Sheet) *string { return &s.Colour }),
	text("source", func(s *product.Sheet) *string { return &s.Source }),
	text("edition", func(s *product.Sheet) *string { return &s.Edition }),
	text("sheet date", func(s *product.Sheet) *string { return &s.SheetDate }),
	figure("volume solids %", func(s *product.Sheet) *float64 { return &s.VolumeSolidsPct }),
	figure("film least µm", func(s *product.Sheet) *float64 { return &s.Film.MinUm }),
	figure("film typical µm", func(s *product.Sheet) *float64 { return &s.Film.TypicalUm }),
	figure("film greatest µm", func(s *product.Sheet) *float64 { return &s.Film.MaxUm }),
	figure("base by volume", func(s *product.Sheet) *float64 { return &s.RatioByVolume.Base }),
	figure("hardener by volume", func(s *product.Sheet) *float64 { return &s.RatioByVolume.Hardener }),
	figure("base by weight", func(s *product.Sheet) *float64 { return &s.RatioByWeight.Base }),
	figure("hardener by weight", func(s *product.Sheet) *float64 { return &s.RatioByWeight.Hardener }),
	figure("base kg/L", func(s *product.Sheet) *float64 { return &s.BaseKgL }),
	figure("hardener kg/L", func(s *product.Sheet) *float64 { return &s.HardenerKgL }),
	figure("induction min", func(s *product.Sheet) *float64 { return &s.InductionMin }),
	figure("thinner at most %", func(s *product.Sheet) *float64 { return &s.ThinnerMaxPct }),
	figure("hides from µm", func(s *product.Sheet) *float64 { return &s.HidingUm }),
	figure("sags upright from µm", func(s *product.Sheet) *float64 { return &s.SagUprightUm }),
	figure("shelf life months", func(s *product.Sheet) *float64 { return &s.ShelfLifeMonths }),
	figure("cures above °C", func(s *product.Sheet) *float64 { return &s.MinCureC }),
	limit("air from °C", func(s *product.Sheet) **float64 { return &s.Limits.AirMinC }),
	limit("air to °C", func(s *product.Sheet) **float64 { return &s.Limits.AirMaxC }),
	limit("surface from °C", func(s *product.Sheet) **float64 { return &s.Limits.SurfaceMinC }),
	limit("surface to °C", func(s *product.Sheet) **float64 { return &s.Limits.SurfaceMaxC }),
	limit("humidity to %", func(s *product.Sheet) **float64 { return &s.Limits.RHMaxPct }),
	limit("above dew point K", func(s *product.Sheet) **float64 { return &s.Limits.SpreadMinK }),
	figure("hold h", func(s *product.Sheet) *float64 { return &s.Limits.HoldH }),
	figure("rain-free h", func(s *product.Sheet) *float64 { return &s.Limits.RainFreeH }),
	{"catalyst % by °C", func(s *product.Sheet) string {
		parts := make([]string, len(s.Doses))
		for i, d := range s.Doses {
			parts[i] = fmt.Sprintf("%g:%g", d.TempC, d.Pct)
		}
		return strings.Join(parts, " ")
	}, func(s *product.Sheet, v string) error {
		for _, part := range strings.Fields(v) {
			var d product.Dose
			if _, err := fmt.Sscanf(part, "%g:%g", &d.TempC, &d.Pct); err != nil {
				return fmt.Errorf("%q is not temperature:per cent, such as 12:3 18:2", part)
			}
			s.Doses = append(s.Doses, d)
		}
		return nil
	}},
	{"nature", func(s *product.Sheet) string {
		var words []string
		for _, n := range natures {
			if *n.at(s) {
				words = append(words, n.word)
			}
		}
		return strings.Join(words, "; ")
	}, func(s *product.Sheet, v string) error {
		for _, word := range strings.Split(v, ";") {
			i := slices.IndexFunc(natures, func(n nature) bool {
				return strings.EqualFold(n.word, strings.TrimSpace(word))
			})
			if i < 0 {
				return fmt.Errorf("%q is none of the words of a product's nature, such as copper or underwater",
					strings.TrimSpace(word))
			}
			*natures[i].at(s) = true
		}
		return nil
	}},
	hours("pot life", func(s *product.Sheet) *cure.Table { return &s.PotLife }),
	hours("touch-dry", func(s *product.Sheet) *cure.Table { return &s.TouchDry }),
	hours("sandable", func(s *product.Sheet) *cure.Table { return &s.Sandable }),
	hours("through-dry", func(s *product.Sheet) *cure.Table { return &s.ThroughDry }),
	hours("immersion", func(s *product.Sheet) *cure.Table { return &s.Immersion }),
	hours("recoat from", func(s *product.Sheet) *cure.Table { return &anyRecoat(s).Min }),
	hours("recoat until", func(s *product.Sheet) *cure.Table { return &anyRecoat(s).Max }),
	{"laid by", func(s *product.Sheet) string {
		return strings.Join(s.Methods, " ")
	}, func(s *product.Sheet, v string) error {
		s.Methods = strings.Fields(v)
		return nil
	}},
	{"example", func(s *product.Sheet) string {
		if s.Example {
			return "yes"
		}
		return ""
	}, func(s *product.Sheet, v string) error {
		if s.Example = strings.EqualFold(v, "yes"); !s.Example {
			return fmt.Errorf("%q is not yes or empty", v)
		}
		return nil
	}},
	{"packs", func(s *product.Sheet) string {
		parts := make([]string, len(s.Tins))
		for i, t := range s.Tins {
			parts[i] = fmt.Sprintf("%s=%g@%d", t.Name, t.Litres, t.PriceCents)
			if t.Part != "" {
				parts[i] += "/" + t.Part
			}
			if t.Supplier != "" || t.PartNo != "" {
				parts[i] += fmt.Sprintf(" [%s, %s]", t.Supplier, t.PartNo)
			}
		}
		return strings.Join(parts, "; ")
	}, func(s *product.Sheet, v string) error {
		for _, part := range strings.Split(v, ";") {
			if part = strings.TrimSpace(part); part == "" {
				continue
			}
			part, seller, _ := strings.Cut(part, " [")
			supplier, number, _ := strings.Cut(strings.TrimSuffix(seller, "]"), ", ")
			name, rest, _ := strings.Cut(part, "=")
			rest, which, _ := strings.Cut(rest, "/")
			t := product.Tin{Name: name, Part: which, Supplier: supplier, PartNo: number}
			if _, err := fmt.Sscanf(rest, "%g@%d", &t.Litres, &t.PriceCents); err != nil {
				return fmt.Errorf("%q is not name=litres@cents, such as 2.5 L=2.5@9900", part)
			}
			s.Tins = append(s.Tins, t)
		}
		return nil
	}},
	{"cautions", func(s *product.Sheet) string {
		return strings.Join(s.Cautions, " | ")
	}, func(s *product.Sheet, v string) error {
		for _, c := range strings.Split(v, "|") {
			if c = strings.TrimSpace(c); c != "" {
				s.Cautions = append(s.Cautions, c)
			}
		}
		return nil
	}},
}

// SheetsCSV writes data sheets as a table: the figures that most sheets have.
// Recoat windows over particular kinds, and grades, stay in the JSON form.
func SheetsCSV(sheets []product.Sheet) ([]byte, error) {
	t := Table{Name: "Data sheets"}
	for _, c := range sheetColumns {
		t.Header = append(t.Header, c.name)
	}
	for _, s := range sheets {
		row := make([]any, len(sheetColumns))
		for i, c := range sheetColumns {
			row[i] = c.get(&s)
		}
		t.Rows = append(t.Rows, row)
	}
	return t.CSV()
}

// ReadSheets reads data sheets, json (a list of them) or csv (SheetsCSV's
// columns in any order, those that are missing left out). Every fault names
// its line or its place in the list; all or nothing.
func ReadSheets(format string, data []byte) ([]product.Sheet, error) {
	var bad fielderr.Errors
	var out []product.Sheet
	switch format {
	case "json":
		d := json.NewDecoder(bytes.NewReader(data))
		d.DisallowUnknownFields()
		if err := d.Decode(&out); err != nil {
			return nil, fileFault("cannot be read: %v", err)
		}
		for i, s := range out {
			bad.Under(fmt.Sprintf("[%d]", i), s.Validate())
		}
	case "csv":
		table, err := readTable(data)
		if err != nil {
			return nil, err
		}
		at := make([]*sheetColumn, len(table[0].cells))
		for i, name := range table[0].cells {
			for k := range sheetColumns {
				if strings.EqualFold(sheetColumns[k].name, name) {
					at[i] = &sheetColumns[k]
				}
			}
			if at[i] == nil {
				bad.Add("line 1", "%q is no column of a data sheet", name)
			}
		}
		if bad != nil {
			return nil, bad
		}
		for _, row := range table[1:] {
			place := fmt.Sprintf("line %d", row.line)
			var s product.Sheet
			for i, cell := range row.cells {
				if i >= len(at) {
					bad.Add(place, "has %d columns, the header %d", len(row.cells), len(at))
					break
				}
				if cell == "" {
					continue
				}
				if err := at[i].set(&s, cell); err != nil {
					bad.Add(place, "%s: %v", at[i].name, err)
				}
			}
			for i := range s.Recoat {
				s.Recoat[i].NeverCloses = len(s.Recoat[i].Max) == 0
			}
			if err := s.Validate(); err != nil {
				bad.Add(place, "%v", err)
			}
			out = append(out, s)
		}
	default:
		return nil, fielderr.At("format", "must be json or csv")
	}
	if bad == nil && len(out) == 0 {
		return nil, fileFault("there are no data sheets in it")
	}
	if bad != nil {
		return nil, bad
	}
	return out, nil
}
