import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { upload } from "../../api/upload";
import { Choice, NumberField, Refusal } from "../../ui/Form";
import { readNumber } from "../../ui/numbers";
import { tr } from "../../words/words";
import type { Typing } from "./ReadingFields";

type Readings = Schemas["Readings"];

/** Readings below one plane, row by row: typed, of a 3-D file, or of a file of gaps. Enter goes to the next; a dash or nothing is not read. */
export function GridReadings({
  draft,
  setDraft,
  text,
  setText,
  view,
  survey,
}: Typing & { setDraft: (d: Readings) => void; view: Schemas["FairingView"]; survey: Schemas["Survey"] }) {
  const [wrong, setWrong] = useState("");
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
  const nx = gaps[0]?.length ?? 0;
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
  return (
    <>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <div className="w-28">
          <NumberField
            name="rows"
            label={tr("Rows")}
            unit=""
            value={gaps.length}
            onChange={(v) => v && resize(v, nx)}
          />
        </div>
        <div className="w-28">
          <NumberField
            name="columns"
            label={tr("Readings a row")}
            unit=""
            value={nx}
            onChange={(v) => v && resize(gaps.length, v)}
          />
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
  );
}
