import type { Schemas } from "../../api/client";
import { Check, TextField } from "../../ui/Form";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import type { EntryFields } from "./draft";

type Props = { form: EntryFields };

/** What the plan takes for the coat, to be taken over. */
export function PlannedLitres({
  mix,
  form: { edit: draft, set },
}: Props & { mix: NonNullable<Schemas["ReadinessLane"]["mix"]> }) {
  return (
    <p className="quiet mt-2 text-sm">
      {trNodes("The plan takes {litres} for this coat at {wftUm} wet.", {
        litres: <Quantity value={mix.litres} unit="L" />,
        wftUm: <Quantity value={mix.wftUm} unit="µm" />,
      })}{" "}
      {draft.litres === undefined && (
        <button
          type="button"
          className="btn btn-sm max-sm:min-h-11"
          onClick={() => set({ litres: Number(mix.litres.toFixed(2)) })}
        >
          {tr("It took that")}
        </button>
      )}
    </p>
  );
}

/** The answers to what the program asks about: why so early, and from where so much. */
export function Answers({ form: { edit: draft, at }, early, litres }: Props & { early: boolean; litres: boolean }) {
  return (
    <>
      {(early || draft.early) && (
        <div className="mt-3 max-w-xl">
          <TextField {...at("early")} label={tr("Why it went on before the last one was ready")} />
        </div>
      )}
      {(litres || draft.beyondShelf) && (
        <div className="mt-3">
          <Check {...at("beyondShelf")} label={tr("The litres are right: there was more than the shelf shows")} />
        </div>
      )}
    </>
  );
}
