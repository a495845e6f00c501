import { useState } from "react";
import type { Fact } from "../api/keys";
import { useChange } from "../api/queries";
import { tr } from "../words/words";
import { Refusal } from "./Form";

type Props = { what: string; label: string; of: Fact[]; remove: () => Promise<unknown>; done: () => void };

/** A deletion that asks once more. */
export function Remove({ what, label, of, remove, done }: Props) {
  const [sure, setSure] = useState(false);
  const change = useChange(of, remove, done);
  return (
    <div className="mt-3">
      {sure ? (
        <p>
          {tr("Delete {what}?", { what })}{" "}
          <button type="button" className="btn btn-error btn-sm" onClick={() => change.mutate(undefined)}>
            {tr("Delete")}
          </button>{" "}
          <button type="button" className="btn btn-sm" onClick={() => setSure(false)}>
            {tr("Keep")}
          </button>
        </p>
      ) : (
        <button type="button" className="linked text-sm" onClick={() => setSure(true)}>
          {label}
        </button>
      )}
      <Refusal error={change.error} />
    </div>
  );
}
