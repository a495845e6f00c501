import type { Schemas } from "../../api/client";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { elapsed, span } from "../../ui/time";
import { tr } from "../../words/words";
import type { Draft } from "./plan";

type Props = { step: Draft; path: string; kind: Partial<Schemas["StepKind"]>; change: (d: Partial<Draft>) => void };

/** Which part of the surface a step works, and what else can be said of it. */
export function WhereFields({ step: s, path, kind, change }: Props) {
  const how = !s.where ? "all" : (s.where.patches ?? []).length > 0 ? "patches" : "share";
  const where = s.where ?? { name: "" };
  const patches = where.patches ?? [];
  const setPatch = (i: number, p: Partial<Schemas["StepPatch"]>) =>
    change({ where: { ...where, patches: patches.map((o, k) => (k === i ? { ...o, ...p } : o)) } });
  return (
    <details className="mt-2 text-sm">
      <summary className="min-h-11 cursor-pointer content-center sm:min-h-0">
        <b>{tr("Where on it, hours, waits")}</b>
        <Said step={s} />
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Choice
          name={`${path}.where`}
          label={tr("It works")}
          value={how}
          onChange={(v) =>
            change({
              where:
                v === "all"
                  ? undefined
                  : v === "share"
                    ? { name: where.name || "spots", sharePct: where.sharePct || 10 }
                    : {
                        name: where.name || "patches",
                        patches: patches.length > 0 ? patches : [{ name: "1", areaM2: 1 }],
                      },
            })
          }
          options={[
            { value: "all", label: tr("all of the surface") },
            { value: "share", label: tr("a share of it") },
            { value: "patches", label: tr("marked patches") },
          ]}
        />
        {how !== "all" && (
          <TextField
            name={`${path}.where.name`}
            label={tr("Called")}
            value={where.name}
            onChange={(name) => change({ where: { ...where, name } })}
          />
        )}
        {how !== "all" && (
          <Check
            name={`${path}.where.corner`}
            label={tr("Its inside corners and fillets")}
            value={where.corner ?? false}
            onChange={(corner) => change({ where: { ...where, corner } })}
          />
        )}
        {how === "share" && (
          <NumberField
            name={`${path}.where.sharePct`}
            label={tr("Share")}
            unit="%"
            value={where.sharePct}
            onChange={(sharePct) => change({ where: { ...where, sharePct: sharePct ?? 0 } })}
          />
        )}
        <NumberField
          name={`${path}.hours`}
          label={kind.films ? tr("Hours of a coat") : tr("Hours")}
          hint={tr("empty: by the rates")}
          unit="h"
          value={s.hours || undefined}
          onChange={(hours) => change({ hours: hours ?? 0 })}
        />
        <NumberField
          name={`${path}.waitH`}
          label={tr("Then wait at least")}
          unit="h"
          value={s.waitH || undefined}
          onChange={(waitH) => change({ waitH: waitH ?? 0 })}
        />
        <NumberField
          name={`${path}.crew`}
          label={tr("People at once")}
          hint={tr("empty: as it comes")}
          unit=""
          value={s.crew || undefined}
          onChange={(crew) => change({ crew: crew ?? 0 })}
        />
        {kind.films && (
          <NumberField
            name={`${path}.keyGrit`}
            label={tr("Keyed before each coat")}
            hint={tr("empty: not keyed")}
            unit="P"
            value={s.keyGrit || undefined}
            onChange={(keyGrit) => change({ keyGrit: keyGrit ?? 0 })}
          />
        )}
        {kind.films && (s.keyGrit ?? 0) > 0 && (
          <NumberField
            name={`${path}.removedUm`}
            label={tr("That takes off")}
            unit="µm"
            value={s.removedUm || undefined}
            onChange={(removedUm) => change({ removedUm: removedUm ?? 0 })}
          />
        )}
        {kind.taped && (
          <>
            <NumberField
              name={`${path}.tapeM`}
              label={tr("Tape")}
              hint={tr("empty: its edges")}
              unit="m"
              value={s.tapeM || undefined}
              onChange={(tapeM) => change({ tapeM: tapeM ?? 0 })}
            />
            <Choice
              name={`${path}.pull`}
              label={tr("Pulled")}
              value={s.pull ?? ""}
              onChange={(pull) => change({ pull: pull as Draft["pull"] })}
              options={[
                { value: "", label: tr("after the coats") },
                { value: "wet", label: tr("while wet") },
                { value: "touch-dry", label: tr("touch-dry") },
                { value: "hard", label: tr("hard") },
              ]}
            />
          </>
        )}
      </div>
      {how === "patches" && (
        <div className="mt-2">
          {patches.map((p, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: patches are told apart by their place
            <div key={i} className="mt-1 grid grid-cols-[1fr_1fr_auto] items-end gap-3 sm:max-w-md">
              <TextField
                name={`${path}.where.patches[${i}].name`}
                label={tr("Patch")}
                value={p.name}
                onChange={(name) => setPatch(i, { name })}
              />
              <NumberField
                name={`${path}.where.patches[${i}].areaM2`}
                label={tr("Area")}
                unit="m²"
                value={p.areaM2}
                onChange={(areaM2) => setPatch(i, { areaM2: areaM2 ?? 0 })}
              />
              <button
                type="button"
                className="btn btn-ghost min-h-11"
                aria-label={tr("Remove patch {name}", { name: p.name })}
                disabled={patches.length === 1}
                onClick={() => change({ where: { ...where, patches: patches.filter((_, k) => k !== i) } })}
              >
                ×
              </button>
            </div>
          ))}
          <button
            type="button"
            className="btn btn-sm mt-2 max-sm:min-h-11"
            onClick={() =>
              change({ where: { ...where, patches: [...patches, { name: String(patches.length + 1), areaM2: 1 }] } })
            }
          >
            {tr("Add a patch")}
          </button>
        </div>
      )}
    </details>
  );
}

/** What is set of it, in a line. */
function Said({ step: s }: { step: Draft }) {
  const patches = s.where?.patches ?? [];
  const { show } = useSettings();
  const shown = (value: number, unit: string) => {
    const q = show(value, unit);
    return `${q.text} ${q.unit}`;
  };
  const m2 = patches.reduce((sum, p) => sum + p.areaM2, 0);
  const parts = [
    s.where &&
      `${s.where.name}, ${patches.length > 0 ? `${patches.length > 1 ? `${patches.length} patches, ` : ""}${shown(m2, "m²")}` : `${s.where.sharePct} %`}`,
    s.hours && span(s.hours),
    s.waitH && tr("then wait {waitH}", { waitH: elapsed(s.waitH) }),
    s.keyGrit && tr("keyed with {keyGrit} before each coat", { keyGrit: s.keyGrit }),
    s.tapeM && tr("{tapeM} of tape", { tapeM: shown(s.tapeM, "m") }),
    s.pull && `pulled ${s.pull === "wet" ? tr("while wet") : s.pull}`,
  ].filter(Boolean);
  return parts.length > 0 ? <span className="quiet">: {parts.join("; ")}</span> : null;
}
