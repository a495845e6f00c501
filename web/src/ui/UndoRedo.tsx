import { Redo2, Undo2 } from "lucide-react";
import { tr } from "../words/words";

/** The buttons to go back on a change, and forward again; not there before the first change. */
export function UndoRedo({ of }: { of: { canUndo: boolean; canRedo: boolean; undo: () => void; redo: () => void } }) {
  if (!of.canUndo && !of.canRedo) return null;
  return (
    <span className="join no-print">
      <button
        type="button"
        className="btn join-item min-h-11"
        disabled={!of.canUndo}
        onClick={of.undo}
        title={tr("ctrl z")}
      >
        <Undo2 size={16} aria-hidden="true" /> {tr("Undo")}
      </button>
      <button
        type="button"
        className="btn join-item min-h-11"
        disabled={!of.canRedo}
        onClick={of.redo}
        title={tr("ctrl shift z")}
      >
        <Redo2 size={16} aria-hidden="true" /> {tr("Redo")}
      </button>
    </span>
  );
}
