import { useEffect, useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useBuildUp, useChange, useCoats, useTent, useToday } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, Refusal, unsendable } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { type Lane, Ribbon } from "../../ui/Ribbon";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, stamp } from "../../ui/time";
import { useEdition } from "../../ui/useEdition";
import { Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { Schools } from "./Schools";
import { TentFields } from "./TentFields";

type TentDraft = Schemas["Tent"];

/** What a tent and heat would do to a surface, against waiting and the hardener for the cold. */
export function TentAndHeat({ survey }: { survey: Schemas["Survey"] }) {
  return (
    <Loaded query={useTent(survey.boat.id)}>{(t) => <Shown key={survey.boat.id} stored={t} survey={survey} />}</Loaded>
  );
}

/** The schools for a coat of a surface, compared under a tent; the first coat that waits is, without being asked for. */
function useSchools({ boat, surfaces }: Schemas["Survey"], tent: TentDraft) {
  const today = useToday(boat.id).data;
  const waiting = (today?.answer.lanes ?? []).filter((l) => l.nextStepId);
  const [chosen, choose] = useState("");
  const surfaceId = chosen || waiting[0]?.surfaceId || surfaces[0]?.id || "";
  const build = useBuildUp(surfaceId).data;
  const { coats } = useCoats();
  const step = build?.steps.find((s) => s.id === waiting.find((l) => l.surfaceId === surfaceId)?.nextStepId);
  const [picked, pick] = useState("");
  const productId = picked || step?.productId || coats[0]?.id || "";
  const compare = useChange([], () =>
    ok(
      api.POST("/api/boats/{id}/compare", {
        params: { path: { id: boat.id } },
        body: { surfaceId, productId, tent, method: picked ? undefined : step?.method },
      }),
    ),
  );
  const ready =
    productId !== "" && surfaceId !== "" && (waiting.length === 0 ? today !== undefined : build !== undefined);
  const { mutate } = compare;
  useEffect(() => {
    if (ready) mutate(undefined);
  }, [ready, mutate]);
  const take = (id: string) => {
    choose(id);
    pick("");
  };
  return { compare, surfaceId, take, productId, pick, coats };
}

const tentOf = (t: Schemas["BoatTent"]): TentDraft => t.tent ?? t.usual;

/** A tent that is described, and how it is kept, or taken down. */
function useTentForm(stored: Schemas["BoatTent"], boatId: string) {
  const form = useEdition(stored, (t = stored) => tentOf(t));
  const path = { id: boatId };
  const save = useChange(
    ["tent", "surfaces"],
    (sent: { version: number; value?: TentDraft }) =>
      ok(api.PUT("/api/boats/{id}/tent", { params: { path }, body: { version: sent.version, tent: sent.value } })),
    form.take,
  );
  const cover = useChange(["tent", "weather", "surfaces"], () =>
    ok(api.POST("/api/boats/{id}/tent/cover", { params: { path } })),
  );
  return { form, save, cover };
}

function Shown({ stored, survey }: { stored: Schemas["BoatTent"]; survey: Schemas["Survey"] }) {
  const { boat, place, surfaces } = survey;
  const kept = useTentForm(stored, boat.id);
  const { form, save, cover } = kept;
  const { edit: draft } = form;
  const schools = useSchools(survey, draft);
  const { compare } = schools;
  const [tried, setTried] = useState(false);
  const [unfolded, unfold] = useState(false);
  const bad = unsendable(draft);
  const send = (go: () => void) => {
    const stays = Object.keys(bad).length > 0;
    setTried(stays);
    if (!stays) go();
  };
  const refused = Object.entries({ ...save.error?.fields, ...compare.error?.fields });
  const fields = {
    ...(tried && bad),
    ...Object.fromEntries(refused.map(([k, v]) => [k.replace(/^tent\./, ""), v])),
  };
  return (
    <>
      <Head stored={stored} place={place} comparison={compare.data} />
      <Errors.Provider value={fields}>
        <div className="grid max-w-3xl gap-4 sm:grid-cols-2">
          <Choice
            name="surface"
            label={tr("Surface")}
            value={schools.surfaceId}
            onChange={schools.take}
            options={surfaces.map((s) => ({ value: s.id, label: s.name }))}
          />
          <Choice
            name="product"
            label={tr("Coat")}
            value={schools.productId}
            onChange={schools.pick}
            options={schools.coats.map((p) => ({ value: p.id, label: p.sheet.name }))}
          />
        </div>
        <details
          className="mt-3"
          open={unfolded || Object.keys(fields).length > 0}
          onToggle={(e) => unfold(e.currentTarget.open)}
        >
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">
            {tr("The tent, the heat and their prices:")} <TentInWords tent={draft} />
          </summary>
          <TentFields tent={draft} set={form.put} />
        </details>
        <div className="mt-4 flex flex-wrap items-center gap-2">
          <button
            type="button"
            className="btn btn-primary min-h-11"
            disabled={compare.isPending}
            onClick={() => send(() => compare.mutate(undefined))}
          >
            {compare.isPending ? tr("Comparing…") : tr("Compare")}
          </button>
          <Keeping stored={stored} kept={kept} send={send} />
        </div>
        <Refusal error={compare.error ?? cover.error ?? (save.error?.status === 409 ? null : save.error)} />
      </Errors.Provider>
      <Conflict
        error={save.error}
        mine={draft}
        stored={tentOf}
        onMine={(c: Schemas["BoatTent"]) => save.mutate(form.over(c))}
        onTheirs={(c) => {
          form.take(c);
          save.reset();
        }}
      />
      {compare.data && <Schools comparison={compare.data} zone={place.timeZone} setC={draft.thermostat.setC} />}
      {compare.data && <Inside comparison={compare.data} zone={place.timeZone} />}
      {stored.booth && (
        <p className="mt-4 max-w-4xl border-l-4 border-base-content pl-3">
          <Said words={stored.booth} />
        </p>
      )}
      <section className="mt-6 max-w-4xl">
        <h2 className="text-lg">{tr("Before you heat")}</h2>
        <ul>
          {(compare.data?.cautions ?? stored.cautions).map((c) => (
            <li key={c} className="rule-b border-l-4 border-l-accent py-2 pl-3">
              {c}
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}

type Kept = { stored: Schemas["BoatTent"]; kept: ReturnType<typeof useTentForm>; send: (go: () => void) => void };

/** Puts the tent up, takes it down, and puts surfaces in it. */
function Keeping({ stored, kept: { form, save, cover }, send }: Kept) {
  return (
    <>
      <button
        type="button"
        className="btn min-h-11"
        disabled={save.isPending}
        onClick={() => send(() => save.mutate(form.sent))}
      >
        {stored.tent ? tr("Save the tent") : tr("It stands: use it")}
      </button>
      {stored.tent && (
        <button
          type="button"
          className="btn btn-ghost min-h-11"
          onClick={() => save.mutate({ version: form.sent.version })}
        >
          {tr("It is down")}
        </button>
      )}
      {stored.tent && stored.outside.length > 0 && (
        <button
          type="button"
          className="btn min-h-11"
          disabled={cover.isPending}
          onClick={() => cover.mutate(undefined)}
        >
          {tr("Put {n, plural, one {one surface} other {{n} surfaces}} in it: {names}", {
            n: stored.outside.length,
            names: stored.outside.join(", ").toLowerCase(),
          })}
        </button>
      )}
      {save.isSuccess && <span role="status">{tr("Saved. The surfaces in it have its air.")}</span>}
    </>
  );
}

type Top = { stored: Schemas["BoatTent"]; place: Schemas["Place"]; comparison?: Schemas["Comparison"] };

function Head({ stored, place, comparison: c }: Top) {
  const both = ["tent-heat", "wait"].every((school) => c?.options.some((o) => o.school === school));
  return (
    <Answer
      over={
        <>
          <span>{place.name}</span>
          <span>
            {stored.tent
              ? stored.sheltered.length > 0
                ? tr("over {sheltered}", { sheltered: stored.sheltered.join(", ").toLowerCase() })
                : tr("described; no surface is in it")
              : tr("no tent stands")}
          </span>
        </>
      }
      answer={<Headline comparison={c} zone={place.timeZone} />}
      detail={
        both
          ? tr(
              "Every school for the same coat, with the same weather. The figures of the tent are rules of thumb until a logger hangs in it.",
            )
          : tr(
              "Describe it as you would build it, choose a coat, and compare. Nothing is stored until you say that it stands.",
            )
      }
    />
  );
}

/** What is folded away, in a line. */
function TentInWords({ tent }: { tent: TentDraft }) {
  const heat = (tent.heaters ?? []).reduce((kw, h) => kw + (h.powerKW ?? 0), 0);
  return (
    <span className="font-normal">
      <Quantity value={tent.lengthM} unit="m" digits={0} /> × <Quantity value={tent.widthM} unit="m" digits={0} /> ×{" "}
      <Quantity value={tent.heightM} unit="m" digits={0} />, {heat > 0 ? tr("{heat} kW to ", { heat }) : tr("no heat")}
      {heat > 0 && <Quantity value={tent.thermostat.setC} unit="°C" digits={0} />}
    </span>
  );
}

/** The best school by price and odds, and by how much. */
export function Headline({ comparison: c, zone }: { comparison?: Schemas["Comparison"]; zone: string }) {
  const { money } = useSettings();
  if (!c) return <>{tr("Reckoning what a tent and heat would buy…")}</>;
  const able = c.options.filter((o) => o.start && o.done).sort((a, b) => a.worthCents - b.worthCents);
  const [best, next] = able;
  if (!best?.start)
    return <>{tr("{surface}: nothing opens a start within the weather known.", { surface: c.surface })}</>;
  const says = tr("{surface}: {best} is best, from {start}: it holds {chance} times in a hundred and costs {cost}.", {
    surface: c.surface,
    best: best.name.toLowerCase(),
    start: stamp(best.start, zone),
    chance: Math.round(best.chancePct),
    cost: money(best.cents, 0),
  });
  return (
    <>
      {says}
      {next && ` ${against(best, next, money)}`}
    </>
  );
}

type Option = Schemas["Comparison"]["options"][number];

/** How the next best school stands against the best. */
function against(best: Option, next: Option, money: (cents: number, digits?: number) => string): string {
  const later = Math.round((Date.parse(next.done ?? "") - Date.parse(best.done ?? "")) / 3_600_000);
  const more = next.worthCents - best.worthCents;
  const name = next.name;
  if (more < 100 && later === 0) return tr("{name} comes to the same.", { name });
  if (later > 0)
    return tr("{name} is {more} dearer, failures reckoned, and {later} h later.", {
      name,
      more: money(more, 0),
      later,
    });
  if (later < 0)
    return tr("{name} is {more} dearer, failures reckoned, for {later} h sooner.", {
      name,
      more: money(more, 0),
      later: -later,
    });
  return tr("{name} is {more} dearer, failures reckoned, and no sooner.", { name, more: money(more, 0) });
}

/** The surface and the air under each school, over the same hours. */
function Inside({ comparison, zone }: { comparison: Schemas["Comparison"]; zone: string }) {
  const { show } = useSettings();
  const said = (v: number, unit: string) => {
    const s = show(v, unit);
    return `${s.text} ${s.unit}`;
  };
  const shown = comparison.options.filter((o) => o.school !== "hardener");
  const all = shown.flatMap((o) => o.hours.flatMap((h) => [h.surfaceC, h.dewPointC]));
  const low = Math.min(...all) - 1;
  const high = Math.max(...all) + 1;
  const H = 64;
  const y = (v: number) => H - ((v - low) / (high - low)) * H;
  const lanes: Lane[] = shown.map((o) => ({
    id: o.school,
    label: o.name,
    note: tr("surface, dashed dew point"),
    height: H,
    read: (t) => {
      const h = o.hours.filter((k) => Date.parse(k.at) <= t).at(-1);
      return h
        ? `${said(h.surfaceC, "°C")}, air ${said(h.airC, "°C")}, ${Math.round(h.rhPct)} %, dew ${said(h.dewPointC, "°C")}`
        : "past";
    },
    draw: (x) => {
      const line = (value: (h: Schemas["ClimateInside"]) => number) =>
        o.hours.map((h, i) => `${i ? "L" : "M"}${x(Date.parse(h.at)).toFixed(1)} ${y(value(h)).toFixed(1)}`).join("");
      return (
        <>
          <text x={(x.range()[0] ?? 0) + 4} y={11} fontSize={11} fill="currentColor">
            {said(Math.max(...o.hours.map((h) => h.surfaceC)), "°C")}
          </text>
          <path d={line((h) => h.dewPointC)} fill="none" stroke="var(--dew)" strokeWidth={1.6} strokeDasharray="5 3" />
          <path d={line((h) => h.surfaceC)} fill="none" stroke="currentColor" strokeWidth={2} />
          {o.start && (
            <g stroke="var(--open)" strokeWidth={3}>
              <line x1={x(Date.parse(o.start))} x2={x(Date.parse(o.start))} y1={0} y2={H} />
              <text
                x={x(Date.parse(o.start)) + 5}
                y={12}
                fontSize={12}
                fontWeight={700}
                fill="currentColor"
                stroke="none"
              >
                {tr("start {start}", { start: clock(o.start, zone) })}
              </text>
            </g>
          )}
        </>
      );
    },
  }));
  return (
    <section className="mt-6">
      <h2 className="text-lg">{tr("{surface} under each", { surface: comparison.surface })}</h2>
      <Ribbon ribbon={comparison.ribbon} zone={zone} lanes={lanes} />
    </section>
  );
}
