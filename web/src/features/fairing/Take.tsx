import type { ReactNode } from "react";
import { useNavigate } from "react-router";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { elapsed, span, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";

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
  const go = useNavigate();
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
        <h2 className="text-lg">What it takes: {f.product}</h2>
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
                    Plan it
                  </button>
                ) : (
                  j.handover?.changes.length === 0 && <span className="quiet">is in the build-up</span>
                )
              }
            />
          ))}
        </div>
        <Refusal error={plan.error} />
        <p className="quiet mt-2 text-sm">
          At <Quantity value={f.surfaceC} unit="°C" /> a pass is sandable after {elapsed(f.cureH)}. {f.stand}. Boarded with 60 before each
          pass. Ridges are knocked down while it is green.
        </p>
      </section>
      {f.patches.length > 0 && (
        <section className="min-w-0 overflow-x-auto lg:col-span-2">
          <h2 className="text-lg">Where</h2>
          <table className="table-plain text-sm" data-testid="patches">
            <thead>
              <tr>
                <th>Patch</th>
                <th className="num">Area</th>
                <th className="num">Filler</th>
                <th className="num">Deepest</th>
                <th>Passes: {f.jobs.map((j) => j.school.name).join(" or ")}</th>
              </tr>
            </thead>
            <tbody>
              {f.patches.map((p) => (
                <tr key={p.name}>
                  <td>
                    {p.name}
                    {p.toM > 0 && (
                      <>
                        , <Quantity value={p.fromM} unit="m" /> to <Quantity value={p.toM} unit="m" />
                      </>
                    )}
                    {f.id && (
                      <a
                        className="linked no-print block text-sm max-sm:min-h-11"
                        href={`/api/fairings/${f.id}/template?${new URLSearchParams({ patch: p.name, format: "pdf" })}`}
                      >
                        print its depths at 1:1
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
          <h2 className="text-lg">A softer or stiffer curve</h2>
          <table className="table-plain text-sm" data-testid="curves">
            <thead>
              <tr>
                <th>Batten bends over</th>
                <th>Fill</th>
                <th>Deepest</th>
                <th>Gap after</th>
              </tr>
            </thead>
            <tbody>
              {f.curves.map((c) => (
                <tr key={c.stiffnessM} className={c.chosen ? "font-bold" : ""}>
                  <td>
                    <Quantity value={c.stiffnessM} unit="m" /> {c.chosen && "(chosen)"}
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
            A stiffer curve is fairer to the eye and takes more filler; the shape she was built with is yours to know.
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
        <dt className="quiet">To mix</dt>
        <dd>
          {j.under && <>{litres(j.under.litres)} hard filler first, then </>}
          <Figure title={`${j.school.name}, what it takes`} working={j.working}>
            {litres(j.litres)}
          </Figure>
          {j.kg > 0 && (
            <>
              , <Quantity value={j.kg} unit="kg" />
            </>
          )}
          {pots.length === 1 && "; a pass is one pot"}
          {pots.length > 1 && (
            <>
              ; a pass is {pots.length} pots of {litres(pots[0]?.litres ?? 0)}
            </>
          )}
        </dd>
        <dt className="quiet">Passes</dt>
        <dd>
          {j.under && `${j.under.passes} hard, then `}
          {j.passes}, at most <Quantity value={j.passMM} unit="mm" /> each
        </dd>
        <dt className="quiet">Work</dt>
        <dd>{span(j.hours + (j.under?.hours ?? 0))}, with boarding</dd>
        <dt className="quiet">Fit to sand</dt>
        <dd>
          {j.ready ? `${stamp(j.ready, zone)}, in ${j.days.toFixed(1)} days` : "past the weather known"};{" "}
          {j.lateDays > 0 ? `nine times in ten within ${j.lateDays.toFixed(1)} days` : "one time in ten not within ten days"}
        </dd>
        <dt className="quiet">For it</dt>
        <dd>{j.school.why}</dd>
        <dt className="quiet">Risk</dt>
        <dd>{j.school.risk}</dd>
      </dl>
    </article>
  );
}
