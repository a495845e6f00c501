import type { Schemas } from "../../api/client";
import { useLimits } from "../../api/queries";
import { Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

/** The margin of a check in words: "surface too cold: 8.2 °C, needs 10 °C". */
export function Binding({ check, allowed }: { check: Schemas["FieldCheck"]; allowed: boolean }) {
  const limit = useLimits()(check.limit);
  if (!limit.of) return <>{allowed ? tr("all limits kept") : limit.missed}</>;
  return (
    <>
      {allowed ? tr("nearest limit {of}", { of: limit.of }) : limit.missed}:{" "}
      <Quantity value={check.value} unit={check.unit} digits={1} />, {allowed ? tr("limit") : tr("needs")}{" "}
      <Quantity value={check.need} unit={check.unit} digits={check.unit === "mm" ? 2 : 0} />
    </>
  );
}
