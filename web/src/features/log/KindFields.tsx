import type { Schemas } from "../../api/client";
import type { Kind } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { tr, word } from "../../words/words";
import type { Draft } from "./draft";
import { Patches } from "./EntryParts";

/** What is asked of an entry of its kind: what came of it, what was found, how much of it was done. */
export function KindFields({
  kind,
  draft,
  set,
  planned,
  words,
}: {
  kind: Kind;
  draft: Draft;
  set: (more: Partial<Draft>) => void;
  planned?: Schemas["Step"];
  words?: Schemas["LogWords"];
}) {
  return (
    <>
      {kind.judged && (
        <Choice
          name="outcome"
          label={tr("What came of it")}
          value={draft.outcome}
          onChange={(outcome) => set({ outcome })}
          options={[
            { value: "", label: tr("choose") },
            { value: "passed", label: tr("it passed") },
            { value: "failed", label: tr("it failed") },
          ]}
        />
      )}
      {kind.spent && (
        <>
          <Choice
            name="spent.on"
            label={tr("What for")}
            value={draft.paidFor}
            onChange={(paidFor) => set({ paidFor })}
            options={(words?.expenses ?? []).map((e) => ({ value: e.on, label: word(e.name) }))}
          />
          <NumberField
            name="spent.cents"
            label={tr("How much")}
            unit=""
            value={draft.paid}
            onChange={(paid) => set({ paid })}
          />
        </>
      )}
      {kind.felt && (
        <Choice
          name="felt.state"
          label={tr("What was it like")}
          hint={tr("log it when it turns: later times are learned from it")}
          value={draft.felt}
          onChange={(felt) => set({ felt })}
          options={[
            { value: "", label: tr("choose") },
            { value: "sticky", label: tr("still sticky") },
            { value: "touch-dry", label: tr("just dry to touch") },
            { value: "sandable", label: tr("just dry enough to sand") },
          ]}
        />
      )}
      {(planned || draft.own) && !kind.judged && (planned?.where?.patches ?? []).length < 2 && (
        <NumberField
          name="sharePct"
          label={tr("How much of it")}
          hint={tr("empty: all that was left")}
          unit="%"
          value={draft.sharePct}
          onChange={(sharePct) => set({ sharePct })}
        />
      )}
      {planned && (planned.where?.patches ?? []).length > 1 && (
        <Patches draft={draft} set={set} patches={planned.where?.patches ?? []} />
      )}
      {kind.gritted && (
        <NumberField
          name="grit"
          label={tr("Last grit")}
          unit="P"
          value={draft.grit}
          onChange={(grit) => set({ grit })}
        />
      )}
      {kind.removes && (
        <NumberField
          name="removedUm"
          label={tr("Film taken off")}
          hint={tr("by the gauge, or as reckoned; empty: not known")}
          unit="µm"
          value={draft.removedUm}
          onChange={(removedUm) => set({ removedUm })}
        />
      )}
      {kind.rounds && (
        <>
          <NumberField
            name="round.n"
            label={tr("Round")}
            unit=""
            value={draft.round}
            onChange={(round) => set({ round })}
          />
          <NumberField
            name="round.lows"
            label={tr("Lows found")}
            unit=""
            value={draft.lows}
            onChange={(lows) => set({ lows })}
          />
          <NumberField
            name="round.pinholes"
            label={tr("Pinholes")}
            unit=""
            value={draft.pinholes}
            onChange={(pinholes) => set({ pinholes })}
          />
          <Choice
            name="round.by"
            label={tr("Found by")}
            value={draft.by}
            onChange={(by) => set({ by })}
            options={[
              { value: "", label: tr("not said") },
              ...["guide coat", "wet surface", "low light", "edge", "hand"].map((v) => ({ value: v, label: word(v) })),
            ]}
          />
          <Choice
            name="round.verdict"
            label={tr("Verdict")}
            value={draft.verdict}
            onChange={(verdict) => set({ verdict })}
            options={[
              { value: "", label: tr("by the count") },
              ...["fair enough", "another round"].map((v) => ({ value: v, label: word(v) })),
            ]}
          />
        </>
      )}
      {kind.rounds && kind.films && (
        <NumberField
          name="litres"
          label={tr("Filler used")}
          unit="L"
          value={draft.litres}
          onChange={(litres) => set({ litres })}
        />
      )}
    </>
  );
}
