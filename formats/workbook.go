package formats

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"fmt"
	"strings"
	"time"
)

// The parts of a workbook of one sheet that are the same for every table (ECMA-376, parts 1 and 2). Style 1 is that of
// an instant.
const (
	xmlHead       = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>`
	ooxml         = "http://schemas.openxmlformats.org"
	sheetSpace    = ooxml + "/spreadsheetml/2006/main"
	relations     = ooxml + "/package/2006/relationships"
	documentSpace = ooxml + "/officeDocument/2006/relationships"

	contentTypes = xmlHead + `<Types xmlns="` + ooxml +
		`/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>` +
		`<Default Extension="xml" ContentType="application/xml"/>` +
		`<Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>` +
		`<Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>` +
		`<Override PartName="/xl/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml"/></Types>`
	packageParts = xmlHead + `<Relationships xmlns="` + relations + `"><Relationship Id="rId1" Type="` + documentSpace +
		`/officeDocument" Target="xl/workbook.xml"/></Relationships>`
	bookParts = xmlHead + `<Relationships xmlns="` + relations + `"><Relationship Id="rId1" Type="` + documentSpace +
		`/worksheet" Target="worksheets/sheet1.xml"/>` +
		`<Relationship Id="rId2" Type="` + documentSpace + `/styles" Target="styles.xml"/></Relationships>`
	bookStyles = xmlHead + `<styleSheet xmlns="` + sheetSpace +
		`"><numFmts count="1"><numFmt numFmtId="164" formatCode="yyyy\-mm\-dd hh:mm"/></numFmts>` +
		`<fonts count="1"><font><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills>` +
		`<borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs>` +
		`<cellXfs count="2"><xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/><xf numFmtId="164" fontId="0" fillId="0" borderId="0" xfId="0" applyNumberFormat="1"/></cellXfs></styleSheet>`
)

// XLSX writes the table as a workbook of one sheet.
func (t Table) XLSX() ([]byte, error) {
	var sheet bytes.Buffer
	sheet.WriteString(xmlHead + `<worksheet xmlns="` + sheetSpace + `"><sheetData>`)
	header := make([]any, len(t.Header))
	for i, h := range t.Header {
		header[i] = h
	}
	writeRow(&sheet, 1, header)
	for i, r := range t.Rows {
		writeRow(&sheet, i+2, r)
	}
	sheet.WriteString("</sheetData></worksheet>")
	book := xmlHead + `<workbook xmlns="` + sheetSpace + `" xmlns:r="` + documentSpace + `"><sheets><sheet name="` +
		escaped(t.Name) + `" sheetId="1" r:id="rId1"/></sheets></workbook>`

	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, part := range []struct{ name, text string }{
		{"[Content_Types].xml", contentTypes}, {"_rels/.rels", packageParts}, {"xl/workbook.xml", book},
		{"xl/_rels/workbook.xml.rels", bookParts},
		{"xl/styles.xml", bookStyles}, {"xl/worksheets/sheet1.xml", sheet.String()},
	} {
		w, err := z.Create(part.name)
		if err == nil {
			_, err = w.Write([]byte(part.text))
		}
		if err != nil {
			return nil, fmt.Errorf("workbook: %w", err)
		}
	}
	if err := z.Close(); err != nil {
		return nil, fmt.Errorf("workbook: %w", err)
	}
	return out.Bytes(), nil
}

func writeRow(b *bytes.Buffer, row int, cells []any) {
	fmt.Fprintf(b, `<row r="%d">`, row)
	for k, v := range cells {
		at := fmt.Sprintf("%s%d", columnName(k), row)
		switch v := v.(type) {
		case nil:
		case string:
			fmt.Fprintf(b, `<c r="%s" t="inlineStr"><is><t xml:space="preserve">%s</t></is></c>`, at, escaped(v))
		case time.Time:
			fmt.Fprintf(b, `<c r="%s" s="1"><v>%.10g</v></c>`, at, serialDay(v))
		default:
			fmt.Fprintf(b, `<c r="%s"><v>%v</v></c>`, at, v)
		}
	}
	b.WriteString("</row>")
}

// serialDay is an instant in days of a workbook, which knows no zones, as it stands in its own place.
func serialDay(at time.Time) float64 {
	y, m, d := at.Date()
	zero := time.Date(1899, 12, 30, 0, 0, 0, 0, time.UTC)
	return time.Date(y, m, d, at.Hour(), at.Minute(), at.Second(), 0, time.UTC).Sub(zero).Hours() / 24
}

// columnName is A for 0, Z for 25, AA for 26.
func columnName(k int) string {
	if k < 26 {
		return string(rune('A' + k))
	}
	return columnName(k/26-1) + columnName(k%26)
}

// escaped is a text within XML, without what XML has no sign for.
func escaped(text string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(text)) // to memory
	return b.String()
}
