import type { ReactNode } from "react";
import { useLocation } from "wouter";
import type { Schemas, Words } from "../../api/client";
import { useChange, useKinds, useProducts } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, Refusal } from "../../ui/Form";
import { HandoverList } from "../../ui/Handover";
import { Answer, Loaded } from "../../ui/Page";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { elapsed, span } from "../../ui/time";
import { UndoRedo } from "../../ui/UndoRedo";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { DraftContext, type Kept, readAt, useDraft, type useWork, writeAt } from "./useWork";

type View<W> = Kept<W> & {
  says?: Schemas["MessageSpan"][];
  place: Schemas["Place"];
  product: string;
  boatId: string;
  surface?: Schemas["Surface"];
  handovers: Schemas["Handover"][];
};

/** The part of an answer that all benches have. */
export type Plan = Pick<Schemas["MouldResult"], "steps" | "takes" | "findings" | "cautions" | "working">;

/** A workbench: the answer, the picture and figures, what to keep, and the form. */
export function Workbench<W, R extends View<W>>({
  bench,
  title,
  plan,
  picture,
  children,
}: {
  bench: ReturnType<typeof useWork<W, R>>;
  title?: string;
  /** Puts what is kept into the build-up. */
  plan: () => Promise<unknown>;
  picture: (view: R) => ReactNode;
  children: (view: R) => ReactNode;
}) {
  const draft = {
    read: (path: string) => readAt(bench.work, path),
    write: (path: string, value: unknown) => bench.set(writeAt(bench.work as W, path, value)),
  };
  return (
    <Loaded query={bench.kept}>
      {(kept) => {
        const view = bench.view ?? kept;
        const general = view.trouble[0]?.says ?? bench.errors[""];
        const wrong =
          general ??
          (Object.keys(bench.errors).length > 0
            ? tr("A figure below cannot be; what is shown is from before it.")
            : undefined);
        return (
          <DraftContext.Provider value={draft}>
            <Errors.Provider value={bench.errors}>
              <Answer
                over={
                  <>
                    <span>{view.surface?.name ?? title}</span>
                    {view.product && <span>{view.product}</span>}
                    <KeptLine bench={bench} />
                    {!bench.dirty && kept.version === 0 && <span>{tr("usual figures, nothing kept yet")}</span>}
                  </>
                }
                answer={
                  view.says && view.says.length > 0 && !wrong ? (
                    <Sentence spans={view.says} zone={view.place.timeZone} />
                  ) : (
                    <Said words={wrong ?? tr("Set it up below.")} />
                  )
                }
              />
              <Keep bench={bench} view={view} plan={plan} />
              {view.trouble.length === 0 && picture(view)}
              <div className="mt-2">{children(view)}</div>
            </Errors.Provider>
          </DraftContext.Provider>
        );
      }}
    </Loaded>
  );
}

/** Whether what is shown is kept. */
function KeptLine<W, R extends View<W>>({ bench }: { bench: ReturnType<typeof useWork<W, R>> }) {
  if (bench.waits) return <span className="font-semibold">{tr("kept on this device until it is sent")}</span>;
  if (!bench.dirty) return bench.canUndo || bench.canRedo ? <span role="status">{tr("kept")}</span> : null;
  return Object.keys(bench.errors).length > 0 || bench.refused ? (
    <span className="font-semibold text-error" role="status">
      {tr("not kept: see what is marked")}
    </span>
  ) : (
    <span role="status">{tr("keeping…")}</span>
  );
}

function Keep<W, R extends View<W>>({
  bench,
  view,
  plan: put,
}: {
  bench: ReturnType<typeof useWork<W, R>>;
  view: R;
  plan: () => Promise<unknown>;
}) {
  const [, go] = useLocation();
  const first = view.handovers[0]?.surfaceId;
  const plan = useChange(["steps", "finish"], put, () =>
    go(`/boats/${view.boatId}/build-up${first ? `?surface=${first}` : ""}`),
  );
  const stopped = view.handovers.some((h) => (h.stop ?? []).length > 0);
  const changes = view.handovers.some((h) => h.changes.length > 0);
  return (
    <div className="no-print mb-4">
      <div className="flex flex-wrap items-center gap-3">
        {changes && !stopped && !bench.dirty && (
          <button
            type="button"
            className="btn btn-primary min-h-11"
            disabled={plan.isPending}
            onClick={() => plan.mutate(undefined)}
          >
            {tr("Put it into the build-up")}
          </button>
        )}
        <UndoRedo of={bench} />
      </div>
      {view.handovers.map((h) => (
        <HandoverList key={h.surfaceId} handover={h} />
      ))}
      <Refusal error={bench.refused ?? plan.error} />
      <Conflict<R, W>
        error={bench.conflict}
        mine={bench.work as W}
        stored={(c) => c.work}
        onMine={bench.over}
        onTheirs={() => {
          bench.save.reset();
          bench.discard();
          bench.kept.refetch();
        }}
      />
    </div>
  );
}

/** Which product of some kinds it is done with. */
export function ProductChoice({
  at = "productId",
  label = tr("Product"),
  kinds,
  chosen,
}: {
  at?: string;
  label?: string;
  kinds: string[];
  chosen?: string;
}) {
  const { read, write } = useDraft();
  const products = (useProducts().data ?? []).filter((p) => kinds.includes(p.sheet.kind));
  return (
    <Choice
      name={at}
      label={label}
      value={String(read(at) || chosen || "")}
      onChange={(v) => write(at, v)}
      options={products.map((p) => ({ value: p.id, label: p.sheet.name }))}
    />
  );
}

/** What stands in the way, and what to mind. */
export function Findings({ findings }: { findings: Schemas["MessageFinding"][] }) {
  const { prose } = useSettings();
  return (
    <ul data-testid="findings">
      {findings.map((f) => (
        <li
          key={prose(f.text)}
          className={`mt-2 border-l-4 pl-3 ${f.stop ? "border-error font-semibold" : "border-warning"}`}
        >
          {f.stop ? "✗ " : "▲ "}
          {prose(f.text)}
        </li>
      ))}
    </ul>
  );
}

/** What a step of a bench is called. */
function named(s: Schemas["CraftStep"], kind = s.work as string): string {
  const name = s.name || (s.grit ? `${kind} with ${s.grit}` : kind);
  const coats =
    s.coats > 0
      ? `${tr("{coats, plural, one {1 coat} other {{coats} coats}}", { coats: s.coats })}${s.role === "main" ? "" : `, ${s.role}`}`
      : "";
  const more = [
    coats || name,
    s.colour,
    s.thinnerPct > 0 && `thinned ${s.thinnerPct} %`,
    s.keyGrit && tr("keyed with {keyGrit} before", { keyGrit: s.keyGrit }),
    s.pull && tr("tape pulled {pull}", { pull: s.pull }),
  ];
  return more.filter(Boolean).join(", ");
}

/** Steps in their order with the waits between them. */
export function Steps({ plan, title }: { plan: Pick<Plan, "steps" | "working">; title: string }) {
  const { prose } = useSettings();
  const { kindOf } = useKinds();
  if (plan.steps.length === 0) return null;
  return (
    <section>
      <h2 className="text-lg">
        <Figure title={title} working={plan.working}>
          {title}
        </Figure>
      </h2>
      <ol data-testid="steps">
        {plan.steps.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a plan may hold a step twice
          <li key={i} className="rule-b grid grid-cols-[1.6rem_1fr_auto] gap-2 py-2">
            <b>{i + 1}</b>
            <span>
              <b className="inline-block first-letter:uppercase">{named(s, kindOf(s.work).name)}</b>
              {s.where && <span className="quiet"> · {s.where.name}</span>}
              <br />
              <span className="text-sm">{prose(s.how ?? [])}</span>
            </span>
            <span className="quiet text-right text-sm whitespace-nowrap">
              {s.amount > 0 && (
                <>
                  <Quantity
                    value={s.amount}
                    unit={s.unit}
                    digits={Number.isInteger(s.amount) || s.amount >= 10 ? 0 : undefined}
                  />
                  <br />
                </>
              )}
              {s.workH > 0 && tr("{workH} work", { workH: span(s.workH) })}
              {(s.waitH ?? 0) > 0 && (
                <>
                  <br />
                  {tr("then wait {waitH}", { waitH: elapsed(s.waitH ?? 0) })}
                </>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What it takes, and the cautions where they bite. */
export function Takes({ plan, title = tr("What it takes") }: { plan: Plan; title?: string }) {
  return (
    <section>
      {plan.takes.length > 0 && (
        <>
          <h2 className="text-lg">{title}</h2>
          <table className="table-plain text-sm" data-testid="takes">
            <tbody>
              {plan.takes.map((t) => (
                <tr key={t.name}>
                  <td>{t.name}</td>
                  <td className="num">
                    {t.unit === "L" ? (
                      <Litres value={t.value} />
                    ) : (
                      <Quantity value={t.value} unit={t.unit} digits={t.value >= 100 ? 0 : 2} />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <Cautions list={plan.cautions} />
    </section>
  );
}

/** Litres, small ones as millilitres. */
export const Litres = ({ value }: { value: number }) =>
  value < 0.1 ? (
    <Quantity value={1000 * value} unit="mL" digits={value < 0.01 ? 1 : 0} />
  ) : (
    <Quantity value={value} unit="L" />
  );

export function Cautions({ list }: { list: Words[] }) {
  const { prose } = useSettings();
  return (
    <ul className="mt-3 text-sm">
      {list.map((c) => (
        <li key={prose(c)} className="mt-1 border-l-4 border-accent pl-3">
          {prose(c)}
        </li>
      ))}
    </ul>
  );
}
