package craft

import (
	"allcoats/core/boat/area"
	"allcoats/core/boat/survey"
)

// Kind is a workbench of the last stages. OfBoat is one for the boat as a whole.
type Kind struct {
	Key    string `json:"key"`
	Name   string `json:"name"`
	OfBoat bool   `json:"ofBoat"`
	// suits tells the surfaces that it is mostly done on.
	suits func(p area.PartInfo, of survey.SubstrateInfo) bool
}

// Kinds lists the workbenches.
var Kinds = []Kind{
	{Key: "non-skid", Name: "Non-skid", suits: func(p area.PartInfo, _ survey.SubstrateInfo) bool { return p.Trodden }},
	{Key: "moulded", Name: "Moulded panels", suits: func(p area.PartInfo, _ survey.SubstrateInfo) bool {
		return p.Trodden
	}},
	{Key: "gelcoat", Name: "Gelcoat", suits: func(_ area.PartInfo, of survey.SubstrateInfo) bool {
		return of.Laminate
	}},
	{Key: "brightwork", Name: "Brightwork", suits: func(p area.PartInfo, of survey.SubstrateInfo) bool {
		return of.Wood && !p.Underwater
	}},
	{Key: "antifouling", Name: "Antifouling", suits: func(p area.PartInfo, _ survey.SubstrateInfo) bool {
		return p.Underwater
	}},
	{Key: "metal", Name: "Metal", suits: func(_ area.PartInfo, of survey.SubstrateInfo) bool { return of.Metal }},
	{Key: "refit", Name: "Refit and snags", OfBoat: true, suits: func(area.PartInfo, survey.SubstrateInfo) bool {
		return true
	}},
}

// For lists the keys of the workbenches that suit a surface.
func For(p area.Part, of survey.Substrate) []string {
	out := []string{}
	for _, k := range Kinds {
		if k.suits(p.Info(), of.Info()) {
			out = append(out, k.Key)
		}
	}
	return out
}
