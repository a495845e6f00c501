import { Link, useParams, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useKinds, useReport } from "../../api/queries";
import { CutSection } from "../../ui/CutSection";
import { KNOWN_BY } from "../../ui/knownBy";
import { Loaded } from "../../ui/Page";
import { Said } from "../../ui/Sentence";
import { day, longDay, stamp } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Accounts } from "./Accounts";
import { Judged, What } from "./Told";
import { Films } from "./Upkeep";
import { WallSheets } from "./WallSheets";

/** The record of the refit, to be printed. */
export function Report() {
  const { boatId = "" } = useParams();
  return <Loaded query={useReport(boatId)}>{(r) => <Shown report={r} />}</Loaded>;
}

function Shown({ report: r }: { report: Schemas["Report"] }) {
  const wall = useSearchParams()[0].get("view") === "wall";
  return (
    <article className="max-w-5xl">
      <div className="no-print mb-4 flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary min-h-11" onClick={() => print()}>
          {tr("Print, or save as PDF")}
        </button>
        <Link
          className="btn btn-ghost min-h-11"
          to={wall ? `/boats/${r.boat.id}/report` : `/boats/${r.boat.id}/report?view=wall`}
        >
          {wall ? tr("The record") : tr("Sheets to pin up")}
        </Link>
        <Link className="btn btn-ghost min-h-11" to={`/boats/${r.boat.id}/log?view=files`}>
          {tr("Other files")}
        </Link>
      </div>
      {wall ? <WallSheets report={r} /> : <Record report={r} />}
    </article>
  );
}

/** What was done to the boat, for the yard or her next owner. */
function Record({ report: r }: { report: Schemas["Report"] }) {
  const zone = r.place.timeZone;
  const known = KNOWN_BY[r.place.weatherSource] ?? "";
  const { kindOf } = useKinds();
  const coats = r.surfaces.reduce((n, s) => n + s.entries.filter((e) => kindOf(e.kind).lays).length, 0);
  return (
    <>
      <p className="quiet text-sm">
        {r.place.name}, {longDay(r.now, zone)}
      </p>
      <h1 className="text-3xl">
        {tr(
          "{boat}: {coats, plural, one {one coat} other {# coats}} on {surfaces, plural, one {one surface} other {# surfaces}}",
          {
            boat: r.boat.name,
            coats,
            surfaces: r.surfaces.filter((s) => s.entries.length > 0).length,
          },
        )}
      </h1>
      <p className="mt-1">
        {trNodes("{type}, {loaM} long, {beamM} wide.", {
          type: r.boat.type,
          loaM: <Quantity value={r.boat.dimensions.loaM} unit="m" />,
          beamM: <Quantity value={r.boat.dimensions.beamM} unit="m" />,
        })}
      </p>
      {r.surfaces
        .filter((s) => s.entries.length > 0)
        .map((s) => (
          <Surface key={s.surface.id} record={s} zone={zone} known={known} />
        ))}
      {r.whole.length > 0 && (
        <section className="mt-8">
          <h2 className="text-xl">{tr("The whole boat")}</h2>
          <Entries entries={r.whole} zone={zone} known={known} />
        </section>
      )}
      {r.used.length > 0 && (
        <section className="mt-8">
          <h2 className="text-xl">{tr("What went on")}</h2>
          <table className="table-plain text-sm">
            <thead>
              <tr>
                <th>{tr("Product")}</th>
                <th>{tr("Litres")}</th>
                <th>{tr("Batches")}</th>
              </tr>
            </thead>
            <tbody>
              {r.used.map((u) => (
                <tr key={u.product}>
                  <td>{u.product}</td>
                  <td>
                    <Quantity value={u.litres} unit="L" />
                  </td>
                  <td>{u.batches.join(", ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {r.defects.length > 0 && (
        <section className="mt-8">
          <h2 className="text-xl">{tr("Defects")}</h2>
          <ul>
            {r.defects.map((d) => (
              <li key={d.id} className="rule-b py-1 text-sm">
                {d.number}. {d.kind.replaceAll("-", " ")}, {d.state}
                {d.note && ` – ${d.note}`}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="mt-8">
        <h2 className="text-xl">{tr("Hours and money")}</h2>
        <Accounts accounts={r.accounts} plain />
      </section>
      <section className="mt-8">
        <h2 className="text-xl">{tr("Upkeep")}</h2>
        <Films upkeep={r.upkeep} now={r.now} zone={zone} />
      </section>
    </>
  );
}

function Surface({ record: s, zone, known }: { record: Schemas["SurfaceRecord"]; zone: string; known: string }) {
  return (
    <section className="mt-8">
      <h2 className="text-xl">
        {trNodes("{name}: {film} on {area}", {
          name: s.surface.name,
          film: <Quantity value={s.filmUm} unit="µm" />,
          area: <Quantity value={s.surface.area.areaM2} unit="m²" />,
        })}
      </h2>
      <div className="mt-2 break-inside-avoid break-after-avoid">
        <CutSection layers={s.layers} substrate={s.surface.substrate} dated={(t) => day(t, zone)} />
      </div>
      <Entries entries={s.entries} zone={zone} known={known} />
    </section>
  );
}

function Entries({ entries, zone, known }: { entries: Schemas["Entry"][]; zone: string; known: string }) {
  return (
    <table className="table-plain mt-2 text-sm">
      <thead>
        <tr>
          <th>{tr("Begun")}</th>
          <th>{tr("What")}</th>
          <th>{tr("Air and surface")}</th>
          <th>{tr("Who")}</th>
        </tr>
      </thead>
      <tbody>
        {entries.map((e) => (
          <tr key={e.id} className="break-inside-avoid align-top">
            <td className="whitespace-nowrap">{stamp(e.startedAt, zone)}</td>
            <td>
              <What entry={e} />
              {e.note && <span className="quiet"> – {e.note}</span>}
              {e.changed && (
                <p className="border-l-4 border-warning pl-2 text-sm">
                  <Said words={e.changed} />
                </p>
              )}
              {e.flag && (
                <b>
                  {" "}
                  <Said words={e.flag} />
                </b>
              )}
              <Judged entry={e} zone={zone} />
            </td>
            <td>
              {e.conditions &&
                trNodes("{airC}, {rhPct} %; surface {surfaceC} {x}", {
                  airC: <Quantity value={e.conditions.airC} unit="°C" />,
                  rhPct: Math.round(e.conditions.rhPct),
                  surfaceC: <Quantity value={e.conditions.surfaceC} unit="°C" />,
                  x:
                    e.conditions.measured && known === "measured"
                      ? ""
                      : `(${e.conditions.measured ? known : tr("not measured")})`,
                })}
            </td>
            <td>{e.who}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
