import type { Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { Term } from "../../ui/Term";
import { clock, day, monthOf, span } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, ProductChoice, Steps, Takes, Workbench } from "./Workbench";

const { Num, Pick, Tick, useDraft } = fieldsOf<Schemas["BrightworkWork"]>();

type View = Schemas["Bright"];

/** Clear finished wood, from what to strip to when it is due again. */
export function Brightwork({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("brightwork", surfaceId);
  return (
    <Workbench bench={bench} plan={plan} picture={(v) => <Picture view={v} />}>
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view }: { view: View }) {
  const { prose } = useSettings();
  const r = view.result;
  return (
    <>
      {r.dust && (
        <p className="mb-3 border-l-4 border-accent pl-3" data-testid="dust">
          {trNodes("That is {layer}. {advice}", { layer: <b>{r.dust.layer}</b>, advice: r.dust.advice })}
        </p>
      )}
      {r.veneer && <p className="mb-3 text-sm">{prose(r.veneer)}</p>}
      <div className="grid gap-8 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">{tr("Coats, and what they keep of the sun")}</h2>
          <Counts counts={r.counts} />
          <p className="mt-2 text-sm" data-testid="holds">
            {r.holds}
          </p>
        </section>
        <section>
          <h2 className="text-lg">{tr("A coat's hours")}</h2>
          <Share share={r.share} />
          <p className="mt-2 text-sm">
            {trNodes("A coat takes {litreM2}{x}", {
              litreM2: <Quantity value={r.litreM2} unit="L/m²" digits={3} />,
              x: r.ownFrom ? tr(", by your own log.") : tr(", by the sheet: log a coat, and your own counts."),
            })}
          </p>
          <h2 className="mt-4 text-lg">
            {trNodes("To stay {aboveDewH} h above the {term}, begin", {
              aboveDewH: view.work.aboveDewH,
              term: <Term>{tr("dew point")}</Term>,
            })}
          </h2>
          <Nights view={view} />
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

/** Film of so many coats as a bar to scale, with what it stops. */
function Counts({ counts }: { counts: Schemas["BrightworkCount"][] }) {
  const most = Math.max(...counts.map((c) => c.um), 1);
  return (
    <ul data-testid="counts">
      {counts.map((c, i) => (
        <li key={c.coats} className="rule-b py-2">
          <div className="flex items-baseline justify-between gap-3">
            <b>
              {tr("{coats, plural, one {one coat} other {{coats} coats}} {x}", {
                coats: c.coats,
                x: i === 0 ? tr("now") : tr("with next winter's"),
              })}
            </b>
            <span className="text-sm">
              {trNodes("{um}, {uvPct} % of the ultraviolet stopped", {
                um: <Quantity value={c.um} unit="µm" />,
                uvPct: c.uvPct.toFixed(1),
              })}
            </span>
          </div>
          <svg
            viewBox="0 0 400 16"
            className="mt-1 w-full"
            role="img"
            aria-label={tr("{um} µm", { um: c.um.toFixed(0) })}
            preserveAspectRatio="none"
          >
            <rect width={(400 * c.um) / most} height={16} fill="var(--closing)" stroke="currentColor" />
            {Array.from({ length: c.coats - 1 }, (_, k) => {
              const x = ((400 * c.um) / most / c.coats) * (k + 1);
              return <path key={x} d={`M${x} 0v16`} stroke="var(--sheet)" strokeWidth={1.5} />;
            })}
          </svg>
          <span className="quiet text-sm">
            {trNodes("{litres} in all{dueAt}", {
              litres: <Quantity value={c.litres} unit="L" />,
              dueAt:
                c.dueAt &&
                tr("; due again between {from} and {to}", {
                  from: monthOf(c.dueFrom, "UTC"),
                  to: monthOf(c.dueTo, "UTC"),
                }),
            })}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Share({ share }: { share: Schemas["BrightworkShare"] }) {
  const parts = [
    { name: tr("sanding"), h: share.sandH, fill: "var(--curing)" },
    { name: tr("masking"), h: share.maskH, fill: "var(--dew)" },
    { name: tr("cleaning"), h: share.cleanH, fill: "var(--open)" },
    { name: tr("laying"), h: share.layH, fill: "var(--closing)" },
  ];
  const all = parts.reduce((s, p) => s + p.h, 0);
  let x = 0;
  return (
    <div data-testid="share">
      <svg
        viewBox="0 0 400 22"
        className="w-full"
        role="img"
        aria-label={tr("how a coat's hours divide")}
        preserveAspectRatio="none"
      >
        {parts.map((p) => {
          const w = (400 * p.h) / all;
          x += w;
          return (
            <rect key={p.name} x={x - w} width={w} height={22} fill={p.fill} stroke="currentColor" strokeWidth={0.8} />
          );
        })}
      </svg>
      <ul className="mt-1 grid grid-cols-2 gap-x-4 text-sm sm:grid-cols-4">
        {parts.map((p) => (
          <li key={p.name} className="flex items-center gap-1">
            <span className="inline-block size-3 border border-base-content" style={{ background: p.fill }} />
            {p.name} {span(p.h)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Nights({ view }: { view: View }) {
  const zone = view.place.timeZone;
  if (view.nights.length === 0)
    return (
      <p className="text-sm">
        {tr("None in the weather known: lay in the morning, after the dew is off, or under cover.")}
      </p>
    );
  return (
    <ul className="text-sm" data-testid="nights">
      {view.nights.slice(0, 6).map((n) => (
        <li key={n.from} className="rule-b flex justify-between py-1">
          <b>{day(n.from, zone)}</b>
          <span>
            {tr("between {from} and {x}", {
              from: clock(n.from, zone),
              x: day(n.from, zone) === day(n.to, zone) ? clock(n.to, zone) : `${day(n.to, zone)}, ${clock(n.to, zone)}`,
            })}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Form({ view }: { view: View }) {
  const { read, write } = useDraft();
  const words = useFinishWords().data;
  const school = words?.bright.find((s) => s.key === read("school"));
  const seams = read("seams");
  return (
    <>
      <Part title={tr("What comes off, and how far down")} open>
        <Grid>
          <Pick
            at="seen"
            label={tr("Under the block you see")}
            options={[{ key: "", name: tr("not tried yet") }, ...(words?.dusts ?? [])]}
          />
          <Pick at="strip" label={tr("Strip by")} options={words?.strips ?? []} />
          <Num at="reachM" label={tr("A patch, arm's reach")} unit="m" />
          <Num at="veneerMM" label={tr("Veneer that is left, 0 if solid")} unit="mm" />
          <Num at="leaveMM" label={tr("Of it must stay")} unit="mm" />
          <Num at="bungs" label={tr("Bungs to set")} />
          <Tick at="stain" label={tr("Stain")} />
        </Grid>
        <p className="quiet text-sm">{words?.strips.find((s) => s.key === read("strip"))?.note}</p>
      </Part>
      <Part title={tr("School and coats")} open>
        <Grid>
          <Pick at="school" label={tr("School")} options={words?.bright ?? []} />
          <ProductChoice label={tr("Varnish")} kinds={["varnish"]} chosen={view.work.productId} />
          <Num at="now" label={tr("Coats before this season")} />
          <Num at="later" label={tr("Coats next winter")} hint={tr("hold some back, with what it risks")} />
          <Tick at="thinned" label={tr("First coats thinned")} />
          <Tick at="covered" label={tr("Under a cover when not used")} />
          <Num at="aboveDewH" label={tr("Above the dew point after a coat")} unit="h" />
        </Grid>
        {school && (
          <p className="quiet text-sm">{tr("{why} Its price: {price}", { why: school.why, price: school.price })}</p>
        )}
      </Part>
      <Part title={tr("Seam lines between coats")}>
        {seams ? (
          <>
            <Grid>
              <Num at="seams.spacingMM" label={tr("Line to line")} unit="mm" />
              <Num at="seams.lineMM" label={tr("A line, wide")} unit="mm" />
              <Num at="seams.lengthM" label={tr("A line, long")} unit="m" />
              <Num at="seams.widthM" label={tr("The face, wide")} unit="m" />
              <Num at="seams.after" label={tr("After coat")} />
            </Grid>
            <p className="text-sm" data-testid="seams">
              {trNodes("{lines, plural, one {one line} other {{lines} lines}}, {tapeM} of fine-line tape.", {
                lines: view.result.lines,
                tapeM: <Quantity value={view.result.tapeM} unit="m" digits={1} />,
              })}
            </p>
            <button
              type="button"
              className="btn btn-sm justify-self-start max-sm:min-h-11"
              onClick={() => write("seams", undefined)}
            >
              {tr("No seam lines")}
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn btn-sm justify-self-start max-sm:min-h-11"
            onClick={() => write("seams", { spacingMM: 45, lineMM: 4, lengthM: 2, widthM: 0.5, after: 3 })}
          >
            {tr("Draw seam lines")}
          </button>
        )}
      </Part>
    </>
  );
}
