import { Plus, Trash2 } from "lucide-react";
import type { Schemas } from "../../api/client";
import { Choice, NumberField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { useSettings } from "../../ui/settings";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";
import { ConsumptionFields } from "./ConsumptionFields";
import { blank, type Edit, EMPTY, type Measure, type Words } from "./edit";
import { GirthFields } from "./GirthFields";
import { ModelFields } from "./ModelFields";
import { OutlineFields } from "./OutlineFields";
import { ShapeFields } from "./ShapeFields";

type Props = {
  edit: Edit;
  change: (e: Partial<Edit>) => void;
  words: Words;
  survey: Schemas["Survey"];
  surface?: Schemas["Surface"];
  /** What it comes to as edited; undefined while a figure is missing. */
  found?: Schemas["AreaAssessment"];
};

const ORDER: Measure["method"][] = ["girths", "shapes", "outline", "model", "consumption", "principal", "stated"];

/** The measurements of a surface side by side, and which of them counts. */
export function Measuring({ edit, change, words, survey, surface, found }: Props) {
  const { prose } = useSettings();
  const m = edit.measured;
  const set = (measured: Partial<Edit["measured"]>) => change({ measured: { ...m, ...measured } });
  const put = (i: number, one: Measure) => set({ measures: m.measures.map((o, k) => (k === i ? one : o)) });
  const drop = (i: number) =>
    set({
      measures: m.measures.filter((_, k) => k !== i),
      chosen: Math.max(0, m.chosen > i || m.chosen === m.measures.length - 1 ? m.chosen - 1 : m.chosen),
    });
  const part = words.parts.find((p) => p.part === edit.part);
  const methods = ORDER.filter((k) => k !== "principal" || part?.byRule).map((value) => ({
    value,
    label: words.methods[value] ?? value,
  }));
  return (
    <div className="max-w-5xl">
      {found && (
        <p className="mb-3 text-lg" data-testid="area-found">
          <Figure title={`${edit.name || tr("Area")}`} working={found.working}>
            <Quantity value={found.areaM2} unit="m²" /> ±{found.uncertaintyPct.toFixed(1)} %
          </Figure>
          {m.combine && m.measures.length > 1 ? tr(", all measurements combined") : ""}
          {m.sharePct && m.sharePct < 100
            ? tr(", {sharePct} % of what was measured", { sharePct: Math.round(m.sharePct) })
            : ""}
        </p>
      )}
      {surface?.better && <p className="mb-2 border-l-4 border-warning pl-3">{prose(surface.better)}</p>}
      {found?.disagreeing.map((d) => (
        <p key={`${d.a}-${d.b}`} role="alert" className="mb-2 border-l-4 border-error pl-3">
          {tr("{text} Measure once more before you buy by either.", { text: prose(d.text) })}
        </p>
      ))}
      {m.measures.map((one, i) => {
        const f = found?.figures[i];
        const path = `measured.measures[${i}]`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: measurements have no other identity than their order
          <fieldset key={i} className="rule-t py-4">
            <legend className="sr-only">{tr("Measurement {i}", { i: i + 1 })}</legend>
            <div className="mb-3 flex flex-wrap items-end gap-3">
              <div className="w-56">
                <Choice
                  name={`${path}.method`}
                  label={tr("Measurement {i}, by", { i: i + 1 })}
                  value={one.method}
                  onChange={(method) => put(i, blank(method))}
                  options={methods}
                />
              </div>
              <p className="min-h-11 grow content-center">
                {f ? (
                  <Figure title={tr("Measurement {i}", { i: i + 1 })} working={f.working}>
                    <Quantity value={f.areaM2} unit="m²" /> ±{f.uncertaintyPct.toFixed(1)} %
                  </Figure>
                ) : (
                  <span className="quiet">{tr("figures are missing")}</span>
                )}
              </p>
              {m.measures.length > 1 && !m.combine && (
                <label className="flex min-h-11 cursor-pointer items-center gap-2">
                  <input
                    type="radio"
                    name="chosen"
                    className="radio"
                    checked={m.chosen === i}
                    onChange={() => set({ chosen: i })}
                    aria-label={tr("Measurement {i} counts", { i: i + 1 })}
                  />
                  {tr("counts")}
                </label>
              )}
              {m.measures.length > 1 && (
                <button
                  type="button"
                  className="btn btn-ghost min-h-11"
                  aria-label={tr("Remove measurement {i}", { i: i + 1 })}
                  onClick={() => drop(i)}
                >
                  <Trash2 size={18} aria-hidden="true" />
                </button>
              )}
            </div>
            <WayFields
              path={path}
              one={one}
              put={(more) => put(i, { ...one, ...more })}
              line={f?.line}
              words={words}
              survey={survey}
              surface={surface}
            />
          </fieldset>
        );
      })}
      <div className="rule-t flex flex-wrap items-center gap-x-6 gap-y-2 pt-3">
        <button
          type="button"
          className="btn min-h-11"
          onClick={() => set({ measures: [...m.measures, blank("shapes")], chosen: m.chosen })}
        >
          <Plus size={18} aria-hidden="true" /> {tr("Measure in another way")}
        </button>
        {m.measures.length > 1 && (
          <label className="flex min-h-11 cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox border-base-content/60"
              checked={m.combine ?? false}
              onChange={(e) => set({ combine: e.target.checked })}
            />
            {tr("combine all by their ±")}
          </label>
        )}
      </div>
    </div>
  );
}

type Way = Pick<Props, "words" | "survey" | "surface"> & {
  path: string;
  one: Measure;
  put: (more: Partial<Measure>) => void;
  line?: Parameters<typeof GirthFields>[0]["line"];
};

/** What is asked of a measurement by its method. */
function WayFields({ path, one, put, line, words, survey, surface }: Way) {
  const at = fieldsOf(
    one,
    (more) => put(Object.fromEntries(Object.entries(more).map(([k, v]) => [k, v ?? EMPTY]))),
    path,
  );
  return (
    <>
      {one.girths && (
        <GirthFields path={`${path}.girths`} girths={one.girths} line={line} set={(girths) => put({ girths })} />
      )}
      {one.method === "shapes" && (
        <ShapeFields
          path={`${path}.shapes`}
          shapes={one.shapes ?? []}
          set={(shapes) => put({ shapes })}
          kinds={words.shapes}
        />
      )}
      {one.outline && (
        <OutlineFields path={`${path}.outline`} outline={one.outline} set={(outline) => put({ outline })} />
      )}
      {one.model && (
        <ModelFields
          path={`${path}.model`}
          model={one.model}
          set={(model) => put({ model })}
          models={survey.models}
          zones={words.zones as string[]}
        />
      )}
      {one.consumption && (
        <ConsumptionFields
          path={`${path}.consumption`}
          c={one.consumption}
          set={(consumption) => put({ consumption })}
          boatId={survey.boat.id}
          surfaceId={surface?.id}
        />
      )}
      {one.method === "stated" && (
        <div className="grid gap-4 sm:grid-cols-3">
          <NumberField {...at("areaM2")} label={tr("Area")} unit="m²" />
          <NumberField
            {...at("uncertaintyPct")}
            label={tr("Uncertainty")}
            hint={tr("the truth lies within it four times in five")}
            unit="%"
          />
        </div>
      )}
      {one.method === "principal" && (
        <p className="quiet text-sm">
          {tr("A rule over her dimensions. Enough to order a test tin; tape it before you buy.")}
        </p>
      )}
    </>
  );
}
