import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useHistory, useKinds, useSuspects } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";

type Entry = Schemas["Entry"];

/** What an entry says was done, with its figures. */
export function What({ entry: e }: { entry: Entry }) {
  const kind = useKinds().kindOf(e.kind);
  const name = kind.told ?? e.kind;
  if (kind.lays)
    return (
      <>
        {e.product}
        {e.litres > 0 && (
          <>
            , <Quantity value={e.litres} unit="L" />
          </>
        )}
        ,{" "}
        <Figure title={`${e.surface}, film`} working={e.working}>
          film <Quantity value={e.filmUm} unit="µm" />
        </Figure>{" "}
        <span className="quiet">({e.filmKnown})</span>
        {e.batch && <span className="quiet">, batch {e.batch}</span>}
        {(e.edition ?? 0) > 0 && <span className="quiet">, edition {e.edition} of its sheet</span>}
        {(e.sharePct ?? 0) > 0 && <span className="quiet">, {Math.round(e.sharePct ?? 0)} % of it</span>}
        {(e.patches ?? []).length > 0 && <span className="quiet">, patches {e.patches?.join(", ")}</span>}
        {e.outcome && <b> {e.outcome === "passed" ? "It passed." : "It failed."}</b>}
      </>
    );
  return (
    <>
      {name}
      {e.grit > 0 && `, ${e.grit} grit`}
      {e.removedUm > 0 && (
        <>
          , <Quantity value={e.removedUm} unit="µm" /> taken off
        </>
      )}
      {e.round && `, round ${e.round.n}: ${e.round.lows} lows, ${e.round.pinholes} pinholes`}
      {e.litres > 0 && (
        <>
          , <Quantity value={e.litres} unit="L" />
        </>
      )}
      {(e.hours ?? 0) > 0 && `, ${e.hours} h`}
    </>
  );
}

/** The verdict on an entry's readings, on its mix, what was seen with its causes, photos, and what it was before. */
export function Judged({ entry: e, zone }: { entry: Entry; zone: string }) {
  const [open, setOpen] = useState<"" | "history" | "causes">("");
  const toggle = (what: "history" | "causes") => setOpen(open === what ? "" : what);
  return (
    <>
      {e.verdict && <Verdict entry={e} verdict={e.verdict} />}
      {e.mixed && !e.mixed.within && (
        <span className="block border-l-4 border-error pl-2 text-sm">
          Hardener {Math.abs(e.mixed.offPct).toFixed(0)} % {e.mixed.offPct > 0 ? "over" : "short"}: {e.mixed.means}.
        </span>
      )}
      {e.photos.length > 0 && (
        <span className="mt-1 flex flex-wrap gap-2">
          {e.photos.map((p) => (
            <a key={p.id} href={`/api/photos/${p.id}`} target="_blank" rel="noreferrer">
              <img src={`/api/photos/${p.id}`} alt="" width={96} height={72} className="h-18 w-24 border border-base-300 object-cover" />
            </a>
          ))}
        </span>
      )}
      <span className="no-print flex flex-wrap gap-x-4 text-sm">
        {(e.blemishes ?? []).length > 0 && (
          <button type="button" className="linked max-sm:min-h-11" aria-expanded={open === "causes"} onClick={() => toggle("causes")}>
            {e.blemishes?.length === 1 ? "one blemish seen" : `${e.blemishes?.length} blemishes seen`}: what caused it?
          </button>
        )}
        {e.version > 1 && (
          <button type="button" className="linked max-sm:min-h-11" aria-expanded={open === "history"} onClick={() => toggle("history")}>
            corrected: what it was
          </button>
        )}
      </span>
      {open === "causes" && <Causes id={e.id} />}
      {open === "history" && <History id={e.id} zone={zone} />}
    </>
  );
}

const WHY: Record<string, string> = {
  "mean-below-nominal": "the mean is below what is wanted",
  "reading-below-80-pct": "a reading is below 80 % of it",
  "more-than-20-pct-between-80-and-100-pct": "a fifth or more lie between 80 and 100 % of it",
  "above-maximum": "a reading is above the most allowed",
};

function Verdict({ entry: e, verdict: v }: { entry: Entry; verdict: Schemas["FilmAcceptanceResult"] }) {
  const n = e.dry?.readingsUm?.length ?? 0;
  return (
    <span
      className={`mt-1 block border-l-4 pl-2 ${v.accepted && n >= v.readingsNeeded ? "border-success" : "border-error"}`}
      data-testid="verdict"
    >
      <Figure title={`${e.surface}, dry film`} working={v.working}>
        <b>{v.accepted ? "The film is accepted" : "The film is not accepted"}</b>: mean <Quantity value={v.meanUm} unit="µm" /> where{" "}
        <Quantity value={e.dry?.nominalUm ?? 0} unit="µm" /> are wanted
      </Figure>
      {v.reasons?.map((r) => `; ${WHY[r] ?? r}`)}
      {n < v.readingsNeeded
        ? `; ${n} ${n === 1 ? "reading" : "readings"}, and this area takes ${v.readingsNeeded}`
        : `; ${n} readings, ${v.readingsNeeded} are asked for`}
      .
    </span>
  );
}

function Causes({ id }: { id: string }) {
  const { prose } = useSettings();
  const found = useSuspects(id).data;
  return (
    <span className="mt-1 block" data-testid="causes">
      {found?.map((s) => (
        <span key={s.key} className="mt-2 block">
          <b>{s.name}</b> <span className="quiet">({s.looks})</span>
          {s.causes?.map((c) => (
            <span key={c.text} className={`block pl-3 ${c.told ? "border-l-4 border-warning font-semibold" : "quiet"}`}>
              {c.text}
              {c.told && `: ${prose(c.told)}`}
            </span>
          ))}
          <span className="block">Remedy: {s.remedy}</span>
        </span>
      ))}
    </span>
  );
}

function History({ id, zone }: { id: string; zone: string }) {
  const { show } = useSettings();
  const former = useHistory(id).data;
  const litres = (v: number) => `${show(v, "L").text} ${show(v, "L").unit}`;
  return (
    <span className="block text-sm" data-testid="history">
      {former?.map((f) => (
        <span key={f.version} className="block border-l-4 border-base-300 pl-2">
          until {stamp(f.at, zone)}: {f.deleted ? "deleted" : f.product || f.kind}, begun {stamp(f.startedAt, zone)}
          {f.litres > 0 && `, ${litres(f.litres)}`}
          {f.grit > 0 && `, ${f.grit} grit`}
          {f.who && `, ${f.who}`}
          {f.note && ` – ${f.note}`}
        </span>
      ))}
    </span>
  );
}
