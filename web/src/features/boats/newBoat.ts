import type { Schemas } from "../../api/client";
import type { Asking } from "../start/ask";
import { nowhere, type PlaceDraft } from "./PlaceForm";

/** A new boat as it is typed. Length and beam alone are needed; what is left out is guessed. */
export type NewBoatDraft = {
  name: string;
  launchDate: string;
  substrate: NonNullable<Schemas["NewBoat"]["substrate"]>;
  template: string;
  dimensions: { hullForm: string } & Partial<Omit<Schemas["AreaDimensions"], "hullForm" | "guessed">>;
  placeId: string;
  place: PlaceDraft;
  headingDeg?: number;
  weather: string;
  first?: Schemas["FirstCoat"];
};

export const NEW_PLACE = "new";
/** The hull type that her form and material usually are. */
export const USUAL = "usual";

const KEPT = "new-boat";

const fresh = (): NewBoatDraft => ({
  name: "",
  launchDate: "",
  substrate: "gelcoat",
  template: USUAL,
  dimensions: { hullForm: "" },
  placeId: "",
  place: nowhere(),
  weather: "",
});

/** The boat as it was left, or begun with what the questions brought. */
export function begin(asked: Asking | undefined): NewBoatDraft {
  let draft = fresh();
  try {
    draft = { ...draft, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") };
  } catch {
    // what cannot be read is begun anew
  }
  return asked ? withAsked(draft, asked) : draft;
}

export const keep = (d: NewBoatDraft) => localStorage.setItem(KEPT, JSON.stringify(d));
export const drop = () => localStorage.removeItem(KEPT);

const PARTS: Record<string, Schemas["FirstCoat"]["part"]> = { deck: "deck", sides: "topsides", bottom: "bottom" };

/** The draft with what was asked about: size, weather, position, and the coats. */
export function withAsked(d: NewBoatDraft, a: Asking): NewBoatDraft {
  const [part, form] = a.of.split(" ");
  const byBoat = a.of !== "area";
  const { loaM, beamM } = a;
  const where = a.latitudeDeg === undefined ? {} : { latitudeDeg: a.latitudeDeg, longitudeDeg: a.longitudeDeg };
  const onPart = byBoat ? (part as Schemas["FirstCoat"]["part"]) : PARTS[a.place ?? ""];
  return {
    ...d,
    dimensions: byBoat
      ? {
          ...d.dimensions,
          hullForm: part === "bottom" ? (form ?? "") : d.dimensions.hullForm,
          ...(loaM && { loaM }),
          ...(beamM && { beamM }),
        }
      : d.dimensions,
    place: { ...d.place, ...where },
    weather: a.weather ?? d.weather,
    ...(a.productId &&
      onPart && {
        first: {
          productId: a.productId,
          part: onPart,
          coats: a.coats ?? 1,
          ...(!byBoat && a.areaM2 && { areaM2: a.areaM2 }),
        },
      }),
  };
}
