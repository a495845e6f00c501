import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { newID, useWaits } from "../../api/outbox";
import { useWritten } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, Refusal } from "../../ui/Form";
import { Remove } from "../../ui/Remove";
import { Said } from "../../ui/Sentence";
import { UndoRedo } from "../../ui/UndoRedo";
import { useUndoable } from "../../ui/useHistory";
import { tr } from "../../words/words";
import { GridReadings } from "./GridReadings";
import { Placing } from "./Placing";
import { ReadingFields } from "./ReadingFields";
import { freshLine, Walk } from "./Walk";

type Readings = Schemas["Readings"];

const fresh = (round: number): Readings => ({
  round,
  battenM: 1,
  spacingM: 0.1,
  rowsM: 0.2,
  gaps: [],
  lines: [freshLine()],
  errorMM: 0.25,
  maxFillMM: 10,
  maxGrindMM: 0,
  stiffnessM: 0.8,
  class: "yard",
});

const empty = Array.from({ length: 4 }, () => Array.from({ length: 8 }, () => null));

/** The gaps of a round, in one of the three ways to read them. */
export function Gaps({
  view,
  survey,
  go,
}: {
  view: Schemas["FairingView"];
  survey: Schemas["Survey"];
  go: (next: Record<string, string>) => void;
}) {
  const now = view.now;
  const start = (): Readings => {
    if (!now) return fresh(1);
    const { round, battenM, spacingM, rowsM, gaps, lines, lows, on, errorMM, breaks, rowBreaks } = now;
    const { maxFillMM, maxGrindMM, stiffnessM, productId } = now;
    const read = { round, battenM, spacingM, rowsM, gaps, lines, lows, on, errorMM, breaks, rowBreaks };
    return { ...read, maxFillMM, maxGrindMM, stiffnessM, productId, class: now.class };
  };
  const [text, setText] = useState<Record<string, string>>({});
  const edit = useUndoable<Readings>(start, () => setText({}));
  const { value: draft, set: setDraft } = edit;
  const [id, setID] = useState(now?.id ?? "");
  const [version, setVersion] = useState(now?.version ?? 0);
  const [parcel, setParcel] = useState<string | null>(null);
  const waits = useWaits(parcel);
  const save = useWritten<number, Schemas["FairingView"]>(
    ["fairing"],
    (v) => {
      const sent = newID();
      setParcel(sent);
      const label = tr("gaps of round {round}, {name}", { round: draft.round, name: view.surface.name });
      const path = `/api/surfaces/${view.surface.id}/fairing`;
      return [{ id: sent, label, boatId: survey.boat.id, method: "PUT", path, body: { id, version: v, value: draft } }];
    },
    (r) => r !== "kept" && go({ set: r.now?.id ?? "" }),
  );
  const lines = draft.lines && draft.lines.length > 0 ? draft.lines : undefined;
  const way = lines ? "lines" : (draft.gaps ?? []).length > 0 ? "grid" : "lows";
  const bad = Object.entries(save.error?.fields ?? {}).filter(([k]) => k.startsWith("gaps"));
  const set = (more: Partial<Readings>) => setDraft({ ...draft, ...more });
  return (
    <Errors.Provider value={save.error?.fields ?? {}}>
      <section className="border-t border-base-content pt-4">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="text-lg">
            {id ? tr("Gaps of round {round}", { round: draft.round }) : tr("A new set of gaps")}
          </h2>
          {view.sets.length > 0 && (
            <button
              type="button"
              className="linked max-sm:min-h-11"
              onClick={() => {
                setDraft({
                  ...fresh((view.sets.at(-1)?.round ?? 0) + 1),
                  spacingM: draft.spacingM,
                  battenM: draft.battenM,
                });
                setID("");
                setVersion(0);
                setText({});
              }}
            >
              {tr("next round")}
            </button>
          )}
          {view.sets
            .filter((s) => s.id !== id)
            .map((s) => (
              <button key={s.id} type="button" className="linked max-sm:min-h-11" onClick={() => go({ set: s.id })}>
                {tr("round {round}", { round: s.round })}
              </button>
            ))}
        </div>
        <ReadingFields draft={draft} text={text} setText={setText} set={set} way={way} classes={view.classes} />
        <div className="mt-3 w-80">
          <Choice
            name="way"
            label={tr("Read")}
            value={way}
            onChange={(v) =>
              set({
                lines: v === "lines" ? [freshLine()] : undefined,
                gaps: v === "grid" ? (empty as unknown as Readings["gaps"]) : [],
              })
            }
            options={[
              { value: "lines", label: tr("under an edge laid at places") },
              { value: "grid", label: tr("below one plane, on a grid") },
              { value: "lows", label: tr("not with an edge: lows circled") },
            ]}
          />
        </div>
        {lines && <Walk lines={lines} edgeM={draft.battenM} spacingM={draft.spacingM} set={(l) => set({ lines: l })} />}
        {way === "grid" && (
          <GridReadings draft={draft} setDraft={setDraft} text={text} setText={setText} view={view} survey={survey} />
        )}
        <Placing key={way} survey={survey} view={view} draft={draft} set={set} />
        {bad.map(([k, m]) => (
          <p key={k} role="alert" className="text-error">
            <Said words={m} />
          </p>
        ))}
        <div className="mt-3 flex flex-col gap-3">
          <Refusal error={save.error?.status === 409 ? null : save.error} />
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-primary min-h-12"
              disabled={save.isPending || waits}
              onClick={() => save.mutate(version)}
            >
              {waits ? tr("Kept on this device until it is sent") : tr("Find the fair surface")}
            </button>
            <UndoRedo of={edit} />
            {id && (
              <Remove
                of={["fairing"]}
                what={tr("this set of gaps")}
                label={tr("Delete these gaps")}
                remove={() => ok(api.DELETE("/api/fairings/{id}", { params: { path: { id } } }))}
                done={() => go({ set: "" })}
              />
            )}
          </div>
        </div>
      </section>
      <Conflict
        error={save.error}
        mine={draft}
        stored={(c: Schemas["FairingView"]) => c.now as unknown as Readings}
        onMine={(c) => {
          setVersion(c.now?.version ?? 0);
          save.mutate(c.now?.version ?? 0);
        }}
        onTheirs={(c) => {
          setDraft(c.now as unknown as Readings);
          setVersion(c.now?.version ?? 0);
          save.reset();
        }}
      />
    </Errors.Provider>
  );
}
