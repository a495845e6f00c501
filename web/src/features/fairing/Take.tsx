import type { ReactNode } from "react";
import { useLocation } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { elapsed, span, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** What the fill takes by both schools, how it changes with the curve, and the way into the build-up. */
export function Take({
  fairing: f,
  boatId,
  surfaceId,
  zone,
}: {
  fairing: Schemas["Fairing"];
  boatId: string;
  surfaceId: string;
  zone: string;
}) {
  const [, go] = useLocation();
  const plan = useChange(
    ["steps"],
    (school: Schemas["FairingPlan"]["school"]) =>
      ok(api.POST("/api/fairings/{id}/plan", { params: { path: { id: f.id } }, body: { school } })),
    () => go(`/boats/${boatId}/build-up?surface=${surfaceId}`),
  );
  const litres = (v: number) => <Quantity value={v} unit="L" />;
  return (
    <div className="mb-6 grid gap-8 lg:grid-cols-2">
      <section className="min-w-0 lg:col-span-2">
        <h2 className="text-lg">{tr("What it takes: {product}", { product: f.product })}</h2>
        <div className="grid gap-x-8 gap-y-4 md:grid-cols-2" data-testid="schools">
          {f.jobs.map((j) => (
            <School
              key={j.school.key}
              job={j}
              zone={zone}
              plan={
                f.id && j.handover && j.handover.changes.length > 0 ? (
                  <button
                    type="button"
                    className="btn min-h-11"
                    disabled={plan.isPending}
                    onClick={() => plan.mutate(j.school.key as Schemas["FairingPlan"]["school"])}
                  >
                    {tr("Plan it")}
                  </button>
                ) : (
                  j.handover?.changes.length === 0 && <span className="quiet">{tr("is in the build-up")}</span>
                )
              }
            />
          ))}
        </div>
        <Refusal error={plan.error} />
        <p className="quiet mt-2 text-sm">
          {trNodes(
            "At {surfaceC} a pass is sandable after {cureH}. {stand}. Boarded with 60 before each pass. Ridges are knocked down while it is green.",
            { surfaceC: <Quantity value={f.surfaceC} unit="°C" />, cureH: elapsed(f.cureH), stand: f.stand },
          )}
        </p>
      </section>
      {f.patches.length > 0 && (
        <section className="min-w-0 overflow-x-auto lg:col-span-2">
          <h2 className="text-lg">{tr("Where")}</h2>
          <table className="table-plain text-sm" data-testid="patches">
            <thead>
              <tr>
                <th>{tr("Patch")}</th>
                <th className="num">{tr("Area")}</th>
                <th className="num">{tr("Filler")}</th>
                <th className="num">{tr("Deepest")}</th>
                <th>
                  {tr("Passes:")} {f.jobs.map((j) => j.school.name).join(" or ")}
                </th>
              </tr>
            </thead>
            <tbody>
              {f.patches.map((p) => (
                <tr key={p.name}>
                  <td>
                    {p.name}
                    {p.toM > 0 &&
                      trNodes(", {from} to {to}", {
                        from: <Quantity value={p.fromM} unit="m" />,
                        to: <Quantity value={p.toM} unit="m" />,
                      })}
                    {f.id && (
                      <a
                        className="linked no-print block text-sm max-sm:min-h-11"
                        href={`/api/fairings/${f.id}/template?${new URLSearchParams({ patch: p.name, format: "pdf" })}`}
                      >
                        {tr("print its depths at 1:1")}
                      </a>
                    )}
                  </td>
                  <td className="num">
                    <Quantity value={p.areaM2} unit="m²" />
                  </td>
                  <td className="num">
                    {litres(p.litres)}
                    {p.spreadL !== undefined && <> ± {litres(p.spreadL)}</>}
                  </td>
                  <td className="num">
                    <Quantity value={p.deepestMM} unit="mm" />
                  </td>
                  <td>{p.passes.join(" or ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {f.curves.length > 0 && (
        <section className="min-w-0">
          <h2 className="text-lg">{tr("A softer or stiffer curve")}</h2>
          <table className="table-plain text-sm" data-testid="curves">
            <thead>
              <tr>
                <th>{tr("Batten bends over")}</th>
                <th>{tr("Fill")}</th>
                <th>{tr("Deepest")}</th>
                <th>{tr("Gap after")}</th>
              </tr>
            </thead>
            <tbody>
              {f.curves.map((c) => (
                <tr key={c.stiffnessM} className={c.chosen ? "font-bold" : ""}>
                  <td>
                    <Quantity value={c.stiffnessM} unit="m" /> {c.chosen && tr("(chosen)")}
                  </td>
                  <td>{litres(c.fillL)}</td>
                  <td>
                    <Quantity value={c.maxFillMM} unit="mm" />
                  </td>
                  <td>
                    <Quantity value={c.afterMM} unit="mm" />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet mt-2 text-sm">
            {tr(
              "A stiffer curve is fairer to the eye and takes more filler; the shape she was built with is yours to know.",
            )}
          </p>
        </section>
      )}
    </div>
  );
}

/** One school: what it takes, when it is ready, and what it risks. */
function School({ job: j, zone, plan }: { job: Schemas["FairJob"]; zone: string; plan: ReactNode }) {
  const litres = (v: number) => <Quantity value={v} unit="L" />;
  const pots = j.batches?.batches ?? [];
  return (
    <article className="border-t-2 border-base-content pt-2">
      <div className="flex items-start justify-between gap-3">
        <h3 className="font-semibold">{j.school.name}</h3>
        {plan}
      </div>
      <dl className="grid grid-cols-[7rem_1fr] gap-x-3 gap-y-1 text-sm">
        <dt className="quiet">{tr("To mix")}</dt>
        <dd>
          {j.under && <>{trNodes("{litres} hard filler first, then", { litres: litres(j.under.litres) })} </>}
          <Figure title={tr("{name}, what it takes", { name: j.school.name })} working={j.working}>
            {litres(j.litres)}
          </Figure>
          {j.kg > 0 && (
            <>
              , <Quantity value={j.kg} unit="kg" />
            </>
          )}
          {pots.length === 1 && tr("; a pass is one pot")}
          {pots.length > 1 &&
            trNodes("; a pass is {pots} pots of {litres}", { pots: pots.length, litres: litres(pots[0]?.litres ?? 0) })}
        </dd>
        <dt className="quiet">{tr("Passes")}</dt>
        <dd>
          {trNodes("{under}{passes}, at most {passMM} each", {
            under: j.under && tr("{passes} hard, then ", { passes: j.under.passes }),
            passes: j.passes,
            passMM: <Quantity value={j.passMM} unit="mm" />,
          })}
        </dd>
        <dt className="quiet">{tr("Work")}</dt>
        <dd>{tr("{hours}, with boarding", { hours: span(j.hours + (j.under?.hours ?? 0)) })}</dd>
        <dt className="quiet">{tr("Fit to sand")}</dt>
        <dd>
          {j.ready
            ? tr("{ready}, in {days} days", { ready: stamp(j.ready, zone), days: j.days.toFixed(1) })
            : tr("past the weather known")}
          ;{" "}
          {j.lateDays > 0
            ? tr("nine times in ten within {lateDays} days", { lateDays: j.lateDays.toFixed(1) })
            : tr("one time in ten not within ten days")}
        </dd>
        <dt className="quiet">{tr("For it")}</dt>
        <dd>{j.school.why}</dd>
        <dt className="quiet">{tr("Risk")}</dt>
        <dd>{j.school.risk}</dd>
      </dl>
    </article>
  );
}
