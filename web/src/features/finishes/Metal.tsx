import type { Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
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
            <Figure title="From bare to primed" working={r.working}>
              From bare to primed
            </Figure>
          </h2>
          <svg viewBox="0 0 600 30" className="w-full" role="img" aria-label={`${r.usedPct.toFixed(0)} % of the time to prime has gone`}>
            <rect width={600} height={22} fill="var(--sheet)" stroke="currentColor" />
            <rect
              width={6 * r.usedPct}
              height={22}
              fill={r.usedPct >= 100 ? "var(--shut)" : r.usedPct > 70 ? "var(--closing)" : "var(--open)"}
            />
          </svg>
          <p className="text-sm">
            {r.usedPct.toFixed(0)} % gone
            {r.primeBy ? `; primed by ${stamp(r.primeBy, zone)}` : ", and it stays fit within the weather known"}. The damper the air at the
            surface, the faster it goes.
          </p>
        </section>
      )}
      <div className="grid gap-8 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">Fresh water before every coat</h2>
          <ul data-testid="washes">
            {r.washes.map((w) => (
              <li key={w.coat} className="rule-b flex justify-between gap-3 py-1">
                <b>
                  {w.at ? "✓" : "○"} coat {w.coat}
                </b>
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
              <h2 className="text-lg">Unlike metals</h2>
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
              Feather over <Quantity value={r.bandMM} unit="mm" digits={0} />, <Quantity value={r.bandM2} unit="m²" digits={2} /> in all.
            </p>
          )}
          {r.accepted && (
            <p className="mt-2" data-testid="accepted">
              Less the profile the film is <Quantity value={r.accepted.meanUm} unit="µm" /> on average:{" "}
              <b>{r.accepted.accepted ? "✓ enough" : `✗ ${r.accepted.reasons.join("; ")}`}</b>
            </p>
          )}
        </section>
      </div>
      <Findings findings={r.findings} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[3fr_2fr]">
        <Steps plan={r} title="What is to be done" />
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
      <Part title="Bared, and washed" open>
        <Grid>
          <When at="blastedAt" label="Blasted or ground bright" zone={zone} now={view.now} />
          <Pick at="profile" label="Profile" options={words?.profiles ?? []} />
          <Num at="areaM2" label="Bared" unit="m²" />
          <Num at="coats" label="Coats to go on" />
        </Grid>
        <Instants at="washedAt" title="Washes not in the log" zone={zone} now={view.now} add="Washed now" />
      </Part>
      <Part title="Edges and pits">
        <Grid>
          <Num at="edgeM" label="Edge of sound old coating" unit="m" />
          <Num at="oldUm" label="Its film" unit="µm" />
          <Num at="pitM2" label="Pitted area" unit="m²" />
          <Num at="pits" label="Pits on a dm²" />
          <Num at="pitMM" label="Deepest pit" unit="mm" />
        </Grid>
      </Part>
      <Part title="Film readings on the profile">
        <Grid>
          <Num at="nominalUm" label="Film wanted" unit="µm" />
        </Grid>
        <Rows at="readingsUm" title="Readings" add="Add a reading" fresh={() => (readings.at(-1) ?? 150) as number}>
          {(p, i) => <Num at={p} label={`Reading ${i + 1}`} unit="µm" />}
        </Rows>
      </Part>
      <Part title="Unlike metals that touch">
        <Rows
          at="pairs"
          title="Pairs"
          add="Add a pair"
          fresh={() => ({ a: "stainless", b: "aluminium", where: "a fitting", isolated: false })}
        >
          {(p) => (
            <>
              <Text at={`${p}.where`} label="Where" />
              <Pick at={`${p}.a`} label="Metal" options={words?.metals ?? []} />
              <Pick at={`${p}.b`} label="and" options={words?.metals ?? []} />
              <Tick at={`${p}.isolated`} label="Parted by gasket and sleeves" />
            </>
          )}
        </Rows>
      </Part>
      <Part title="Slopes round posts">
        <Rows at="posts" title="Posts" add="Add a post" fresh={() => ({ name: "a post", acrossMM: 60, collarMM: 60, riseMM: 6 })}>
          {(p) => (
            <>
              <Text at={`${p}.name`} label="Post" />
              <Num at={`${p}.acrossMM`} label="Across" unit="mm" />
              <Num at={`${p}.collarMM`} label="Slope, wide" unit="mm" />
              <Num at={`${p}.riseMM`} label="Rises" unit="mm" />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
