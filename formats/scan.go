package formats

import (
	"errors"
	"fmt"
	"io"
	"math"
	"strings"

	"allcoats/core/base/fielderr"

	"gonum.org/v1/gonum/mat"
)

// Scan is a cloud of points of a side made into heights on a grid: gaps below its highest cell,
// mm, row by row from below, with the spacing along and between the rows, m.
type Scan struct {
	Gaps            [][]*float64
	SpacingM, RowsM float64
}

// scanSide is the most cells of a scan's grid each way, and scanPoints the most points taken.
const (
	scanSide   = 64
	scanPoints = 2_000_000
)

// IsScan reports whether a table's header names x, y and z.
func IsScan(data []byte) bool {
	_, _, ok := scanHeader(data)
	return ok
}

// scanHeader finds the columns of x, y and z, and the unit of each in m: "x", "x m" or "x_mm".
func scanHeader(data []byte) (column [3]int, unit [3]float64, ok bool) {
	first, _, _ := strings.Cut(string(data), "\n")
	found := 0
	for i, name := range strings.FieldsFunc(strings.ToLower(strings.TrimSpace(first)), func(r rune) bool {
		return r == ',' || r == ';' || r == '\t'
	}) {
		name = strings.Trim(name, " \"\ufeff")
		for k, axis := range []string{"x", "y", "z"} {
			rest, is := strings.CutPrefix(name, axis)
			u, known := map[string]float64{"": 1, "m": 1, "mm": 0.001, "cm": 0.01}[strings.Trim(rest, " _()[]/")]
			if is && known {
				column[k], unit[k] = i, u
				found |= 1 << k
			}
		}
	}
	return column, unit, found == 7
}

// ReadScan reads points from CSV whose header names x along the side, y up it and z outward. The
// plane that fits best is taken off; cells hold the mean of their points, none where there is none.
func ReadScan(data []byte) (Scan, error) {
	column, unit, ok := scanHeader(data)
	if !ok {
		return Scan{}, fielderr.At("line 1", "names no columns x, y and z")
	}
	var bad fielderr.Errors
	var points [][3]float64
	r := csvReader(data)
	r.ReuseRecord = true
	for line := 1; ; line++ {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			bad.Add(csvPlace(err), "cannot be read: %v", err)
			break
		}
		if line == 1 {
			continue
		}
		var p [3]float64
		for k := range p {
			v, ok := 0.0, false
			if column[k] < len(row) {
				v, ok = number(row[column[k]], r.Comma != ',')
			}
			if !ok {
				bad.Add(fmt.Sprintf("line %d", line), "%s is no number", []string{"x", "y", "z"}[k])
			}
			p[k] = v * unit[k]
		}
		if points = append(points, p); len(points) > scanPoints || len(bad) >= 20 {
			break
		}
	}
	switch {
	case bad != nil:
		return Scan{}, bad
	case len(points) > scanPoints:
		return Scan{}, fielderr.At("file", "more than %d points", scanPoints)
	case len(points) < 12:
		return Scan{}, fielderr.At("file", "%d points are too few for a surface", len(points))
	}
	return gridded(points)
}

// gridded takes the best plane off points and puts them into cells.
func gridded(points [][3]float64) (Scan, error) {
	lo, hi := points[0], points[0]
	normal, right := mat.NewDense(3, 3, nil), mat.NewVecDense(3, nil)
	for _, p := range points {
		for k := range p {
			lo[k], hi[k] = min(lo[k], p[k]), max(hi[k], p[k])
		}
		row := [3]float64{1, p[0] - points[0][0], p[1] - points[0][1]}
		for i := range row {
			right.SetVec(i, right.AtVec(i)+row[i]*p[2])
			for j := range row {
				normal.Set(i, j, normal.At(i, j)+row[i]*row[j])
			}
		}
	}
	long, tall := hi[0]-lo[0], hi[1]-lo[1]
	var plane mat.VecDense
	if plane.SolveVec(normal, right) != nil || long <= 0 || tall <= 0 {
		return Scan{}, fielderr.At("file", "the points lie on a line: a surface has a length and a height")
	}
	if long > 150 || tall > 150 {
		return Scan{}, fielderr.At("file",
			"the points reach over %.4g m by %.4g m: are these mm? Name the columns x_mm, y_mm, z_mm", long, tall)
	}
	// About three points a cell, at most scanSide cells each way.
	cell := max(long/(scanSide-1), tall/(scanSide-1), math.Sqrt(3*long*tall/float64(len(points))))
	nx, ny := int(long/cell)+1, int(tall/cell)+1
	sum, count := make([]float64, nx*ny), make([]int, nx*ny)
	for _, p := range points {
		i := min(nx-1, int((p[0]-lo[0])/cell)) + nx*min(ny-1, int((p[1]-lo[1])/cell))
		sum[i] += p[2] - plane.AtVec(0) - plane.AtVec(1)*(p[0]-points[0][0]) - plane.AtVec(2)*(p[1]-points[0][1])
		count[i]++
	}
	top := math.Inf(-1)
	for i := range sum {
		if count[i] > 0 {
			sum[i] /= float64(count[i])
			top = max(top, sum[i])
		}
	}
	out := Scan{SpacingM: math.Round(1e4*cell) / 1e4, RowsM: math.Round(1e4*cell) / 1e4}
	for y := range ny {
		row := make([]*float64, nx)
		for x := range nx {
			if i := y*nx + x; count[i] > 0 {
				mm := math.Round(1e5*(top-sum[i])) / 100
				row[x] = &mm
			}
		}
		out.Gaps = append(out.Gaps, row)
	}
	return out, nil
}
