import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useFinishWords, useLimits } from "../../api/queries";
import { type Lane, Ribbon } from "../../ui/Ribbon";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { weatherLanes } from "../../ui/weatherLanes";
import { tr } from "../../words/words";
import { OutlineFields } from "../survey/OutlineFields";
import { verdictLane } from "../weather/verdictLane";
import { DeckMap, type Tool } from "./DeckMap";
import { FromDrawing } from "./FromDrawing";
import { Grid, Part } from "./fields";
import { Panels } from "./NonSkidPanels";
import { Takes } from "./NonSkidTakes";
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

function Picture({
  view,
  selected,
  select,
  kept,
}: {
  view: View;
  selected: string;
  select: (s: string) => void;
  kept: boolean;
}) {
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
      <button
        type="button"
        className="btn btn-primary min-h-11"
        onClick={() => write("deck", [{ outer: view.sketch }])}
      >
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
          {tool.kind === "look"
            ? tr("drag the red dots to move; press a panel to read it")
            : tr("now press where it is")}
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
          <h2 className="text-lg">
            {tr("The whole set, {hours} of laying, and the hold after it", { hours: span(view.result.hours) })}
          </h2>
          <Ribbon ribbon={view.ribbon} zone={view.place.timeZone} lanes={lanes} />
        </section>
      )}
    </>
  );
}

const TOOLS = [
  { key: "roller", name: tr("roller") },
  { key: "square-notch", name: tr("square-notched trowel") },
  { key: "v-notch", name: tr("V-notched trowel") },
];

function Form({ view }: { view: View }) {
  const { read, write } = useDraft();
  const deck = (read("deck") ?? []) as Schemas["Polygon"][];
  return (
    <>
      <WayAndTexture productId={view.work.productId} />
      <Margins />
      <Fittings />
      <Splits />
      <Stencil />
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

function WayAndTexture({ productId }: { productId: View["work"]["productId"] }) {
  const { read } = useDraft();
  const words = useFinishWords().data;
  const school = String(read("school"));
  return (
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
            <ProductChoice kinds={school === "grit" ? ["non-skid-grit"] : ["non-skid-paint"]} chosen={productId} />
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
  );
}

function Margins() {
  return (
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
  );
}

function Fittings() {
  const { read, write } = useDraft();
  const words = useFinishWords().data;
  const name = (key: string) => words?.fittings.find((f) => f.key === key)?.name ?? key;
  return (
    <Part title={tr("Fittings and hatches ({read})", { read: ((read("fittings") ?? []) as unknown[]).length })}>
      <Rows
        at="fittings"
        title={tr("Dry-fitted places")}
        add={tr("Add a fitting")}
        empty={tr("Press one of the buttons above the deck, then the place; or add it here by its figures.")}
        fresh={() => ({
          name: "",
          kind: "cleat",
          x: 0,
          y: 0,
          lengthM: 0.25,
          widthM: 0.08,
          turnDeg: 0,
          round: false,
          mirror: true,
        })}
      >
        {(p) => (
          <>
            <Pick at={`${p}.kind`} label={tr("Kind")} options={words?.fittings ?? []} />
            <Num at={`${p}.x`} label={tr("Forward")} unit="m" />
            <Num at={`${p}.y`} label={tr("To port (−: starboard)")} unit="m" />
            {!read(`${p}.outline`) && (
              <Num at={`${p}.lengthM`} label={read(`${p}.round`) ? tr("Across") : tr("Long")} unit="m" />
            )}
            {!read(`${p}.outline`) && !read(`${p}.round`) && <Num at={`${p}.widthM`} label={tr("Wide")} unit="m" />}
            {!read(`${p}.round`) && <Num at={`${p}.turnDeg`} label={tr("Turned")} unit="°" />}
            <Num
              at={`${p}.marginM`}
              label={tr("Margin, if not usual")}
              hint={name(String(read(`${p}.kind`)))}
              unit="m"
              optional
            />
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
              return {
                name: "",
                kind: "other",
                x,
                y,
                lengthM: 0,
                widthM: 0,
                turnDeg: 0,
                round: false,
                mirror: false,
                outline,
              };
            }),
          ])
        }
      />
    </Part>
  );
}

function Splits() {
  const { read } = useDraft();
  return (
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
  );
}

function Stencil() {
  const { read, write } = useDraft();
  const stencil = read("stencil") as Schemas["NonskidStencil"] | undefined;
  return (
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
          <FromDrawing
            label={tr("A logo from a drawing, instead of letters")}
            take={(rings) => write("stencil.outlines", rings)}
          />
          <p className="quiet text-sm">{tr("It is cut in one piece; its bridges are cut away once it sticks.")}</p>
          <button
            type="button"
            className="btn btn-sm justify-self-start max-sm:min-h-11"
            onClick={() => write("stencil", undefined)}
          >
            {tr("No stencil")}
          </button>
        </>
      ) : (
        <button
          type="button"
          className="btn btn-sm justify-self-start max-sm:min-h-11"
          onClick={() =>
            write("stencil", {
              text: tr("NAME"),
              x: 1,
              y: 0,
              heightM: 0.15,
              turnDeg: 0,
              textured: false,
              bridgeM: 0.006,
            })
          }
        >
          {tr("Add a stencil")}
        </button>
      )}
    </Part>
  );
}
