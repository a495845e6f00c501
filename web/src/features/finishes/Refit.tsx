import { api, ok, type Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { Part } from "./fields";
import { fieldsOf } from "./typed";
import { useWork } from "./useWork";
import { Cautions, Findings, Workbench } from "./Workbench";

const { Num, Pick, Rows, Text, Tick, When, useDraft } = fieldsOf<Schemas["RefitWork"]>();

type View = Schemas["Refitted"];

const CORES = [
  { key: "", name: "not looked yet" },
  { key: "none", name: "solid, no core" },
  { key: "balsa", name: "balsa" },
  { key: "foam", name: "foam" },
  { key: "plywood", name: "plywood" },
];

const at = (id: string) => ({ params: { path: { id } } });

/** The edges of a job: bedding, masking, full cure, snags. */
export function Refit({ boatId, name }: { boatId: string; name: string }) {
  const bench = useWork<Schemas["RefitWork"], View>([boatId, "refit"], {
    get: () => ok(api.GET("/api/boats/{id}/finishes/refit", at(boatId))),
    preview: (body) => ok(api.POST("/api/boats/{id}/finishes/refit", { ...at(boatId), body })),
    path: `/api/boats/${boatId}/finishes/refit`,
    label: "the refit bench",
  });
  return (
    <Workbench
      bench={bench}
      title={name}
      plan={() => ok(api.POST("/api/boats/{id}/finishes/refit/plan", at(boatId)))}
      picture={(v) => <Picture view={v} />}
    >
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view }: { view: View }) {
  const r = view.result;
  const zone = view.place.timeZone;
  const when = (t?: string) => (t ? stamp(t, zone) : "");
  const { prose } = useSettings();
  return (
    <>
      <div className="grid gap-8 lg:grid-cols-2">
        <section>
          <h2 className="text-lg">Fit for the water</h2>
          {r.ready.length === 0 && <p className="quiet text-sm">No coat is logged yet.</p>}
          <ul data-testid="ready">
            {r.ready.map((k) => (
              <li key={k.surface} className={`rule-b py-1 ${k.late ? "font-semibold text-error" : ""}`}>
                {k.late ? "✗" : k.says === "cured" ? "✓" : "○"} {k.surface}: {k.says}
                {k.at && k.says !== "cured" && `, cured ${when(k.at)}`}
                <span className="quiet block text-xs">{k.product}</span>
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="text-lg">Hardware</h2>
          {r.bedding.length === 0 && <p className="quiet text-sm">Nothing to bed yet: list it below.</p>}
          <ul data-testid="bedding">
            {r.bedding.map((b, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: fittings may share a name
              <li key={i} className={`rule-b py-1 ${b.late ? "font-semibold text-error" : ""}`}>
                <b>{b.name}</b>: {b.next}
                {b.from && `, from ${when(b.from)}`}
                {b.loadAt && `; load from ${when(b.loadAt)}`}
                {b.advice.map((a) => (
                  <span key={prose(a)} className="quiet block text-sm">
                    {prose(a)}
                  </span>
                ))}
              </li>
            ))}
          </ul>
          <h2 className="mt-4 text-lg">
            Tape, <Quantity value={r.tapeM} unit="m" digits={0} /> on or to go on
          </h2>
          <ul data-testid="lines">
            {r.lines.map((l, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines may share a name
              <li key={i} className={`rule-b py-1 ${l.late ? "font-semibold text-error" : ""}`}>
                <b>{l.name}</b>: {l.says}
                {l.pullAt && `, ${when(l.pullAt)}`}
                {l.staysTo && !l.off && <span className="quiet block text-xs">the tape stands till {when(l.staysTo)}</span>}
              </li>
            ))}
          </ul>
        </section>
      </div>
      <Snags view={view} />
      <Findings findings={r.findings} />
      <Cautions list={r.cautions} />
    </>
  );
}

/** The list to walk with, each ticked off by a large box. */
function Snags({ view }: { view: View }) {
  const { read, write } = useDraft();
  const snags = (read("snags") ?? []) as Schemas["RefitSnag"][];
  const where = (id: string) => view.surfaces.find((s) => s.id === id)?.name;
  if (snags.length === 0) return null;
  return (
    <section className="mt-4">
      <h2 className="text-lg">Snags</h2>
      <ul data-testid="snags">
        {snags.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: snags have no other identity than their order
          <li key={i} className="rule-b">
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="checkbox size-7 border-base-content/60"
                checked={s.done}
                onChange={(e) => write(`snags[${i}].done`, e.target.checked)}
              />
              <span className={s.done ? "quiet line-through" : ""}>
                {s.stops && !s.done && <b className="text-error">stops the launch: </b>}
                {s.text} <span className="quiet text-sm">{where(s.surfaceId)}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Form({ view }: { view: View }) {
  const words = useFinishWords().data;
  const zone = view.place.timeZone;
  const surfaces = [{ key: "", name: "no surface" }, ...view.surfaces.map((s) => ({ key: s.id, name: s.name }))];
  const first = view.surfaces[0]?.id ?? "";
  return (
    <>
      <Part title="Snags" open>
        <Rows
          at="snags"
          title="Found"
          add="Add a snag"
          empty="Walk round her with the phone."
          fresh={() => ({ text: "", surfaceId: "", stops: false, done: false })}
        >
          {(p) => (
            <>
              <Text at={`${p}.text`} label="What" wide />
              <Pick at={`${p}.surfaceId`} label="Where" options={surfaces} />
              <Tick at={`${p}.stops`} label="Stops the launch" />
              <Tick at={`${p}.done`} label="Done" />
            </>
          )}
        </Rows>
      </Part>
      <Part title="Hardware to bed" open>
        <Rows
          at="hardware"
          title="Hardware"
          add="Add hardware"
          fresh={() => ({
            name: "cleat",
            surfaceId: first,
            compound: "polysulphide",
            sealed: false,
            through: true,
            backed: false,
            endGrain: false,
            core: "" as const,
          })}
        >
          {(p) => (
            <>
              <Text at={`${p}.name`} label="What" />
              <Pick at={`${p}.surfaceId`} label="On" options={surfaces} />
              <Pick at={`${p}.compound`} label="Bedded in" options={words?.compounds ?? []} />
              <Pick at={`${p}.core`} label="Between the skins there" options={CORES} />
              <Tick at={`${p}.through`} label="Bolted through" />
              <Tick at={`${p}.backed`} label="A plate behind" />
              <Tick at={`${p}.endGrain`} label="Holes in end grain" />
              <Tick at={`${p}.sealed`} label="Holes drilled and sealed" />
              <When at={`${p}.beddedAt`} label="Bedded, first tightened" zone={zone} now={view.now} />
              <When at={`${p}.snuggedAt`} label="Tightened again" zone={zone} now={view.now} />
            </>
          )}
        </Rows>
      </Part>
      <Part title="Masking plan" open>
        <Rows
          at="lines"
          title="Lines"
          add="Add a line"
          fresh={() => ({
            name: "boot-top",
            surfaceId: first,
            tape: "fine-line",
            lengthM: 10,
            twice: false,
            pull: "touch-dry",
            off: false,
          })}
        >
          {(p) => (
            <>
              <Text at={`${p}.name`} label="Line" />
              <Pick at={`${p}.surfaceId`} label="Bounds the coat of" options={surfaces} />
              <Pick at={`${p}.tape`} label="Tape" options={words?.tapes ?? []} />
              <Num at={`${p}.lengthM`} label="Long" unit="m" />
              <Pick
                at={`${p}.pull`}
                label="Pull when"
                options={[
                  { key: "wet", name: "wet" },
                  { key: "touch-dry", name: "touch-dry" },
                  { key: "hard", name: "hard" },
                ]}
              />
              <Tick at={`${p}.twice`} label="Two layers" />
              <When at={`${p}.maskedAt`} label="Masked" zone={zone} now={view.now} />
              <Tick at={`${p}.off`} label="Off" />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
