import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { Choice, Refusal } from "../../ui/Form";
import { tr, trNodes } from "../../words/words";
import { editOf } from "../survey/edit";
import { HullMap, type Spot } from "./HullMap";

type HardLine = Schemas["SurveyHardLine"];
type Kind = HardLine["kind"];

const KINDS: { value: Kind; label: string }[] = [
  { value: "knuckle", label: tr("knuckle") },
  { value: "chine", label: tr("chine") },
  { value: "edge", label: tr("edge") },
  { value: "corner", label: tr("inside corner") },
];

/** The surface as it is, and its hard lines drawn on it point by point. */
export function HardLines({ survey, view }: { survey: Schemas["Survey"]; view: Schemas["FairingView"] }) {
  const [kind, setKind] = useState<Kind | null>(null);
  const [points, setPoints] = useState<Spot[]>([]);
  const surface = survey.surfaces.find((s) => s.id === view.surface.id);
  const f = view.now;
  const keep = useChange(["surfaces"], (hardLines: HardLine[]) => {
    if (!surface) throw new Error(tr("no surface"));
    const value = editOf(surface);
    return ok(
      api.PUT("/api/surfaces/{id}", {
        params: { path: { id: surface.id } },
        body: { version: surface.version, value: { ...value, findings: { ...value.findings, hardLines } } },
      }),
    );
  });
  if (!surface) return null;
  const hard = surface.findings.hardLines ?? [];
  const placed = f?.lines?.length ? f.lines : f?.on ? [{ name: tr("the first row"), on: f.on }] : [];
  return (
    <section className="mb-6">
      <HullMap
        survey={survey}
        surfaceId={surface.id}
        contours={f?.contours}
        tracks={placed.flatMap((l, i) => (l.on ? [{ name: l.name || `line ${i + 1}`, on: l.on }] : []))}
        lows={f?.lows}
        begun={points[0] ? { view: points[0].view, points } : undefined}
        onPlace={kind ? (at) => (!points[0] || points[0].view === at.view) && setPoints([...points, at]) : undefined}
      />
      <details className="no-print mt-1">
        <summary className="linked w-fit min-h-11 text-sm">
          {hard.length === 0
            ? tr("Hard lines: none is drawn")
            : tr("Hard lines: {hard}", { hard: hard.map((h) => h.kind).join(", ") })}
        </summary>
        <p className="text-sm">
          {tr(
            "A knuckle, a chine, an edge or an inside corner is meant to be sharp: nothing is faired across it. Choose what it is, then press along it.",
          )}
        </p>
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <div className="w-44">
            <Choice
              name="hardKind"
              label={tr("Draw")}
              value={kind ?? ""}
              onChange={(k) => {
                setKind((k || null) as Kind | null);
                setPoints([]);
              }}
              options={[{ value: "", label: tr("nothing") }, ...KINDS]}
            />
          </div>
          {kind && (
            <>
              <button
                type="button"
                className="btn btn-primary min-h-11"
                disabled={points.length < 2 || keep.isPending}
                onClick={() => {
                  keep.mutate([
                    ...hard,
                    {
                      kind,
                      view: points[0]?.view as HardLine["view"],
                      points: points.map(({ x, y }) => ({
                        x: Math.round(100 * x) / 100,
                        y: Math.round(100 * y) / 100,
                      })),
                    },
                  ]);
                  setKind(null);
                  setPoints([]);
                }}
              >
                {tr("Keep this {kind}", { kind })}
              </button>
              <button
                type="button"
                className="btn min-h-11"
                disabled={points.length === 0}
                onClick={() => setPoints(points.slice(0, -1))}
              >
                {tr("Take the last point back")}
              </button>
            </>
          )}
          {hard.length > 0 && !kind && (
            <button
              type="button"
              className="btn min-h-11"
              disabled={keep.isPending}
              onClick={() => keep.mutate(hard.slice(0, -1))}
            >
              {trNodes("Remove the last, {kind}", { kind: hard.at(-1)?.kind })}
            </button>
          )}
        </div>
        <Refusal error={keep.error} />
      </details>
    </section>
  );
}
