import { Plus, X } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
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
        const path = `own.${boatId}[${i}]`;
        const at = fieldsOf(t, (more) => task(i, more), path);
        return (
          <fieldset key={t.id || `new ${i + 1}`} className="mt-2 max-w-4xl border border-base-300 p-3">
            <div className="grid items-start gap-3 sm:grid-cols-[2fr_1fr_1fr_1.5fr_auto]">
              <TextField {...at("name")} label={tr("What")} />
              <NumberField {...at("hours")} label={tr("Hours")} unit="h" />
              <NumberField {...at("crew")} label={tr("People")} unit="" />
              <TextField {...at("skill")} label={tr("Skill")} hint={tr("any")} />
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
                name={`${path}.when`}
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
                {...at("surfaceId")}
                label={tr("Surface")}
                options={[{ value: "", label: tr("none") }, ...surfaces.map((s) => ({ value: s.id, label: s.name }))]}
              />
              <Choice
                name={`${path}.after`}
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
              <Check {...at("outdoors")} label={tr("Needs dry hours")} />
              <Check {...at("light")} label={tr("Needs daylight")} />
              <Check {...at("noisy")} label={tr("Noisy")} />
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
