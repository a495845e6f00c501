import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useFinishWords, useLimits } from "../../api/queries";
import { NumberField } from "../../ui/Form";
import { type Lane, Ribbon } from "../../ui/Ribbon";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { weatherLanes } from "../../ui/weatherLanes";
import { tr } from "../../words/words";
import { OutlineFields } from "../survey/OutlineFields";
import { verdictLane } from "../weather/verdictLane";
import { DeckMap, type Tool } from "./DeckMap";
import { FromDrawing } from "./FromDrawing";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, ProductChoice, Workbench } from "./Workbench";

const { Num, Pick, Rows, Text, Tick, useDraft } = fieldsOf<Schemas["NonskidWork"]>();

type View = Schemas["NonSkid"];

/** Panels of non-skid on a deck, drawn, measured, ordered and printed at 1:1. */
export function NonSkid({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("non-skid", surfaceId);
  const [selected, select] = useState("");
  return (
    <Workbench
      bench={bench}
      plan={plan}
      picture={(v) => <Picture view={v} selected={selected} select={select} kept={!bench.dirty && v.version > 0} />}
    >
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view, selected, select, kept }: { view: View; selected: string; select: (s: string) => void; kept: boolean }) {
  const { read, write } = useDraft();
  const [tool, setTool] = useState<Tool>({ kind: "look" });
  const words = useFinishWords().data;
  const { show } = useSettings();
  const fittings = (read("fittings") ?? []) as Schemas["NonskidFitting"][];
  const splits = (read("splits") ?? []) as Schemas["NonskidSplit"][];
  const deck = view.result.deck.flatMap((d) => d.outer);
  const press = (x: number, y: number) => {
    if (tool.kind === "fitting") {
      const k = words?.fittings.find((f) => f.key === tool.fitting);
      write("fittings", [
        ...fittings,
        {
          name: "",
          kind: tool.fitting,
          x,
          y,
          lengthM: k?.lengthM ?? 0.1,
          widthM: k?.widthM ?? 0.1,
          turnDeg: 0,
          round: k?.round ?? false,
          mirror: Boolean(read("symmetric")) && Math.abs(y) > 0.05,
        },
      ]);
    } else {
      const xs = deck.map((p) => p.x);
      const ys = deck.map((p) => p.y);
      const line =
        tool.kind === "across"
          ? { x1: x, x2: x, y1: Math.min(...ys) - 0.1, y2: Math.max(...ys) + 0.1, mirror: false }
          : {
              y1: y,
              y2: y,
              x1: Math.min(...xs) - 0.1,
              x2: Math.max(...xs) + 0.1,
              mirror: Boolean(read("symmetric")) && Math.abs(y) > 0.02,
            };
      write("splits", [...splits, { ...line, widthM: 0.03 }]);
    }
    setTool({ kind: "look" });
  };
  const tools: { name: string; tool: Tool }[] = [
    ...(words?.fittings ?? []).map((f) => ({ name: f.name, tool: { kind: "fitting", fitting: f.key } as Tool })),
    { name: tr("split across"), tool: { kind: "across" } },
    { name: tr("split along, or a waterway"), tool: { kind: "along" } },
  ];
  const limitOf = useLimits();
  const lanes: Lane[] =
    view.field.hours.length > 0
      ? [
          ...weatherLanes(view.ribbon.hours, show, view.surface?.name),
          verdictLane(view.field, view.place.timeZone, tr("The whole set may be laid"), limitOf),
        ]
      : [];
  if (deck.length === 0)
    return view.sketch.length > 2 ? (
      <button type="button" className="btn btn-primary min-h-11" onClick={() => write("deck", [{ outer: view.sketch }])}>
        {tr("Begin with the deck as the map draws it")}
      </button>
    ) : null;
  return (
    <>
      <div className="no-print mb-2 flex flex-wrap items-center gap-2 text-sm">
        <span className="font-semibold">{tr("Put on the deck:")}</span>
        {tools.map((t) => {
          const on = JSON.stringify(t.tool) === JSON.stringify(tool);
          return (
            <button
              key={t.name}
              type="button"
              className={`btn btn-sm max-sm:min-h-11 ${on ? "btn-neutral" : ""}`}
              aria-pressed={on}
              onClick={() => setTool(on ? { kind: "look" } : t.tool)}
            >
              {t.name}
            </button>
          );
        })}
        <span className="quiet">
          {tool.kind === "look" ? tr("drag the red dots to move; press a panel to read it") : tr("now press where it is")}
        </span>
      </div>
      <DeckMap
        layout={view.result}
        selected={selected}
        select={select}
        tool={tool}
        press={press}
        fittings={fittings}
        drag={(i, x, y) =>
          write(
            "fittings",
            fittings.map((f, k) => (k === i ? { ...f, x, y } : f)),
          )
        }
      />
      <Findings findings={view.result.findings} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[3fr_2fr]">
        <Panels view={view} selected={selected} select={select} kept={kept} />
        <Takes view={view} kept={kept} />
      </div>
      {lanes.length > 0 && (
        <section className="mt-5">
          <h2 className="text-lg">{tr("The whole set, {hours} of laying, and the hold after it", { hours: span(view.result.hours) })}</h2>
          <Ribbon ribbon={view.ribbon} zone={view.place.timeZone} lanes={lanes} />
        </section>
      )}
    </>
  );
}

function Panels({ view, selected, select, kept }: { view: View; selected: string; select: (s: string) => void; kept: boolean }) {
  const r = view.result;
  const unit = r.takes.unit;
  const lays = view.work.school === "paint" || view.work.school === "grit";
  const panels = [...r.panels].sort((a, b) => (a.order || 999) - (b.order || 999));
  return (
    <section className="min-w-0">
      <h2 className="text-lg">{tr("Panels, in the order to lay them")}</h2>
      <div className="overflow-x-auto">
        <table className="table-plain text-sm" data-testid="panels">
          <thead>
            <tr>
              <th>{tr("Panel")}</th>
              <th className="num">{tr("Area")}</th>
              <th className="num">{tr("Tape edge")}</th>
              {lays && <th className="num">{view.work.school === "grit" ? tr("Grit") : tr("Paint")}</th>}
              <th className="num">{tr("Takes")}</th>
              {lays && <th>{tr("Laid")}</th>}
              <th className="no-print max-sm:hidden">1:1</th>
            </tr>
          </thead>
          <tbody>
            {panels.map((p) => (
              <tr key={p.name} className={selected === p.name ? "bg-base-200" : ""} onClick={() => select(p.name)}>
                <td className="whitespace-nowrap">
                  {p.order > 0 ? `${p.order}. ` : ""}
                  <b>{p.name}</b> {p.order === 0 && tr("not laid")}
                  {p.flag && <span className="block whitespace-normal font-semibold text-error">✗ {p.flag}</span>}
                </td>
                <td className="num">
                  <Quantity value={p.areaM2} unit="m²" digits={2} />
                  {p.order === 0 && (
                    <span className="quiet block text-xs">
                      of <Quantity value={p.cellM2} unit="m²" digits={2} />
                    </span>
                  )}
                </td>
                <td className="num">
                  <Quantity value={p.maskM} unit="m" digits={1} />
                </td>
                {lays && (
                  <td className="num">
                    <Quantity value={p.amount} unit={unit} digits={2} />
                  </td>
                )}
                <td className="num whitespace-nowrap">{span(p.minutes / 60)}</td>
                {lays && (
                  <td className="min-w-28">
                    {p.order > 0 && <Laid name={p.name} unit={unit} even={r.even.find((e) => e.panel === p.name)} />}
                  </td>
                )}
                <td className="no-print whitespace-nowrap max-sm:hidden">
                  {p.order > 0 && kept && <Files surfaceId={view.surface?.id ?? ""} panel={p.name} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** What went onto a panel, and whether it is even with the others. */
function Laid({ name, unit, even }: { name: string; unit: string; even?: Schemas["NonskidEven"] }) {
  const { read, write } = useDraft();
  return (
    <>
      <NumberField
        name={`laid.${name}`}
        label={tr("Laid on {name}", { name })}
        hidden
        unit={unit}
        value={read(`laid.${name}`) as number | undefined}
        onChange={(v) => write(`laid.${name}`, v)}
      />
      {even && (
        <span className={`block text-xs ${Math.abs(even.offPct) > 10 ? "font-semibold text-error" : ""}`}>
          {even.offPct > 0 ? "+" : ""}
          {even.offPct.toFixed(0)} %: {even.says}
        </span>
      )}
    </>
  );
}

/** Drawings at 1:1 of a panel, or of all. */
function Files({ surfaceId, panel, paired }: { surfaceId: string; panel: string; paired?: boolean }) {
  const href = (format: string) =>
    `/api/surfaces/${surfaceId}/template?format=${format}${panel ? `&panel=${encodeURIComponent(panel)}` : ""}${paired ? "&paired=true" : ""}`;
  return (
    <span className="flex flex-wrap gap-x-3">
      {["svg", "dxf", "pdf"].map((f) => (
        <a key={f} className="linked inline-flex min-h-6 items-center max-sm:min-h-11" href={href(f)} download>
          {f.toUpperCase()}
        </a>
      ))}
    </span>
  );
}

function Takes({ view, kept }: { view: View; kept: boolean }) {
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
      <p className="mt-2 text-sm">{tr("Mask wider than seems needed; pull the tape while it is wet. Practise on the smallest panel.")}</p>
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

function Nest({ nest, sheet, sheets }: { nest: Schemas["NonskidNest"]; sheet: Schemas["NonskidSheet"]; sheets: number[] }) {
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

const TOOLS = [
  { key: "roller", name: tr("roller") },
  { key: "square-notch", name: tr("square-notched trowel") },
  { key: "v-notch", name: tr("V-notched trowel") },
];

function Form({ view }: { view: View }) {
  const { read, write } = useDraft();
  const words = useFinishWords().data;
  const school = String(read("school"));
  const deck = (read("deck") ?? []) as Schemas["Polygon"][];
  const stencil = read("stencil") as Schemas["NonskidStencil"] | undefined;
  const name = (key: string) => words?.fittings.find((f) => f.key === key)?.name ?? key;
  return (
    <>
      <Part title={tr("Way and texture")} open>
        <Grid>
          <Pick at="school" label={tr("Way")} options={words?.schools ?? []} />
          {school === "paint" && <Pick at="texture.tool" label={tr("Spread with")} options={TOOLS} />}
          {(school === "grit" || (school === "paint" && read("texture.tool") === "roller")) && (
            <Pick at="texture.grade" label={tr("Coarseness")} options={words?.grades ?? []} />
          )}
          {school === "paint" && read("texture.tool") !== "roller" && (
            <>
              <Num at="texture.widthMM" label={tr("Notch, wide")} unit="mm" />
              <Num at="texture.pitchMM" label={tr("Notch to notch")} unit="mm" />
              <Num at="texture.depthMM" label={tr("Notch, deep")} unit="mm" />
            </>
          )}
          {school === "paint" && <Num at="texture.wastePct" label={tr("Left in pot and tool")} unit="%" />}
          {(school === "paint" || school === "grit") && (
            <>
              <ProductChoice kinds={school === "grit" ? ["non-skid-grit"] : ["non-skid-paint"]} chosen={view.work.productId} />
              <Num at="rateM2H" label={tr("You lay in an hour")} unit="m²" />
            </>
          )}
          {school === "mats" && (
            <>
              <Num at="sheet.lengthM" label={tr("Sheet, long")} unit="m" />
              <Num at="sheet.widthM" label={tr("Sheet, wide")} unit="m" />
              <Num at="sheet.spaceM" label={tr("Between mats")} unit="m" />
              <Tick at="sheet.oneWay" label={tr("The pattern has a direction")} />
            </>
          )}
        </Grid>
        <p className="quiet text-sm">{words?.schools.find((s) => s.key === school)?.why}</p>
      </Part>
      <Part title={tr("Margins and corners")} open>
        <Grid>
          <Num at="edgeM" label={tr("Along rails and edges")} unit="m" />
          <Num at="openingM" label={tr("Round openings")} unit="m" />
          <Num at="outsideRM" label={tr("Outside corners, radius")} unit="m" />
          <Num at="insideRM" label={tr("Inside corners, radius")} unit="m" />
          <Num at="tapeMM" label={tr("Tape, wide")} unit="mm" hint={tr("gaps narrower than two tapes want two layers")} />
          <Tick at="symmetric" label={tr("Both sides alike")} hint={tr("a deck traced on one side is mirrored")} />
        </Grid>
      </Part>
      <Part title={tr("Fittings and hatches ({read})", { read: ((read("fittings") ?? []) as unknown[]).length })}>
        <Rows
          at="fittings"
          title={tr("Dry-fitted places")}
          add={tr("Add a fitting")}
          empty={tr("Press one of the buttons above the deck, then the place; or add it here by its figures.")}
          fresh={() => ({ name: "", kind: "cleat", x: 0, y: 0, lengthM: 0.25, widthM: 0.08, turnDeg: 0, round: false, mirror: true })}
        >
          {(p) => (
            <>
              <Pick at={`${p}.kind`} label={tr("Kind")} options={words?.fittings ?? []} />
              <Num at={`${p}.x`} label={tr("Forward")} unit="m" />
              <Num at={`${p}.y`} label={tr("To port (−: starboard)")} unit="m" />
              {!read(`${p}.outline`) && <Num at={`${p}.lengthM`} label={read(`${p}.round`) ? tr("Across") : tr("Long")} unit="m" />}
              {!read(`${p}.outline`) && !read(`${p}.round`) && <Num at={`${p}.widthM`} label={tr("Wide")} unit="m" />}
              {!read(`${p}.round`) && <Num at={`${p}.turnDeg`} label={tr("Turned")} unit="°" />}
              <Num at={`${p}.marginM`} label={tr("Margin, if not usual")} hint={name(String(read(`${p}.kind`)))} unit="m" optional />
              <Tick at={`${p}.mirror`} label={tr("Twin on the other side")} />
            </>
          )}
        </Rows>
        <FromDrawing
          label={tr("Outlines of fittings from a drawing, where they stand")}
          take={(rings) =>
            write("fittings", [
              ...((read("fittings") ?? []) as unknown[]),
              ...rings.map((r) => {
                const x = r.reduce((sum, c) => sum + c.x, 0) / r.length;
                const y = r.reduce((sum, c) => sum + c.y, 0) / r.length;
                const outline = r.map((c) => ({ x: c.x - x, y: c.y - y }));
                return { name: "", kind: "other", x, y, lengthM: 0, widthM: 0, turnDeg: 0, round: false, mirror: false, outline };
              }),
            ])
          }
        />
      </Part>
      <Part title={tr("Splits and waterways ({read})", { read: ((read("splits") ?? []) as unknown[]).length })}>
        <Rows
          at="splits"
          title={tr("Left smooth, from point to point")}
          add={tr("Add a split")}
          fresh={() => ({ x1: 0, y1: 0, x2: 1, y2: 0, widthM: 0.03, mirror: false })}
        >
          {(p) => (
            <>
              <Num at={`${p}.x1`} label={tr("From, forward")} unit="m" />
              <Num at={`${p}.y1`} label={tr("From, to port")} unit="m" />
              <Num at={`${p}.x2`} label={tr("To, forward")} unit="m" />
              <Num at={`${p}.y2`} label={tr("To, to port")} unit="m" />
              <Num at={`${p}.widthM`} label={tr("Wide")} unit="m" />
              <Tick at={`${p}.mirror`} label={tr("Twin on the other side")} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("Name or logo as a stencil")}>
        {stencil ? (
          <>
            <Grid>
              <Text at="stencil.text" label={tr("Letters")} />
              <Num at="stencil.x" label={tr("Middle, forward")} unit="m" />
              <Num at="stencil.y" label={tr("Middle, to port")} unit="m" />
              <Num at="stencil.heightM" label={tr("High")} unit="m" />
              <Num at="stencil.turnDeg" label={tr("Turned")} unit="°" />
              <Num at="stencil.bridgeM" label={tr("Bridges, wide")} unit="m" />
              <Tick at="stencil.textured" label={tr("Letters of non-skid")} hint={tr("else they stay smooth")} />
            </Grid>
            <FromDrawing label={tr("A logo from a drawing, instead of letters")} take={(rings) => write("stencil.outlines", rings)} />
            <p className="quiet text-sm">{tr("It is cut in one piece; its bridges are cut away once it sticks.")}</p>
            <button type="button" className="btn btn-sm justify-self-start max-sm:min-h-11" onClick={() => write("stencil", undefined)}>
              {tr("No stencil")}
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn btn-sm justify-self-start max-sm:min-h-11"
            onClick={() => write("stencil", { text: tr("NAME"), x: 1, y: 0, heightM: 0.15, turnDeg: 0, textured: false, bridgeM: 0.006 })}
          >
            {tr("Add a stencil")}
          </button>
        )}
      </Part>
      <Part title={tr("The deck's outline")} open={deck.length === 0}>
        <OutlineFields
          path="deck[0]"
          outline={{ marginM: 0, radiusM: 0, count: 1, ...(deck[0] ?? { outer: [] }) }}
          set={(o) => write("deck", [{ outer: o.outer, ...(o.holes?.length ? { holes: o.holes } : {}) }])}
          plain
        />
      </Part>
    </>
  );
}
