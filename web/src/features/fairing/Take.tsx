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
      <section>
        <h2 className="text-lg">What it takes: {f.product}</h2>
        <div className="overflow-x-auto">
          <table className="table-plain text-sm" data-testid="schools">
            <thead>
              <tr>
                <th>School</th>
                <th>To mix</th>
                <th>Passes</th>
                <th>Work</th>
                <th>Ready for the next work</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {f.jobs.map((j) => (
                <tr key={j.school.key}>
                  <td>
                    <b>{j.school.name}</b>
                    <br />
                    <span className="quiet">{j.school.why}</span>
                  </td>
                  <td className="whitespace-nowrap">
                    <Figure title={`${j.school.name}, what it takes`} working={j.working}>
                      {litres(j.litres)}
                    </Figure>
                    <br />
                    {j.kg > 0 && <Quantity value={j.kg} unit="kg" />}
                  </td>
                  <td>{j.passes}</td>
                  <td className="whitespace-nowrap">{span(j.hours)}</td>
                  <td>{j.ready ? `${stamp(j.ready, zone)}, in ${j.days.toFixed(1)} days` : "past the weather known"}</td>
                  <td>
                    {f.id && j.handover && j.handover.changes.length > 0 && (
                      <button
                        type="button"
                        className="btn btn-sm whitespace-nowrap max-sm:min-h-11"
                        disabled={plan.isPending}
                        onClick={() => plan.mutate(j.school.key as Schemas["FairingPlan"]["school"])}
                      >
                        Plan it
                      </button>
                    )}
                    {j.handover && j.handover.changes.length === 0 && <span className="quiet">is in the build-up</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <Refusal error={plan.error} />
        <p className="quiet mt-2 text-sm">
          At <Quantity value={f.surfaceC} unit="°C" /> a pass is sandable after {elapsed(f.cureH)}. {f.stand}. Hard, structural filler goes
          under, light on top.
          {f.batches && f.batches.batches.length > 0 && (
            <>
              {" "}
              The first pass is {f.batches.batches.length === 1 ? "one pot" : `${f.batches.batches.length} pots`} of{" "}
              {litres(f.batches.batches[0]?.litres ?? 0)}.
            </>
          )}{" "}
          Ridges are knocked down while it is green.
        </p>
      </section>
      {f.patches.length > 0 && (
        <section>
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
                    {p.name}, <Quantity value={p.fromM} unit="m" /> to <Quantity value={p.toM} unit="m" />
                  </td>
                  <td className="num">
                    <Quantity value={p.areaM2} unit="m²" />
                  </td>
                  <td className="num">{litres(p.litres)}</td>
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
        <section>
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
