import type { Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { elapsed, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, ProductChoice, Steps, Takes, Workbench } from "./Workbench";

const { Num, Pick, Rows, Text, Tick } = fieldsOf<Schemas["AntifoulWork"]>();

type View = Schemas["Antifouled"];

/** Antifouling by zones, with its windows and the seasons it lasts. */
export function Antifouling({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("antifouling", surfaceId);
  return (
    <Workbench bench={bench} plan={plan} picture={(v) => <Picture view={v} />}>
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view }: { view: View }) {
  const { prose } = useSettings();
  const r = view.result;
  const zone = view.place.timeZone;
  return (
    <>
      <div className="grid gap-8 lg:grid-cols-[3fr_2fr]">
        <section className="min-w-0">
          <h2 className="text-lg">
            <Figure title={tr("The zones")} working={r.working}>
              {tr("Zones, their coats from below")}
            </Figure>
          </h2>
          <Zones zones={r.zones} signal={view.work.first} />
          <p className="mt-2 text-sm" data-testid="wear">
            {r.wear}
          </p>
        </section>
        <section>
          <h2 className="text-lg">{tr("Windows")}</h2>
          <table className="table-plain text-sm" data-testid="windows">
            <tbody>
              {r.tie && (
                <tr>
                  <td>
                    <b>{tr("Tie")}</b>
                    <br />
                    {prose(r.tie)}
                  </td>
                  <td>
                    {r.tieOpens ? (
                      <>
                        {stamp(r.tieOpens, zone)} to{" "}
                        {r.tieCloses ? stamp(r.tieCloses, zone) : tr("no end within the weather known")}
                      </>
                    ) : (
                      tr("not within the weather known")
                    )}
                    <br />
                    <span className="quiet">
                      {r.tieLaid ? tr("by the clock of the coat that is on") : tr("if it went on now")}
                    </span>
                  </td>
                </tr>
              )}
              <tr>
                <td>
                  <b>{tr("Dry before launch")}</b>
                </td>
                <td className="whitespace-nowrap">{elapsed(r.dryH)}</td>
              </tr>
              <tr>
                <td>
                  <b>{tr("Longest out of the water")}</b>
                </td>
                <td className="whitespace-nowrap">{r.maxH > 0 ? elapsed(r.maxH) : tr("no end by the sheet")}</td>
              </tr>
              {r.lastTo && (
                <tr>
                  <td>
                    <b>{tr("Last coat for the launch day")}</b>
                  </td>
                  <td>
                    {trNodes("{lastFrom}till {lastTo}", {
                      lastFrom:
                        r.lastFrom &&
                        r.lastFrom > view.now &&
                        tr("from {lastFrom} ", { lastFrom: stamp(r.lastFrom, zone) }),
                      lastTo: stamp(r.lastTo, zone),
                    })}
                  </td>
                </tr>
              )}
            </tbody>
          </table>
        </section>
      </div>
      <Findings findings={r.findings} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[3fr_2fr]">
        <Steps plan={r} title={tr("In this order")} />
        <Takes plan={r} />
      </div>
    </>
  );
}

/** Each zone as wide as its area, its coats stacked with their colours by name. */
function Zones({ zones, signal }: { zones: Schemas["AntifoulZoneCoats"][]; signal: string }) {
  const most = Math.max(...zones.map((z) => z.coats), 1);
  const all = zones.reduce((s, z) => s + z.areaM2, 0);
  const W = 640;
  const low = 22;
  let x = 0;
  return (
    <>
      <svg
        viewBox={`0 0 ${W} ${most * low + 8}`}
        className="w-full"
        role="img"
        aria-label={tr("zones with their coats")}
        data-testid="zones"
      >
        {zones.map((z) => {
          const w = Math.max(46, ((W - 46 * zones.length) * z.areaM2) / all + 46) - 6;
          x += w + 6;
          return (
            <g key={z.name}>
              {z.colours.map((c, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: coats have no other identity than their order
                <g key={i}>
                  <rect
                    x={x - w - 6}
                    y={(most - i - 1) * low + 4}
                    width={w}
                    height={low}
                    fill={
                      c === signal
                        ? "color-mix(in oklab, var(--shut) 55%, var(--sheet))"
                        : "color-mix(in oklab, var(--dew) 60%, var(--sheet))"
                    }
                    stroke="currentColor"
                  />
                  <text
                    x={x - w / 2 - 6}
                    y={(most - i) * low - 3}
                    fontSize={12}
                    textAnchor="middle"
                    className="fill-current"
                  >
                    {c.length * 6.5 < w ? c : i + 1}
                  </text>
                </g>
              ))}
            </g>
          );
        })}
      </svg>
      <table className="table-plain text-sm">
        <thead>
          <tr>
            <th>{tr("Zone")}</th>
            <th className="num">{tr("Area")}</th>
            <th className="num">{tr("Coats")}</th>
            <th className="num">{tr("Film")}</th>
            <th className="num">{tr("Litres")}</th>
            <th className="num">{tr("Seasons")}</th>
          </tr>
        </thead>
        <tbody>
          {zones.map((z) => (
            <tr key={z.name}>
              <td>{z.name}</td>
              <td className="num">
                <Quantity value={z.areaM2} unit="m²" />
              </td>
              <td className="num">{z.coats}</td>
              <td className="num">
                <Quantity value={z.dftUm} unit="µm" />
              </td>
              <td className="num">
                <Quantity value={z.litres} unit="L" />
              </td>
              <td className="num">{z.seasons.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Form({ view }: { view: View }) {
  const words = useFinishWords().data;
  return (
    <>
      <Part title={tr("Product, and what is under it")} open>
        <Grid>
          <ProductChoice
            label={tr("Antifouling")}
            kinds={["antifouling-soft", "antifouling-hard"]}
            chosen={view.work.productId}
          />
          <Num at="coats" label={tr("Coats all over")} />
          <Pick at="old" label={tr("Under it")} options={words?.olds ?? []} />
          <Tick at="oldCopper" label={tr("The old one holds copper")} />
          <Tick at="brass" label={tr("Bronze fittings under water")} />
          <ProductChoice at="tieId" label={tr("It ties to")} kinds={["tie-coat", "barrier"]} chosen={view.work.tieId} />
          <Text at="first" label={tr("Colour below, the signal")} />
          <Text at="second" label={tr("Colour above")} />
        </Grid>
      </Part>
      <Part title={tr("Zones")} open>
        <Rows
          at="zones"
          title={tr("Zones")}
          add={tr("Add a zone")}
          fresh={() => ({ name: tr("zone"), areaM2: 1, extra: 1 })}
        >
          {(p) => (
            <>
              <Text at={`${p}.name`} label={tr("Zone")} />
              <Num at={`${p}.areaM2`} label={tr("Area")} unit="m²" />
              <Num at={`${p}.extra`} label={tr("Coats more")} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("How long it is to last")} open>
        <Grid>
          <Num at="seasons" label={tr("Seasons wanted")} />
          <Num at="nm" label={tr("Nautical miles a season")} />
          <Num at="wearUm" label={tr("Wears in a year, if not as the sheet")} unit="µm" optional />
          <Num at="habit" label={tr("Seasons a hard one lasted her")} hint={tr("0: not known")} />
        </Grid>
      </Part>
    </>
  );
}
