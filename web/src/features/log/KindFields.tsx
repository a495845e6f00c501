import type { Schemas } from "../../api/client";
import type { Kind } from "../../api/queries";
import { Choice, NumberField } from "../../ui/Form";
import { tr, word } from "../../words/words";
import type { EntryFields } from "./draft";
import { Patches } from "./EntryParts";

/** What is asked of an entry of its kind: what came of it, what was found, how much of it was done. */
export function KindFields({
  kind,
  form,
  planned,
  words,
}: {
  kind: Kind;
  form: EntryFields;
  planned?: Schemas["Step"];
  words?: Schemas["LogWords"];
}) {
  const { edit: draft, at } = form;
  const patches = planned?.where?.patches ?? [];
  return (
    <>
      {kind.judged && (
        <Choice
          {...at("outcome")}
          label={tr("What came of it")}
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
            {...at("spent.on")}
            label={tr("What for")}
            options={(words?.expenses ?? []).map((e) => ({ value: e.on, label: word(e.name) }))}
          />
          <NumberField {...at("spent.paid")} name="spent.cents" label={tr("How much")} unit="" />
        </>
      )}
      {kind.felt && (
        <Choice
          {...at("felt.state")}
          label={tr("What was it like")}
          hint={tr("log it when it turns: later times are learned from it")}
          options={[
            { value: "", label: tr("choose") },
            { value: "sticky", label: tr("still sticky") },
            { value: "touch-dry", label: tr("just dry to touch") },
            { value: "sandable", label: tr("just dry enough to sand") },
          ]}
        />
      )}
      {(planned || draft.ownId) && !kind.judged && patches.length < 2 && (
        <NumberField {...at("sharePct")} label={tr("How much of it")} hint={tr("empty: all that was left")} unit="%" />
      )}
      {patches.length > 1 && <Patches form={form} patches={patches} />}
      {kind.gritted && <NumberField {...at("grit")} label={tr("Last grit")} unit="P" />}
      {kind.removes && (
        <NumberField
          {...at("removedUm")}
          label={tr("Film taken off")}
          hint={tr("by the gauge, or as reckoned; empty: not known")}
          unit="µm"
        />
      )}
      {kind.rounds && (
        <>
          <NumberField {...at("round.n")} label={tr("Round")} unit="" />
          <NumberField {...at("round.lows")} label={tr("Lows found")} unit="" />
          <NumberField {...at("round.pinholes")} label={tr("Pinholes")} unit="" />
          <Choice
            {...at("round.by")}
            label={tr("Found by")}
            options={[
              { value: "", label: tr("not said") },
              ...["guide coat", "wet surface", "low light", "edge", "hand"].map((v) => ({ value: v, label: word(v) })),
            ]}
          />
          <Choice
            {...at("round.verdict")}
            label={tr("Verdict")}
            options={[
              { value: "", label: tr("by the count") },
              ...["fair enough", "another round"].map((v) => ({ value: v, label: word(v) })),
            ]}
          />
        </>
      )}
      {kind.rounds && kind.films && <NumberField {...at("litres")} label={tr("Filler used")} unit="L" />}
    </>
  );
}
