import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useBuildUp, useChange, useProducts } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { AreaField, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { fromLocalField, toLocalField } from "../../ui/time";
import { Quantity } from "../../ui/Working";

type Draft = {
  surfaceId: string;
  kind: "coat" | "sand";
  startedAt: string;
  step: string;
  productId: string;
  litres?: number;
  hours?: number;
  wet: string;
  thinnerPct?: number;
  grit?: number;
  removedUm?: number;
  who: string;
  note: string;
};

const OTHER = "other";

/** Logs a coat or a sanding, or corrects the entry given. */
export function EntryForm({
  today,
  surfaceId,
  entry,
  done,
}: {
  today: Schemas["Today"];
  surfaceId: string;
  entry?: Schemas["Entry"];
  done: () => void;
}) {
  const zone = today.place.timeZone;
  const { toMetric, toShown, shownUnit, prose } = useSettings();
  const products = useProducts().data ?? [];
  const draftOf = (e?: Schemas["Entry"]): Draft =>
    e
      ? {
          ...e,
          startedAt: toLocalField(e.startedAt, zone),
          step: e.stepId || OTHER,
          productId: e.productId ?? "",
          wet: e.wetUm.map((v) => Number(toShown(v, "µm").toPrecision(4))).join(" "),
        }
      : {
          surfaceId,
          kind: "coat",
          startedAt: toLocalField(today.ribbon.now, zone),
          step: "",
          productId: "",
          wet: "",
          who: localStorage.getItem("who") ?? "",
          note: "",
        };
  const [draft, setDraft] = useState<Draft>(() => draftOf(entry));
  const [version, setVersion] = useState(entry?.version ?? 0);
  const [local, setLocal] = useState<Record<string, string>>({});
  const build = useBuildUp(draft.surfaceId).data;
  const lane = today.answer.lanes.find((l) => l.surfaceId === draft.surfaceId);
  const step = draft.step || lane?.nextStepId || (build?.steps.find((s) => s.productId)?.id ?? OTHER);
  const planned = build?.steps.find((s) => s.id === step);
  const productId = planned?.productId ?? (draft.productId || products[0]?.id || "");
  const nameOf = (id: string) => products.find((p) => p.id === id)?.sheet.name ?? "";

  const value = (): Schemas["EntryEdit"] => {
    const coat = draft.kind === "coat";
    return {
      surfaceId: draft.surfaceId,
      kind: draft.kind,
      startedAt: fromLocalField(draft.startedAt, zone),
      ...(coat && { productId, ...(planned?.id && { stepId: planned.id }) }),
      litres: coat ? (draft.litres ?? 0) : 0,
      wetUm: coat ? readings(draft.wet).map((v) => toMetric(v, "µm")) : [],
      thinnerPct: coat ? (draft.thinnerPct ?? planned?.thinnerPct ?? 0) : 0,
      grit: coat ? 0 : (draft.grit ?? 0),
      removedUm: coat ? 0 : (draft.removedUm ?? 0),
      hours: draft.hours,
      who: draft.who,
      note: draft.note,
    };
  };
  const save = useChange(
    (v: number) =>
      entry
        ? ok(api.PUT("/api/log/{id}", { params: { path: { id: entry.id } }, body: { version: v, value: value() } }))
        : ok(api.POST("/api/log", { body: value() })),
    () => {
      localStorage.setItem("who", draft.who);
      done();
    },
  );
  const submit = (v = version) => {
    const bad: Record<string, string> = unsendable(draft, draft.kind === "sand" ? ["grit"] : []);
    if (!fromLocalField(draft.startedAt, zone)) bad.startedAt = "give the day and time";
    if (readings(draft.wet).some(Number.isNaN)) bad.wetUm = "readings are numbers with spaces between, such as 180 190 200";
    setLocal(bad);
    save.reset();
    if (Object.keys(bad).length === 0) save.mutate(v);
  };
  const refused = save.error?.fields ?? {};
  const wetError = Object.entries(refused).find(([k]) => k.startsWith("wetUm"))?.[1];
  return (
    <section className="max-w-4xl border border-base-content p-4">
      <h2 className="mb-3 text-lg">{entry ? "Correct this entry" : draft.kind === "coat" ? "Log a coat" : "Log a sanding"}</h2>
      <Errors.Provider value={{ ...local, ...refused, ...(wetError && { wetUm: wetError }) }}>
        <form
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            submit();
          }}
        >
          <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
            <Choice
              name="kind"
              label="What"
              value={draft.kind}
              onChange={(kind) => setDraft({ ...draft, kind })}
              options={[
                { value: "coat", label: "a coat went on" },
                { value: "sand", label: "it was sanded" },
              ]}
            />
            <Choice
              name="surfaceId"
              label="Where"
              value={draft.surfaceId}
              onChange={(id) => setDraft({ ...draft, surfaceId: id, step: "" })}
              options={today.answer.lanes.map((l) => ({ value: l.surfaceId, label: l.surface }))}
            />
            <TextField
              name="startedAt"
              label="Begun at"
              type="datetime-local"
              value={draft.startedAt}
              onChange={(startedAt) => setDraft({ ...draft, startedAt })}
            />
            {draft.kind === "coat" && (
              <>
                <Choice
                  name="stepId"
                  label="Planned coat"
                  value={step}
                  onChange={(s) => setDraft({ ...draft, step: s })}
                  options={[
                    ...(build?.steps ?? []).flatMap((s, i) =>
                      s.productId
                        ? [{ value: s.id ?? "", label: `${i + 1}. ${nameOf(s.productId)} (${build?.done[i]} of ${s.coats} laid)` }]
                        : [],
                    ),
                    { value: OTHER, label: "another product" },
                  ]}
                />
                {!planned && (
                  <Choice
                    name="productId"
                    label="Product"
                    value={productId}
                    onChange={(id) => setDraft({ ...draft, productId: id })}
                    options={products.filter((p) => p.sheet.kind !== "thinner").map((p) => ({ value: p.id, label: p.sheet.name }))}
                  />
                )}
                <NumberField
                  name="litres"
                  label="Litres used"
                  hint="before thinner, from the tin"
                  unit="L"
                  value={draft.litres}
                  onChange={(litres) => setDraft({ ...draft, litres })}
                />
                <TextField
                  name="wetUm"
                  label={`Wet film readings, ${shownUnit("µm")}`}
                  hint="with spaces between"
                  value={draft.wet}
                  onChange={(wet) => setDraft({ ...draft, wet })}
                />
                <NumberField
                  name="thinnerPct"
                  label="Thinner added"
                  unit="%"
                  value={draft.thinnerPct ?? planned?.thinnerPct ?? 0}
                  onChange={(thinnerPct) => setDraft({ ...draft, thinnerPct })}
                />
              </>
            )}
            {draft.kind === "sand" && (
              <>
                <NumberField name="grit" label="Last grit" unit="P" value={draft.grit} onChange={(grit) => setDraft({ ...draft, grit })} />
                <NumberField
                  name="removedUm"
                  label="Film taken off"
                  hint="by the gauge, or as reckoned; empty: not known"
                  unit="µm"
                  value={draft.removedUm || undefined}
                  onChange={(removedUm) => setDraft({ ...draft, removedUm })}
                />
              </>
            )}
            <NumberField
              name="hours"
              label="Hours it took"
              hint="by all people together; plans learn from it"
              unit="h"
              value={draft.hours}
              onChange={(hours) => setDraft({ ...draft, hours })}
            />
            <TextField name="who" label="Who" value={draft.who} onChange={(who) => setDraft({ ...draft, who })} />
            <div className="sm:col-span-2">
              <AreaField name="note" label="Note" value={draft.note} rows={2} onChange={(note) => setDraft({ ...draft, note })} />
            </div>
          </div>
          {draft.kind === "sand" && build?.marginText && <p className="mt-2 border-l-4 border-warning pl-3">{prose(build.marginText)}</p>}
          {draft.kind === "coat" && lane?.mix && planned?.id === lane.nextStepId && (
            <p className="quiet mt-2 text-sm">
              The plan takes <Quantity value={lane.mix.litres} unit="L" /> for this coat at <Quantity value={lane.mix.wftUm} unit="µm" />{" "}
              wet.
            </p>
          )}
          <div className="mt-4 flex flex-col gap-3">
            <Refusal error={save.error?.status === 409 ? null : save.error} />
            <div className="flex gap-2">
              <button type="submit" className="btn btn-primary min-h-12" disabled={save.isPending}>
                {entry ? "Save the correction" : "Log it"}
              </button>
              <button type="button" className="btn btn-ghost min-h-12" onClick={done}>
                Cancel
              </button>
            </div>
          </div>
        </form>
      </Errors.Provider>
      {entry && (
        <Conflict
          error={save.error}
          mine={draft}
          stored={(c: Schemas["Entry"]) => draftOf(c)}
          onMine={(c) => {
            setVersion(c.version);
            submit(c.version);
          }}
          onTheirs={(c) => {
            setDraft(draftOf(c));
            setVersion(c.version);
            save.reset();
          }}
        />
      )}
    </section>
  );
}

const readings = (text: string) =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((t) => Number(t.replace(",", ".")));
