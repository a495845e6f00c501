package calc

import (
	"math"

	"allcoats/core/base/fielderr"
	"allcoats/core/base/working"
	"allcoats/core/boat/area"
	"allcoats/core/finish/nonskid"
	"allcoats/core/geometry/mesh"
	"allcoats/formats"
)

// MeshRequest is a file with how it lies on the boat. Data is the file itself,
// in JSON as base64. CutsM asks for the area below further heights above the
// waterline; Group keeps one group of an OBJ file.
type MeshRequest struct {
	Format string `json:"format" enum:"stl,obj,offsets"`
	Data   []byte `json:"data"`
	mesh.Placing
	CutsM []float64 `json:"cutsM,omitempty"`
	Group string    `json:"group,omitempty"`
}

// MeshResult is what a file's facets come to. VolumeM3 counts only if it is
// closed.
type MeshResult struct {
	mesh.Areas
	Report      mesh.Report     `json:"report"`
	BelowCutsM2 []float64       `json:"belowCutsM2"`
	VolumeM3    *float64        `json:"volumeM3,omitempty"`
	Working     working.Working `json:"working"`
}

func measureMesh(r MeshRequest) (MeshResult, error) {
	m, err := formats.ReadModel(r.Format, r.Data)
	if err != nil {
		return MeshResult{}, err
	}
	if r.Group != "" {
		if m = m.Only(r.Group); len(m.Triangles) == 0 {
			return MeshResult{}, fielderr.At("group", "the file has no faces in this group")
		}
	}
	m, err = m.Place(r.Placing)
	if err != nil {
		return MeshResult{}, err
	}
	m, report := m.Clean()
	out := MeshResult{Areas: m.Areas(r.BootTopM), Report: report, BelowCutsM2: []float64{}, Working: working.New()}
	w := &out.Working
	report.Explain(w, r.Format == "offsets")
	for _, z := range mesh.Zones {
		w.Step("Zone "+string(z), "facets cut at its edges, both sides", out.Zones[z].PortM2+out.Zones[z].StarboardM2,
			"m²", "sum of facets")
	}
	w.Step("Area", "sum of all facets", out.TotalM2, "m²", "sum of facets")
	for _, z := range r.CutsM {
		out.BelowCutsM2 = append(out.BelowCutsM2, m.Below(z))
	}
	if report.BoundaryEdges+report.NonManifoldEdges+report.ClashingEdges == 0 {
		v := math.Abs(m.Volume())
		out.VolumeM3 = &v
	}
	return out, nil
}

// WettedRequest is a boat with her displacement, if known.
type WettedRequest struct {
	area.Dimensions
	DisplacementT float64 `json:"displacementT,omitempty"`
}

// WettedResult is her wetted surface by several formulas.
type WettedResult struct {
	Checks []area.Check `json:"checks"`
}

func wetted(r WettedRequest) (WettedResult, error) {
	var bad fielderr.Errors
	bad.Under("", r.Validate())
	bad.Range("displacementT", r.DisplacementT, 0, 5000, "t")
	if bad == nil && r.Block(r.DisplacementT) > 1 {
		bad.Add("displacementT",
			"is more water than her length, beam and draught enclose (block coefficient %.2f): no hull does that",
			r.Block(r.DisplacementT))
	}
	if err := bad.Err(); err != nil {
		return WettedResult{}, err
	}
	return WettedResult{area.WettedSurface(r.Dimensions, r.DisplacementT)}, nil
}

func layOut(w nonskid.Work) (nonskid.Layout, error) { return nonskid.Lay(w, formats.Letters) }
