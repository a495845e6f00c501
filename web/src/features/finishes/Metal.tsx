import type { Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, Steps, Takes, Workbench } from "./Workbench";

const { Instants, Num, Pick, Rows, Text, Tick, When, useDraft } = fieldsOf<Schemas["MetalWork"]>();

type View = Schemas["Metalled"];

/** Bare metal from blasting to the last coat. */
export function Metal({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("metal", surfaceId);
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
      {view.work.blastedAt && (
        <section className="mb-4 max-w-3xl" data-testid="blast">
          <h2 className="text-lg">
            <Figure title={tr("From bare to primed")} working={r.working}>
              {tr("From bare to primed")}
            </Figure>
          </h2>
          <svg
            viewBox="0 0 600 30"
            className="w-full"
            role="img"
            aria-label={tr("{usedPct} % of the time to prime has gone", { usedPct: r.usedPct.toFixed(0) })}
          >
            <rect width={600} height={22} fill="var(--sheet)" stroke="currentColor" />
            <rect
              width={6 * r.usedPct}
              height={22}
              fill={r.usedPct >= 100 ? "var(--shut)" : r.usedPct > 70 ? "var(--closing)" : "var(--open)"}
            />
          </svg>
          <p className="text-sm">
            {tr("{usedPct} % gone{x}. The damper the air at the surface, the faster it goes.", {
              usedPct: r.usedPct.toFixed(0),
              x: r.primeBy
                ? tr("; primed by {primeBy}", { primeBy: stamp(r.primeBy, zone) })
                : tr(", and it stays fit within the weather known"),
            })}
          </p>
        </section>
      )}
      <div className="grid gap-8 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">{tr("Fresh water before every coat")}</h2>
          <ul data-testid="washes">
            {r.washes.map((w) => (
              <li key={w.coat} className="rule-b flex justify-between gap-3 py-1">
                <b>{tr("{x} coat {coat}", { x: w.at ? "✓" : "○", coat: w.coat })}</b>
                <span className="text-sm">
                  <Said words={w.says} />
                  {w.at && ` ${stamp(w.at, zone)}`}
                </span>
              </li>
            ))}
          </ul>
        </section>
        <section>
          {r.pairs.length > 0 && (
            <>
              <h2 className="text-lg">{tr("Unlike metals")}</h2>
              <ul data-testid="pairs">
                {r.pairs.map((p) => (
                  <li key={p.where + p.a + p.b} className={`rule-b py-1 text-sm ${p.bad ? "font-semibold" : ""}`}>
                    {p.bad ? "✗" : "✓"} {p.where}: {prose(p.says)}
                  </li>
                ))}
              </ul>
            </>
          )}
          {r.bandMM > 0 && (
            <p className="mt-2">
              {trNodes("Feather over {bandMM}, {bandM2} in all.", {
                bandMM: <Quantity value={r.bandMM} unit="mm" digits={0} />,
                bandM2: <Quantity value={r.bandM2} unit="m²" digits={2} />,
              })}
            </p>
          )}
          {r.accepted && (
            <p className="mt-2" data-testid="accepted">
              {trNodes("Less the profile the film is {meanUm} on average: {x}", {
                meanUm: <Quantity value={r.accepted.meanUm} unit="µm" />,
                x: <b>{r.accepted.accepted ? tr("✓ enough") : `✗ ${r.accepted.reasons.join("; ")}`}</b>,
              })}
            </p>
          )}
        </section>
      </div>
      <Findings findings={r.findings} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[3fr_2fr]">
        <Steps plan={r} title={tr("What is to be done")} />
        <Takes plan={r} />
      </div>
    </>
  );
}

function Form({ view }: { view: View }) {
  const { read } = useDraft();
  const words = useFinishWords().data;
  const zone = view.place.timeZone;
  const readings = (read("readingsUm") ?? []) as number[];
  return (
    <>
      <Part title={tr("Bared, and washed")} open>
        <Grid>
          <When at="blastedAt" label={tr("Blasted or ground bright")} zone={zone} now={view.now} />
          <Pick at="profile" label={tr("Profile")} options={words?.profiles ?? []} />
          <Num at="areaM2" label={tr("Bared")} unit="m²" />
          <Num at="coats" label={tr("Coats to go on")} />
        </Grid>
        <Instants at="washedAt" title={tr("Washes not in the log")} zone={zone} now={view.now} add={tr("Washed now")} />
      </Part>
      <Part title={tr("Edges and pits")}>
        <Grid>
          <Num at="edgeM" label={tr("Edge of sound old coating")} unit="m" />
          <Num at="oldUm" label={tr("Its film")} unit="µm" />
          <Num at="pitM2" label={tr("Pitted area")} unit="m²" />
          <Num at="pits" label={tr("Pits on a dm²")} />
          <Num at="pitMM" label={tr("Deepest pit")} unit="mm" />
        </Grid>
      </Part>
      <Part title={tr("Film readings on the profile")}>
        <Grid>
          <Num at="nominalUm" label={tr("Film wanted")} unit="µm" />
        </Grid>
        <Rows
          at="readingsUm"
          title={tr("Readings")}
          add={tr("Add a reading")}
          fresh={() => (readings.at(-1) ?? 150) as number}
        >
          {(p, i) => <Num at={p} label={tr("Reading {i}", { i: i + 1 })} unit="µm" />}
        </Rows>
      </Part>
      <Part title={tr("Unlike metals that touch")}>
        <Rows
          at="pairs"
          title={tr("Pairs")}
          add={tr("Add a pair")}
          fresh={() => ({ a: "stainless", b: "aluminium", where: tr("a fitting"), isolated: false })}
        >
          {(p) => (
            <>
              <Text at={`${p}.where`} label={tr("Where")} />
              <Pick at={`${p}.a`} label={tr("Metal")} options={words?.metals ?? []} />
              <Pick at={`${p}.b`} label={tr("and")} options={words?.metals ?? []} />
              <Tick at={`${p}.isolated`} label={tr("Parted by gasket and sleeves")} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("Slopes round posts")}>
        <Rows
          at="posts"
          title={tr("Posts")}
          add={tr("Add a post")}
          fresh={() => ({ name: tr("a post"), acrossMM: 60, collarMM: 60, riseMM: 6 })}
        >
          {(p) => (
            <>
              <Text at={`${p}.name`} label={tr("Post")} />
              <Num at={`${p}.acrossMM`} label={tr("Across")} unit="mm" />
              <Num at={`${p}.collarMM`} label={tr("Slope, wide")} unit="mm" />
              <Num at={`${p}.riseMM`} label={tr("Rises")} unit="mm" />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
