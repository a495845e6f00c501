import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useBench, useCoats, useMeta, useProducts } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, span } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
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
  return Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined && v !== "" && !Number.isNaN(v))) as Partial<T>;
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
      <Loaded query={bench}>{(b) => <Shown bench={b} boatId={boatId} ask={ask} setAsk={setAsk} choose={choose} />}</Loaded>
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
  return (
    <>
      <Answer
        answer={<Sentence spans={b.says} zone={zone} />}
        detail={
          b.productId ? (
            <>
              <Quantity value={b.litres} unit="L" /> in all
              {b.ownCoats > 0 &&
                ` (the reckoning × ${b.ownUse.toFixed(2)}, by what ${b.ownCoats === 1 ? "the one coat" : `the ${b.ownCoats} coats`} in the log took)`}
              , laid at <Quantity value={b.litresH} unit="L" /> an hour {b.ownRate ? "(your own rate, from the log)" : "(a rule of thumb)"}.
              Pots stand at <Quantity value={b.potC} unit="°C" />
              {b.batches.potLifeH > 0 && <>, where such a pot lives {span(b.batches.potLifeH)}</>}.
            </>
          ) : (
            <Link className="linked" to="../build-up" relative="path">
              Coats are planned in Build-up; the next one then waits here.
            </Link>
          )
        }
      />
      <div className="no-print mb-5 grid max-w-3xl gap-3 sm:grid-cols-2">
        <Choice
          name="surfaceId"
          label="What for"
          value={free ? "" : b.surfaceId}
          onChange={(id) => choose(id ? { surface: id } : { product: b.productId || coats[0]?.id || "" })}
          options={[
            ...b.surfaces.map((s) => ({ value: s.id, label: s.next ? `${s.name}: ${s.next}` : `${s.name}: nothing waits` })),
            { value: "", label: "Mix freely" },
          ]}
        />
        <Choice
          name="productId"
          label="Product"
          value={b.productId}
          onChange={(id) => choose(free ? { product: id } : { surface: b.surfaceId, product: id })}
          options={[
            ...(b.productId ? [] : [{ value: "", label: "choose one" }]),
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
                weighed={ask.baseG && ask.hardenerG ? `&base=${ask.baseG.toFixed(1)}&hardener=${ask.hardenerG.toFixed(1)}` : ""}
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
        <Figure title="Pots of this coat" working={b.batches.working}>
          {b.batches.batches.length === 1 ? "One pot" : `${b.batches.batches.length} pots`}
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
              mix at {hm(p.mixAt)}
              {p.layAt !== p.mixAt && `, lay from ${hm(p.layAt)}`}, on by <b>{hm(p.onBy)}</b>
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
        Other figures: litres, temperature, filler, pumps
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {number("litres", "Litres in all", "L", b.litres)}
        {number("potC", "Pots stand at", "°C", b.potC)}
        {number("litresH", "Laid in an hour", "L", b.litresH)}
        {number("thinnerPct", "Thinner", "%", b.thinnerPct)}
        {number("tareG", "Empty pot", "g", undefined, "what the scale shows with it")}
        {(product?.sheet.grades ?? []).length > 0 && (
          <Choice
            name="grade"
            label="Hardener"
            value={b.grade || "standard"}
            onChange={(grade) => setAsk({ ...ask, grade })}
            options={[
              { value: "standard", label: "standard" },
              ...(product?.sheet.grades ?? []).map((g) => ({ value: g.name, label: g.name })),
            ]}
          />
        )}
        {b.twoPart && number("pumpBaseML", "Base, a stroke", "mL")}
        {b.twoPart && number("pumpHardenerML", "Hardener, a stroke", "mL")}
        {b.stand && (
          <Choice
            name="filler"
            label="Filler"
            value={ask.filler}
            onChange={(filler) => setAsk({ ...ask, filler })}
            options={[
              { value: "", label: "none" },
              ...b.fillers.map((f) => ({ value: f.key, label: `${f.name} (${f.structural ? "structural" : "fairing"})` })),
            ]}
          />
        )}
        {ask.filler && (
          <Choice
            name="stiffness"
            label="Stands like"
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
