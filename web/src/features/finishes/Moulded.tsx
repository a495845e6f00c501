import type { Schemas } from "../../api/client";
import { elapsed } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, ProductChoice, Steps, Takes, Workbench } from "./Workbench";

const { Num, Rows, Text, Tick, useDraft } = fieldsOf<Schemas["MouldWork"]>();

type View = Schemas["Moulded"];

/** Panels of patterned laminate out of a mould. */
export function Moulded({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("moulded", surfaceId);
  return (
    <Workbench bench={bench} plan={plan} picture={(v) => <Picture view={v} />}>
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view }: { view: View }) {
  const r = view.result;
  return (
    <div className="grid gap-6 lg:grid-cols-[2fr_3fr]">
      <section>
        <h2 className="text-lg">{tr("Which way round the pattern comes out")}</h2>
        <Chain chain={r.chain} right={r.right} />
        <h2 className="mt-4 text-lg">{tr("The source, and the panels that come out of it")}</h2>
        <Fits view={view} />
        <div className="mt-4">
          <Takes plan={r} />
        </div>
      </section>
      <section>
        <dl className="grid grid-cols-3 gap-x-4 gap-y-2" data-testid="mould-figures">
          {[
            [tr("Bonded"), <Quantity key="b" value={r.panelM2} unit="m²" digits={2} />],
            [tr("Fillings of the mould"), r.rounds],
            [tr("Gels in"), tr("{gelMin} min at {pct} %", { gelMin: r.gelMin.toFixed(0), pct: r.pct.toFixed(1) })],
            [tr("Out of the mould after"), elapsed(r.demouldH)],
            [tr("A filling, wax to demould"), elapsed(r.partH)],
            [tr("Catalyst in all"), <Quantity key="c" value={r.catalystG} unit="g" />],
          ].map(([name, v]) => (
            <div key={String(name)}>
              <dt className="quiet text-sm">{name}</dt>
              <dd className="text-lg font-semibold">{v}</dd>
            </div>
          ))}
        </dl>
        <Findings findings={r.findings} />
        <div className="mt-4">
          <Steps plan={r} title={tr("Release, layers, demoulding")} />
        </div>
      </section>
    </div>
  );
}

/** Source, moulds and panel cut through, the pattern up or down in each. */
function Chain({ chain, right }: { chain: string; right: boolean }) {
  const parts = chain.split(" → ");
  const w = 120;
  return (
    <figure>
      <svg
        viewBox={`0 0 ${Math.max(3, parts.length) * (w + 24)} 84`}
        className="w-full max-w-xl"
        role="img"
        aria-label={chain}
        data-testid="chain"
      >
        {parts.map((p, i) => {
          const up = p.endsWith("raised");
          const x = i * (w + 24);
          const bumps = Array.from({ length: 6 }, () => `l4 ${up ? -9 : 9}h8l4 ${up ? 9 : -9}h4`).join("");
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: the castings have no other identity than their order
            <g key={i} transform={`translate(${x},0)`}>
              <path
                d={`M0 56v-26${bumps}V56Z`}
                fill={
                  i === parts.length - 1
                    ? right
                      ? "color-mix(in oklab, var(--open) 40%, var(--sheet))"
                      : "url(#wrong)"
                    : "var(--curing)"
                }
                stroke="currentColor"
                strokeWidth={1.4}
              />
              <text
                x={w / 2}
                y={76}
                fontSize={13}
                textAnchor="middle"
                className="fill-current"
                fontWeight={i === parts.length - 1 ? 700 : 400}
              >
                {p}
              </text>
              {i < parts.length - 1 && (
                <path d={`M${w + 5} 44h12m-5 -5l5 5l-5 5`} fill="none" stroke="currentColor" strokeWidth={1.6} />
              )}
            </g>
          );
        })}
        <defs>
          <pattern id="wrong" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="3" height="8" fill="var(--shut)" />
          </pattern>
        </defs>
      </svg>
      <figcaption className={right ? "text-sm" : "font-semibold text-error"}>
        {right ? tr("✓ as on a deck: every cast turns it over") : tr("✗ the wrong way round")}
      </figcaption>
    </figure>
  );
}

/** The source to scale with the largest panels laid on it, seams drawn where they are larger. */
function Fits({ view }: { view: View }) {
  const { work, result } = view;
  const biggest = [...work.panels].sort((a, b) => b.areaM2 - a.areaM2).slice(0, 3);
  if (biggest.length === 0) return <p className="quiet">{tr("No panels yet.")}</p>;
  const long = Math.max(work.sourceLengthM, work.sourceWidthM, ...biggest.map((p) => Math.max(p.lengthM, p.widthM)));
  const k = 250 / long;
  const source = (turned: boolean) =>
    (turned ? [work.sourceWidthM, work.sourceLengthM] : [work.sourceLengthM, work.sourceWidthM]) as [number, number];
  return (
    <div className="flex flex-wrap gap-4" data-testid="fits">
      {biggest.map((p) => {
        const seam = result.seams.find((s) => s.panel === p.name);
        const fitsTurned = !seam && (p.lengthM > work.sourceLengthM || p.widthM > work.sourceWidthM);
        const [sl, sw] = source(seam?.turned ?? fitsTurned);
        const h = Math.max(sw, p.widthM) * k + 2;
        return (
          <figure key={p.name}>
            <svg
              viewBox={`-1 -1 ${long * k + 2} ${h + 2}`}
              className="w-44"
              role="img"
              aria-label={tr("{name} on the source", { name: p.name })}
            >
              <rect width={sl * k} height={sw * k} fill="var(--curing)" stroke="currentColor" strokeDasharray="4 3" />
              <rect
                width={p.lengthM * k}
                height={p.widthM * k}
                fill="color-mix(in oklab, var(--open) 30%, transparent)"
                stroke={seam ? "var(--shut)" : "var(--open)"}
                strokeWidth={2}
              />
              {seam &&
                Array.from({ length: seam.long - 1 }, (_, n) => {
                  const x = ((p.lengthM * k) / seam.long) * (n + 1);
                  return (
                    <path
                      key={`l${x}`}
                      d={`M${x} 0v${p.widthM * k}`}
                      stroke="var(--shut)"
                      strokeWidth={3}
                      strokeDasharray="6 4"
                    />
                  );
                })}
              {seam &&
                Array.from({ length: seam.wide - 1 }, (_, n) => {
                  const y = ((p.widthM * k) / seam.wide) * (n + 1);
                  return (
                    <path
                      key={`w${y}`}
                      d={`M0 ${y}h${p.lengthM * k}`}
                      stroke="var(--shut)"
                      strokeWidth={3}
                      strokeDasharray="6 4"
                    />
                  );
                })}
            </svg>
            <figcaption className={seam ? "text-sm font-semibold text-error" : "text-sm"}>
              {p.name}:{" "}
              {seam
                ? trNodes("{pieces} pieces, a seam of {lengthM}", {
                    pieces: seam.pieces,
                    lengthM: <Quantity value={seam.lengthM} unit="m" />,
                  })
                : fitsTurned
                  ? tr("in one piece, turned")
                  : tr("in one piece")}
            </figcaption>
          </figure>
        );
      })}
    </div>
  );
}

function Form({ view }: { view: View }) {
  const { write } = useDraft();
  return (
    <>
      <Part title={tr("Source and mould")} open>
        <Grid>
          <Num at="sourceLengthM" label={tr("Good pattern, long")} unit="m" />
          <Num at="sourceWidthM" label={tr("Good pattern, wide")} unit="m" />
          <Tick at="hollow" label={tr("The source is a mould already")} hint={tr("its pattern is hollow")} />
          <Num
            at="casts"
            label={tr("Castings, source to panel")}
            hint={tr("a mould off a deck and a panel off that: 2")}
          />
          <Num at="moulds" label={tr("Moulds at hand")} />
          <Tick at="firstUse" label={tr("The mould is new")} hint={tr("six coats of wax, else one")} />
          <Num at="trimM" label={tr("Cut off all round")} unit="m" />
        </Grid>
      </Part>
      <Part title={tr("Layers and catalyst")} open>
        <Grid>
          <ProductChoice label={tr("Gelcoat")} kinds={["gelcoat"]} chosen={view.work.productId} />
          <Num at="gelUm" label={tr("Gelcoat, wet")} unit="µm" />
          <Num at="fillerMM" label={tr("Filler coat")} unit="mm" hint={tr("what levels the pattern's back")} />
          <Num at="tempC" label={tr("The shop has")} unit="°C" />
          <Num at="pct" label={tr("Catalyst, 0 as the sheet says")} unit="%" />
          <Num at="bondMM" label={tr("Bed of paste")} unit="mm" />
        </Grid>
        <Rows at="plies" title={tr("Plies")} add={tr("Add a ply")} fresh={() => ({ gsm: 300, cloth: false })}>
          {(p) => (
            <>
              <Num at={`${p}.gsm`} label={tr("Glass, g/m²")} />
              <Tick at={`${p}.cloth`} label={tr("Cloth, not mat")} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("Panels")} open>
        {view.layout.length > 0 && (
          <button
            type="button"
            className="btn justify-self-start max-sm:min-h-11"
            onClick={() => write("panels", view.layout)}
          >
            {tr("Take the {layout, plural, one {panel} other {{layout} panels}} of the non-skid layout", {
              layout: view.layout.length,
            })}
          </button>
        )}
        <Rows
          at="panels"
          title={tr("Wanted")}
          add={tr("Add a panel")}
          empty={tr("None yet.")}
          fresh={() => ({ name: tr("panel"), areaM2: 0.4, lengthM: 1, widthM: 0.5 })}
        >
          {(p) => (
            <>
              <Text at={`${p}.name`} label={tr("Name")} />
              <Num at={`${p}.lengthM`} label={tr("Long")} unit="m" />
              <Num at={`${p}.widthM`} label={tr("Wide")} unit="m" />
              <Num at={`${p}.areaM2`} label={tr("Area")} unit="m²" />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
