import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useChange, useKinds, useProducts, useSchemes, useSystems } from "../../api/queries";
import { CutSection } from "../../ui/CutSection";
import { Choice, Refusal } from "../../ui/Form";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { workdays } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

type Way = {
  key: string;
  title: string;
  reason: string;
  steps: Schemas["Step"][];
  missing: string[];
  job: string;
  system?: string;
};

const OWN = tr("Your systems");

/** Schemes of the trade and systems of one's own, two side by side: reason, film, hours, litres, money, findings. */
export function Start({
  surface,
  surfaces,
  kept,
  usual,
  take,
  close,
}: {
  surface: Schemas["Surface"];
  surfaces: Schemas["Surface"][];
  kept: Schemas["Step"][];
  usual: string;
  take: (steps: Schemas["Step"][]) => void;
  close: () => void;
}) {
  const schemes = useSchemes(surface.id).data ?? [];
  const systems = useSystems().data ?? [];
  const ways: Way[] = [
    ...schemes.map((s) => ({
      key: s.key,
      title: s.school,
      reason: s.reason,
      steps: s.planned,
      missing: s.missing,
      job: s.job,
    })),
    ...systems.flatMap((s) =>
      s.versions.map((v) => ({
        key: `${s.id}.${v.version}`,
        title: tr("{name}, version {version}", { name: s.name, version: v.version }),
        reason: s.note || tr("A system of your own."),
        steps: v.steps,
        missing: [],
        job: OWN,
        system: s.id,
      })),
    ),
  ];
  const jobs = [...new Set(ways.map((w) => w.job))];
  const [chosen, setChosen] = useState(usual);
  const at = jobs.includes(chosen) ? chosen : (jobs[0] ?? "");
  const own = ways.filter((w) => w.job === at);
  const [left, setLeft] = useState("");
  const [also, setAlso] = useState<string[]>([]);
  const others = surfaces.filter((f) => f.id !== surface.id);
  const spread = useChange(
    ["steps"],
    async (steps: Schemas["Step"][]) => {
      for (const f of others.filter((o) => also.includes(o.id))) {
        const path = { id: f.id };
        const there = await ok(api.GET("/api/surfaces/{id}/build-up", { params: { path } }));
        const begun = there.steps.filter((_, i) => (there.done[i] ?? 0) > 0);
        await ok(
          api.PUT("/api/surfaces/{id}/build-up", {
            params: { path },
            body: { version: there.surface.version, steps: [...begun, ...steps] },
          }),
        );
      }
      return steps;
    },
    (steps) => take(steps),
  );
  const [right, setRight] = useState("");
  const a = own.find((w) => w.key === left) ?? own[0];
  const b = own.find((w) => w.key === right) ?? own[1];
  return (
    <section className="mb-6 border border-base-content p-4" data-testid="start">
      <h2 className="mb-3 text-lg">{tr("Two ways side by side, on {name}", { name: surface.name })}</h2>
      {kept.length > 0 && (
        <p className="mb-2 text-sm">{tr("Steps that have been begun stay; what is taken comes after them.")}</p>
      )}
      <div className="grid gap-4 sm:grid-cols-3">
        <Choice
          name="job"
          label={tr("Job")}
          value={at}
          onChange={setChosen}
          options={jobs.map((j) => ({ value: j, label: j }))}
        />
        <Choice
          name="left"
          label={tr("One way")}
          value={a?.key ?? ""}
          onChange={setLeft}
          options={own.map((w) => ({ value: w.key, label: w.title }))}
        />
        {own.length > 1 && (
          <Choice
            name="right"
            label={tr("Another way")}
            value={b?.key ?? ""}
            onChange={setRight}
            options={own.map((w) => ({ value: w.key, label: w.title }))}
          />
        )}
      </div>
      <div className="mt-4 grid gap-6 lg:grid-cols-2">
        {a && <OneWay key={`a${a.key}`} way={a} surface={surface} take={spread.mutate} />}
        {b && b !== a && <OneWay key={`b${b.key}`} way={b} surface={surface} take={spread.mutate} />}
      </div>
      <fieldset className="mt-3">
        <legend className="text-sm font-semibold">
          {tr("Put it also on, in place of what is planned and not begun there")}
        </legend>
        <div className="flex flex-wrap gap-x-5">
          {others.map((f) => (
            <label key={f.id} className="flex min-h-11 cursor-pointer items-center gap-2">
              <input
                type="checkbox"
                className="checkbox border-base-content/60"
                checked={also.includes(f.id)}
                onChange={(e) => setAlso(e.target.checked ? [...also, f.id] : also.filter((x) => x !== f.id))}
              />
              {f.name}
            </label>
          ))}
        </div>
      </fieldset>
      <Refusal error={spread.error} />
      <button type="button" className="btn btn-ghost mt-3 min-h-11" onClick={close}>
        {tr("Close")}
      </button>
    </section>
  );
}

/** Deletes a system of one's own with all its versions; surfaces keep what was put on them. */
function Forget({ system }: { system: string }) {
  const forget = useChange(["systems"], () =>
    ok(api.DELETE("/api/systems/{id}", { params: { path: { id: system } } })),
  );
  return (
    <>
      <button
        type="button"
        className="btn btn-ghost mt-2 min-h-11"
        disabled={forget.isPending}
        onClick={() => forget.mutate(undefined)}
      >
        {tr("Delete this system")}
      </button>
      <Refusal error={forget.error} />
    </>
  );
}

/** Years in words. */
const lasts = (years: number) =>
  years === 0
    ? tr("looked at, not renewed")
    : years < 1.5
      ? `${Math.round(12 * years)} months`
      : `${years.toFixed(1)} years`;

function OneWay({
  way,
  surface,
  take,
}: {
  way: Way;
  surface: Schemas["Surface"];
  take: (steps: Schemas["Step"][]) => void;
}) {
  const products = useProducts().data ?? [];
  const { kindOf } = useKinds();
  const { money } = useSettings();
  const steps = way.steps.map(({ id: _, ...s }) => s);
  const result = useQuery({
    queryKey: key("way", surface.id, way.key, way.steps),
    queryFn: () =>
      ok(api.POST("/api/surfaces/{id}/build-up/preview", { params: { path: { id: surface.id } }, body: { steps } })),
    retry: false,
  });
  const r = result.data?.result;
  const open = result.data?.findings ?? [];
  const name = (s: Schemas["Step"]) =>
    kindOf(s.work).films
      ? `${s.coats} × ${products.find((p) => p.id === s.productId)?.sheet.name ?? "?"}${s.grade ? `, ${s.grade} hardener` : ""}`
      : [s.work, s.grit ? `${s.grit} grit` : "", s.agent, s.note].filter(Boolean).join(", ");
  return (
    <div data-way={way.key}>
      <h3 className="text-lg first-letter:uppercase">{way.title}</h3>
      <p className="mb-2">{way.reason}</p>
      {r && (
        <table className="table-plain">
          <tbody>
            <tr>
              <td>{tr("Coats")}</td>
              <td className="num">{r.coats}</td>
            </tr>
            <tr>
              <td>{tr("Film, net of sanding")}</td>
              <td className="num">
                <Quantity value={r.netUm} unit="µm" />
              </td>
            </tr>
            <tr>
              <td>{tr("Litres")}</td>
              <td className="num">
                <Quantity value={r.litres} unit="L" />
              </td>
            </tr>
            <tr>
              <td>{tr("Hours, one person")}</td>
              <td className="num">{workdays(r.hours, result.data?.workDayH ?? 8)}</td>
            </tr>
            <tr>
              <td>{tr("Lasts about")}</td>
              <td className="num">{lasts(result.data?.lastsYears ?? 0)}</td>
            </tr>
            <tr>
              <td>{tr("Tins")}</td>
              <td className="num">{r.priced ? money(r.costCents) : tr("prices missing")}</td>
            </tr>
            <tr>
              <td>{tr("Findings")}</td>
              <td className="num">{open.length || tr("none")}</td>
            </tr>
          </tbody>
        </table>
      )}
      {open.map((f) => (
        <p key={`${f.rule} ${f.step}`} className="border-l-4 border-warning pl-2 text-sm">
          <Said words={f.text} />
        </p>
      ))}
      {result.error && <p className="text-error">{result.error.message}</p>}
      {way.missing.length > 0 && (
        <p className="text-sm text-error">
          {tr("The library has no {missing}: that step is left out.", { missing: way.missing.join(", no ") })}
        </p>
      )}
      <ol className="my-2 list-decimal pl-6 text-sm">
        {steps.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps of a way have no other identity than their order
          <li key={i}>{name(s)}</li>
        ))}
      </ol>
      {result.data && <CutSection layers={result.data.layers} substrate={surface.substrateName} />}
      <button type="button" className="btn btn-primary mt-2 min-h-11" onClick={() => take(steps)}>
        {tr("Take this way")}
      </button>
      {way.system && <Forget system={way.system} />}
    </div>
  );
}
