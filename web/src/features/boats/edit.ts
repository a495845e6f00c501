import type { Schemas } from "../../api/client";

/** What a user can set of a boat, as it is stored. */
export const editOf = (b?: Schemas["Boat"]): Schemas["BoatEdit"] => {
  const { id: _id, version: _version, ...edit } = b ?? ({} as Schemas["Boat"]);
  return edit;
};
