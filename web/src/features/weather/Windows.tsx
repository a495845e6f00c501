import { useState } from "react";
import { Link, useParams, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useBuildUp, useCoats, useLimits, useSurvey, useToday, useVerdict } from "../../api/queries";
import { FieldChart, type Track } from "../../ui/FieldChart";
import { Choice } from "../../ui/Form";
import { faceLanes } from "../../ui/faceLanes";
import { KNOWN_BY } from "../../ui/knownBy";
import { Answer, Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { Ribbon } from "../../ui/Ribbon";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { clock, day, elapsed, sameDay, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { weatherLanes } from "../../ui/weatherLanes";
import { tr, trNodes } from "../../words/words";
import { verdictLane } from "./verdictLane";
import { Binding } from "./words";

/** When a product may go on a surface: hours, windows, and the air over its field. */
export function Windows() {
  const { boatId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const survey = useSurvey(boatId);
  const { products, coats } = useCoats();
  const today = useToday(boatId).data;
  const surface = survey.data?.surfaces.find((s) => s.id === params.get("surface")) ?? survey.data?.surfaces[0];
  const build = useBuildUp(surface?.id ?? "").data;
  const stepId = today?.answer.lanes.find((l) => l.surfaceId === surface?.id)?.nextStepId;
  const step = build?.steps.find((s) => s.id === stepId);
  // Until it is known what comes next on the surface, nothing is judged.
  const known = today !== undefined && (build !== undefined || !surface);
  const productId = known ? (params.get("product") ?? step?.productId ?? coats[0]?.id ?? "") : "";
  const method = params.get("product")
    ? (products.find((p) => p.id === productId)?.sheet.methods[0] ?? "")
    : (step?.method ?? "");
  const verdict = useVerdict(boatId, { productId, surfaceId: surface?.id ?? "", method });
  if (survey.data && products.length === 0)
    return (
      <Answer
        answer={tr("The library is empty, so nothing can be judged.")}
        detail={
          <Link to="/library" className="linked">
            {tr("Add a product in Library.")}
          </Link>
        }
      />
    );
  return (
    <Loaded query={verdict}>
      {(v) => (
        <Shown
          verdict={v}
          surface={surface}
          controls={
            <div className="my-4 grid max-w-3xl gap-4 sm:grid-cols-2">
              <Choice
                name="surface"
                label={tr("Surface")}
                value={surface?.id ?? ""}
                onChange={(id) => setParams({ surface: id }, { replace: true })}
                options={(survey.data?.surfaces ?? []).map((s) => ({ value: s.id, label: s.name }))}
              />
              <Choice
                name="product"
                label={tr("Product")}
                value={productId}
                onChange={(id) => setParams({ surface: surface?.id ?? "", product: id }, { replace: true })}
                options={coats.map((p) => ({ value: p.id, label: p.sheet.name }))}
              />
            </div>
          }
        />
      )}
    </Loaded>
  );
}

function Shown({
  verdict,
  surface,
  controls,
}: {
  verdict: Schemas["Verdict"];
  surface?: Schemas["Surface"];
  controls: React.ReactNode;
}) {
  const { show } = useSettings();
  const { ribbon, place, product, field } = verdict;
  const limitOf = useLimits();
  const zone = place.timeZone;
  const next = field.windows[0];
  const now = Date.parse(ribbon.now);
  const lanes = [
    ...weatherLanes(ribbon.hours, show, surface?.name),
    verdictLane(field, zone, product.sheet.name, limitOf),
    ...faceLanes(ribbon, show).filter((l) => l.id !== `face-${surface?.id}`),
  ];
  return (
    <>
      <Answer
        over={
          <>
            <span>{place.name}</span>
            <span>
              {
                {
                  simulated: tr("simulated weather"),
                  imported: tr("imported weather"),
                  told: tr("weather in your own words"),
                }[place.weatherSource]
              }
            </span>
            <span>{tr("latitude {latitudeDeg}°", { latitudeDeg: place.latitudeDeg })}</span>
          </>
        }
        answer={
          ribbon.hours.length === 0
            ? tr("No weather is known here: import a record below.")
            : next
              ? tr("{name}: laying may begin {x}, until {to}.", {
                  name: surface?.name ?? tr("A square metre"),
                  x:
                    Date.parse(next.from) - now < 60_000
                      ? tr("now")
                      : sameDay(next.from, ribbon.now, zone)
                        ? tr("at {from}", { from: clock(next.from, zone) })
                        : tr("on {from}", { from: stamp(next.from, zone) }),
                  to: clock(next.to, zone),
                })
              : tr("{name}: no start within the weather known.", { name: surface?.name ?? tr("A square metre") })
        }
        detail={
          <>
            {product.sheet.name}.{" "}
            <Figure title={tr("When it may go on")} working={field.working}>
              {tr("{windows, plural, one {one window} other {{windows} windows}} of starts", {
                windows: field.windows.length,
              })}
            </Figure>{" "}
            {tr("ahead. Recoat times of the coat below are not counted here; Today counts them.")}
          </>
        }
      />
      {controls}
      <Ribbon ribbon={ribbon} zone={zone} lanes={lanes} />
      <div className="mt-6 grid gap-8 border-t border-base-content pt-4 xl:grid-cols-2">
        <div className="grid gap-8 self-start">
          <Starts windows={field.windows} zone={zone} />
          <section>
            <h2 className="text-lg">
              {trNodes("The air over the {term} of {name}", {
                term: <Term>{tr("field")}</Term>,
                name: product.sheet.name.toLowerCase(),
              })}
            </h2>
            <FieldChart limits={product.sheet.limits} tracks={tracks(verdict)} now={nowState(ribbon)} />
          </section>
        </div>
        <Hours hours={field.hours} zone={zone} />
      </div>
    </>
  );
}

/** The ways of the air over the field: what was read, what is ahead, what the tent would have. */
function tracks(v: Schemas["Verdict"]): Track[] {
  const read = v.ribbon.hours.filter((h) => h.measured);
  const ahead = v.ribbon.hours.filter((h) => !h.measured).slice(0, 72);
  const out: Track[] = [
    { name: tr("{x}, the last three days", { x: KNOWN_BY[v.place.weatherSource] }), look: "read", states: read },
    { name: tr("forecast for the next three days"), look: "ahead", states: ahead },
  ];
  const now = Date.parse(v.ribbon.now);
  const inside = v.inside.filter((p) => Math.abs(Date.parse(p.at) - now) < 3 * 86_400_000);
  if (inside.length > 0) out.push({ name: tr("the tent over the same days"), look: "inside", states: inside });
  return out;
}

function nowState(r: Schemas["Ribbon"]) {
  const now = Date.parse(r.now);
  return r.hours.filter((h) => Date.parse(h.at) <= now).at(-1);
}

function Starts({ windows, zone }: { windows: Schemas["FieldWindow"][]; zone: string }) {
  const limitOf = useLimits();
  return (
    <section>
      <h2 className="text-lg">
        <Term>{tr("Windows of starts")}</Term>
      </h2>
      {windows.length === 0 ? (
        <p>
          {tr(
            "None within the weather known. Look at the hours for what stops it; a tent, heat or another hardener may open one.",
          )}
        </p>
      ) : (
        <table className="table-plain">
          <thead>
            <tr>
              <th>{tr("Begin between")}</th>
              <th className="num">{tr("Room")}</th>
              <th>{tr("What ends it")}</th>
              <th>{tr("Begun in its middle")}</th>
            </tr>
          </thead>
          <tbody>
            {windows.map((w) => (
              <tr key={w.from}>
                <td className="whitespace-nowrap">
                  {day(w.from, zone)}, {clock(w.from, zone)}–{clock(w.to, zone)}
                </td>
                <td className="num">{elapsed((Date.parse(w.to) - Date.parse(w.from)) / 3_600_000)}</td>
                <td>
                  {w.closes
                    ? trNodes("{missed} from {from}, while {PHASES}", {
                        missed: limitOf(w.closes.check.limit).missed,
                        from: stamp(w.closes.from, zone),
                        PHASES: PHASES[w.closes.phase],
                      })
                    : tr("end of the weather known")}
                </td>
                <td className="quiet text-sm">
                  <Binding check={w.binding} allowed />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

const PHASES: Record<string, string> = {
  laying: tr("laying"),
  holding: tr("it must hold"),
  drying: tr("it must stay dry"),
};

function Hours({ hours, zone }: { hours: Schemas["FieldHour"][]; zone: string }) {
  const [all, setAll] = useState(false);
  const shown = all ? hours : hours.slice(0, 24);
  return (
    <section>
      <h2 className="text-lg">{tr("Hour by hour")}</h2>
      <Reflow>
        <table className="table-plain text-sm">
          <thead>
            <tr>
              <th>{tr("Hour")}</th>
              <th className="num">{tr("Surface")}</th>
              <th className="num">{tr("Above dew")}</th>
              <th>{tr("Laying")}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((h) => (
              <tr key={h.at}>
                <td className="whitespace-nowrap">{stamp(h.at, zone)}</td>
                <td className="num">
                  <Quantity value={h.surfaceC} unit="°C" />
                </td>
                <td className="num">
                  <Quantity value={h.spreadK} unit="K" />
                </td>
                <td>
                  <b>{h.allowed ? tr("yes") : tr("no")}</b>, <Binding check={h.binding} allowed={h.allowed} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Reflow>
      {hours.length > 24 && (
        <button type="button" className="linked mt-2 text-sm max-sm:min-h-11" onClick={() => setAll(!all)}>
          {all ? tr("only the next day") : tr("all {hours} hours", { hours: hours.length })}
        </button>
      )}
    </section>
  );
}
