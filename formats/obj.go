package formats

import (
	"bytes"
	"strconv"

	"allcoats/core/geometry/mesh"
)

// mostCorners is how many corners a face may have: cutting one into triangles takes their square, and a
// hollow one more.
const mostCorners = 250

// ReadOBJ reads the vertices, faces and groups of a Wavefront OBJ file, in the
// file's own units, and joins corners with equal coordinates. Faces of more
// than three corners are cut into triangles, hollow ones by their ears. Corners may be written
// v, v/vt, v//vn or v/vt/vn, and count back from the end if negative. Every
// fault names its line.
func ReadOBJ(data []byte) (mesh.Mesh, error) {
	w := newWelder(len(data) / 60)
	var m mesh.Mesh
	var numbered []int32 // a file's vertices by their order
	group, groups := int32(-1), map[string]int32{}
	name := "without a group"
	for line, rest := 1, data; len(rest) > 0; line++ {
		var row []byte
		row, rest, _ = bytes.Cut(rest, []byte("\n"))
		row, _, _ = bytes.Cut(row, []byte("#"))
		words := bytes.Fields(row)
		if len(words) == 0 {
			continue
		}
		switch string(words[0]) {
		case "v":
			v, err := vector(words[1:])
			if err != nil {
				return mesh.Mesh{}, lineFault(line, "%v", err)
			}
			numbered = append(numbered, w.number(v))
		case "g", "o":
			name = "without a group"
			if len(words) > 1 {
				name = string(bytes.Join(words[1:], []byte(" ")))
			}
			group = -1
		case "f":
			if len(words) < 4 {
				return mesh.Mesh{}, lineFault(line, "a face needs at least three corners")
			}
			if len(words)-1 > mostCorners {
				return mesh.Mesh{}, lineFault(line,
					"a face of %d corners; at most %d are read: have it cut into smaller ones", len(words)-1,
					mostCorners)
			}
			if group < 0 {
				var known bool
				if group, known = groups[name]; !known {
					group = int32(len(m.Groups))
					groups[name] = group
					m.Groups = append(m.Groups, name)
				}
			}
			corner := make([]int32, len(words)-1)
			for i, word := range words[1:] {
				text, _, _ := bytes.Cut(word, []byte("/"))
				n, err := strconv.Atoi(string(text))
				if n < 0 {
					n += len(numbered) + 1
				}
				if err != nil || n < 1 || n > len(numbered) {
					return mesh.Mesh{}, lineFault(line,
						"corner %q names a vertex that is not there; %d are read so far", word, len(numbered))
				}
				corner[i] = numbered[n-1]
			}
			for _, t := range mesh.Cut(w.vertices, corner) {
				m.Triangles = append(m.Triangles, t)
				m.Group = append(m.Group, group)
			}
			if m.Faces++; len(m.Triangles) > mesh.MaxTriangles {
				return mesh.Mesh{}, lineFault(line, "more than %d facets", mesh.MaxTriangles)
			}
		}
	}
	if m.Faces == 0 {
		return mesh.Mesh{}, fileFault("there are no faces in it")
	}
	m.Vertices = w.vertices
	return m, nil
}
