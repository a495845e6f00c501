import type { Schemas } from "../../api/client";

export type Edit = Schemas["SurfaceEdit"];
export type Measure = Schemas["AreaMeasure"];
export type Words = Schemas["SurveyWords"];

/** Stands for a number not typed yet: it shows empty and cannot be sent. */
export const EMPTY = Number.NaN;

export const editOf = (s: Schemas["Surface"]): Edit => ({
  name: s.name,
  part: s.part,
  side: s.side,
  group: s.group,
  substrate: s.substrate,
  substrateNote: s.substrateNote,
  thicknessMM: s.thicknessMM,
  colour: s.colour,
  tone: s.tone,
  facing: s.facing,
  tiltDeg: s.tiltDeg,
  access: s.access,
  shelter: s.shelter,
  findings: s.findings,
  measured: s.measured,
});

export const newSurface = (): Edit => ({
  name: "",
  part: "other",
  side: "both",
  group: "",
  substrate: "grp",
  substrateNote: "",
  thicknessMM: 8,
  colour: "",
  tone: "pale",
  facing: "",
  access: "side",
  shelter: "open",
  findings: { layers: [], stop: 0, moisture: [], veneerMM: 0 },
  measured: { chosen: 0, measures: [blank("shapes")] },
});

/** A measurement by a method, its figures still to be filled in. */
export function blank(method: Measure["method"]): Measure {
  switch (method) {
    case "girths":
      return { method, girths: { sides: 2, stations: [0, 1, 2].map(() => ({ atM: EMPTY, girthM: EMPTY })) } };
    case "shapes":
      return { method, shapes: [{ kind: "strip", aM: EMPTY, bM: EMPTY, count: 1 }] };
    case "outline":
      return { method, outline: { outer: [], marginM: 0, radiusM: 0, count: 1 } };
    case "model":
      return { method, model: { modelId: "" } };
    case "consumption":
      return { method, consumption: { litres: EMPTY, lossPct: 10, volumeSolidsPct: EMPTY, dftUm: EMPTY } };
    case "stated":
      return { method, areaM2: EMPTY, uncertaintyPct: 10 };
    default:
      return { method };
  }
}
