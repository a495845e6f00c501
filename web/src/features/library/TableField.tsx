import { Plus, X } from "lucide-react";
import { useContext } from "react";
import { Errors, NumberField } from "../../ui/Form";
import { Said } from "../../ui/Sentence";
import { tr } from "../../words/words";

type Row = Record<string, number | undefined>;
type Column = { key: string; unit: string };
const HOURS: Column[] = [
  { key: "tempC", unit: "°C" },
  { key: "hours", unit: "h" },
];

/** Rows of two figures, such as hours at temperatures. The columns are named by their units. */
export function TableField({
  name,
  label,
  value,
  columns = HOURS,
  onChange,
}: {
  name: string;
  label: string;
  value: Row[] | null | undefined;
  columns?: Column[];
  onChange: (rows: Row[]) => void;
}) {
  const rows = value ?? [];
  const error = useContext(Errors)[name];
  return (
    <fieldset data-field={name}>
      <legend className="text-sm font-semibold">{label}</legend>
      {rows.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other identity than their order
        <div key={i} className="mt-1 grid grid-cols-[1fr_1fr_2.75rem] gap-2">
          {columns.map((c) => (
            <NumberField
              key={c.key}
              name={`${name}[${i}].${c.key}`}
              label={tr("{label}, row {i}, {unit}", { label, i: i + 1, unit: c.unit })}
              hidden
              unit={c.unit}
              value={row[c.key]}
              onChange={(v) => onChange(rows.map((r, k) => (k === i ? { ...r, [c.key]: v } : r)))}
            />
          ))}
          <button
            type="button"
            className="btn btn-square btn-ghost mt-1 min-h-11"
            aria-label={tr("Remove row {i} of {label}", { i: i + 1, label })}
            onClick={() => onChange(rows.filter((_, k) => k !== i))}
          >
            <X size={16} />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="linked mt-1 flex items-center gap-1 text-sm max-sm:min-h-11"
        aria-label={rows.length === 0 ? tr("enter {label}", { label }) : tr("another row of {label}", { label })}
        onClick={() => onChange([...rows, Object.fromEntries(columns.map((c) => [c.key, undefined]))])}
      >
        <Plus size={14} /> {rows.length === 0 ? tr("enter") : tr("another row")}
      </button>
      {error && (
        <p className="text-sm text-error" role="alert">
          <Said words={error} />
        </p>
      )}
    </fieldset>
  );
}
