import { useEffect, useRef, useState } from "react";
import { tr } from "../words/words";
import { SCREENS } from "./screens";
import { letters } from "./useKeys";

const KEYS = [
  ...SCREENS.map((p) => [p.key, p.name] as const),
  ["/", tr("Search, or say what to do; ctrl k too")] as const,
  ["y", tr("Yard, with more than one boat")] as const,
  ["i", tr("Library")] as const,
  ["n", tr("Next boat")] as const,
  ["u", tr("Metric or imperial")] as const,
  ["d", tr("Light or dark")] as const,
  ["?", tr("These keys")] as const,
];

/** What the keys do, and the switch for them. */
export function Keys({ close }: { close: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const [on, setOn] = useState(letters.on);
  return (
    <dialog ref={dialog} className="modal" aria-label={tr("Keys")} onClose={close}>
      <div className="modal-box border border-base-content bg-base-100">
        <h2 className="text-xl">{tr("Keys")}</h2>
        <table className="table-plain mt-2">
          <tbody>
            {KEYS.map(([k, what]) => (
              <tr key={k}>
                <td className="w-16">
                  <kbd className="kbd">{k}</kbd>
                </td>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="quiet mt-3 text-sm">
          {tr("On the ribbon the arrow keys read another instant. On the drawing Tab and Enter pick a surface.")}
        </p>
        <label className="mt-3 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={on}
            onChange={(e) => {
              letters.set(e.target.checked);
              setOn(e.target.checked);
            }}
          />
          {tr("Single letters go to pages; without them ctrl k does")}
        </label>
        <form method="dialog" className="mt-4 text-right">
          <button type="submit" className="btn btn-neutral">
            {tr("Close")}
          </button>
        </form>
      </div>
    </dialog>
  );
}
