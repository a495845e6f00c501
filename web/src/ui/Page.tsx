import type { ReactNode } from "react";
import type { Refused } from "../api/client";
import { tr } from "../words/words";

/** What every screen opens with: where we are, the answer, its reason. */
export function Answer({ over, answer, detail }: { over?: ReactNode; answer: ReactNode; detail?: ReactNode }) {
  return (
    <header className="mb-5">
      {over && <p className="quiet flex flex-wrap gap-x-5 text-sm">{over}</p>}
      <h1 className="mt-1 text-2xl leading-snug sm:text-[32px]" data-testid="answer">
        {answer}
      </h1>
      {detail && <p className="mt-1 max-w-4xl text-[15px]">{detail}</p>}
    </header>
  );
}

/** Shows children once loaded, else that it is loading or why not. */
export function Loaded<T>({
  query,
  children,
}: {
  query: { data?: T; error: Error | Refused | null };
  children: (data: T) => ReactNode;
}) {
  if (query.data !== undefined) return children(query.data);
  if (query.error)
    return (
      <div role="alert">
        <h1 className="text-2xl">{tr("This could not be loaded.")}</h1>
        <p>{query.error.message}</p>
      </div>
    );
  return (
    <p className="quiet" aria-busy="true">
      {tr("Loading…")}
    </p>
  );
}

/** A row of tabs. */
export function Tabs<K extends string>({
  tabs,
  at,
  onChange,
  label,
}: {
  tabs: { key: K; name: string }[];
  at: K;
  onChange: (k: K) => void;
  label: string;
}) {
  return (
    <div
      className="no-print mb-4 flex flex-wrap gap-x-4 gap-y-1 border-b border-base-300"
      role="tablist"
      aria-label={label}
    >
      {tabs.map((t) => (
        <button
          key={t.key}
          type="button"
          role="tab"
          aria-selected={t.key === at}
          className={`min-h-11 border-b-4 px-1 ${t.key === at ? "border-accent font-bold" : "border-transparent"}`}
          onClick={() => onChange(t.key)}
        >
          {t.name}
        </button>
      ))}
    </div>
  );
}
