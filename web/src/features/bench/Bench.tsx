import { useState } from "react";
import { Link, useParams, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useBench, useCoats, useMeta, useProducts } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { number as shownNumber } from "../../ui/prose";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, sameDay, span, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { ItIsOn } from "./ItIsOn";
import { LayIt } from "./LayIt";
import { Pots } from "./Pots";
import { Pour } from "./Pour";
import { Reckon } from "./Reckon";

/** What is poured, as it is told so far; figures left out are reckoned. */
type Ask = {
  litres?: number;
  potC?: number;
  litresH?: number;
  thinnerPct?: number;
  tareG?: number;
  filler: string;
  stiffness: string;
  grade: string;
  pumpBaseML?: number;
  pumpHardenerML?: number;
  baseG?: number;
  hardenerG?: number;
};

const NOTHING: Ask = { filler: "", stiffness: "peanut butter", grade: "" };

/** Only what was told: the rest keeps its default on the server. */
function told<T extends object>(o: T): Partial<T> {
  return Object.fromEntries(
    Object.entries(o).filter(([, v]) => v !== undefined && v !== "" && !Number.isNaN(v)),
  ) as Partial<T>;
}

/** At the pot: what to pour, how long there is, how to lay it, when to come back. */
export function Bench() {
  const { boatId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const [ask, setAsk] = useState<Ask>(NOTHING);
  const surfaceId = params.get("surface") ?? "";
  const productId = params.get("product") ?? "";
  const bench = useBench(boatId, told({ ...ask, stiffness: ask.filler ? ask.stiffness : "", surfaceId, productId }));
  const choose = (next: Record<string, string>) => {
    setAsk(NOTHING);
    setParams(next, { replace: true });
  };
  return (
    <>
      <Loaded query={bench}>
        {(b) => <Shown bench={b} boatId={boatId} ask={ask} setAsk={setAsk} choose={choose} />}
      </Loaded>
      <Reckon boatId={boatId} productId={bench.data?.productId ?? productId} />
    </>
  );
}

function Shown({
  bench: b,
  boatId,
  ask,
  setAsk,
  choose,
}: {
  bench: Schemas["Bench"];
  boatId: string;
  ask: Ask;
  setAsk: (a: Ask) => void;
  choose: (next: Record<string, string>) => void;
}) {
  const zone = b.place.timeZone;
  const { coats } = useCoats();
  const free = b.surfaceId === "";
  const { prose } = useSettings();
  return (
    <>
      <Answer
        answer={<Sentence spans={b.says} zone={zone} />}
        detail={
          b.productId ? (
            trNodes(
              "{litres} in all{ownCoats}, laid at {litresH} an hour {x}. Pots stand at {potC}{whenLaid}{potLifeH}.",
              {
                litres: <Quantity value={b.litres} unit="L" />,
                ownCoats:
                  b.ownCoats > 0 &&
                  tr(
                    " (the reckoning × {ownUse}, by what {ownCoats, plural, one {the one coat} other {the {ownCoats} coats}} in the log took)",
                    { ownUse: shownNumber(b.ownUse, 2), ownCoats: b.ownCoats },
                  ),
                litresH: <Quantity value={b.litresH} unit="L" />,
                x: b.ownRate ? tr("(your own rate, from the log)") : tr("(a rule of thumb)"),
                potC: <Quantity value={b.potC} unit="°C" />,
                whenLaid:
                  Date.parse(b.beginsAt) > Date.parse(b.now) &&
                  tr(" at {time}, when it may be laid", {
                    time: (sameDay(b.beginsAt, b.now, zone) ? clock : stamp)(b.beginsAt, zone),
                  }),
                potLifeH:
                  b.batches.potLifeH > 0 &&
                  tr(", where such a pot lives {potLifeH}", { potLifeH: span(b.batches.potLifeH) }),
              },
            )
          ) : (
            <Link className="linked" to={`/boats/${boatId}/build-up`}>
              {tr("Coats are planned in Build-up; the next one then waits here.")}
            </Link>
          )
        }
      />
      <div className="no-print mb-5 grid max-w-3xl gap-3 sm:grid-cols-2">
        <Choice
          name="surfaceId"
          label={tr("What for")}
          value={free ? "" : b.surfaceId}
          onChange={(id) => choose(id ? { surface: id } : { product: b.productId || coats[0]?.id || "" })}
          options={[
            ...b.surfaces.map((s) => ({
              value: s.id,
              label: s.next.length > 0 ? `${s.name}: ${prose(s.next)}` : tr("{name}: nothing waits", { name: s.name }),
            })),
            { value: "", label: tr("Mix freely") },
          ]}
        />
        <Choice
          name="productId"
          label={tr("Product")}
          value={b.productId}
          onChange={(id) => choose(free ? { product: id } : { surface: b.surfaceId, product: id })}
          options={[
            ...(b.productId ? [] : [{ value: "", label: tr("choose one") }]),
            ...coats.map((p) => ({ value: p.id, label: p.sheet.name })),
          ]}
        />
      </div>
      {b.trouble.map((t) => (
        <p key={t.path + t.message} role="alert" className="mb-2 border-l-4 border-error pl-3">
          <Said words={t.says} />
        </p>
      ))}
      {b.productId && (
        <div className="grid gap-8 lg:grid-cols-2">
          <div>
            {!free && <LayIt bench={b} part="before" />}
            <Pour bench={b} boatId={boatId} weighed={(baseG, hardenerG) => setAsk({ ...ask, baseG, hardenerG })} />
            <Adjust bench={b} ask={ask} setAsk={setAsk} />
          </div>
          <div>
            <Pots bench={b} boatId={boatId} />
            {!free && <LayIt bench={b} part="lay" />}
            <Batches bench={b} />
            {!free && (
              <ItIsOn
                key={b.surfaceId}
                bench={b}
                boatId={boatId}
                weighed={
                  ask.baseG && ask.hardenerG ? `&base=${ask.baseG.toFixed(1)}&hardener=${ask.hardenerG.toFixed(1)}` : ""
                }
              />
            )}
          </div>
        </div>
      )}
      {!b.productId && <Pots bench={b} boatId={boatId} />}
    </>
  );
}

/** The pots of the coat one after the other. */
function Batches({ bench: b }: { bench: Schemas["Bench"] }) {
  const zone = b.place.timeZone;
  const { prose } = useSettings();
  const hm = (t: string) => clock(t, zone);
  if (b.batches.batches.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="text-lg">
        <Figure title={tr("Pots of this coat")} working={b.batches.working}>
          {tr("{batches, plural, one {One pot} other {{batches} pots}}", { batches: b.batches.batches.length })}
        </Figure>
      </h2>
      <ol>
        {b.batches.batches.map((p, i) => (
          <li key={p.mixAt} className="rule-b flex flex-wrap gap-x-4 py-2">
            <b className="w-6">{i + 1}.</b>
            <span className="w-24">
              <Quantity value={p.litres} unit="L" />
            </span>
            <span>
              {trNodes("mix at {mixAt}{layAt}, on by {onBy}", {
                mixAt: hm(p.mixAt),
                layAt: p.layAt !== p.mixAt && tr(", lay from {layAt}", { layAt: hm(p.layAt) }),
                onBy: <b>{hm(p.onBy)}</b>,
              })}
            </span>
          </li>
        ))}
      </ol>
      {b.batches.working.warnings.map((w) => (
        <p key={prose(w)} className="mt-2 border-l-4 border-warning pl-3 text-sm">
          {prose(w)}
        </p>
      ))}
    </section>
  );
}

/** Figures that the user knows better. */
function Adjust({ bench: b, ask, setAsk }: { bench: Schemas["Bench"]; ask: Ask; setAsk: (a: Ask) => void }) {
  const meta = useMeta().data;
  const product = useProducts().data?.find((p) => p.id === b.productId);
  const number = (key: keyof Ask, label: string, unit: string, reckoned?: number, hint?: string) => (
    <NumberField
      name={key}
      label={label}
      unit={unit}
      hint={hint}
      value={(ask[key] as number | undefined) ?? reckoned}
      onChange={(v) => setAsk({ ...ask, [key]: v })}
    />
  );
  return (
    <details className="mt-5 max-w-3xl border-t border-base-300 pt-2">
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        {tr("Other figures: litres, temperature, filler, pumps")}
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {number("litres", tr("Litres in all"), "L", b.litres)}
        {number("potC", tr("Pots stand at"), "°C", b.potC)}
        {number("litresH", tr("Laid in an hour"), "L", b.litresH)}
        {number("thinnerPct", tr("Thinner"), "%", b.thinnerPct)}
        {number("tareG", tr("Empty pot"), "g", undefined, tr("what the scale shows with it"))}
        {(product?.sheet.grades ?? []).length > 0 && (
          <Choice
            name="grade"
            label={tr("Hardener")}
            value={b.grade || "standard"}
            onChange={(grade) => setAsk({ ...ask, grade })}
            options={[
              { value: "standard", label: tr("standard") },
              ...(product?.sheet.grades ?? []).map((g) => ({ value: g.name, label: g.name })),
            ]}
          />
        )}
        {b.twoPart && number("pumpBaseML", tr("Base, a stroke"), "mL")}
        {b.twoPart && number("pumpHardenerML", tr("Hardener, a stroke"), "mL")}
        {b.stand && (
          <Choice
            name="filler"
            label={tr("Filler")}
            value={ask.filler}
            onChange={(filler) => setAsk({ ...ask, filler })}
            options={[
              { value: "", label: tr("none") },
              ...b.fillers.map((f) => ({
                value: f.key,
                label: `${f.name} (${f.structural ? "structural" : "fairing"})`,
              })),
            ]}
          />
        )}
        {ask.filler && (
          <Choice
            name="stiffness"
            label={tr("Stands like")}
            value={ask.stiffness}
            onChange={(stiffness) => setAsk({ ...ask, stiffness })}
            options={(meta?.log.stiffnesses ?? []).map((s) => ({ value: s, label: s }))}
          />
        )}
      </div>
      {b.stand && <p className="quiet mt-2 text-sm">{b.stand}.</p>}
    </details>
  );
}
