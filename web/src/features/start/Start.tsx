import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { useLocation } from "wouter";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useBoats, useCoats, useMeta } from "../../api/queries";
import { AreaField, Choice, Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { Position } from "../../ui/Position";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, fromLocalField } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { type Asking, keepForABoat, leave, left, readSize } from "./ask";
import { VisitDemo } from "./Visit";

/** The questions that people come with, answered without a boat. */
export function Start() {
  const meta = useMeta().data;
  const [ask, setAsk] = useState(left);
  const set = (a: Partial<Asking>) =>
    setAsk((old) => {
      const now = { ...old, ...a };
      leave(now);
      return now;
    });
  const boats = useBoats().data ?? [];
  return (
    <>
      <p className="quiet text-sm">{tr("Ask without a boat: nothing has to be set up first.")}</p>
      <div className="mt-2 grid gap-x-10 gap-y-6 lg:grid-cols-[250px_minmax(0,1fr)]">
        <div className="contents lg:flex lg:flex-col lg:gap-6">
          <nav className="flex flex-col border-t border-base-content" aria-label={tr("Questions")}>
            {meta?.ask.questions.map((q) => (
              <button
                key={q.key}
                type="button"
                aria-pressed={q.key === ask.asks}
                className={`rule-b min-h-12 border-l-4 px-3 text-left ${q.key === ask.asks ? "border-l-accent font-bold" : "border-l-transparent hover:bg-base-200"}`}
                onClick={() => set({ asks: q.key as Asking["asks"] })}
              >
                {q.asks}
              </button>
            ))}
          </nav>
          <section className="flex flex-col gap-5 max-lg:order-last">
            <KeepForABoat ask={ask} first={boats.length === 0} />
            <VisitDemo />
          </section>
        </div>
        <Asked ask={ask} set={set} />
      </div>
    </>
  );
}

const usesWeather = (a: Asking) => a.asks === "coat-today" || a.asks === "when-again";

/** The question to be sent, undefined while something is missing. */
function useQuestion(ask: Asking): { question?: Schemas["Question"]; missing: string } {
  const { toMetric } = useSettings();
  if (!ask.productId) return { missing: tr("Choose what is to be laid.") };
  const [part, hullForm] = ask.of.split(" ");
  const byBoat = ask.of !== "area";
  const { loaM, beamM } = readSize(ask.size, toMetric);
  const sized = byBoat ? loaM > 0 && beamM > 0 : (ask.areaM2 ?? 0) > 0;
  const size = byBoat
    ? { loaM, beamM, part: part as "bottom", hullForm: hullForm as "medium" }
    : { areaM2: ask.areaM2 };
  const common = { asks: ask.asks, productId: ask.productId, timeZone: ask.timeZone };
  switch (ask.asks) {
    case "coat-today":
    case "when-again": {
      if (!ask.weather?.trim()) return { missing: tr("Say what the weather is.") };
      const where = {
        place: ask.place,
        latitudeDeg: ask.latitudeDeg,
        longitudeDeg: ask.longitudeDeg,
        weather: ask.weather,
      };
      const laidAt =
        ask.asks === "when-again" && ask.laid ? { laidAt: fromLocalField(ask.laid, ask.timeZone ?? "UTC") } : {};
      return { question: { ...common, ...where, ...laidAt }, missing: "" };
    }
    case "how-much":
      if (!sized) return { missing: byBoat ? tr("Say how long and how broad she is.") : tr("Say how large it is.") };
      return { question: { ...common, ...size, coats: ask.coats, method: ask.method }, missing: "" };
    case "how-mixed":
      if (!ask.litres || Number.isNaN(ask.litres)) return { missing: tr("Say how much is to be mixed.") };
      return { question: { ...common, litres: ask.litres, tempC: ask.tempC, thinnerPct: ask.thinnerPct }, missing: "" };
    default:
      return { question: { ...common, dftUm: ask.dftUm, thinnerPct: ask.thinnerPct }, missing: "" };
  }
}

function Asked({ ask, set }: { ask: Asking; set: (a: Partial<Asking>) => void }) {
  const meta = useMeta().data;
  const { question, missing } = useQuestion(ask);
  const asked = useDeferredValue(question && JSON.stringify(question));
  const [settled, setSettled] = useState(asked);
  useEffect(() => {
    const t = setTimeout(() => setSettled(asked), TYPED_MS);
    return () => clearTimeout(t);
  }, [asked]);
  const answer = useQuery<Schemas["Answered"], Refused>({
    queryKey: key("answer", settled),
    queryFn: () => ok(api.POST("/api/answers", { body: JSON.parse(settled ?? "{}") })),
    enabled: settled !== undefined && question !== undefined,
    retry: false,
    placeholderData: (old) => old,
  });
  const title = meta?.ask.questions.find((q) => q.key === ask.asks)?.asks;
  const now = question && !answer.error ? answer.data : undefined;
  return (
    <div className="min-w-0">
      <h1 className="text-2xl leading-snug sm:text-[32px]" data-testid="answer" aria-live="polite">
        {now ? <Sentence spans={now.says} zone={now.timeZone} /> : title}
      </h1>
      <p className="mt-1 max-w-4xl text-[15px]">
        {now ? <Sentence spans={now.detail} zone={now.timeZone} /> : missing}{" "}
        {now && (
          <Figure title={title ?? ""} working={now.working}>
            {tr("the working")}
          </Figure>
        )}
      </p>
      <Errors.Provider value={answer.error?.fields ?? {}}>
        <div className="mt-4 grid max-w-4xl gap-4 sm:grid-cols-2">
          <Fields ask={ask} set={set} />
        </div>
        <Refusal error={question ? answer.error : null} />
      </Errors.Provider>
      {now && <Told answer={now} />}
    </div>
  );
}

/** How long it is waited whether more is typed. */
const TYPED_MS = 350;

function Fields({ ask, set }: { ask: Asking; set: (a: Partial<Asking>) => void }) {
  const at = fieldsOf(ask, set);
  const { coats } = useCoats();
  const meta = useMeta().data;
  const { prose } = useSettings();
  const sheet = coats.find((p) => p.id === ask.productId)?.sheet;
  const product = (
    <Choice
      name="productId"
      label={tr("What")}
      value={ask.productId ?? ""}
      onChange={(productId) => set({ productId, dftUm: undefined, method: undefined })}
      options={[{ value: "", label: tr("choose…") }, ...coats.map((p) => ({ value: p.id, label: p.sheet.name }))]}
    />
  );
  if (usesWeather(ask))
    return (
      <>
        {product}
        {ask.asks === "when-again" ? (
          <TextField
            name="laidAt"
            label={tr("Laid")}
            hint={tr("empty: now")}
            type="datetime-local"
            value={ask.laid}
            onChange={(laid) => set({ laid })}
          />
        ) : (
          <Choice
            name="place"
            label={tr("On")}
            value={ask.place ?? "deck"}
            onChange={(place) => set({ place })}
            options={(meta?.ask.places ?? []).map((p) => ({ value: p.key, label: p.name }))}
          />
        )}
        <AreaField
          {...at("weather")}
          label={tr("The weather, today and on")}
          hint={tr("such as “{weather}; tomorrow 6 to 12, rain from 14”, or the hours of a forecast pasted", {
            weather: meta?.ask.weather,
          })}
        />
        <Position
          name="latitudeDeg"
          hint={tr("for the daylight; pasted, such as 52.95, 0.85")}
          onAt={(at) => set(at)}
        />
      </>
    );
  switch (ask.asks) {
    case "how-much":
      return (
        <>
          {product}
          <Choice
            name="part"
            label={tr("Of what")}
            value={ask.of}
            onChange={(of) => set({ of })}
            options={[
              { value: "area", label: tr("an area that I know") },
              ...(meta?.hullForms ?? []).map((h) => ({
                value: `bottom ${h.form}`,
                label: tr("the bottom: {name}", { name: h.name }),
              })),
              { value: "topsides medium", label: tr("the topsides") },
              { value: "deck medium", label: tr("the deck") },
            ]}
          />
          {ask.of === "area" ? (
            <NumberField {...at("areaM2")} label={tr("Area")} unit="m²" />
          ) : (
            <TextField
              name="dimensions"
              label={tr("Length × beam")}
              hint={tr("such as {x} × 3.1", { x: prose([{ value: 9.5, unit: "m", digits: 1 }]) })}
              value={ask.size}
              onChange={(size) => set({ size })}
            />
          )}
          <NumberField {...at("coats")} label={tr("Coats")} unit="" />
        </>
      );
    case "how-mixed":
      return (
        <>
          {product}
          <NumberField {...at("litres")} label={tr("In all")} unit="L" />
          <NumberField
            {...at("tempC")}
            label={tr("In the pot")}
            hint={tr("empty: {x}", { x: prose([{ value: 15, unit: "°C", digits: 0 }]) })}
            unit="°C"
          />
          <NumberField {...at("thinnerPct")} label={tr("Thinner")} unit="%" />
        </>
      );
    default:
      return (
        <>
          {product}
          <NumberField
            {...at("dftUm")}
            label={tr("Dry film wanted")}
            hint={
              sheet &&
              tr("empty: {x}, the sheet’s usual", {
                x: prose([{ value: sheet.film.typicalUm, unit: "µm", digits: 0 }]),
              })
            }
            unit="µm"
          />
          <NumberField {...at("thinnerPct")} label={tr("Thinner")} unit="%" />
        </>
      );
  }
}

/** What goes with the answer: figures, the day by hours, what was supposed, what to mind. */
function Told({ answer }: { answer: Schemas["Answered"] }) {
  const zone = answer.timeZone;
  return (
    <div className="mt-5 grid max-w-5xl gap-x-10 gap-y-5 lg:grid-cols-2">
      {answer.facts.length > 0 && (
        <dl className="border-t border-base-content">
          {answer.facts.map((f) => (
            <div key={f.name} className="rule-b flex gap-4 py-2">
              <dt className="w-40 shrink-0 font-semibold">{f.name}</dt>
              <dd>
                <Sentence spans={f.says} zone={zone} />
              </dd>
            </div>
          ))}
        </dl>
      )}
      {answer.hours.length > 0 && <Hours answer={answer} />}
      {(answer.supposed.length > 0 || answer.days.length > 0) && (
        <section>
          <h2 className="font-semibold">{tr("Read and supposed")}</h2>
          <ul className="list-disc pl-5 text-sm">
            {answer.days.map((d) => (
              <li key={JSON.stringify(d)}>{trNodes("Read as {d}.", { d: <Sentence spans={d} zone={zone} /> })}</li>
            ))}
            {answer.supposed.map((s) => (
              <li key={JSON.stringify(s)}>
                <Sentence spans={s} zone={zone} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {answer.cautions.length > 0 && (
        <section className="border-l-4 border-accent pl-3 text-sm">
          <h2 className="font-semibold">{tr("Mind")}</h2>
          <ul>
            {answer.cautions.map((c) => (
              <li key={JSON.stringify(c)}>
                <Said words={c} />
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** The hours of the day, each with its verdict in a shape and a word. */
function Hours({ answer }: { answer: Schemas["Answered"] }) {
  const words = useMeta().data?.weather.limits;
  return (
    <table className="table-plain text-sm">
      <thead>
        <tr>
          <th>{tr("Hour")}</th>
          <th className="num">{tr("Air")}</th>
          <th className="num">{tr("Surface")}</th>
          <th className="num">{tr("Dew point")}</th>
          <th>{tr("To lay it")}</th>
        </tr>
      </thead>
      <tbody>
        {answer.hours.map((h) => (
          <tr key={h.at} className={h.allowed ? "font-semibold" : "quiet"}>
            <td>{clock(h.at, answer.timeZone)}</td>
            <td className="num">
              <Quantity value={h.tempC} unit="°C" digits={0} />
            </td>
            <td className="num">
              <Quantity value={h.surfaceC} unit="°C" digits={0} />
            </td>
            <td className="num">
              <Quantity value={h.dewPointC} unit="°C" digits={0} />
            </td>
            <td>
              {h.allowed
                ? tr("● may be laid")
                : `○ ${words?.find((w) => w.limit === h.binding.limit)?.missed ?? "not"}`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function KeepForABoat({ ask, first }: { ask: Asking; first: boolean }) {
  const [, go] = useLocation();
  const { toMetric } = useSettings();
  return (
    <div>
      <h2 className="text-lg">{tr("Keep this for a boat")}</h2>
      <p className="text-sm">
        {tr("What you entered goes along; three steps make {x}: what she is, how big, where she stands.", {
          x: first ? tr("her") : tr("another one"),
        })}
      </p>
      <button
        type="button"
        className="btn btn-primary mt-2 min-h-12"
        onClick={() => {
          keepForABoat({ ...ask, ...readSize(ask.size, toMetric) });
          go("/boats/new");
        }}
      >
        {first ? tr("Make a boat of it") : tr("Add a boat with it")}
      </button>
    </div>
  );
}
