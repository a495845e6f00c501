import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Choice, FieldError, NumberField } from "../../ui/Form";
import { tr } from "../../words/words";
import { EMPTY } from "./edit";
import { GirthCurve } from "./GirthCurve";

type Girths = Schemas["AreaGirths"];

/** Girths at stations: each a distance along the centreline, the way along the hull, the girth. */
export function GirthFields({
  path,
  girths,
  line,
  set,
}: {
  path: string;
  girths: Girths;
  line?: Schemas["AreaGirthLine"];
  set: (g: Girths) => void;
}) {
  const put = (i: number, s: Partial<Girths["stations"][number]>) =>
    set({ ...girths, stations: girths.stations.map((o, k) => (k === i ? { ...o, ...s } : o)) });
  const last = girths.stations.at(-1);
  const before = girths.stations.at(-2);
  return (
    <div>
      <p className="quiet mb-3 max-w-3xl text-sm">
        {tr(
          "Mark stations along the keel and tape the girth at each, keel to edge. Then tape along the hull at half girth from station to station: that way is longer than the centreline, and it is what the area hangs on. Where a keel begins or ends, tape just before and just after it; the way at half girth is taken on the body, not down the keel.",
        )}
      </p>
      <div className="mb-3 w-64">
        <Choice
          name={`${path}.sides`}
          label={tr("The girths are")}
          value={String(girths.sides)}
          onChange={(v) => set({ ...girths, sides: Number(v) })}
          options={[
            { value: "2", label: tr("of one side; both are meant") },
            { value: "1", label: tr("of all that is meant") },
          ]}
        />
      </div>
      <div className="grid gap-2">
        {girths.stations.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: stations have no other identity than their order
          <div key={i} className="grid grid-cols-[2rem_1fr_1fr_1fr_2.75rem] items-end gap-2">
            <span className="min-h-11 content-center font-semibold">{i + 1}</span>
            <NumberField
              name={`${path}.stations[${i}].atM`}
              label={i === 0 ? tr("At, centreline") : tr("Station {i} at", { i: i + 1 })}
              hidden={i > 0}
              unit="m"
              value={s.atM}
              onChange={(v) => put(i, { atM: v ?? EMPTY })}
            />
            <NumberField
              name={`${path}.stations[${i}].pathM`}
              label={i === 0 ? tr("Along the hull") : tr("Station {i} along the hull", { i: i + 1 })}
              hidden={i > 0}
              unit="m"
              value={s.pathM}
              onChange={(v) => put(i, { pathM: v })}
            />
            <NumberField
              name={`${path}.stations[${i}].girthM`}
              label={i === 0 ? tr("Girth") : tr("Station {i} girth", { i: i + 1 })}
              hidden={i > 0}
              unit="m"
              value={s.girthM}
              onChange={(v) => put(i, { girthM: v ?? EMPTY })}
            />
            <button
              type="button"
              className="btn btn-ghost min-h-11 px-2"
              aria-label={tr("Remove station {i}", { i: i + 1 })}
              disabled={girths.stations.length <= 3}
              onClick={() => set({ ...girths, stations: girths.stations.filter((_, k) => k !== i) })}
            >
              <Trash2 size={18} aria-hidden="true" />
            </button>
          </div>
        ))}
      </div>
      <FieldError name={`${path}.stations`} />
      <GirthCurve stations={girths.stations} line={line} />
      <button
        type="button"
        className="btn mt-2 min-h-11"
        onClick={() =>
          set({
            ...girths,
            stations: [
              ...girths.stations,
              { atM: last && before ? Number((2 * last.atM - before.atM).toFixed(3)) : EMPTY, girthM: EMPTY },
            ],
          })
        }
      >
        <Plus size={18} aria-hidden="true" /> {tr("Add a station")}
      </button>
    </div>
  );
}
