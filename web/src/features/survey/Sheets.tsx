import { useState } from "react";
import { Link, useParams } from "wouter";
import { api, ok, type Schemas, type Words } from "../../api/client";
import { useChange, useMeta, useSurvey } from "../../api/queries";
import { BoatMap } from "../../ui/BoatMap";
import { Errors, NumberField, Refusal, unsendable } from "../../ui/Form";
import { DEFECTS, type MapMark } from "../../ui/mapMarks";
import { Answer, Loaded } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Filler, isOpen, Size, useDefectName } from "./Defects";
import { EMPTY, editOf } from "./edit";

function Print({ back }: { back: string }) {
  return (
    <div className="no-print mb-4 flex gap-2">
      <button type="button" className="btn btn-primary min-h-11" onClick={() => window.print()}>
        {tr("Print")}
      </button>
      <Link className="btn min-h-11" to={back}>
        {tr("Back to Survey")}
      </Link>
    </div>
  );
}

/** The defects in the order of a walk round the boat, to take along on paper. */
export function WalkRound() {
  const { boatId = "" } = useParams();
  const name = useDefectName();
  const kinds = useMeta().data?.survey.defectKinds ?? [];
  return (
    <Loaded query={useSurvey(boatId)}>
      {(s) => {
        const open = s.defects.filter(isOpen);
        const surface = (id: string) => s.surfaces.find((f) => f.id === id)?.name ?? "";
        const marks: Record<string, MapMark> = {};
        for (const f of s.surfaces) marks[f.id] = (f.openDefects > 0 ? DEFECTS.open : DEFECTS.none) as MapMark;
        const litres = open.reduce((v, d) => v + d.repair.fillerL, 0);
        return (
          <div data-testid="walk-round">
            <Print back={`/boats/${boatId}/survey`} />
            <Answer
              over={<span>{tr("{name}, walk-round sheet", { name: s.boat.name })}</span>}
              answer={
                open.length === 0
                  ? tr("Nothing is waiting to be mended.")
                  : tr("{open} to look at, about {open2} of work.", {
                      open: open.length,
                      open2: span(open.reduce((h, d) => h + d.repair.hours, 0)),
                    })
              }
              detail={
                open.length > 0 && (
                  <>
                    {tr(
                      "From the stern along starboard to the bow, back along port, then under her and on deck. Filler in all:",
                    )}{" "}
                    <Filler litres={litres} />.
                  </>
                )
              }
            />
            <BoatMap
              views={s.views}
              surfaces={s.surfaces}
              marks={marks}
              picked=""
              onPick={() => {}}
              pins={open.map((d) => ({
                id: d.id,
                number: d.number,
                open: true,
                ...d.place,
                title: tr("Defect {number}", { number: d.number }),
              }))}
            />
            <table className="table-plain mt-4">
              <thead>
                <tr>
                  <th>{tr("No.")}</th>
                  <th>{tr("Where")}</th>
                  <th>{tr("What")}</th>
                  <th>{tr("Do")}</th>
                  <th>{tr("State")}</th>
                  <th className="num">{tr("Hours")}</th>
                  <th className="w-16">{tr("Done")}</th>
                </tr>
              </thead>
              <tbody>
                {open.map((d) => (
                  <tr key={d.id}>
                    <td className="font-bold">{d.number}</td>
                    <td>
                      {surface(d.surfaceId)}
                      <span className="quiet block text-sm">
                        {trNodes("{view}, {x} from aft{frame}", {
                          view: d.place.view,
                          x: <Quantity value={d.place.x} unit="m" digits={1} />,
                          frame: d.frame && tr(", frame {frame}", { frame: d.frame }),
                        })}
                      </span>
                      {d.photos.length > 0 && (
                        <img
                          src={`/api/photos/${d.photos.at(-1)?.id}`}
                          alt={tr("Defect {number} as it was last time", { number: d.number })}
                          className="mt-1 max-h-28 w-auto border border-base-300"
                          loading="lazy"
                        />
                      )}
                    </td>
                    <td>
                      {name(d)} <Size d={d} />
                      {d.note && <span className="quiet block text-sm">{d.note}</span>}
                    </td>
                    <td>{d.action || kinds.find((k) => k.kind === d.kind)?.action}</td>
                    <td>{d.state}</td>
                    <td className="num">{span(d.repair.hours)}</td>
                    <td>
                      <span className="inline-block size-5 border border-base-content" />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        );
      }}
    </Loaded>
  );
}

/** How many stations the sheet has for a surface that has none yet. */
const STATIONS = 7;

/** A sheet with stations and blanks to fill in at the hull, and the same order as fields to type into a phone. */
export function MeasuringSheet() {
  const { boatId = "" } = useParams();
  const parts = useMeta().data?.survey.parts ?? [];
  return (
    <Loaded query={useSurvey(boatId)}>
      {(s) => {
        const girthed = s.surfaces.filter((f) => parts.some((p) => p.part === f.part && p.girthed) || usesGirths(f));
        return (
          <div data-testid="measuring-sheet">
            <Print back={`/boats/${boatId}/survey`} />
            <Answer
              over={<span>{tr("{name}, measuring sheet", { name: s.boat.name })}</span>}
              answer={
                girthed.length
                  ? tr(
                      "Tape {girthed, plural, one {one surface} other {{girthed} surfaces}} at stations, from aft forward.",
                      { girthed: girthed.length },
                    )
                  : tr("There is no hull surface to be taped at stations yet.")
              }
              detail={tr(
                "Mark the stations along the centreline. Girth: from keel or waterline to the edge, over the curve. Along: over the hull at half girth, from the first station. Fill in the blanks, or type them here as you go: each surface is saved for itself.",
              )}
            />
            <div className="print-one">
              {girthed.map((f) => (
                <StationEntry key={f.id} boat={s.boat} surface={f} />
              ))}
            </div>
          </div>
        );
      }}
    </Loaded>
  );
}

const usesGirths = (f: Schemas["Surface"]) => f.measured.measures.some((m) => m.method === "girths");

function StationEntry({ boat, surface }: { boat: Schemas["Boat"]; surface: Schemas["Surface"] }) {
  const { show } = useSettings();
  const had = surface.measured.measures.find((m) => m.method === "girths")?.girths;
  const length = surface.part === "topsides" ? boat.dimensions.loaM : (boat.dimensions.lwlM ?? boat.dimensions.loaM);
  const [girths, setGirths] = useState<Schemas["AreaGirths"]>(
    () =>
      had ?? {
        sides: surface.side === "both" ? 2 : 1,
        stations: Array.from({ length: STATIONS }, (_, i) => ({
          atM: Number(((length * i) / (STATIONS - 1)).toFixed(2)),
          girthM: EMPTY,
        })),
      },
  );
  const [tried, setTried] = useState(false);
  const local = unsendable({ girths });
  const save = useChange(["surfaces"], () => {
    const e = editOf(surface);
    const at = e.measured.measures.findIndex((m) => m.method === "girths");
    const measures = [...e.measured.measures];
    if (at >= 0) measures[at] = { ...measures[at], method: "girths", girths };
    else measures.push({ method: "girths", girths });
    const chosen = at >= 0 ? at : measures.length - 1;
    return ok(
      api.PUT("/api/surfaces/{id}", {
        params: { path: { id: surface.id } },
        body: { version: surface.version, value: { ...e, measured: { ...e.measured, measures, chosen } } },
      }),
    );
  });
  const fields: Record<string, Words> = {};
  for (const [k, v] of Object.entries(save.error?.fields ?? {}))
    fields[k.replace(/^measured\.measures\[\d+\]\./, "")] = v;
  const put = (i: number, st: Partial<Schemas["AreaStation"]>) =>
    setGirths({ ...girths, stations: girths.stations.map((o, k) => (k === i ? { ...o, ...st } : o)) });
  const blank = (v?: number) => (v === undefined || Number.isNaN(v) ? "" : `${show(v, "m").text} ${show(v, "m").unit}`);
  return (
    <section className="rule-t break-inside-avoid py-4" data-panel={surface.name}>
      <h2 className="text-lg">
        {surface.name}
        <span className="quiet text-sm font-normal">
          {" "}
          {tr("– girths of {x}", { x: girths.sides === 2 ? tr("one side; both are meant") : tr("this side") })}
        </span>
      </h2>
      <table className="table-plain print-only mt-1">
        <thead>
          <tr>
            <th>{tr("Station")}</th>
            <th>{tr("At, centreline")}</th>
            <th>{tr("Along the hull")}</th>
            <th>{tr("Girth")}</th>
          </tr>
        </thead>
        <tbody>
          {girths.stations.map((st, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: stations have no other identity than their order
            <tr key={i}>
              <td>{i + 1}</td>
              <td>{blank(st.atM)}</td>
              <td className="h-9">{blank(st.pathM)}</td>
              <td>{blank(st.girthM)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Errors.Provider value={{ ...fields, ...(tried ? local : {}) }}>
        <form
          className="no-print mt-2 max-w-2xl"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            setTried(true);
            if (Object.keys(local).length === 0) save.mutate(undefined);
          }}
        >
          <div className="grid grid-cols-[1.5rem_1fr_1fr_1fr] gap-2 text-sm font-semibold" aria-hidden="true">
            <span />
            <span>{tr("At")}</span>
            <span>{tr("Along")}</span>
            <span>{tr("Girth")}</span>
          </div>
          {girths.stations.map((st, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: stations have no other identity than their order
            <div key={i} className="mb-2 grid grid-cols-[1.5rem_1fr_1fr_1fr] items-end gap-2">
              <span className="min-h-11 content-center font-bold">{i + 1}</span>
              <NumberField
                name={`girths.stations[${i}].atM`}
                label={tr("{name}, station {i} at", { name: surface.name, i: i + 1 })}
                hidden
                unit="m"
                value={st.atM}
                onChange={(v) => put(i, { atM: v ?? EMPTY })}
              />
              <NumberField
                name={`girths.stations[${i}].pathM`}
                label={tr("{name}, station {i} along", { name: surface.name, i: i + 1 })}
                hidden
                unit="m"
                value={st.pathM}
                onChange={(v) => put(i, { pathM: v })}
              />
              <NumberField
                name={`girths.stations[${i}].girthM`}
                label={tr("{name}, station {i} girth", { name: surface.name, i: i + 1 })}
                hidden
                unit="m"
                value={st.girthM}
                onChange={(v) => put(i, { girthM: v ?? EMPTY })}
              />
            </div>
          ))}
          <Refusal error={save.error} />
          <div className="flex items-center gap-3">
            <button type="submit" className="btn btn-primary min-h-12" disabled={save.isPending}>
              {tr("Save {name}", { name: surface.name })}
            </button>
            {save.isSuccess && (
              <p role="status">
                {trNodes("saved: {areaM2} ±{uncertaintyPct} %", {
                  areaM2: <Quantity value={surface.area.areaM2} unit="m²" />,
                  uncertaintyPct: surface.area.uncertaintyPct.toFixed(1),
                })}
              </p>
            )}
          </div>
        </form>
      </Errors.Provider>
    </section>
  );
}
