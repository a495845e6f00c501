import type { Schemas } from "../../api/client";
import { Check, Choice, NumberField, TextField } from "../../ui/Form";
import { fieldsOf, figuresOf } from "../../ui/fieldsOf";
import { useSettings } from "../../ui/settings";
import { elapsed, span } from "../../ui/time";
import { tr } from "../../words/words";
import type { Draft } from "./plan";

type Props = { step: Draft; path: string; kind: Partial<Schemas["StepKind"]>; change: (d: Partial<Draft>) => void };

/** Which part of the surface a step works, and what else can be said of it. */
export function WhereFields({ step: s, path, kind, change }: Props) {
  const figure = figuresOf(s, change, path);
  return (
    <details className="mt-2 text-sm">
      <summary className="min-h-11 cursor-pointer content-center sm:min-h-0">
        <b>{tr("Where on it, hours, waits")}</b>
        <Said step={s} />
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Extent step={s} path={path} change={change} />
        <NumberField
          {...figure("hours")}
          label={kind.films ? tr("Hours of a coat") : tr("Hours")}
          hint={tr("empty: by the rates")}
          unit="h"
        />
        <NumberField {...figure("waitH")} label={tr("Then wait at least")} unit="h" />
        <NumberField {...figure("crew")} label={tr("People at once")} hint={tr("empty: as it comes")} unit="" />
        {kind.films && (
          <NumberField
            {...figure("keyGrit")}
            label={tr("Keyed before each coat")}
            hint={tr("empty: not keyed")}
            unit="P"
          />
        )}
        {kind.films && (s.keyGrit ?? 0) > 0 && (
          <NumberField {...figure("removedUm")} label={tr("That takes off")} unit="µm" />
        )}
        {kind.taped && (
          <>
            <NumberField {...figure("tapeM")} label={tr("Tape")} hint={tr("empty: its edges")} unit="m" />
            <Choice
              {...fieldsOf(s, change, path)("pull")}
              label={tr("Pulled")}
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
      {(s.where?.patches ?? []).length > 0 && <Patches step={s} path={path} change={change} />}
    </details>
  );
}

type Part = Omit<Props, "kind">;

/** All of the surface, a share of it, or marked patches. */
function Extent({ step: s, path, change }: Part) {
  const where = s.where ?? { name: "" };
  const patches = where.patches ?? [];
  const how = !s.where ? "all" : patches.length > 0 ? "patches" : "share";
  const at = fieldsOf(where, (more) => change({ where: { ...where, ...more } }), `${path}.where`);
  return (
    <>
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
        <>
          <TextField {...at("name")} label={tr("Called")} />
          <Check {...at("corner")} label={tr("Its inside corners and fillets")} />
        </>
      )}
      {how === "share" && <NumberField {...at("sharePct")} label={tr("Share")} unit="%" />}
    </>
  );
}

/** Marked places with their areas. */
function Patches({ step: { where = { name: "" } }, path, change }: Part) {
  const patches = where.patches ?? [];
  const set = (next: typeof patches) => change({ where: { ...where, patches: next } });
  return (
    <div className="mt-2">
      {patches.map((p, i) => {
        const of = [
          p,
          (more: Partial<Schemas["StepPatch"]>) => set(patches.map((o, k) => (k === i ? { ...o, ...more } : o))),
          `${path}.where.patches[${i}]`,
        ] as const;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: patches are told apart by their place
          <div key={i} className="mt-1 grid grid-cols-[1fr_1fr_auto] items-end gap-3 sm:max-w-md">
            <TextField {...fieldsOf(...of)("name")} label={tr("Patch")} />
            <NumberField {...figuresOf(...of)("areaM2")} label={tr("Area")} unit="m²" />
            <button
              type="button"
              className="btn btn-ghost min-h-11"
              aria-label={tr("Remove patch {name}", { name: p.name })}
              disabled={patches.length === 1}
              onClick={() => set(patches.filter((_, k) => k !== i))}
            >
              ×
            </button>
          </div>
        );
      })}
      <button
        type="button"
        className="btn btn-sm mt-2 max-sm:min-h-11"
        onClick={() => set([...patches, { name: String(patches.length + 1), areaM2: 1 }])}
      >
        {tr("Add a patch")}
      </button>
    </div>
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
