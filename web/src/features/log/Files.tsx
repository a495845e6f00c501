import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, ok, Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { upload } from "../../api/upload";
import { Refusal } from "../../ui/Form";
import { Answer } from "../../ui/Page";
import { number } from "../../ui/prose";
import { day } from "../../ui/time";
import { tr } from "../../words/words";

/** What a database can be restored from. */
type Backup = { name: string; restore: () => Promise<Schemas["Restored"]> };

/** The boat and the whole database as files, out and in. */
export function Files({ boatId }: { boatId: string }) {
  const queries = useQueryClient();
  const [said, setSaid] = useState("");
  const [error, setError] = useState<Refused | null>(null);
  const [sure, setSure] = useState<Backup>();
  const copies = useQuery({ queryKey: key("backups"), queryFn: () => ok(api.GET("/api/backups")) }).data ?? [];
  const run = async (work: () => Promise<string>) => {
    setError(null);
    setSaid("");
    try {
      setSaid(await work());
      await queries.invalidateQueries();
    } catch (e) {
      if (e instanceof Refused) setError(e);
      else throw e;
    }
  };
  return (
    <>
      <Answer
        answer={tr("Her record belongs to you: take it out in open files.")}
        detail={tr(
          "A boat file holds all of one boat, photos and readings too, and can be read into another All Coats. A backup holds everything.",
        )}
      />
      <section>
        <h2 className="text-lg">{tr("This boat")}</h2>
        <div className="mt-2 flex flex-wrap gap-2">
          <a className="btn min-h-11" href={`/api/boats/${boatId}/file`}>
            {tr("Boat file (JSON)")}
          </a>
          <a className="btn min-h-11" href={`/api/boats/${boatId}/log.csv`}>
            {tr("Log as CSV")}
          </a>
          <a className="btn min-h-11" href={`/api/boats/${boatId}/log.xlsx`}>
            {tr("Log as XLSX")}
          </a>
        </div>
      </section>
      <section className="mt-6">
        <h2 className="text-lg">{tr("Read in")}</h2>
        <p className="quiet text-sm">
          {tr("What is here already is left as it is. If something differs, nothing is stored and it is named.")}
        </p>
        <div className="mt-2">
          <Pick
            label={tr("A boat file")}
            accept=".json"
            take={(f) =>
              void run(async () => {
                const t = await upload<Schemas["Taken"]>("/api/boat-file", {}, f);
                return t.added === 0
                  ? tr("{boat} is here already, all of it.", { boat: t.boat })
                  : tr("{boat} is in: {added} records.", { boat: t.boat, added: t.added });
              })
            }
          />
        </div>
      </section>
      <section className="mt-6">
        <h2 className="text-lg">{tr("Everything")}</h2>
        <div className="mt-2 flex flex-wrap gap-2">
          <a className="btn min-h-11" href="/api/backup">
            {tr("Backup")}
          </a>
          <Pick
            label={tr("Restore a backup")}
            accept=".db"
            take={(f) => setSure({ name: f.name, restore: () => upload<Schemas["Restored"]>("/api/backup", {}, f) })}
          />
        </div>
        <Copies copies={copies} restore={setSure} />
        {sure && (
          <Sure
            name={sure.name}
            no={() => setSure(undefined)}
            yes={() => {
              setSure(undefined);
              void run(async () => {
                const r = await sure.restore();
                return tr(
                  "Restored: {boats} {boats, plural, one {boat} other {boats}}. What was here before is kept as {kept}.",
                  { boats: r.boats, kept: r.kept },
                );
              });
            }}
          />
        )}
      </section>
      <div className="mt-4">
        {said && <p role="status">{said}</p>}
        <Refusal error={error} />
      </div>
    </>
  );
}

/** A button that takes a file. */
function Pick({ label, accept, take }: { label: string; accept: string; take: (f: File) => void }) {
  return (
    <label className="btn min-h-11">
      {label}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(e) => {
          const f = e.target.files?.[0];
          e.target.value = "";
          if (f) take(f);
        }}
      />
    </label>
  );
}

/** The copies that the program keeps beside its database. */
function Copies({ copies, restore }: { copies: Schemas["Kept"][]; restore: (b: Backup) => void }) {
  if (copies.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="flex min-h-11 cursor-pointer items-center">
        {tr(
          "{copies, plural, one {One copy of a day is} other {# copies of days are}} kept beside the database, the newest of {day}",
          { copies: copies.length, day: day(copies[0]?.at ?? "", "UTC") },
        )}
      </summary>
      <p className="quiet text-sm">
        {tr("One is written each day and checked; seven days, five weeks and twelve months are kept.")}
      </p>
      <ul>
        {copies.map((c) => (
          <li key={c.name} className="rule-b flex flex-wrap items-center gap-3 py-1">
            <span className="w-44">{day(c.at, "UTC")}</span>
            <span className="quiet">{tr("{megabytes} MB", { megabytes: number(c.bytes / 1e6, 1) })}</span>
            <button
              type="button"
              className="linked min-h-11"
              onClick={() =>
                restore({
                  name: c.name,
                  restore: () => ok(api.POST("/api/backups/{id}/restore", { params: { path: { id: c.name } } })),
                })
              }
            >
              {tr("Restore")}
            </button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Asks before everything is replaced. */
function Sure({ name, yes, no }: { name: string; yes: () => void; no: () => void }) {
  return (
    <div role="alert" className="mt-3 border-l-4 border-error pl-3">
      <p>
        {tr("Everything stored here now is replaced by what is in {name}. Take a backup first if you are not sure.", {
          name,
        })}
      </p>
      <p className="mt-2 flex gap-2">
        <button type="button" className="btn btn-error min-h-11" onClick={yes}>
          {tr("Replace everything")}
        </button>
        <button type="button" className="btn btn-ghost min-h-11" onClick={no}>
          {tr("Leave it")}
        </button>
      </p>
    </div>
  );
}
