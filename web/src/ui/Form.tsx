import { createContext, type ReactNode, useContext, useEffect, useId, useRef, useState } from "react";
import { Refused, type Words } from "../api/client";
import { POINT, tr } from "../words/words";
import { readQuantity } from "./numbers";
import { useSettings } from "./settings";
import { Meaning } from "./Term";

/** Messages of refused fields by path, for the fields below. */
export const Errors = createContext<Record<string, Words>>({});

/** What ties a field to its label, and to its error or hint. */
type Field = { id: string; "aria-invalid": boolean; "aria-describedby": string | undefined };

function Labelled({
  name,
  label,
  hint,
  hidden,
  children,
}: {
  name: string;
  label: string;
  hint?: string;
  hidden?: boolean;
  children: (field: Field, bad: boolean) => ReactNode;
}) {
  const id = useId();
  const { prose } = useSettings();
  const error = useContext(Errors)[name];
  const bad = error !== undefined;
  const said = bad || hint ? `${id}-said` : undefined;
  return (
    <div className="flex min-w-0 flex-col gap-1" data-field={name}>
      <div className={hidden ? "sr-only" : "flex items-baseline text-sm font-semibold"}>
        <label htmlFor={id}>{label}</label>
        {!hidden && <Meaning of={label} />}
      </div>
      {children({ id, "aria-invalid": bad, "aria-describedby": said }, bad)}
      {bad ? (
        <p id={said} className="text-sm text-error" role="alert">
          {prose(error)}
        </p>
      ) : (
        hint && (
          <p id={said} className="quiet text-xs">
            {hint}
          </p>
        )
      )}
    </div>
  );
}

/** Shows the error of something that is no single field, such as a list. */
export function FieldError({ name }: { name: string }) {
  const { prose } = useSettings();
  const error = useContext(Errors)[name];
  return (
    <div data-field={name}>
      {error !== undefined && (
        <p className="text-sm text-error" role="alert">
          {prose(error)}
        </p>
      )}
    </div>
  );
}

type Common<T> = { name: string; label: string; hint?: string; value: T | undefined; onChange: (v: T) => void };
const box = (bad: boolean) =>
  `w-full bg-(--sheet) text-base ${bad ? "border-error border-2" : "border-base-content/60"}`;

export function TextField({
  name,
  label,
  hint,
  value,
  onChange,
  type = "text",
  list,
}: Common<string> & { type?: string; list?: string[] }) {
  const options = useId();
  return (
    <Labelled name={name} label={label} hint={hint}>
      {(field, bad) => (
        <>
          <input
            {...field}
            type={type}
            className={`input min-h-11 ${box(bad)}`}
            value={value ?? ""}
            list={list && options}
            onChange={(e) => onChange(e.target.value)}
          />
          {list && (
            <datalist id={options}>
              {list.map((o) => (
                <option key={o} value={o} />
              ))}
            </datalist>
          )}
        </>
      )}
    </Labelled>
  );
}

export function AreaField({ name, label, hint, value, onChange, rows = 3 }: Common<string> & { rows?: number }) {
  return (
    <Labelled name={name} label={label} hint={hint}>
      {(field, bad) => (
        <textarea
          {...field}
          rows={rows}
          className={`textarea ${box(bad)}`}
          value={value ?? ""}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
  );
}

export function Choice<T extends string>({
  name,
  label,
  hint,
  value,
  onChange,
  options,
}: Common<T> & { options: { value: T; label: string }[] }) {
  return (
    <Labelled name={name} label={label} hint={hint}>
      {(field, bad) => (
        <select
          {...field}
          className={`select min-h-11 overflow-clip pr-9 [overflow-clip-margin:content-box] ${box(bad)}`}
          value={value ?? ""}
          onChange={(e) => onChange(e.target.value as T)}
        >
          {options.map((o) => (
            <option key={o.value} value={o.value}>
              {o.label}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

export function Check({ name, label, hint, value, onChange }: Common<boolean>) {
  return (
    <Labelled name={name} label={label} hint={hint}>
      {(field) => (
        <input
          {...field}
          type="checkbox"
          className="checkbox size-7 border-base-content/60"
          checked={value ?? false}
          onChange={(e) => onChange(e.target.checked)}
        />
      )}
    </Labelled>
  );
}

/**
 * A quantity kept in its metric unit and typed in the user's. What is typed is
 * not reformatted; a unit switch shows the kept value anew, so nothing is lost
 * by rounding. Text that is no number is kept as NaN; empty as undefined.
 */
export function NumberField({
  name,
  label,
  hint,
  value,
  unit,
  hidden,
  onChange,
}: Common<number | undefined> & { unit: string; hidden?: boolean }) {
  const { toShown, toMetric, shownUnit, units } = useSettings();
  const [text, setText] = useState(() => shownText(value, unit, toShown));
  const kept = useRef({ value, units });
  useEffect(() => {
    const k = kept.current;
    if (!Object.is(k.value, value) || k.units !== units) {
      kept.current = { value, units };
      if (!Number.isNaN(value)) setText(shownText(value, unit, toShown));
    }
  }, [value, unit, units, toShown]);
  return (
    <Labelled name={name} label={label} hint={hint} hidden={hidden}>
      {(field, bad) => (
        <div className={`input flex min-h-11 items-center gap-2 ${box(bad)}`}>
          <input
            {...field}
            inputMode={unit === "°" ? "text" : "decimal"}
            autoComplete="off"
            className="min-w-0 grow"
            value={text}
            onChange={(e) => {
              setText(e.target.value);
              const v = e.target.value.trim() === "" ? undefined : readQuantity(e.target.value, unit, toMetric);
              kept.current = { value: v, units };
              onChange(v);
            }}
          />
          <span className="quiet text-sm whitespace-nowrap">{shownUnit(unit)}</span>
        </div>
      )}
    </Labelled>
  );
}

function shownText(value: number | undefined, unit: string, toShown: (v: number, u: string) => number): string {
  if (value === undefined || Number.isNaN(value)) return "";
  return String(Number(toShown(value, unit).toPrecision(6))).replace(".", POINT);
}

/** Paths of what cannot be sent: text in number fields, and numbers missing that are required. */
export function unsendable(value: unknown, required: string[] = [], path = ""): Record<string, string> {
  const out: Record<string, string> = {};
  if (typeof value === "number" && Number.isNaN(value)) out[path] = tr("this is not a number");
  else if (Array.isArray(value))
    value.forEach((v, i) => {
      Object.assign(out, unsendable(v, [], `${path}[${i}]`));
    });
  else if (typeof value === "object" && value !== null)
    for (const [k, v] of Object.entries(value)) Object.assign(out, unsendable(v, [], path ? `${path}.${k}` : k));
  for (const r of required) {
    const at = r
      .split(/[.[\]]+/)
      .filter(Boolean)
      .reduce<unknown>((v, k) => (v as Record<string, unknown> | undefined)?.[k], value);
    if (at === undefined || at === null) out[r] = tr("this figure is needed");
  }
  return out;
}

/** The general message of a refused request, with those field messages that no field on the page shows. */
export function Refusal({ error }: { error: Error | null }) {
  const { prose } = useSettings();
  const ref = useRef<HTMLDivElement>(null);
  const [rest, setRest] = useState<[string, Words][]>([]);
  useEffect(() => {
    const fields = error instanceof Refused ? Object.entries(error.fields) : [];
    setRest(fields.filter(([path]) => !document.querySelector(`[data-field="${CSS.escape(path)}"]`)));
    if (error) ref.current?.scrollIntoView({ block: "nearest" });
  }, [error]);
  if (!error) return null;
  return (
    <div ref={ref} role="alert" className="border-l-4 border-error bg-(--sheet) px-3 py-2">
      <p className="font-semibold text-error">{error.message}</p>
      {rest.length > 0 && (
        <ul className="mt-1 text-sm">
          {rest.map(([p, m]) => (
            <li key={p}>
              {p && <b>{p}: </b>}
              {prose(m)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
