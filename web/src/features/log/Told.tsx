import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useHistory, useKinds, useMeta, useSuspects } from "../../api/queries";
import { number } from "../../ui/prose";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes, word } from "../../words/words";

type Entry = Schemas["Entry"];

function Paid({ spent: s }: { spent: Schemas["LogbookSpent"] }) {
  const { money } = useSettings();
  const name = useMeta().data?.log.expenses.find((e) => e.on === s.on)?.name ?? s.on;
  return <>{`: ${word(name)}, ${money(s.cents)}`}</>;
}

const FELT: Record<string, string> = {
  sticky: tr("still sticky"),
  "touch-dry": tr("just dry to touch"),
  sandable: tr("just dry enough to sand"),
};

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
        <Figure title={tr("{surface}, film", { surface: e.surface })} working={e.working}>
          {trNodes("film {filmUm}", { filmUm: <Quantity value={e.filmUm} unit="µm" /> })}
        </Figure>{" "}
        <span className="quiet">({word(e.filmKnown ?? "")})</span>
        {e.batch && <span className="quiet">{tr(", batch {batch}", { batch: e.batch })}</span>}
        {(e.edition ?? 0) > 0 && (
          <span className="quiet">{trNodes(", edition {edition} of its sheet", { edition: e.edition })}</span>
        )}
        {(e.sharePct ?? 0) > 0 && (
          <span className="quiet">{tr(", {sharePct} % of it", { sharePct: Math.round(e.sharePct ?? 0) })}</span>
        )}
        {(e.patches ?? []).length > 0 && (
          <span className="quiet">{trNodes(", patches {patches}", { patches: e.patches?.join(", ") })}</span>
        )}
        {e.outcome && <b> {e.outcome === "passed" ? tr("It passed.") : tr("It failed.")}</b>}
      </>
    );
  return (
    <>
      {name}
      {e.grit > 0 && tr(", {grit} grit", { grit: e.grit })}
      {e.removedUm > 0 && (
        <>{trNodes(", {removedUm} taken off", { removedUm: <Quantity value={e.removedUm} unit="µm" /> })}</>
      )}
      {e.round &&
        tr(
          ", round {n}: {lows, plural, one {one low} other {# lows}}, {pinholes, plural, one {one pinhole} other {# pinholes}}",
          {
            n: e.round.n,
            lows: e.round.lows,
            pinholes: e.round.pinholes,
          },
        )}
      {e.litres > 0 && (
        <>
          , <Quantity value={e.litres} unit="L" />
        </>
      )}
      {(e.hours ?? 0) > 0 && `, ${e.hours} h`}
      {e.spent && <Paid spent={e.spent} />}
      {e.felt && `: ${FELT[e.felt.state]}`}
      {e.felt && tr(", at {progress} times the sheet’s time", { progress: number(e.felt.progress ?? 0, 2) })}
      {kind.graded &&
        `: ${
          Object.entries(e.held ?? {})
            .filter(([, g]) => g > 0)
            .map(([k, g]) => `${word(k)} ${g}`)
            .join(", ") || tr("nothing wrong")
        }`}
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
          {tr("Hardener {offPct} % {x}: {means}.", {
            offPct: number(Math.abs(e.mixed.offPct), 0),
            x: e.mixed.offPct > 0 ? tr("over") : tr("short"),
            means: e.mixed.means,
          })}
        </span>
      )}
      {e.photos.length > 0 && (
        <span className="mt-1 flex flex-wrap gap-2">
          {e.photos.map((p) => (
            <a key={p.id} href={`/api/photos/${p.id}`} target="_blank" rel="noreferrer">
              <img
                src={`/api/photos/${p.id}`}
                alt=""
                width={96}
                height={72}
                className="h-18 w-24 border border-base-300 object-cover"
              />
            </a>
          ))}
        </span>
      )}
      <span className="no-print flex flex-wrap gap-x-4 text-sm">
        {(e.blemishes ?? []).length > 0 && (
          <button
            type="button"
            className="linked max-sm:min-h-11"
            aria-expanded={open === "causes"}
            onClick={() => toggle("causes")}
          >
            {tr("{blemishes, plural, one {one blemish seen} other {{blemishes} blemishes seen}}: what caused it?", {
              blemishes: e.blemishes?.length,
            })}
          </button>
        )}
        {e.version > 1 && (
          <button
            type="button"
            className="linked max-sm:min-h-11"
            aria-expanded={open === "history"}
            onClick={() => toggle("history")}
          >
            {tr("corrected: what it was")}
          </button>
        )}
      </span>
      {open === "causes" && <Causes id={e.id} />}
      {open === "history" && <History id={e.id} zone={zone} />}
    </>
  );
}

const WHY: Record<string, string> = {
  "mean-below-nominal": tr("the mean is below what is wanted"),
  "reading-below-80-pct": tr("a reading is below 80 % of it"),
  "more-than-20-pct-between-80-and-100-pct": tr("a fifth or more lie between 80 and 100 % of it"),
  "above-maximum": tr("a reading is above the most allowed"),
};

function Verdict({ entry: e, verdict: v }: { entry: Entry; verdict: Schemas["FilmAcceptanceResult"] }) {
  const n = e.dry?.readingsUm?.length ?? 0;
  return (
    <span
      className={`mt-1 block border-l-4 pl-2 ${v.accepted && n >= v.readingsNeeded ? "border-success" : "border-error"}`}
      data-testid="verdict"
    >
      <Figure title={tr("{surface}, dry film", { surface: e.surface })} working={v.working}>
        {trNodes("{x}: mean {meanUm} where {nominalUm} are wanted", {
          x: <b>{v.accepted ? tr("The film is accepted") : tr("The film is not accepted")}</b>,
          meanUm: <Quantity value={v.meanUm} unit="µm" />,
          nominalUm: <Quantity value={e.dry?.nominalUm ?? 0} unit="µm" />,
        })}
      </Figure>
      {v.reasons?.map((r) => `; ${WHY[r] ?? r}`)}
      {n < v.readingsNeeded
        ? tr("; {n} {n, plural, one {reading} other {readings}}, and this area takes {readingsNeeded}", {
            n,
            readingsNeeded: v.readingsNeeded,
          })
        : tr("; {n, plural, one {one reading} other {{n} readings}}, {readingsNeeded} are asked for", {
            n,
            readingsNeeded: v.readingsNeeded,
          })}
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
              {c.told && <span className="block font-normal">{tr("Next time: {next}.", { next: c.next })}</span>}
            </span>
          ))}
          <span className="block">{tr("Remedy: {remedy}", { remedy: s.remedy })}</span>
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
          {trNodes("until {at}: {x}, begun {startedAt}{litres}{grit}{who}{note}", {
            at: stamp(f.at, zone),
            x: f.deleted ? tr("deleted") : f.product || f.kind,
            startedAt: stamp(f.startedAt, zone),
            litres: f.litres > 0 && `, ${litres(f.litres)}`,
            grit: f.grit > 0 && tr(", {grit} grit", { grit: f.grit }),
            who: f.who && `, ${f.who}`,
            note: f.note && ` – ${f.note}`,
          })}
        </span>
      ))}
    </span>
  );
}
