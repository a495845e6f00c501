import { type ReactNode, useId, useRef } from "react";
import { createPortal } from "react-dom";
import type { Schemas } from "../api/client";
import { tr, word } from "../words/words";
import { useSettings } from "./settings";

/** A quantity with its unit, in the user's units. */
export function Quantity({ value, unit, digits }: { value: number; unit: string; digits?: number }) {
  const { show } = useSettings();
  const v = show(value, unit, digits);
  return (
    <span className="whitespace-nowrap">
      {v.text}
      {v.unit && <span className="quiet"> {v.unit}</span>}
    </span>
  );
}

/** A computed figure that opens its working: inputs, formula, intermediate values, source, warnings. */
export function Figure({
  title,
  working,
  children,
}: {
  title: string;
  working: Schemas["Working"];
  children: ReactNode;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const id = useId();
  return (
    <>
      <button
        type="button"
        className="linked text-left text-inherit"
        aria-haspopup="dialog"
        title={tr("Show the working")}
        onClick={() => dialog.current?.showModal()}
      >
        {children}
      </button>
      {createPortal(
        <dialog ref={dialog} className="modal" aria-labelledby={id}>
          <div className="modal-box max-w-2xl border border-base-content bg-base-100 text-left text-base font-normal">
            <h2 id={id} className="text-xl">
              {tr("{title}: the working", { title })}
            </h2>
            <WorkingTable working={working} />
            <form method="dialog" className="mt-4 text-right">
              <button type="submit" className="btn btn-neutral">
                {tr("Close")}
              </button>
            </form>
          </div>
          <form method="dialog" className="modal-backdrop">
            <button type="submit" tabIndex={-1}>
              {tr("close")}
            </button>
          </form>
        </dialog>,
        document.body,
      )}
    </>
  );
}

function Amount({ value, unit }: { value: number; unit: string }) {
  const size = Math.abs(value);
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3;
  const places = Number.isInteger(value) ? 0 : digits;
  const { shownUnit, metric } = useSettings();
  return (
    <>
      <Quantity value={value} unit={unit} digits={places} />
      {unit && shownUnit(unit) !== unit && (
        <span data-metric className="quiet block text-xs">
          {metric([{ value, unit, digits: places }])}
        </span>
      )}
    </>
  );
}

function WorkingTable({ working }: { working: Schemas["Working"] }) {
  const { prose, metric, units } = useSettings();
  return (
    <div className="mt-3 text-sm">
      {units === "imperial" && <p className="quiet mb-3">{tr("The formulas reckon in metric: the small figures.")}</p>}
      {working.warnings.length > 0 && (
        <ul className="mb-3 border-l-4 border-warning pl-3">
          {[...new Map(working.warnings.map((w) => [prose(w), w])).values()].map((w) => (
            <li key={prose(w)}>{prose(w)}</li>
          ))}
        </ul>
      )}
      {working.inputs.length > 0 && (
        <table className="table-plain">
          <thead>
            <tr>
              <th>{tr("From")}</th>
              <th className="num">{tr("Value")}</th>
            </tr>
          </thead>
          <tbody>
            {working.inputs.map((i) => (
              <tr key={i.label}>
                <td>{word(i.label)}</td>
                <td className="num">
                  <Amount value={i.value} unit={i.unit} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <table className="table-plain mt-4">
        <thead>
          <tr>
            <th>{tr("Step")}</th>
            <th className="num">{tr("Gives")}</th>
          </tr>
        </thead>
        <tbody>
          {working.steps.map((s) => (
            <tr key={s.label}>
              <td>
                <div className="font-semibold">{word(s.label)}</div>
                <div data-metric className="quiet">
                  {metric(s.formula)}
                </div>
                <div data-metric className="quiet text-xs">
                  {tr("Source: {source}", { source: metric(s.source) })}
                </div>
              </td>
              <td className="num">
                <Amount value={s.value} unit={s.unit} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
