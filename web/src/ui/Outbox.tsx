import { useQueryClient } from "@tanstack/react-query";
import { useContext, useEffect, useState } from "react";
import { again, discard, flush, mine, type Parcel, stores, useOutbox } from "../api/outbox";
import { useSeenAt } from "../api/programTime";
import { tr, trNodes } from "../words/words";
import { Differences } from "./Conflict";
import { Said } from "./Sentence";
import { Zone } from "./settings";
import { stamp } from "./time";

const TRY_AGAIN_MS = 15_000;

/** What waits on this device to be sent, and what was refused; tries again by itself. */
export function Outbox() {
  const parcels = useOutbox();
  const queries = useQueryClient();
  const seenAt = useSeenAt();
  const zone = useContext(Zone);
  const [offline, setOffline] = useState(!navigator.onLine);
  useEffect(() => {
    const go = async () => {
      setOffline(!navigator.onLine);
      if ((await flush()) > 0) await queries.invalidateQueries();
    };
    void go();
    const timer = setInterval(go, TRY_AGAIN_MS);
    window.addEventListener("online", go);
    window.addEventListener("offline", go);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", go);
      window.removeEventListener("offline", go);
    };
  }, [queries]);
  const waiting = parcels.filter((p) => !p.refused);
  const refused = parcels.filter((p) => p.refused);
  const old = (offline || seenAt !== undefined) && (
    <p role="status" className="no-print mb-3 border-l-4 border-warning pl-3 text-sm">
      {tr("No signal: what is shown is {x}. What you write is kept here and sent later.", {
        x:
          seenAt === undefined
            ? tr("what was seen last")
            : tr("of {seenAt}", { seenAt: stamp(new Date(seenAt).toISOString(), zone) }),
      })}
    </p>
  );
  if (parcels.length === 0) return old || null;
  return (
    <>
      {old}
      <div role="status" className="no-print mb-4 border-l-4 border-warning pl-3" data-testid="outbox">
        {waiting.length > 0 && (
          <p>
            {trNodes("{b} and {waiting, plural, one {is} other {are}} sent when the program answers:", {
              b: (
                <b>
                  {tr("{waiting} {waiting, plural, one {entry waits} other {entries wait}} on this device", {
                    waiting: waiting.length,
                  })}
                </b>
              ),
              waiting: waiting.length,
            })}{" "}
            {waiting.map((p) => p.label).join("; ")}.
            {!window.isSecureContext &&
              tr(" Leave this page open: over plain http it does not open again without a signal.")}
          </p>
        )}
        {waiting.length > 0 && (
          <details>
            <summary className="linked flex min-h-11 w-fit items-center text-sm">
              {tr("Read, change or give up what waits")}
            </summary>
            <ul className="mb-2 space-y-2">
              {waiting.map((p) => (
                <li key={p.id}>
                  <b>{p.label}</b> <Contents parcel={p} />
                  <span className="mt-1 flex gap-2">
                    {p.path === "/api/log" && (
                      <a className="btn min-h-11" href={`/boats/${p.boatId}/log?kept=${p.id}`}>
                        {tr("Change it")}
                      </a>
                    )}
                    <GiveUp parcel={p} of={parcels} />
                  </span>
                </li>
              ))}
            </ul>
          </details>
        )}
        {refused.map((p) => (
          <div key={p.id} className="mt-2">
            <p>
              <b>{tr("Not taken: {label}.", { label: p.label })}</b> {p.refused?.message}
            </p>
            {mine(p) && <Differences mine={stores(p)} stored={p.refused?.current} />}
            {Object.values(p.refused?.fields ?? {}).map((m) => (
              <p key={JSON.stringify(m)} className="text-sm">
                <Said words={m} />
              </p>
            ))}
            <p className="mt-1 flex gap-2">
              {p.path === "/api/log" && (
                <a className="btn min-h-11" href={`/boats/${p.boatId}/log?kept=${p.id}`}>
                  {tr("Look at it")}
                </a>
              )}
              {mine(p) && (
                <button
                  type="button"
                  className="btn min-h-11"
                  onClick={async () => {
                    if ((await again(mine(p) as Parcel, p.id)) > 0) await queries.invalidateQueries();
                  }}
                >
                  {tr("Store mine over it")}
                </button>
              )}
              {mine(p) ? (
                <button type="button" className="btn btn-ghost min-h-11" onClick={() => discard(p.id)}>
                  {tr("Leave what is stored")}
                </button>
              ) : (
                <GiveUp parcel={p} of={parcels} />
              )}
            </p>
          </div>
        ))}
      </div>
    </>
  );
}

/** What was written, field by field; of a picture its size. */
function Contents({ parcel }: { parcel: Parcel }) {
  if (parcel.body instanceof Blob)
    return (
      <span className="text-sm">
        {tr("{kB} kB, sent once what it is of is there", { kB: Math.ceil(parcel.body.size / 1024) })}
      </span>
    );
  const written = Object.entries((stores(parcel) ?? {}) as object).filter(
    ([k, v]) => !/id$/i.test(k) && !EMPTY.includes(JSON.stringify(v)),
  );
  return (
    <span className="text-sm">
      {written.map(([k, v]) => `${k}: ${typeof v === "object" ? JSON.stringify(v) : String(v)}`).join("; ")}
    </span>
  );
}

const EMPTY = ['""', "0", "[]", "{}", "null", "false", undefined];

/** Throws a parcel away with what is of it, and asks first: it is nowhere else. */
function GiveUp({ parcel, of }: { parcel: Parcel; of: Parcel[] }) {
  const [sure, setSure] = useState(false);
  const ofIt = of.filter((p) => p.after === parcel.id);
  if (!sure)
    return (
      <button type="button" className="btn btn-ghost min-h-11" onClick={() => setSure(true)}>
        {tr("Give it up")}
      </button>
    );
  return (
    <>
      <button
        type="button"
        className="btn btn-error min-h-11"
        onClick={async () => {
          for (const p of [...ofIt, parcel]) await discard(p.id);
        }}
      >
        {tr("It is nowhere else: throw it away")}
      </button>
      <button type="button" className="btn btn-ghost min-h-11" onClick={() => setSure(false)}>
        {tr("Keep")}
      </button>
    </>
  );
}
