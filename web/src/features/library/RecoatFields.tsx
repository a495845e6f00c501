import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { Check, Choice } from "../../ui/Form";
import { tr } from "../../words/words";
import { TableField } from "./TableField";

type Window = Schemas["ProductRecoat"];

/** The recoat windows of a sheet or of one grade, each by what goes over it. */
export function RecoatFields({
  name,
  windows,
  onChange,
}: {
  name: string;
  windows: Window[];
  onChange: (w: Window[]) => void;
}) {
  const kinds = useMeta().data?.kinds ?? [];
  const edit = (i: number, r: Partial<Window>) => onChange(windows.map((x, k) => (k === i ? { ...x, ...r } : x)));
  return (
    <>
      {windows.map((r, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: windows have no other identity than their order
        <div key={i} className="rule-b grid gap-4 py-3 sm:grid-cols-3">
          <div className="flex flex-col gap-3">
            <Choice
              name={`${name}[${i}].over`}
              label={tr("Over it goes")}
              value={r.over}
              onChange={(over) => edit(i, { over })}
              options={[
                { value: "any", label: tr("any product") },
                ...kinds.map((k) => ({ value: k.kind, label: k.name })),
              ]}
            />
            <Check
              name={`${name}[${i}].neverCloses`}
              label={tr("No maximum stated")}
              value={r.neverCloses ?? false}
              onChange={(neverCloses) => edit(i, { neverCloses, ...(neverCloses && { max: [] }) })}
            />
            <button
              type="button"
              className="linked w-fit text-sm"
              onClick={() => onChange(windows.filter((_, k) => k !== i))}
            >
              {tr("remove this window")}
            </button>
          </div>
          <TableField
            name={`${name}[${i}].min`}
            label={tr("Minimum")}
            value={r.min}
            onChange={(rows) => edit(i, { min: rows as Schemas["CurePoint"][] })}
          />
          {!r.neverCloses && (
            <TableField
              name={`${name}[${i}].max`}
              label={tr("Maximum")}
              value={r.max}
              onChange={(rows) => edit(i, { max: rows as Schemas["CurePoint"][] })}
            />
          )}
        </div>
      ))}
      <button
        type="button"
        className="btn mt-3 min-h-11"
        onClick={() => onChange([...windows, { over: tr("any"), min: [], max: [] }])}
      >
        {tr("Add a recoat window")}
      </button>
    </>
  );
}
