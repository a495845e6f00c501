import { useState } from "react";
import { useParams, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useFairing, useSurvey } from "../../api/queries";
import { Choice } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Said, Sentence } from "../../ui/Sentence";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Size } from "../survey/Defects";
import { FairMap } from "./FairMap";
import { Gaps } from "./Gaps";
import { HardLines } from "./HardLines";
import { Practice } from "./Practice";
import { Rounds } from "./Rounds";
import { Sanding } from "./Sanding";
import { Take } from "./Take";

const VIEWS = [
  { key: "gaps", name: tr("Gaps and fill") },
  { key: "rounds", name: tr("Rounds") },
  { key: "sanding", name: tr("Sanding") },
  { key: "practice", name: tr("Practice") },
] as const;
type View = (typeof VIEWS)[number]["key"];

/** How much to fill and sand, how many rounds, and when it is fair enough. */
export function Fairing() {
  const { boatId = "" } = useParams();
  return <Loaded query={useSurvey(boatId)}>{(s) => <Shown key={boatId} survey={s} />}</Loaded>;
}

function Shown({ survey }: { survey: Schemas["Survey"] }) {
  const [params, setParams] = useSearchParams();
  const surfaceId = params.get("surface") ?? (survey.fairFirst || (survey.surfaces[0]?.id ?? ""));
  const view = VIEWS.find((v) => v.key === params.get("view"))?.key ?? "gaps";
  const set = params.get("set") ?? "";
  const go = (next: Record<string, string>) => setParams({ surface: surfaceId, view, ...next }, { replace: true });
  const fairing = useFairing(surfaceId, set);
  if (survey.surfaces.length === 0)
    return <Answer answer={tr("There is no surface to fair yet.")} detail={tr("Add it in Survey first.")} />;
  return (
    <>
      <Tabs label={tr("Fairing")} tabs={[...VIEWS]} at={view} onChange={(v: View) => go({ view: v })} />
      {view !== "practice" && (
        <div className="no-print mb-3 max-w-sm">
          <Choice
            name="surfaceId"
            label={tr("Surface")}
            value={surfaceId}
            onChange={(id) => go({ surface: id, set: "" })}
            options={survey.surfaces.map((s) => ({ value: s.id, label: s.name }))}
          />
        </div>
      )}
      {view === "practice" && <Practice />}
      {view === "sanding" && <Sanding key={surfaceId} surfaceId={surfaceId} zone={survey.place.timeZone} />}
      {(view === "gaps" || view === "rounds") && (
        <Loaded query={fairing}>
          {(f) =>
            view === "rounds" ? (
              <Rounds view={f} boatId={survey.boat.id} />
            ) : (
              <Surface key={`${surfaceId}${f.now?.id ?? ""}`} view={f} survey={survey} go={go} />
            )
          }
        </Loaded>
      )}
    </>
  );
}

function Surface({
  view,
  survey,
  go,
}: {
  view: Schemas["FairingView"];
  survey: Schemas["Survey"];
  go: (next: Record<string, string>) => void;
}) {
  const f = view.now;
  const [reading, setReading] = useState(false);
  const zone = survey.place.timeZone;
  const boatId = survey.boat.id;
  return (
    <>
      <Answer
        over={
          <>
            <span>{view.surface.name}</span>
            {f && <span>{tr("round {round}", { round: f.round })}</span>}
          </>
        }
        answer={
          f ? (
            <Sentence spans={f.says} zone={zone} />
          ) : (
            tr("Lay an edge on {name} and read its gaps: nothing is read there yet.", {
              name: view.surface.name.toLowerCase(),
            })
          )
        }
        detail={
          f ? (
            <>
              {f.result.highL !== undefined && (
                <>
                  {trNodes("Between {lowL} and {highL}, by what was not read or guessed.", {
                    lowL: <Quantity value={f.result.lowL ?? 0} unit="L" />,
                    highL: <Quantity value={f.result.highL} unit="L" />,
                  })}{" "}
                </>
              )}
              {f.short && f.short.length > 0 && <Said words={f.short} />}
              {f.notes.map((n, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: notes have no other identity than their order
                <span key={i} className="block">
                  <Said words={n} />
                </span>
              ))}
            </>
          ) : (
            tr(
              "A straightedge or a batten, and a wedge: the gaps in the order in which you walk. Or circle the lows by eye, hand and light.",
            )
          )
        }
      />
      {view.lows.length > 0 && (
        <p className="mb-3 text-sm">
          {tr(
            "{lows, plural, one {One low is} other {{lows} lows are}} pinned on the map in Survey instead of measured:",
            {
              lows: view.lows.length,
            },
          )}{" "}
          {view.lows.map((l, i) => (
            <span key={l.id}>
              {i > 0 && "; "}
              {l.note || <Size d={l} />}
            </span>
          ))}
          {tr(": about")} <Quantity value={view.lows.reduce((sum, l) => sum + l.repair.fillerL, 0)} unit="L" />{" "}
          {tr("of filler by their sizes.")}
        </p>
      )}
      <HardLines survey={survey} view={view} />
      {f && (
        <>
          {f.depth && f.depth.length > 0 && <FairMap fairing={f} />}
          <Take fairing={f} boatId={boatId} surfaceId={view.surface.id} zone={zone} />
        </>
      )}
      {f || reading ? (
        <Gaps view={view} survey={survey} go={go} />
      ) : (
        <button type="button" className="btn btn-primary min-h-12" onClick={() => setReading(true)}>
          {tr("Read the first gaps")}
        </button>
      )}
    </>
  );
}
