import type { Schemas } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { Files } from "./NonSkidPanels";

type View = Schemas["NonSkid"];

export function Takes({ view, kept }: { view: View; kept: boolean }) {
  const { prose } = useSettings();
  const r = view.result;
  const sheets = r.nest ? Array.from({ length: r.nest.sheets }, (_, i) => i + 1) : [];
  return (
    <section>
      <h2 className="text-lg">
        <Figure title={tr("The layout")} working={r.working}>
          {tr("What it takes")}
        </Figure>
      </h2>
      <table className="table-plain text-sm" data-testid="takes">
        <tbody>
          {r.takes.litres > 0 && (
            <tr>
              <td>{tr("Textured paint to mix")}</td>
              <td className="num">
                <Quantity value={r.takes.litres} unit="L" />
              </td>
            </tr>
          )}
          {r.takes.gritKg > 0 && (
            <tr>
              <td>{tr("Grit to sow; half of it comes back")}</td>
              <td className="num">
                <Quantity value={r.takes.gritKg} unit="kg" digits={1} />
              </td>
            </tr>
          )}
          <tr>
            <td>{tr("Tape, with a spare")}</td>
            <td className="num">
              <Quantity value={r.takes.tapeM} unit="m" digits={0} />
            </td>
          </tr>
          {r.twiceM > 0 && (
            <tr>
              <td>{tr("of it in two layers, where one must lift early")}</td>
              <td className="num">
                <Quantity value={r.twiceM} unit="m" digits={1} />
              </td>
            </tr>
          )}
          <tr>
            <td>{tr("Left smooth")}</td>
            <td className="num">
              <Quantity value={r.deckM2 - r.areaM2} unit="m²" digits={1} />
            </td>
          </tr>
          {r.nest && (
            <tr>
              <td>{tr("Sheets, {usedPct} % of them used", { usedPct: r.nest.usedPct.toFixed(0) })}</td>
              <td className="num">{r.nest.sheets}</td>
            </tr>
          )}
        </tbody>
      </table>
      <p className="mt-2 text-sm">{prose(r.takes.spread ?? "")}</p>
      <p className="mt-2 text-sm">
        {tr("Mask wider than seems needed; pull the tape while it is wet. Practise on the smallest panel.")}
      </p>
      {r.nest && sheets.length > 0 && <Nest nest={r.nest} sheet={view.work.sheet} sheets={sheets} />}
      <div className="no-print mt-3 text-sm">
        <b>{tr("Drawings at 1:1")}</b>
        {kept ? (
          <>
            <div className="flex flex-wrap gap-x-4">
              {tr("all panels:")} <Files surfaceId={view.surface?.id ?? ""} panel="" />
            </div>
            <div className="flex flex-wrap gap-x-4">
              {tr("with their mirror images:")} <Files surfaceId={view.surface?.id ?? ""} panel="" paired />
            </div>
            {r.stencil && (
              <div className="flex flex-wrap gap-x-4">
                {tr("the stencil:")} <Files surfaceId={view.surface?.id ?? ""} panel="stencil" />
              </div>
            )}
            <p className="quiet text-xs">
              {tr("SVG and DXF in millimetres with registration marks; PDF on A4 pages to be glued, print at 100 %.")}
            </p>
          </>
        ) : (
          <p className="quiet">{tr("The files come as soon as it is kept.")}</p>
        )}
      </div>
    </section>
  );
}

function Nest({
  nest,
  sheet,
  sheets,
}: {
  nest: Schemas["NonskidNest"];
  sheet: Schemas["NonskidSheet"];
  sheets: number[];
}) {
  const k = 240 / sheet.lengthM;
  return (
    <div className="mt-2 flex flex-wrap gap-3" data-testid="sheets">
      {sheets.map((n) => (
        <svg
          key={n}
          viewBox={`0 0 240 ${sheet.widthM * k}`}
          className="w-44 border border-base-content/60"
          role="img"
          aria-label={tr("Sheet {n}", { n })}
        >
          {nest.mats
            .filter((m) => m.sheet === n)
            .map((m) => (
              <g key={m.panel}>
                <rect
                  x={m.x * k}
                  y={m.y * k}
                  width={m.lengthM * k}
                  height={m.widthM * k}
                  fill="color-mix(in oklab, var(--open) 26%, var(--sheet))"
                  stroke="currentColor"
                  strokeWidth={0.8}
                />
                <text
                  x={(m.x + m.lengthM / 2) * k}
                  y={(m.y + m.widthM / 2) * k + 4}
                  textAnchor="middle"
                  fontSize={12}
                  className="fill-current"
                >
                  {m.panel}
                  {m.turned ? " ⟳" : ""}
                </text>
              </g>
            ))}
        </svg>
      ))}
    </div>
  );
}
