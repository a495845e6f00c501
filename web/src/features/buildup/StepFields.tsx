import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { useKinds } from "../../api/queries";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import type { Draft } from "./plan";
import { WhereFields } from "./WhereFields";

type Props = {
  step: Draft;
  i: number;
  last: boolean;
  done: number;
  line?: Schemas["BuildupLine"];
  /** What the step unfolds into. */
  tasks: Schemas["Task"][];
  products: Schemas["Product"][];
  methods: Schemas["FilmMethod"][];
  change: (d: Partial<Draft>) => void;
  choose: (productId: string) => void;
  move: (by: number) => void;
  remove: () => void;
  findings: ReactNode;
};

/** One step: what it is, its figures, what it comes to, what is wrong with it. */
export function StepFields({
  step: s,
  i,
  last,
  done,
  line,
  tasks,
  products,
  methods,
  change,
  choose,
  move,
  remove,
  findings,
}: Props) {
  const kind = useKinds().kindOf(s.work);
  const { prose } = useSettings();
  const sheet = products.find((p) => p.id === s.productId)?.sheet;
  const path = `steps[${i}]`;
  const name = kind.name ?? s.work;
  return (
    <fieldset className="rule-b py-4" data-step={i}>
      <legend className="sr-only">{tr("Step {i}, {name}", { i: i + 1, name })}</legend>
      <div className="flex items-end gap-2">
        <span className="w-7 pb-2 font-slab text-xl">{i + 1}</span>
        <div className="grow">
          {kind.films ? (
            <Choice
              name={`${path}.productId`}
              label={kind.lays ? tr("Product") : tr("{name}, with", { name })}
              value={s.productId ?? ""}
              onChange={choose}
              options={products.map((p) => ({
                value: p.id,
                label: `${p.sheet.name}${p.sheet.example ? " (example)" : ""}`,
              }))}
            />
          ) : (
            <p className="min-h-11 content-center text-lg font-semibold first-letter:uppercase">
              {s.name ||
                `${name}${kind.gritted && s.grit ? tr(" with {grit}", { grit: s.grit }) : ""}${s.agent ? tr(" with {agent}", { agent: s.agent }) : ""}`}
              {s.where && <span className="quiet"> · {s.where.name}</span>}
            </p>
          )}
        </div>
        <IconButton label={tr("Move step {i} earlier", { i: i + 1 })} disabled={i === 0} onClick={() => move(-1)}>
          <ArrowUp size={18} />
        </IconButton>
        <IconButton label={tr("Move step {i} later", { i: i + 1 })} disabled={last} onClick={() => move(1)}>
          <ArrowDown size={18} />
        </IconButton>
        <IconButton label={tr("Remove step {i}", { i: i + 1 })} disabled={done > 0} onClick={remove}>
          <Trash2 size={18} />
        </IconButton>
      </div>
      {kind.films ? (
        <CoatFields step={s} path={path} sheet={sheet} methods={methods} change={change} />
      ) : (
        <WorkFields step={s} path={path} kind={kind} change={change} />
      )}
      {s.origin && (
        <p className="quiet mt-1 text-sm">
          {trNodes("From the {bench} bench{how}", {
            bench: s.origin.bench,
            how: (s.how ?? []).length > 0 && <>: {prose(s.how ?? [])}</>,
          })}
        </p>
      )}
      <WhereFields step={s} path={path} kind={kind} change={change} />
      {line &&
        (kind.films ? (
          <Outcome line={line} name={sheet?.name ?? ""} done={done} coats={s.coats ?? 0} />
        ) : (
          <Hours line={line} name={name} tasks={tasks} />
        ))}
      {findings}
    </fieldset>
  );
}

/** What a coat or a fill is laid with. */
function CoatFields({
  step: s,
  path,
  sheet,
  methods,
  change,
}: Pick<Props, "step" | "methods" | "change"> & { path: string; sheet?: Schemas["ProductSheet"] }) {
  const at = fieldsOf(s, change, path);
  return (
    <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-5">
      <NumberField {...at("coats")} label={tr("Coats")} unit="" />
      <NumberField {...at("dftUm")} label={tr("Dry, each")} unit="µm" />
      <Choice
        name={`${path}.method`}
        label={tr("Laid by")}
        value={s.method}
        onChange={(method) =>
          change({
            method,
            lossPct: sheet?.lossPct?.[method] ?? methods.find((m) => m.key === method)?.lossPct ?? s.lossPct,
          })
        }
        options={methods.map((m) => ({ value: m.key, label: m.name }))}
      />
      <NumberField {...at("lossPct")} label={tr("Loss")} unit="%" />
      <NumberField {...at("thinnerPct")} label={tr("Thinner")} unit="%" />
      {(s.thinnerPct ?? 0) > 0 && (
        <TextField
          {...at("thinnerName")}
          label={tr("Thinned with")}
          hint={
            sheet?.thinnerName
              ? tr("the sheet: {thinnerName}", { thinnerName: sheet.thinnerName })
              : tr("the sheet names none")
          }
        />
      )}
      {(sheet?.grades?.length ?? 0) > 0 && (
        <div className="col-span-2">
          <Choice
            {...at("grade")}
            label={tr("Hardener")}
            options={[
              { value: "", label: tr("standard") },
              ...(sheet?.grades ?? []).map((g) => ({ value: g.name, label: g.name })),
            ]}
          />
        </div>
      )}
      <TextField {...at("colour")} label={tr("Colour")} />
    </div>
  );
}

/** What other work is done with. */
function WorkFields({
  step: s,
  path,
  kind,
  change,
}: Pick<Props, "step" | "change"> & { path: string; kind: ReturnType<ReturnType<typeof useKinds>["kindOf"]> }) {
  const at = fieldsOf(s, change, path);
  return (
    <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
      {s.work === "other" && (
        <div className="col-span-2">
          <TextField {...at("name")} label={tr("What is done")} />
        </div>
      )}
      {kind.gritted && (
        <>
          <NumberField {...at("grit")} label={tr("Grit")} unit="P" />
          <NumberField {...at("removedUm")} label={tr("Takes off")} unit="µm" />
          <Check {...at("wet")} label={tr("With water")} hint={tr("antifouling: always")} />
        </>
      )}
      {kind.agent && (
        <Choice
          {...at("agent")}
          label={tr("With")}
          options={["water", "detergent", "solvent"].map((v) => ({ value: v, label: v }))}
        />
      )}
      <div className="col-span-2">
        <TextField {...at("note")} label={tr("Note")} />
      </div>
    </div>
  );
}

function Hours({ line, name, tasks }: { line: Schemas["BuildupLine"]; name: string; tasks: Schemas["Task"][] }) {
  const told = tasks[0];
  return (
    <p className="mt-2 text-sm">
      <Figure title={name} working={line.working}>
        {span(line.hoursPerCoat)}
      </Figure>{" "}
      {trNodes("for one person.{state}{state2}{state3}{state4}", {
        state: told?.state === "done" && <b> {tr("Done.")}</b>,
        state2: told?.state === "begun" && <b> {tr("{donePct} % done.", { donePct: Math.round(told.donePct) })}</b>,
        state3: told?.state === "failed" && (
          <b className="text-error"> {tr("It failed: try again, or another way.")}</b>
        ),
        state4: told?.state === "overtaken" && (
          <span className="quiet"> {tr("Not in the log, and a later coat is on.")}</span>
        ),
      })}
    </p>
  );
}

function Outcome({
  line,
  name,
  done,
  coats,
}: {
  line: Schemas["BuildupLine"];
  name: string;
  done: number;
  coats: number;
}) {
  const { money } = useSettings();
  const tins = line.purchase.tins.map((t) => `${t.count} × ${t.name}`).join(" + ");
  return (
    <div className="mt-2 text-sm">
      <p>
        <Figure title={name} working={line.working}>
          {trNodes("Lay {wftUm} wet, {litres}", {
            wftUm: <Quantity value={line.wftUm} unit="µm" />,
            litres: <Quantity value={line.litres} unit="L" />,
          })}
        </Figure>{" "}
        {trNodes(
          "for {coats, plural, one {the coat} other {{coats} coats}} (80 % between {litresLow} and {litresHigh}){thinnerL}.",
          {
            coats,
            litresLow: <Quantity value={line.litresLow} unit="L" />,
            litresHigh: <Quantity value={line.litresHigh} unit="L" />,
            thinnerL: line.thinnerL > 0 && (
              <>{trNodes(", thinner {thinnerL}", { thinnerL: <Quantity value={line.thinnerL} unit="L" /> })}</>
            ),
          },
        )}
      </p>
      <p>
        {tins
          ? trNodes("Buy {tins}{priced}, {leftoverL} left over.", {
              tins,
              priced: line.purchase.priced && `: ${money(line.purchase.costCents)}`,
              leftoverL: <Quantity value={line.purchase.leftoverL} unit="L" />,
            })
          : tr("No tins on the data sheet: enter them in Library to see what to buy.")}
        {done > 0 && <b> {done === coats ? tr("All laid.") : tr("{done} of {coats} laid.", { done, coats })}</b>}
      </p>
    </div>
  );
}

function IconButton({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className="btn btn-square btn-ghost min-h-11 min-w-11"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
