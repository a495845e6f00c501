import type { Schemas } from "../../api/client";
import { Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

/** What the steps use up: parts by volume and weight, thinner, paper, rollers, tape. */
export function Consumables({ all }: { all: Schemas["BuildupConsumable"][] }) {
  if (all.length === 0) return null;
  return (
    <>
      <h2 className="mt-6 text-lg">{tr("Part by part, and what is used up")}</h2>
      <table className="table-plain max-w-xl">
        <tbody>
          {all.map((c) => (
            <tr key={c.name + c.unit}>
              <td>
                {c.name} <span className="quiet text-xs">{c.source}</span>
              </td>
              <td className="num">
                <Quantity value={c.amount} unit={c.unit} digits={c.unit === "pieces" ? 0 : undefined} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
