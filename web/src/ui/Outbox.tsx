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
        x: seenAt === undefined ? tr("what was seen last") : tr("of {seenAt}", { seenAt: stamp(new Date(seenAt).toISOString(), zone) }),
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
                  {tr("{waiting} {waiting, plural, one {entry waits} other {entries wait}} on this device", { waiting: waiting.length })}
                </b>
              ),
              waiting: waiting.length,
            })}{" "}
            {waiting.map((p) => p.label).join("; ")}.
            {!window.isSecureContext && tr(" Leave this page open: over plain http it does not open again without a signal.")}
          </p>
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
              <button type="button" className="btn btn-ghost min-h-11" onClick={() => discard(p.id)}>
                {mine(p) ? tr("Leave what is stored") : tr("Give it up")}
              </button>
            </p>
          </div>
        ))}
      </div>
    </>
  );
}
