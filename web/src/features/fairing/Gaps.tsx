import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { newID, useWaits } from "../../api/outbox";
import { useCoats, useWritten } from "../../api/queries";
import { upload } from "../../api/upload";
import { Conflict } from "../../ui/Conflict";
import { Choice, Errors, NumberField, Refusal, TextField } from "../../ui/Form";
import { readNumber } from "../../ui/numbers";
import { Remove } from "../../ui/Remove";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { UndoRedo } from "../../ui/UndoRedo";
import { useUndoable } from "../../ui/useHistory";
import { tr } from "../../words/words";
import { Placing } from "./Placing";
import { freshLine, places, Walk } from "./Walk";

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

/** The gaps in the order one walks: Enter goes to the next; a dash or nothing is not read. */
export function Gaps({
  view,
  survey,
  go,
}: {
  view: Schemas["FairingView"];
  survey: Schemas["Survey"];
  go: (next: Record<string, string>) => void;
}) {
  const { fillers } = useCoats();
  const { prose } = useSettings();
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
  const [wrong, setWrong] = useState("");
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
  const scans = survey.models?.filter((m) => m.format !== "offsets") ?? [];
  const scan = useMutation({
    mutationFn: (modelId: string) =>
      ok(
        api.GET("/api/surfaces/{id}/fairing/scan", {
          params: { path: { id: view.surface.id }, query: { modelId, battenM: draft.battenM } },
        }),
      ),
    onSuccess: (got) => {
      setText({});
      setDraft({ ...draft, ...got } as Readings);
    },
  });
  const gaps = (draft.gaps ?? []) as (number | null)[][];
  const lines = draft.lines && draft.lines.length > 0 ? draft.lines : undefined;
  const nx = gaps[0]?.length ?? 0;
  const way = lines ? "lines" : nx > 0 ? "grid" : "lows";
  const resize = (rows: number, columns: number) => {
    if (!(rows >= 1 && columns >= 2 && rows <= 128 && columns <= 128)) return;
    setText({});
    setDraft({
      ...draft,
      gaps: Array.from({ length: rows }, (_, y) =>
        Array.from({ length: columns }, (_, x) => gaps[y]?.[x] ?? null),
      ) as unknown as Readings["gaps"],
    });
  };
  const put = (y: number, x: number, typed: string) => {
    setText({ ...text, [`${y} ${x}`]: typed });
    const v = typed.trim() === "" || typed.trim() === "-" ? null : readNumber(typed);
    if (Number.isNaN(v)) return;
    setDraft({
      ...draft,
      gaps: gaps.map((row, j) => (j === y ? row.map((g, i) => (i === x ? v : g)) : row)) as unknown as Readings["gaps"],
    });
  };
  const bad = Object.entries(save.error?.fields ?? {}).filter(([k]) => k.startsWith("gaps"));
  const set = (more: Partial<Readings>) => setDraft({ ...draft, ...more });
  const num = (v: number | undefined) => v ?? Number.NaN;
  return (
    <Errors.Provider value={save.error?.fields ?? {}}>
      <section className="border-t border-base-content pt-4">
        <div className="flex flex-wrap items-center gap-3">
          <h2 className="text-lg">{id ? tr("Gaps of round {round}", { round: draft.round }) : tr("A new set of gaps")}</h2>
          {view.sets.length > 0 && (
            <button
              type="button"
              className="linked max-sm:min-h-11"
              onClick={() => {
                setDraft({ ...fresh((view.sets.at(-1)?.round ?? 0) + 1), spacingM: draft.spacingM, battenM: draft.battenM });
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
        <div className="mt-2 grid max-w-4xl grid-cols-2 gap-3 md:grid-cols-5">
          <NumberField name="round" label={tr("Round")} unit="" value={draft.round} onChange={(v) => set({ round: num(v) })} />
          {way !== "lows" && (
            <>
              <NumberField
                name="battenM"
                label={tr("Straightedge")}
                unit="m"
                value={draft.battenM}
                onChange={(v) => set({ battenM: num(v) })}
              />
              <NumberField
                name="spacingM"
                label={tr("Between readings")}
                unit="m"
                value={draft.spacingM}
                onChange={(v) => set({ spacingM: num(v) })}
              />
            </>
          )}
          <NumberField
            name="errorMM"
            label={tr("A reading may be out")}
            hint={tr("what is less is not filled")}
            unit="mm"
            value={draft.errorMM}
            onChange={(v) => set({ errorMM: num(v) })}
          />
          {way === "grid" && (
            <NumberField name="rowsM" label={tr("Between rows")} unit="m" value={draft.rowsM} onChange={(v) => set({ rowsM: num(v) })} />
          )}
          <Choice
            name="class"
            label={tr("How fair")}
            value={draft.class}
            onChange={(c) => set({ class: c })}
            options={view.classes.map((c) => ({
              value: c.key as Readings["class"],
              label: tr("{name}: {x} in {x2}", {
                name: c.name,
                x: prose([{ value: c.gapMM, unit: "mm", digits: 1 }]),
                x2: prose([{ value: 1, unit: "m", digits: 0 }]),
              }),
            }))}
          />
          <NumberField
            name="maxFillMM"
            label={tr("Fill at most")}
            unit="mm"
            value={draft.maxFillMM}
            onChange={(v) => set({ maxFillMM: num(v) })}
          />
          {way === "grid" && (
            <>
              <NumberField
                name="maxGrindMM"
                label={tr("Grind at most")}
                unit="mm"
                value={draft.maxGrindMM}
                onChange={(v) => set({ maxGrindMM: num(v) })}
              />
              <NumberField
                name="stiffnessM"
                label={tr("Batten bends over")}
                unit="m"
                value={draft.stiffnessM}
                onChange={(v) => set({ stiffnessM: num(v) })}
              />
              <TextField
                name="breaks"
                label={tr("Knuckles at readings")}
                hint={tr("their numbers, such as 5 12")}
                value={text.breaks ?? (draft.breaks ?? []).map((b) => b + 1).join(" ")}
                onChange={(t) => {
                  setText({ ...text, breaks: t });
                  set({ breaks: places(t).filter((b) => b >= 0) });
                }}
              />
            </>
          )}
          <Choice
            name="productId"
            label={tr("Filler")}
            value={draft.productId ?? ""}
            onChange={(productId) => set({ productId: productId || undefined })}
            options={[{ value: "", label: tr("the first of the library") }, ...fillers.map((p) => ({ value: p.id, label: p.sheet.name }))]}
          />
        </div>
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
          <>
            <div className="mt-3 flex flex-wrap items-end gap-3">
              <div className="w-28">
                <NumberField name="rows" label={tr("Rows")} unit="" value={gaps.length} onChange={(v) => v && resize(v, nx)} />
              </div>
              <div className="w-28">
                <NumberField name="columns" label={tr("Readings a row")} unit="" value={nx} onChange={(v) => v && resize(gaps.length, v)} />
              </div>
              {scans.length > 0 && (
                <div className="w-64">
                  <Choice
                    name="modelId"
                    label={tr("From a 3-D file in Survey")}
                    hint={tr("against its own fair face")}
                    value=""
                    onChange={(modelId) => modelId && scan.mutate(modelId)}
                    options={[{ value: "", label: tr("choose") }, ...scans.map((m) => ({ value: m.id, label: m.name }))]}
                  />
                </div>
              )}
              <label className="btn min-h-11">
                {tr("From a file: gaps row by row, or a scan with columns x, y, z")}
                <input
                  type="file"
                  accept=".csv,.txt"
                  aria-label={tr("File of gaps")}
                  className="sr-only"
                  onChange={async (e) => {
                    const file = e.target.files?.[0];
                    e.target.value = "";
                    if (!file) return;
                    try {
                      const got = await upload<Schemas["GapTable"]>("/api/gaps", {}, file);
                      setText({});
                      const { gaps, spacingM, rowsM } = got;
                      setDraft({ ...draft, gaps, ...(spacingM && { spacingM }), ...(rowsM && { rowsM }) });
                      setWrong("");
                    } catch (err) {
                      setWrong((err as Error).message);
                    }
                  }}
                />
              </label>
            </div>
            <Refusal error={scan.error} />
            {wrong && (
              <p role="alert" className="text-error">
                {wrong}
              </p>
            )}
            <div className="mt-3 overflow-x-auto" data-field="gaps">
              <table aria-label={tr("Gaps in mm")}>
                <tbody>
                  {gaps.map((row, y) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other identity than their place
                    <tr key={y}>
                      <th className="pr-2 text-right text-sm font-normal">{y + 1}</th>
                      {row.map((g, x) => (
                        // biome-ignore lint/suspicious/noArrayIndexKey: readings have no other identity than their place
                        <td key={x}>
                          <input
                            className="input w-14 border-base-300 bg-(--sheet) px-1 text-center max-sm:min-h-11"
                            inputMode="decimal"
                            aria-label={tr("Row {y}, reading {x}, mm", { y: y + 1, x: x + 1 })}
                            value={text[`${y} ${x}`] ?? (g ?? "").toString()}
                            onChange={(e) => put(y, x, e.target.value)}
                            onKeyDown={(e) => {
                              if (e.key !== "Enter") return;
                              e.preventDefault();
                              const all = [...(e.currentTarget.closest("table")?.querySelectorAll("input") ?? [])];
                              all[all.indexOf(e.currentTarget) + 1]?.focus();
                            }}
                          />
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </>
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
