import { ArrowDown, ArrowUp } from "lucide-react";
import { Fragment } from "react";
import { Link } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { type MapMark, MEASURING } from "../../ui/mapMarks";
import { Reflow } from "../../ui/Reflow";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

/** The surfaces in their order with area, how it was found, and sums of groups. */
export function SurfaceList({
  survey,
  picked,
  pick,
}: {
  survey: Schemas["Survey"];
  picked: string;
  pick: (id: string) => void;
}) {
  const { boat, surfaces } = survey;
  const methods = useMeta().data?.survey.methods ?? {};
  const order = useChange(["surfaces"], (ids: string[]) =>
    ok(api.PUT("/api/boats/{id}/surfaces/order", { params: { path: { id: boat.id } }, body: { ids } })),
  );
  const swap = (a: string, b: string) => order.mutate(surfaces.map((s) => (s.id === a ? b : s.id === b ? a : s.id)));
  const groups = [...new Set(surfaces.map((s) => s.group))];
  const by = (s: Schemas["Surface"]) =>
    s.measured.combine && s.measured.measures.length > 1
      ? tr("{measures} ways, combined", { measures: s.measured.measures.length })
      : `${methods[s.measured.measures[s.measured.chosen]?.method ?? ""] ?? ""}${s.measured.measures.length > 1 ? ` of ${s.measured.measures.length}` : ""}`;
  return (
    <Reflow testid="surfaces">
      <Refusal error={order.error} />
      <table className="table-plain">
        <thead>
          <tr>
            <th className="w-8">
              <span className="sr-only">{tr("Number")}</span>
            </th>
            <th>{tr("Surface")}</th>
            <th className="max-md:hidden">{tr("Substrate")}</th>
            <th className="num">{tr("Area")}</th>
            <th className="num">±</th>
            <th className="max-sm:hidden">{tr("By")}</th>
            <th className="max-lg:hidden">{tr("State")}</th>
            <th>
              <span className="sr-only">{tr("Order")}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {groups.map((g) => {
            const own = surfaces.filter((s) => s.group === g);
            return (
              <Fragment key={g}>
                {g && (
                  <tr>
                    <td />
                    <td className="font-slab font-semibold" colSpan={2}>
                      {g}
                    </td>
                    <td className="num font-semibold">
                      <Quantity value={own.reduce((sum, s) => sum + s.area.areaM2, 0)} unit="m²" />
                    </td>
                    <td colSpan={4} />
                  </tr>
                )}
                {own.map((s, k) => {
                  const above = own[k - 1];
                  const below = own[k + 1];
                  const i = surfaces.indexOf(s);
                  return (
                    <tr key={s.id} className={s.id === picked ? "bg-base-200" : ""}>
                      <td className="num quiet">{i + 1}</td>
                      <td>
                        <button
                          type="button"
                          className="linked font-semibold max-sm:min-h-11"
                          aria-pressed={s.id === picked}
                          onClick={() => pick(s.id)}
                        >
                          {s.name}
                        </button>
                        {s.openDefects > 0 && (
                          <span className="quiet text-sm">
                            {" "}
                            {tr("{openDefects, plural, one {1 defect} other {{openDefects} defects}}", {
                              openDefects: s.openDefects,
                            })}
                          </span>
                        )}
                      </td>
                      <td className="max-md:hidden">{s.substrateName}</td>
                      <td className="num">
                        <Figure title={tr("{name}, area", { name: s.name })} working={s.area.working}>
                          <Quantity value={s.area.areaM2} unit="m²" />
                        </Figure>
                      </td>
                      <td className="num">{Math.round(s.area.uncertaintyPct)} %</td>
                      <td className="max-sm:hidden">{by(s)}</td>
                      <td className="max-lg:hidden">{(MEASURING[s.measuring] as MapMark).word}</td>
                      <td className="num">
                        <span className="no-print max-sm:hidden">
                          <button
                            type="button"
                            className="btn btn-ghost btn-sm px-1"
                            aria-label={tr("{name} up", { name: s.name })}
                            disabled={!above}
                            onClick={() => above && swap(s.id, above.id)}
                          >
                            <ArrowUp size={16} aria-hidden="true" />
                          </button>
                          <button
                            type="button"
                            className="btn btn-ghost btn-sm px-1"
                            aria-label={tr("{name} down", { name: s.name })}
                            disabled={!below}
                            onClick={() => below && swap(s.id, below.id)}
                          >
                            <ArrowDown size={16} aria-hidden="true" />
                          </button>
                        </span>
                        <Link className="linked ml-2" to={`/boats/${boat.id}/build-up?surface=${s.id}`}>
                          {tr("coats")}
                        </Link>
                      </td>
                    </tr>
                  );
                })}
              </Fragment>
            );
          })}
        </tbody>
      </table>
    </Reflow>
  );
}
