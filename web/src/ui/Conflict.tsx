import { useEffect, useRef } from "react";
import { Refused } from "../api/client";
import { tr } from "../words/words";

function flat(v: unknown, path = "", out: Record<string, string> = {}): Record<string, string> {
  if (typeof v === "object" && v !== null)
    for (const [k, x] of Object.entries(v)) flat(x, path ? `${path} · ${k}` : k, out);
  else if (v !== undefined) out[path] = String(v);
  return out;
}

type Props<C, T> = {
  error: Error | null;
  mine: T;
  stored: (current: C) => T;
  onMine: (current: C) => void;
  onTheirs: (current: C) => void;
};

/**
 * A stale edit: both versions side by side where they differ, and the choice
 * between them. stored picks what corresponds to mine out of what the server has now.
 */
export function Conflict<C, T>({ error, mine, stored, onMine, onTheirs }: Props<C, T>) {
  const dialog = useRef<HTMLDialogElement>(null);
  const stale = error instanceof Refused && error.status === 409 && error.current !== undefined;
  useEffect(() => {
    if (stale) dialog.current?.showModal();
    else dialog.current?.close();
  }, [stale]);
  if (!stale) return null;
  const current = error.current as C;
  return (
    <dialog ref={dialog} className="modal" aria-label={tr("Changed elsewhere")}>
      <div className="modal-box max-w-2xl border border-base-content bg-base-100">
        <h2 className="text-xl">{tr("This was changed elsewhere while you were editing.")}</h2>
        <p className="mt-1">{tr("Nothing of yours is stored yet. Choose which version is to stay.")}</p>
        <Differences mine={mine} stored={stored(current)} />
        <div className="mt-4 flex flex-wrap justify-end gap-2">
          <button type="button" className="btn" onClick={() => onTheirs(current)}>
            {tr("Take what is stored")}
          </button>
          <button type="button" className="btn btn-primary" onClick={() => onMine(current)}>
            {tr("Save mine over it")}
          </button>
        </div>
      </div>
    </dialog>
  );
}

/** Two versions side by side where they differ. */
export function Differences({ mine, stored }: { mine: unknown; stored: unknown }) {
  const a = flat(mine);
  const b = flat(stored);
  const fields = new Set(Object.keys((mine ?? {}) as object));
  const top = (k: string) => k.split(" · ")[0] ?? "";
  const keys = [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((k) => a[k] !== b[k] && fields.has(top(k)));
  return (
    <table className="table-plain mt-3">
      <thead>
        <tr>
          <th>{tr("What differs")}</th>
          <th>{tr("Yours")}</th>
          <th>{tr("Stored now")}</th>
        </tr>
      </thead>
      <tbody>
        {keys.map((k) => (
          <tr key={k}>
            <td>{k}</td>
            <td className="font-semibold">{a[k] ?? "–"}</td>
            <td>{b[k] ?? "–"}</td>
          </tr>
        ))}
        {keys.length === 0 && (
          <tr>
            <td colSpan={3}>{tr("The two versions are alike.")}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
