import { Plus, X } from "lucide-react";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Check, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import { WeekFields } from "../boats/WeekFields";

type Settings = Schemas["PlanSettings"];
type Props = { draft: Settings; setDraft: (d: Settings) => void };

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

/** Who works, when, and what each can do. */
export function PeopleFields({ draft, setDraft, skills }: Props & { skills: string[] }) {
  const person = (i: number, p: Partial<Settings["people"][number]>) =>
    setDraft({ ...draft, people: draft.people.map((o, k) => (k === i ? { ...o, ...p } : o)) });
  return (
    <>
      {draft.people.map((p, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: people have no other identity than their order while they are named
        <fieldset key={i} className="mt-2 max-w-4xl border border-base-300 p-3">
          <div className="grid items-start gap-3 sm:grid-cols-[1fr_1fr_auto]">
            <TextField
              name={`people[${i}].name`}
              label={tr("Name")}
              value={p.name}
              onChange={(name) => person(i, { name })}
            />
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
            people: [
              ...draft.people,
              { name: "", week: Array.from({ length: 7 }, () => ({ fromH: 0, toH: 0 })), off: [], skills: [] },
            ],
          })
        }
      >
        <Plus size={14} /> {tr("another person")}
      </button>
    </>
  );
}

/** What the yard has: guns, tents, hours for noise, and where each boat stands. */
export function YardFields({ draft, setDraft, boat }: Props & { boat: { id: string; name?: string } }) {
  const { currency } = useSettings();
  return (
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
        name={`alongM.${boat.id}`}
        label={tr("{name} stands at", { name: boat.name ?? tr("She") })}
        hint={tr("along the yard")}
        unit="m"
        value={draft.alongM?.[boat.id]}
        onChange={(at) => setDraft({ ...draft, alongM: { ...draft.alongM, [boat.id]: at ?? 0 } })}
      />
    </div>
  );
}
