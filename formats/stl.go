package formats

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"strconv"

	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/mesh"
)

// welder gives equal corners one number: an open-addressing table over the
// coordinates' bits, since a map of a million corners is slow.
type welder struct {
	vertices []mesh.Vec
	slots    []int32 // index + 1
	mask     uint64
}

func newWelder(triangles int) *welder {
	size := uint64(64)
	for size < uint64(triangles) {
		size *= 2
	}
	return &welder{make([]mesh.Vec, 0, triangles/2+3), make([]int32, size), size - 1}
}

func (w *welder) number(v mesh.Vec) int32 {
	v = mesh.Vec{v[0] + 0, v[1] + 0, v[2] + 0} // −0 is 0
	h := math.Float64bits(v[0])*0x9e3779b97f4a7c15 ^ math.Float64bits(v[1])*0xc2b2ae3d27d4eb4f ^ math.Float64bits(
		v[2])*0x165667b19e3779f9
	h ^= h >> 32
	h *= 0x9e3779b97f4a7c15
	if 2*len(w.vertices) > len(w.slots) {
		w.grow()
	}
	for i := h >> 24 & w.mask; ; i = (i + 1) & w.mask {
		switch k := w.slots[i]; {
		case k == 0:
			w.vertices = append(w.vertices, v)
			w.slots[i] = int32(len(w.vertices))
			return int32(len(w.vertices) - 1)
		case w.vertices[k-1] == v:
			return k - 1
		}
	}
}

func (w *welder) grow() {
	old := w.vertices
	*w = welder{make([]mesh.Vec, 0, 2*cap(old)), make([]int32, 2*len(w.slots)), 2*w.mask + 1}
	for _, v := range old {
		w.number(v)
	}
}

// ReadSTL reads a binary or ASCII STL file, in the file's own units, and joins
// corners with equal coordinates. A file that is cut off, and corners that are
// no numbers, are faults that name the facet.
func ReadSTL(data []byte) (mesh.Mesh, error) {
	if n, ok := binarySTL(data); ok {
		return readBinarySTL(data, n)
	}
	if bytes.HasPrefix(bytes.TrimLeft(data, " \t\r\n"), []byte("solid")) {
		return readASCIISTL(data)
	}
	if len(data) < 84 {
		return mesh.Mesh{}, fileFault("this is no STL file: it has %d bytes, an empty one has 84", len(data))
	}
	n := int64(binary.LittleEndian.Uint32(data[80:]))
	return mesh.Mesh{}, fileFault(
		"its header announces %d facets, %d bytes; the file has %d bytes: it is cut off or no STL file", n, 84+50*n,
		len(data))
}

func fileFault(format string, args ...any) error {
	return fielderr.At("file", format, args...)
}

// binarySTL reports whether the length is what the header's count asks for.
func binarySTL(data []byte) (n int, ok bool) {
	if len(data) < 84 {
		return 0, false
	}
	n = int(binary.LittleEndian.Uint32(data[80:]))
	return n, len(data) == 84+50*n
}

func readBinarySTL(data []byte, n int) (mesh.Mesh, error) {
	if n == 0 {
		return mesh.Mesh{}, fileFault("there are no facets in it")
	}
	if n > mesh.MaxTriangles {
		return mesh.Mesh{}, fileFault("%d facets; at most %d are taken", n, mesh.MaxTriangles)
	}
	w := newWelder(n)
	m := mesh.Mesh{Triangles: make([][3]int32, n), Faces: n}
	for i := range n {
		at := data[84+50*i+12 : 84+50*i+48]
		var c [9]float64
		sum := 0.0 // no number as soon as one of them is none
		for k := range c {
			c[k] = float64(math.Float32frombits(binary.LittleEndian.Uint32(at[4*k:])))
			sum += c[k] - c[k]
		}
		if sum != 0 {
			return mesh.Mesh{}, fileFault("facet %d has a corner that is no number", i+1)
		}
		m.Triangles[i] = [3]int32{
			w.number(mesh.Vec{c[0], c[1], c[2]}), w.number(mesh.Vec{c[3], c[4], c[5]}),
			w.number(mesh.Vec{c[6], c[7], c[8]}),
		}
	}
	m.Vertices = w.vertices
	return m, nil
}

func finite(v float64) bool { return v-v == 0 }

func readASCIISTL(data []byte) (mesh.Mesh, error) {
	w := newWelder(len(data) / 250)
	var m mesh.Mesh
	corners, closed := 0, false
	for line, rest := 1, data; len(rest) > 0; line++ {
		var row []byte
		row, rest, _ = bytes.Cut(rest, []byte("\n"))
		words := bytes.Fields(row)
		if len(words) == 0 {
			continue
		}
		switch string(words[0]) {
		case "vertex":
			v, err := vector(words[1:])
			if err != nil {
				return mesh.Mesh{}, lineFault(line, "facet %d: %v", len(m.Triangles)+1, err)
			}
			if corners == 3 {
				return mesh.Mesh{}, lineFault(line, "facet %d has more than three corners", len(m.Triangles))
			}
			if corners == 0 {
				if len(m.Triangles) == mesh.MaxTriangles {
					return mesh.Mesh{}, lineFault(line, "more than %d facets", mesh.MaxTriangles)
				}
				m.Triangles = append(m.Triangles, [3]int32{})
			}
			m.Triangles[len(m.Triangles)-1][corners] = w.number(v)
			corners++
		case "endloop":
			if corners != 3 {
				return mesh.Mesh{}, lineFault(line, "facet %d ends with %d corners", len(m.Triangles), corners)
			}
			corners = 0
		case "endsolid":
			closed = true
		}
	}
	switch {
	case len(m.Triangles) == 0:
		return mesh.Mesh{}, fileFault("there are no facets in it")
	case corners != 0 || !closed:
		return mesh.Mesh{}, fileFault("it is cut off in or after facet %d: there is no endsolid", len(m.Triangles))
	}
	m.Vertices, m.Faces = w.vertices, len(m.Triangles)
	return m, nil
}

func lineFault(line int, format string, args ...any) error {
	return fielderr.At(fmt.Sprintf("line %d", line), format, args...)
}

// vector reads three finite numbers.
func vector(words [][]byte) (mesh.Vec, error) {
	var v mesh.Vec
	if len(words) < 3 {
		return v, fmt.Errorf("a corner needs three numbers")
	}
	for a := range v {
		f, err := strconv.ParseFloat(string(words[a]), 64)
		if err != nil || !finite(f) {
			return v, fmt.Errorf("%q is no number", words[a])
		}
		v[a] = f
	}
	return v, nil
}
