import { Plus, X } from "lucide-react";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Check, Choice, Errors, NumberField, Refusal, TextField, unsendable } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr, trNodes } from "../../words/words";
import { WeekFields } from "../boats/WeekFields";

type Settings = Schemas["PlanSettings"];
type OwnTask = Schemas["TaskOwnTask"];

/** Days off as a text of dates; what is typed stays as it is typed. */
function DaysOff({ name, days, set }: { name: string; days: string[]; set: (days: string[]) => void }) {
  const [text, setText] = useState(days.join(" "));
  return (
    <TextField
      name={name}
      label={tr("Days off")}
      hint={tr("such as 2026-05-16 2026-05-23")}
      value={text}
      onChange={(v) => {
        setText(v);
        set(v.split(/[\s,]+/).filter(Boolean));
      }}
    />
  );
}

/** Who works and when, tasks of one's own, and the rules of the trade that hold here. */
export function Hands({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const crafts = useMeta().data?.skills ?? [];
  const [draft, setDraft] = useState<Settings>(plan.settings);
  const [version, setVersion] = useState(plan.version);
  const [local, setLocal] = useState<Record<string, string>>({});
  const id = plan.place.id;
  const { currency } = useSettings();
  const save = useChange(["plan"], (v: number) =>
    ok(api.PUT("/api/places/{id}/plan", { params: { path: { id } }, body: { version: v, value: draft } })),
  );
  const submit = (v: number) => {
    const bad = unsendable(draft);
    setLocal(bad);
    if (Object.keys(bad).length === 0) save.mutate(v);
  };
  const boat = plan.boats.find((b) => b.id === boatId);
  const own = draft.own[boatId] ?? [];
  const setOwn = (list: OwnTask[]) => setDraft({ ...draft, own: { ...draft.own, [boatId]: list } });
  const off = draft.off[boatId] ?? {};
  const person = (i: number, p: Partial<Settings["people"][number]>) =>
    setDraft({ ...draft, people: draft.people.map((o, k) => (k === i ? { ...o, ...p } : o)) });
  const task = (i: number, o: Partial<OwnTask>) => setOwn(own.map((t, k) => (k === i ? { ...t, ...o } : t)));
  const taken = Object.values(draft.own).flatMap((list) => list.map((t) => t.skill?.trim() ?? ""));
  const skills = [...new Set([...crafts, ...draft.people.flatMap((p) => p.skills), ...taken])].filter(Boolean);
  const marked = Object.entries(draft.marks);
  return (
    <Errors.Provider value={{ ...local, ...save.error?.fields }}>
      <section data-field="people">
        <h2 className="text-lg">{tr("Who works in {name}", { name: plan.place.name })}</h2>
        {draft.people.map((p, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: people have no other identity than their order while they are named
          <fieldset key={i} className="mt-2 max-w-4xl border border-base-300 p-3">
            <div className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]">
              <TextField name={`people[${i}].name`} label={tr("Name")} value={p.name} onChange={(name) => person(i, { name })} />
              <DaysOff name={`people[${i}].off`} days={p.off} set={(off) => person(i, { off })} />
              <button
                type="button"
                className="btn btn-square btn-ghost mt-5 min-h-11"
                aria-label={tr("Leave out {name}", { name: p.name || tr("person {i}", { i: i + 1 }) })}
                onClick={() => setDraft({ ...draft, people: draft.people.filter((_, k) => k !== i) })}
              >
                <X size={16} />
              </button>
            </div>
            <div className="my-2 flex flex-wrap gap-x-5" data-field={`people[${i}].skills`}>
              {skills.map((k) => (
                <Check
                  key={k}
                  name={`people[${i}].skills.${k}`}
                  label={k}
                  value={p.skills.includes(k)}
                  onChange={(can) => person(i, { skills: can ? [...p.skills, k] : p.skills.filter((o) => o !== k) })}
                />
              ))}
            </div>
            <WeekFields week={p.week} set={(w) => person(i, { week: w.week ?? p.week })} />
          </fieldset>
        ))}
        <button
          type="button"
          className="linked mt-2 flex items-center gap-1 text-sm max-sm:min-h-11"
          onClick={() =>
            setDraft({
              ...draft,
              people: [...draft.people, { name: "", week: Array.from({ length: 7 }, () => ({ fromH: 0, toH: 0 })), off: [], skills: [] }],
            })
          }
        >
          <Plus size={14} /> {tr("another person")}
        </button>
        <div className="mt-3 grid max-w-4xl grid-cols-2 gap-4 md:grid-cols-5">
          <NumberField
            name="guns"
            label={tr("Spray guns")}
            unit=""
            value={draft.guns}
            onChange={(v) => setDraft({ ...draft, guns: v ?? Number.NaN })}
          />
          <NumberField
            name="tents"
            label={tr("Tents they share")}
            hint={tr("0 if each boat has her own")}
            unit=""
            value={draft.tents}
            onChange={(v) => setDraft({ ...draft, tents: v ?? Number.NaN })}
          />
          <NumberField
            name="noise.fromH"
            label={tr("Noise from")}
            hint={tr("sanding and stripping; 0 and 0 for any hour")}
            unit="h"
            value={draft.noise.fromH}
            onChange={(v) => setDraft({ ...draft, noise: { ...draft.noise, fromH: v ?? Number.NaN } })}
          />
          <NumberField
            name="noise.toH"
            label={tr("Noise to")}
            unit="h"
            value={draft.noise.toH}
            onChange={(v) => setDraft({ ...draft, noise: { ...draft.noise, toH: v ?? Number.NaN } })}
          />
          <NumberField
            name="hourCents"
            label={tr("An hour of work costs")}
            unit={currency}
            value={draft.hourCents / 100}
            onChange={(v) => setDraft({ ...draft, hourCents: v === undefined ? Number.NaN : Math.round(v * 100) })}
          />
          <NumberField
            name="travelMin"
            label={tr("From boat to boat")}
            unit="min"
            value={draft.travelMin}
            onChange={(travelMin) => setDraft({ ...draft, travelMin: travelMin ?? 0 })}
          />
          <NumberField
            name="dustM"
            label={tr("Dust reaches wet coats within")}
            hint={tr("on another boat; 0: not at all")}
            unit="m"
            value={draft.dustM}
            onChange={(dustM) => setDraft({ ...draft, dustM: dustM ?? 0 })}
          />
          <NumberField
            name={`alongM.${boatId}`}
            label={tr("{name} stands at", { name: boat?.name ?? tr("She") })}
            hint={tr("along the yard")}
            unit="m"
            value={draft.alongM?.[boatId]}
            onChange={(at) => setDraft({ ...draft, alongM: { ...draft.alongM, [boatId]: at ?? 0 } })}
          />
        </div>
        <p className="quiet text-sm">
          {tr("Without working hours of their own people work from eight to six every day. A skill that nobody has is anybody's.")}
        </p>
      </section>
      <section className="mt-6">
        <h2 className="text-lg">{trNodes("Own tasks on {name}", { name: boat?.name })}</h2>
        {own.map((t, i) => {
          const at = `own.${boatId}[${i}]`;
          return (
            <fieldset key={t.id || `new ${i + 1}`} className="mt-2 max-w-4xl border border-base-300 p-3">
              <div className="grid items-start gap-3 sm:grid-cols-[2fr_1fr_1fr_1.5fr_auto]">
                <TextField name={`${at}.name`} label={tr("What")} value={t.name} onChange={(name) => task(i, { name })} />
                <NumberField
                  name={`${at}.hours`}
                  label={tr("Hours")}
                  unit="h"
                  value={t.hours}
                  onChange={(v) => task(i, { hours: v ?? Number.NaN })}
                />
                <NumberField
                  name={`${at}.crew`}
                  label={tr("People")}
                  unit=""
                  value={t.crew}
                  onChange={(v) => task(i, { crew: v ?? Number.NaN })}
                />
                <TextField
                  name={`${at}.skill`}
                  label={tr("Skill")}
                  hint={tr("any")}
                  value={t.skill ?? ""}
                  onChange={(skill) => task(i, { skill })}
                />
                <button
                  type="button"
                  className="btn btn-square btn-ghost mt-5 min-h-11"
                  aria-label={tr("Leave out {name}", { name: t.name || tr("task {i}", { i: i + 1 }) })}
                  onClick={() => setOwn(own.filter((_, k) => k !== i))}
                >
                  <X size={16} />
                </button>
              </div>
              <div className="mt-2 grid items-end gap-3 sm:grid-cols-3">
                <Choice
                  name={`${at}.when`}
                  label={tr("When")}
                  value={t.when ?? ""}
                  onChange={(when) => task(i, { when, surfaceId: t.surfaceId || boat?.surfaces[0]?.id })}
                  options={[
                    { value: "", label: tr("at any time") },
                    { value: "before", label: tr("before the coats of") },
                    { value: "after", label: tr("after the coats of") },
                  ]}
                />
                <Choice
                  name={`${at}.surfaceId`}
                  label={tr("Surface")}
                  value={t.surfaceId ?? ""}
                  onChange={(surfaceId) => task(i, { surfaceId })}
                  options={[{ value: "", label: tr("none") }, ...(boat?.surfaces ?? []).map((s) => ({ value: s.id, label: s.name }))]}
                />
                <Choice
                  name={`${at}.after`}
                  label={tr("After the task")}
                  value={t.after?.[0] ?? ""}
                  onChange={(id) => task(i, { after: id ? [id] : [] })}
                  options={[
                    { value: "", label: tr("none") },
                    ...own.filter((o) => o.id && o !== t).map((o) => ({ value: o.id, label: o.name })),
                  ]}
                />
              </div>
              <div className="flex flex-wrap gap-x-5">
                <Check
                  name={`${at}.outdoors`}
                  label={tr("Needs dry hours")}
                  value={t.outdoors ?? false}
                  onChange={(outdoors) => task(i, { outdoors })}
                />
                <Check
                  name={`${at}.light`}
                  label={tr("Needs daylight")}
                  value={t.light ?? false}
                  onChange={(light) => task(i, { light })}
                />
                <Check name={`${at}.noisy`} label={tr("Noisy")} value={t.noisy ?? false} onChange={(noisy) => task(i, { noisy })} />
              </div>
            </fieldset>
          );
        })}
        <button
          type="button"
          className="linked mt-2 flex items-center gap-1 text-sm max-sm:min-h-11"
          onClick={() => setOwn([...own, { id: "", name: "", hours: Number.NaN, crew: 1 }])}
        >
          <Plus size={14} /> {tr("another task")}
        </button>
      </section>
      <section className="mt-6 max-w-4xl">
        <h2 className="text-lg">{trNodes("Rules between the surfaces of {name}", { name: boat?.name })}</h2>
        <ul>
          {plan.rules.map((r) => (
            <li key={r.id} className="rule-b grid gap-x-4 py-2 sm:grid-cols-[2fr_1fr]">
              <div>
                <b>{r.name}</b>: <span className="quiet">{r.why}.</span>
              </div>
              <TextField
                name={`off.${boatId}.${r.id}`}
                label={tr("Does not hold here, because")}
                value={off[r.id] ?? ""}
                onChange={(reason) => {
                  const { [r.id]: _, ...rest } = off;
                  setDraft({ ...draft, off: { ...draft.off, [boatId]: reason ? { ...rest, [r.id]: reason } : rest } });
                }}
              />
            </li>
          ))}
        </ul>
      </section>
      {marked.length > 0 && (
        <p className="mt-4 text-sm">
          {tr("{marked, plural, one {One task is} other {{marked} tasks are}} marked done, skipped or pinned.", { marked: marked.length })}{" "}
          <button type="button" className="linked max-sm:min-h-11" onClick={() => setDraft({ ...draft, marks: {} })}>
            {tr("take all marks off")}
          </button>
        </p>
      )}
      <div className="mt-4 flex flex-col gap-3">
        <Refusal error={save.error?.status === 409 ? null : save.error} />
        <button type="button" className="btn btn-primary min-h-11 self-start" disabled={save.isPending} onClick={() => submit(version)}>
          {tr("Save hands and tasks")}
        </button>
      </div>
      <Conflict
        error={save.error}
        mine={draft}
        stored={(c: Schemas["YardPlan"]) => c.settings}
        onMine={(c) => {
          setVersion(c.version);
          submit(c.version);
        }}
        onTheirs={(c) => {
          setDraft(c.settings);
          setVersion(c.version);
          save.reset();
        }}
      />
    </Errors.Provider>
  );
}
