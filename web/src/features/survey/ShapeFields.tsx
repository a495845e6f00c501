import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Choice, FieldError, NumberField, TextField } from "../../ui/Form";
import { tr } from "../../words/words";
import { EMPTY } from "./edit";

type Shape = Schemas["AreaShape"];

/** A list of shapes with counts, added and taken away. */
export function ShapeFields({
  path,
  shapes,
  set,
  kinds,
}: {
  path: string;
  shapes: Shape[];
  set: (s: Shape[]) => void;
  kinds: Schemas["AreaShapeKind"][];
}) {
  const put = (i: number, s: Partial<Shape>) => set(shapes.map((o, k) => (k === i ? { ...o, ...s } : o)));
  const kindOf = (key: string) => kinds.find((k) => k.kind === key);
  const choose = (i: number, kind: string) => {
    const keys = kindOf(kind)?.fields.map((f) => f.key) ?? [];
    const old = shapes[i] as Shape;
    const keep = (k: "aM" | "bM" | "cM") => (keys.includes(k) ? (old[k] ?? EMPTY) : undefined);
    put(i, { kind, aM: old.aM, bM: keep("bM"), cM: keep("cM") });
  };
  return (
    <div className="grid gap-3">
      {shapes.map((s, i) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: shapes have no other identity than their order
          key={i}
          className="grid grid-cols-2 items-end gap-2 sm:grid-cols-4 lg:grid-cols-[6.5rem_13rem_1fr_1fr_1fr_6rem_1fr_2.75rem]"
        >
          <Choice
            name={`${path}[${i}].minus`}
            label={tr("Is")}
            value={s.minus ? "minus" : "plus"}
            onChange={(v) => put(i, { minus: v === "minus" })}
            options={[
              { value: "plus", label: tr("+ added") },
              { value: "minus", label: tr("− taken off") },
            ]}
          />
          <Choice
            name={`${path}[${i}].kind`}
            label={tr("Shape")}
            value={s.kind}
            onChange={(k) => choose(i, k)}
            options={kinds.map((k) => ({ value: k.kind, label: k.name }))}
          />
          {kindOf(s.kind)?.fields.map((f) => (
            <NumberField
              key={f.key}
              name={`${path}[${i}].${f.key}`}
              label={f.label}
              unit="m"
              value={s[f.key]}
              onChange={(v) => put(i, { [f.key]: v ?? EMPTY })}
            />
          ))}
          <NumberField
            name={`${path}[${i}].count`}
            label={tr("Pieces")}
            unit=""
            value={s.count}
            onChange={(v) => put(i, { count: v ?? EMPTY })}
          />
          <TextField
            name={`${path}[${i}].name`}
            label={tr("What it is")}
            value={s.name ?? ""}
            onChange={(name) => put(i, { name })}
          />
          <button
            type="button"
            className="btn btn-ghost min-h-11 px-2"
            aria-label={tr("Remove shape {i}", { i: i + 1 })}
            disabled={shapes.length <= 1}
            onClick={() => set(shapes.filter((_, k) => k !== i))}
          >
            <Trash2 size={18} aria-hidden="true" />
          </button>
        </div>
      ))}
      <FieldError name={path} />
      <div>
        <button
          type="button"
          className="btn min-h-11"
          onClick={() => set([...shapes, { kind: "rectangle", aM: EMPTY, bM: EMPTY, count: 1 }])}
        >
          <Plus size={18} aria-hidden="true" /> {tr("Add a shape")}
        </button>
      </div>
    </div>
  );
}
