import { api, ok, type Schemas } from "../../api/client";
import { useFinishWords } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Part } from "./fields";
import { fieldsOf } from "./typed";
import { useWork } from "./useWork";
import { Cautions, Findings, Workbench } from "./Workbench";

const { Num, Pick, Rows, Text, Tick, When, useDraft } = fieldsOf<Schemas["CompletionWork"]>();

type View = Schemas["Refitted"];

const CORES = [
  { key: "", name: tr("not looked yet") },
  { key: "none", name: tr("solid, no core") },
  { key: "balsa", name: tr("balsa") },
  { key: "foam", name: tr("foam") },
  { key: "plywood", name: tr("plywood") },
];

const at = (id: string) => ({ params: { path: { id } } });

/** The edges of a job: bedding, masking, full cure, snags. */
export function Refit({ boatId, name }: { boatId: string; name: string }) {
  const bench = useWork<Schemas["CompletionWork"], View>([boatId, "refit"], {
    get: () => ok(api.GET("/api/boats/{id}/finishes/refit", at(boatId))),
    preview: (body) => ok(api.POST("/api/boats/{id}/finishes/refit", { ...at(boatId), body })),
    path: `/api/boats/${boatId}/finishes/refit`,
    label: tr("the refit bench"),
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
          <h2 className="text-lg">{tr("Fit for the water")}</h2>
          {r.ready.length === 0 && <p className="quiet text-sm">{tr("No coat is logged yet.")}</p>}
          <ul data-testid="ready">
            {r.ready.map((k) => (
              <li key={k.surface} className={`rule-b py-1 ${k.late ? "font-semibold text-error" : ""}`}>
                {k.late ? "✗" : k.says === "cured" ? "✓" : "○"} {k.surface}: {k.says}
                {k.at && k.says !== "cured" && tr(", cured {at}", { at: when(k.at) })}
                <span className="quiet block text-xs">{k.product}</span>
              </li>
            ))}
          </ul>
        </section>
        <section>
          <h2 className="text-lg">{tr("Hardware")}</h2>
          {r.bedding.length === 0 && <p className="quiet text-sm">{tr("Nothing to bed yet: list it below.")}</p>}
          <ul data-testid="bedding">
            {r.bedding.map((b, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: fittings may share a name
              <li key={i} className={`rule-b py-1 ${b.late ? "font-semibold text-error" : ""}`}>
                <b>{b.name}</b>: {b.next}
                {b.from && tr(", from {from}", { from: when(b.from) })}
                {b.loadAt && tr("; load from {loadAt}", { loadAt: when(b.loadAt) })}
                {b.advice.map((a) => (
                  <span key={prose(a)} className="quiet block text-sm">
                    {prose(a)}
                  </span>
                ))}
              </li>
            ))}
          </ul>
          <h2 className="mt-4 text-lg">
            {trNodes("Tape, {tapeM} on or to go on", { tapeM: <Quantity value={r.tapeM} unit="m" digits={0} /> })}
          </h2>
          <ul data-testid="lines">
            {r.lines.map((l, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines may share a name
              <li key={i} className={`rule-b py-1 ${l.late ? "font-semibold text-error" : ""}`}>
                <b>{l.name}</b>: {l.says}
                {l.pullAt && `, ${when(l.pullAt)}`}
                {l.staysTo && !l.off && (
                  <span className="quiet block text-xs">
                    {tr("the tape stands till {staysTo}", { staysTo: when(l.staysTo) })}
                  </span>
                )}
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
  const snags = (read("snags") ?? []) as Schemas["CompletionSnag"][];
  const where = (id: string) => view.surfaces.find((s) => s.id === id)?.name;
  if (snags.length === 0) return null;
  return (
    <section className="mt-4">
      <h2 className="text-lg">{tr("Snags")}</h2>
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
                {s.stops && !s.done && <b className="text-error">{tr("stops the launch:")} </b>}
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
  const surfaces = [{ key: "", name: tr("no surface") }, ...view.surfaces.map((s) => ({ key: s.id, name: s.name }))];
  const first = view.surfaces[0]?.id ?? "";
  return (
    <>
      <Part title={tr("Snags")} open>
        <Rows
          at="snags"
          title={tr("Found")}
          add={tr("Add a snag")}
          empty={tr("Walk round her with the phone.")}
          fresh={() => ({ text: "", surfaceId: "", stops: false, done: false })}
        >
          {(p) => (
            <>
              <Text at={`${p}.text`} label={tr("What")} wide />
              <Pick at={`${p}.surfaceId`} label={tr("Where")} options={surfaces} />
              <Tick at={`${p}.stops`} label={tr("Stops the launch")} />
              <Tick at={`${p}.done`} label={tr("Done")} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("Hardware to bed")} open>
        <Rows
          at="hardware"
          title={tr("Hardware")}
          add={tr("Add hardware")}
          fresh={() => ({
            name: tr("cleat"),
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
              <Text at={`${p}.name`} label={tr("What")} />
              <Pick at={`${p}.surfaceId`} label={tr("On")} options={surfaces} />
              <Pick at={`${p}.compound`} label={tr("Bedded in")} options={words?.compounds ?? []} />
              <Pick at={`${p}.core`} label={tr("Between the skins there")} options={CORES} />
              <Tick at={`${p}.through`} label={tr("Bolted through")} />
              <Tick at={`${p}.backed`} label={tr("A plate behind")} />
              <Tick at={`${p}.endGrain`} label={tr("Holes in end grain")} />
              <Tick at={`${p}.sealed`} label={tr("Holes drilled and sealed")} />
              <When at={`${p}.beddedAt`} label={tr("Bedded, first tightened")} zone={zone} now={view.now} />
              <When at={`${p}.snuggedAt`} label={tr("Tightened again")} zone={zone} now={view.now} />
            </>
          )}
        </Rows>
      </Part>
      <Part title={tr("Masking plan")} open>
        <Rows
          at="lines"
          title={tr("Lines")}
          add={tr("Add a line")}
          fresh={() => ({
            name: tr("boot-top"),
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
              <Text at={`${p}.name`} label={tr("Line")} />
              <Pick at={`${p}.surfaceId`} label={tr("Bounds the coat of")} options={surfaces} />
              <Pick at={`${p}.tape`} label={tr("Tape")} options={words?.tapes ?? []} />
              <Num at={`${p}.lengthM`} label={tr("Long")} unit="m" />
              <Pick
                at={`${p}.pull`}
                label={tr("Pull when")}
                options={[
                  { key: "wet", name: tr("wet") },
                  { key: "touch-dry", name: tr("touch-dry") },
                  { key: "hard", name: tr("hard") },
                ]}
              />
              <Tick at={`${p}.twice`} label={tr("Two layers")} />
              <When at={`${p}.maskedAt`} label={tr("Masked")} zone={zone} now={view.now} />
              <Tick at={`${p}.off`} label={tr("Off")} />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
