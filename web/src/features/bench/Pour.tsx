import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, ok, type Schemas, type Words } from "../../api/client";
import { key } from "../../api/keys";
import { newID, send } from "../../api/outbox";
import { useChange, useInstruments } from "../../api/queries";
import { useNow } from "../../ui/Alarms";
import { number } from "../../ui/prose";
import { useSettings } from "../../ui/settings";
import { Figure } from "../../ui/Working";
import { tr, trNodes, word } from "../../words/words";

const WAYS = [
  { key: "scale", name: tr("by weight") },
  { key: "cup", name: tr("by volume") },
  { key: "pump", name: tr("by strokes") },
] as const;
type Way = (typeof WAYS)[number]["key"];

/** What goes into the pot, in order, with what the scale or the cup shows after each. */
export function Pour({
  bench: b,
  boatId,
  weighed,
}: {
  bench: Schemas["Bench"];
  boatId: string;
  weighed: (base: number, hardener: number) => void;
}) {
  const now = useNow(b.now);
  const { prose } = useSettings();
  const targets = b.pot.targets;
  const canWeigh = targets.every((t) => t.scaleG !== undefined);
  const canPump = targets.some((t) => t.strokes !== undefined);
  const [chosen, setWay] = useState<Way>("scale");
  const way = (chosen === "scale" && !canWeigh) || (chosen === "pump" && !canPump) ? "cup" : chosen;
  const [live, setLive] = useState(false);
  const mixed = useChange(["pots"], () =>
    send({
      id: newID(),
      label: tr("pot of {product}", { product: b.product }),
      boatId,
      method: "PUT",
      path: `/api/boats/${boatId}/pots`,
      body: {
        id: newID(),
        ...(b.surfaceId && { surfaceId: b.surfaceId }),
        productId: b.productId,
        grade: b.grade,
        litres: b.pot.potL,
        mixedAt: new Date(now).toISOString(),
      },
    }),
  );
  if (targets.length === 0) return null;
  return (
    <section className="mt-2">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-lg">
          <Figure title={tr("Into the pot")} working={b.pot.working}>
            {tr("Into the pot")}
          </Figure>
        </h2>
        <div className="join no-print">
          {WAYS.filter((w) => (w.key !== "scale" || canWeigh) && (w.key !== "pump" || canPump)).map((w) => (
            <button
              key={w.key}
              type="button"
              aria-pressed={w.key === way}
              className={`btn join-item min-h-11 ${w.key === way ? "btn-neutral" : "btn-ghost border-base-300"}`}
              onClick={() => setWay(w.key)}
            >
              {w.name}
            </button>
          ))}
        </div>
      </div>
      <ol data-testid="targets">
        {targets.map((t) => (
          <li key={t.part} className="rule-b grid grid-cols-[1fr_auto] items-baseline gap-x-4 py-2">
            <span className="text-lg">{word(t.what)}</span>
            <b className="text-2xl">{shows(t, way, prose)}</b>
            <span className="quiet text-sm">
              {tr("add {x}", {
                x:
                  t.addG !== undefined && way === "scale"
                    ? `${grams(t.addG)} g`
                    : prose([{ value: t.addML, unit: "mL", digits: 0 }]),
              })}
            </span>
            <span className="quiet text-right text-sm">
              {way === "scale" ? tr("on the scale") : way === "cup" ? tr("at the mark") : ""}
            </span>
          </li>
        ))}
      </ol>
      {b.pot.curedKgL > 0 && (
        <p className="mt-1 text-sm">
          {tr("Cured: {x}; sanding {sanding}.", {
            x: prose([{ value: b.pot.curedKgL, unit: "kg/L", digits: 2 }]),
            sanding: b.pot.sanding,
          })}
        </p>
      )}
      {b.pot.working.warnings.map((w) => (
        <p key={prose(w)} role="alert" className="mt-2 border-l-4 border-warning pl-3">
          {prose(w)}
        </p>
      ))}
      {way === "scale" && <Scale bench={b} on={live} setOn={setLive} weighed={weighed} />}
      {b.mixed && (
        <p
          role="status"
          data-testid="ratio"
          className={`mt-2 border-l-4 pl-3 ${b.mixed.within ? "border-success" : "border-error"}`}
        >
          {trNodes("{b}, {tolerancePct} % is allowed; {means}.{within}{within2}", {
            b: (
              <b>
                {tr("{x}: hardener {offPct} % {x2}", {
                  x: b.mixed.within ? tr("The ratio is right") : tr("Off its ratio"),
                  offPct: number(Math.abs(b.mixed.offPct), 1),
                  x2: b.mixed.offPct >= 0 ? tr("over") : tr("short"),
                })}
              </b>
            ),
            tolerancePct: b.mixed.tolerancePct,
            means: b.mixed.means,
            within:
              !b.mixed.within &&
              b.mixed.addHardenerG > 0.5 &&
              tr(" Add {addHardenerG} g of hardener.", { addHardenerG: grams(b.mixed.addHardenerG) }),
            within2:
              !b.mixed.within &&
              b.mixed.addBaseG > 0.5 &&
              tr(" Add {addBaseG} g of base.", { addBaseG: grams(b.mixed.addBaseG) }),
          })}
        </p>
      )}
      <button
        type="button"
        className="btn btn-primary no-print mt-3 min-h-12"
        disabled={mixed.isPending}
        onClick={() => mixed.mutate(undefined)}
      >
        {tr("It is mixed: start the timers")}
      </button>
    </section>
  );
}

/** What a scale shows: grams, whatever else is read in. */
const grams = (g: number) => (g < 100 ? number(g, 1) : number(g, 0));

function shows(t: Schemas["MixTarget"], way: Way, prose: (words: Words) => string) {
  if (way === "scale") return `${grams(t.scaleG ?? 0)} g`;
  if (way === "pump" && t.strokes !== undefined) return tr("{strokes} strokes", { strokes: number(t.strokes, 1) });
  return prose([{ value: t.markML, unit: "mL", digits: 0 }]);
}

/** A scale that sends by itself drives the steps: the next one when this one is in. */
function Scale({
  bench: b,
  on,
  setOn,
  weighed,
}: {
  bench: Schemas["Bench"];
  on: boolean;
  setOn: (on: boolean) => void;
  weighed: (base: number, hardener: number) => void;
}) {
  const scale = useInstruments(b.place.id).data?.find((i) => i.kind === "scale");
  const [step, setStep] = useState(0);
  const [kept, setKept] = useState<number[]>([]);
  const target = b.pot.targets[step];
  const want = target?.scaleG ?? 0;
  const values = useQuery({
    queryKey: key("values", scale?.id, want),
    queryFn: () =>
      ok(
        api.GET("/api/instruments/{id}/values", {
          params: { path: { id: scale?.id ?? "" }, query: { want: Math.round(want) } },
        }),
      ),
    enabled: on && scale !== undefined && target !== undefined,
    refetchInterval: 500,
    staleTime: 0,
  });
  const g = values.data?.at(-1)?.value;
  useEffect(() => {
    if (!on) {
      setStep(0);
      setKept([]);
    }
  }, [on]);
  if (!scale) return null;
  const next = () => {
    const all = [...kept, g ?? 0];
    setKept(all);
    setStep(step + 1);
    const at = (part: string) => b.pot.targets.findIndex((t) => t.part === part);
    const poured = (i: number) =>
      (all[i] ?? 0) - (i > 0 ? (all[i - 1] ?? 0) : (b.pot.targets[0]?.scaleG ?? 0) - (b.pot.targets[0]?.addG ?? 0));
    if (at("hardener") >= 0 && all.length === at("hardener") + 1) weighed(poured(at("base")), poured(at("hardener")));
  };
  return (
    <div className="no-print mt-3" data-testid="scale">
      {!on ? (
        <button type="button" className="btn min-h-11" onClick={() => setOn(true)}>
          {tr("Weigh on {name}", { name: scale.name })}
        </button>
      ) : target ? (
        <>
          <p className="text-sm">
            {tr("{what}: pour to {want} g. {name} shows", {
              what: word(target.what),
              want: grams(want),
              name: scale.name,
            })}
          </p>
          <p className="font-slab text-5xl font-semibold" aria-live="off">
            {g === undefined ? "–" : `${grams(Math.max(0, g))} g`}
          </p>
          <progress
            className="progress h-4 w-full max-w-md"
            value={Math.max(0, g ?? 0)}
            max={want}
            aria-label={word(target.what)}
          />
          <p className="mt-2 flex gap-2">
            <button type="button" className="btn btn-neutral min-h-12" disabled={g === undefined} onClick={next}>
              {tr("{what} is in", { what: word(target.what) })}
            </button>
            <button type="button" className="btn btn-ghost min-h-12" onClick={() => setOn(false)}>
              {tr("Stop weighing")}
            </button>
          </p>
        </>
      ) : (
        <p>
          {tr("All is in:")}{" "}
          {kept.map((v, i) => (
            <span key={b.pot.targets[i]?.part}>
              {trNodes("{what} at {v} g;", { what: word(b.pot.targets[i]?.what ?? ""), v: grams(v) })}{" "}
            </span>
          ))}
          <button type="button" className="linked min-h-11" onClick={() => setOn(false)}>
            {tr("again")}
          </button>
        </p>
      )}
    </div>
  );
}
