import { Plus, X } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { tr } from "../../words/words";

type OwnTask = Schemas["TaskOwnTask"];

/** Tasks of one's own on a boat, beside her surfaces' work. */
export function OwnTasks({
  boatId,
  own,
  setOwn,
  surfaces,
}: {
  boatId: string;
  own: OwnTask[];
  setOwn: (list: OwnTask[]) => void;
  surfaces: Schemas["YardSurface"][];
}) {
  const task = (i: number, o: Partial<OwnTask>) => setOwn(own.map((t, k) => (k === i ? { ...t, ...o } : t)));
  return (
    <>
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
                onChange={(when) => task(i, { when, surfaceId: t.surfaceId || surfaces[0]?.id })}
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
                options={[{ value: "", label: tr("none") }, ...surfaces.map((s) => ({ value: s.id, label: s.name }))]}
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
              <Check
                name={`${at}.noisy`}
                label={tr("Noisy")}
                value={t.noisy ?? false}
                onChange={(noisy) => task(i, { noisy })}
              />
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
    </>
  );
}
