import type { ReactNode } from "react";
import { useContext, useId } from "react";
import { Check, Choice, Errors, FieldError, NumberField, TextField } from "../../ui/Form";
import { Said } from "../../ui/Sentence";
import { fromLocalField, stamp, toLocalField } from "../../ui/time";
import { tr } from "../../words/words";
import { useDraft } from "./useWork";

type Field = { at: string; label: string; hint?: string };

export function Num({ at, label, hint, unit = "", optional }: Field & { unit?: string; optional?: boolean }) {
  const { read, write } = useDraft();
  return (
    <NumberField
      name={at}
      label={label}
      hint={hint}
      unit={unit}
      value={read(at) as number | undefined}
      onChange={(v) => write(at, v ?? (optional ? undefined : Number.NaN))}
    />
  );
}

export function Text({ at, label, hint, type, wide }: Field & { type?: string; wide?: boolean }) {
  const { read, write } = useDraft();
  const field = (
    <TextField
      name={at}
      label={label}
      hint={hint}
      type={type}
      value={String(read(at) ?? "")}
      onChange={(v) => write(at, v)}
    />
  );
  return wide ? <div className="col-span-2">{field}</div> : field;
}

export function Pick({ at, label, hint, options }: Field & { options: { key: string; name: string }[] }) {
  const { read, write } = useDraft();
  return (
    <Choice
      name={at}
      label={label}
      hint={hint}
      value={String(read(at) ?? "")}
      onChange={(v) => write(at, v)}
      options={options.map((o) => ({ value: o.key, label: o.name }))}
    />
  );
}

export function Tick({ at, label, hint }: Field) {
  const { read, write } = useDraft();
  return <Check name={at} label={label} hint={hint} value={Boolean(read(at))} onChange={(v) => write(at, v)} />;
}

/** An instant in the place's time, or none; "now" is the program's. */
export function When({ at, label, hint, zone, now }: Field & { zone: string; now: string }) {
  const { read, write } = useDraft();
  const id = useId();
  const error = useContext(Errors)[at];
  const v = read(at) as string | undefined;
  return (
    <div className="col-span-2 flex min-w-0 flex-col gap-1" data-field={at}>
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      <div className="flex gap-1">
        <input
          id={id}
          type="datetime-local"
          className="input min-h-11 w-full min-w-0 border-base-content/60 bg-(--sheet)"
          value={v ? toLocalField(v, zone) : ""}
          onChange={(e) => write(at, fromLocalField(e.target.value, zone) || undefined)}
        />
        <button type="button" className="btn min-h-11" onClick={() => write(at, now)}>
          {tr("now")}
        </button>
      </div>
      {error ? (
        <p role="alert" className="text-sm text-error">
          <Said words={error} />
        </p>
      ) : (
        hint && <p className="quiet text-xs">{hint}</p>
      )}
    </div>
  );
}

/** A list that grows and shrinks; children draw the fields of the row at a path. */
export function Rows({
  at,
  title,
  add,
  fresh,
  empty,
  children,
}: {
  at: string;
  title: string;
  add: string;
  fresh: () => unknown;
  empty?: string;
  children: (path: string, i: number) => ReactNode;
}) {
  const { read, write } = useDraft();
  const rows = (read(at) ?? []) as unknown[];
  return (
    <section aria-label={title}>
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="text-base">{title}</h3>
        <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={() => write(at, [...rows, fresh()])}>
          {add}
        </button>
      </div>
      {rows.length === 0 && empty && <p className="quiet text-sm">{empty}</p>}
      <FieldError name={at} />
      {rows.map((_, i) => (
        <fieldset
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other identity than their order
          key={i}
          className="rule-b flex items-start gap-x-3 gap-y-2 py-2"
          data-row={`${at}[${i}]`}
          aria-label={`${title} ${i + 1}`}
        >
          <div className="grid min-w-0 grow grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] items-start gap-3">
            {children(`${at}[${i}]`, i)}
          </div>
          <button
            type="button"
            className="btn btn-ghost mt-5 min-h-11"
            aria-label={tr("Remove row {i} of {title}", { i: i + 1, title: title.toLowerCase() })}
            onClick={() =>
              write(
                at,
                rows.filter((_, k) => k !== i),
              )
            }
          >
            ✕
          </button>
        </fieldset>
      ))}
    </section>
  );
}

/** Instants as a list, with one for now. */
export function Instants({
  at,
  title,
  zone,
  now,
  add,
}: {
  at: string;
  title: string;
  zone: string;
  now: string;
  add: string;
}) {
  const { read, write } = useDraft();
  const all = (read(at) ?? []) as string[];
  return (
    <section aria-label={title}>
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="text-base">{title}</h3>
        <button type="button" className="btn btn-sm max-sm:min-h-11" onClick={() => write(at, [...all, now])}>
          {add}
        </button>
      </div>
      <ul>
        {all.map((t, i) => (
          <li key={t} className="flex items-center gap-2">
            {stamp(t, zone)}
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              aria-label={tr("Remove {t}", { t: stamp(t, zone) })}
              onClick={() =>
                write(
                  at,
                  all.filter((_, k) => k !== i),
                )
              }
            >
              ✕
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A part of the form that opens. */
export function Part({ title, open, children }: { title: string; open?: boolean; children: ReactNode }) {
  return (
    <details className="border-t border-base-content/40 py-1" open={open}>
      <summary className="min-h-11 cursor-pointer content-center font-slab text-lg font-semibold">{title}</summary>
      <div className="grid gap-4 pb-4">{children}</div>
    </details>
  );
}

/** Fields side by side. */
export function Grid({ children }: { children: ReactNode }) {
  return <div className="grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] items-start gap-3">{children}</div>;
}
