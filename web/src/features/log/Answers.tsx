import type { Schemas } from "../../api/client";
import { Check, TextField } from "../../ui/Form";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import type { Draft } from "./draft";

type Props = { draft: Draft; set: (more: Partial<Draft>) => void };

/** What the plan takes for the coat, to be taken over. */
export function PlannedLitres({ mix, draft, set }: Props & { mix: NonNullable<Schemas["ReadinessLane"]["mix"]> }) {
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
export function Answers({ draft, set, early, litres }: Props & { early: boolean; litres: boolean }) {
  return (
    <>
      {(early || draft.early) && (
        <div className="mt-3 max-w-xl">
          <TextField
            name="early"
            label={tr("Why it went on before the last one was ready")}
            value={draft.early}
            onChange={(early) => set({ early })}
          />
        </div>
      )}
      {(litres || draft.beyondShelf) && (
        <div className="mt-3">
          <Check
            name="beyondShelf"
            label={tr("The litres are right: there was more than the shelf shows")}
            value={draft.beyondShelf}
            onChange={(beyondShelf) => set({ beyondShelf })}
          />
        </div>
      )}
    </>
  );
}
