import { useEffect, useRef, useState } from "react";
import { api, ok, type Schemas } from "../api/client";
import { useChange } from "../api/queries";
import { tr, trNodes } from "../words/words";
import { clock, fromLocalField, longDay, toLocalField } from "./time";

/** Moves the program's time, for trying things out. */
export function SetClock({
  meta,
  zone,
  mode,
  close,
}: {
  meta: Schemas["Meta"];
  zone: string;
  mode: string;
  close: () => void;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const [at, setAt] = useState(() => toLocalField(meta.now, zone));
  const set = useChange(["clock", "weather", "readings"], (v: Schemas["ClockEdit"]) =>
    ok(api.PUT("/api/clock", { body: v })),
  );
  const move = (addH: number) => set.mutate({ mode: meta.clock.mode === "real" ? "fixed" : meta.clock.mode, addH });
  return (
    <dialog ref={dialog} className="modal" aria-label={tr("Clock")} onClose={close}>
      <div className="modal-box border border-base-content bg-base-100 text-base">
        <h2 className="text-xl">
          {trNodes("It is {now}, {now2} ({MODES}).", {
            now: longDay(meta.now, zone),
            now2: clock(meta.now, zone),
            MODES: mode,
          })}
        </h2>
        <p className="quiet mt-1 text-sm">
          {tr(
            "Everything is answered for this time. A moved clock is for trying things out; go back to the real clock to work.",
          )}
        </p>
        <div className="mt-4 flex flex-wrap gap-2">
          {[1, 6, 24].map((h) => (
            <button key={h} type="button" className="btn" onClick={() => move(h)}>
              {h === 24 ? tr("a day on") : tr("{h} h on", { h })}
            </button>
          ))}
          <button type="button" className="btn" onClick={() => move(-24)}>
            {tr("a day back")}
          </button>
        </div>
        <div className="mt-4 flex flex-wrap items-end gap-2">
          <label className="text-sm font-semibold">
            {tr("Set to")}
            <input
              type="datetime-local"
              className="input mt-1 min-h-11 bg-(--sheet)"
              value={at}
              onChange={(e) => setAt(e.target.value)}
            />
          </label>
          <button
            type="button"
            className="btn"
            disabled={!fromLocalField(at, zone)}
            onClick={() => set.mutate({ mode: "fixed", at: fromLocalField(at, zone) })}
          >
            {tr("stand there")}
          </button>
          <button
            type="button"
            className="btn"
            disabled={!fromLocalField(at, zone)}
            onClick={() => set.mutate({ mode: "running", at: fromLocalField(at, zone) })}
          >
            {tr("run on from there")}
          </button>
          <button type="button" className="btn" onClick={() => set.mutate({ mode: "real" })}>
            {tr("the real clock")}
          </button>
        </div>
        {set.error && <p className="mt-2 text-error">{set.error.message}</p>}
        <form method="dialog" className="mt-4 text-right">
          <button type="submit" className="btn btn-neutral">
            {tr("Close")}
          </button>
        </form>
      </div>
    </dialog>
  );
}
