package formats

import (
	"allcoats/core/base/fielderr"
	"allcoats/core/geometry/mesh"
)

// ModelFormats lists the formats that ReadModel takes.
var ModelFormats = []string{"stl", "obj", "offsets"}

// ReadModel reads a 3-D file or a table of offsets.
func ReadModel(format string, data []byte) (mesh.Mesh, error) {
	switch format {
	case "stl":
		return ReadSTL(data)
	case "obj":
		return ReadOBJ(data)
	case "offsets":
		return ReadOffsets(data)
	}
	var bad fielderr.Errors
	fielderr.OneOf(&bad, "format", format, ModelFormats)
	return mesh.Mesh{}, bad
}
