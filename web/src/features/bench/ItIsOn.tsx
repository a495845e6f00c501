import { useState } from "react";
import { Link } from "wouter";
import { api, ok, Refused, type Schemas } from "../../api/client";
import { discard, newID, useWaits } from "../../api/outbox";
import { useBuildUp, useChange, useWritten } from "../../api/queries";
import { useNow } from "../../ui/Alarms";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { stamp } from "../../ui/time";
import { tr, trNodes } from "../../words/words";

/** The usual by two taps: that coat went on, as planned, now. What else there is to tell is told afterwards. */
export function ItIsOn({ bench: b, boatId, weighed }: { bench: Schemas["Bench"]; boatId: string; weighed: string }) {
  const now = useNow(b.now);
  const zone = b.place.timeZone;
  const surface = b.surfaces.find((s) => s.id === b.surfaceId);
  const build = useBuildUp(b.surfaceId).data;
  const task = build?.tasks.find(
    (t) => t.films && t.productId === b.productId && t.state !== "done" && t.state !== "skipped",
  );
  const { prose } = useSettings();
  const what = task ? prose(task.what) : b.product;
  // Where something speaks against it, it is not what the screen asks for; what was done is logged all the same.
  const amiss = b.checks.some((c) => c.state === "no");
  const [sure, setSure] = useState(false);
  const [id, setId] = useState("");
  const [said, setSaid] = useState("");
  const waits = useWaits(id);
  const form = `/boats/${boatId}/log?surface=${b.surfaceId}${weighed}`;
  const log = useWritten<string, Schemas["Entry"]>(
    ["log"],
    (entryId) => [
      {
        id: entryId,
        label: tr("a coat went on, {name}", { name: surface?.name ?? "" }),
        boatId,
        method: "POST",
        path: "/api/log",
        body: {
          id: entryId,
          boatId,
          surfaceId: b.surfaceId,
          kind: "coat",
          startedAt: new Date(now).toISOString(),
          productId: b.productId,
          ...(task && { stepId: task.stepId }),
          litres: 0,
          wetUm: [],
          thinnerPct: 0,
          grit: 0,
          removedUm: 0,
          who: localStorage.getItem("who") ?? "",
          note: "",
        },
      },
    ],
    () => setSure(false),
  );
  const undo = useChange(["log"], async () => {
    if (waits) await discard(id);
    else await ok(api.DELETE("/api/log/{id}", { params: { path: { id } } }));
  });
  if (undo.isSuccess) return <p className="mt-4">{tr("Taken back: it is not in the log.")}</p>;
  if (log.isSuccess)
    return (
      <div className="mt-4 border-l-4 border-primary pl-3" role="status" data-testid="logged">
        <p className="font-semibold">{tr("Logged: {said}.", { said })}</p>
        <p className="mt-2 flex flex-wrap gap-2">
          {!waits && (
            <Link className="btn min-h-12" to={`/boats/${boatId}/log?entry=${id}`}>
              {tr("Add litres, film, photos")}
            </Link>
          )}
          <button
            type="button"
            className="btn min-h-12"
            disabled={undo.isPending}
            onClick={() => undo.mutate(undefined)}
          >
            {tr("Take it back")}
          </button>
        </p>
      </div>
    );
  return (
    <div className="mt-4">
      {sure ? (
        <div className="border-l-4 border-primary pl-3">
          <p>
            {trNodes("{name}, {what}, begun {now}.", {
              name: <b>{surface?.name}</b>,
              what,
              now: stamp(new Date(now).toISOString(), zone),
            })}
          </p>
          <p className="mt-2 flex flex-wrap gap-2">
            <button
              type="button"
              className="btn btn-primary min-h-14"
              disabled={log.isPending}
              onClick={() => {
                const next = newID();
                setId(next);
                setSaid(`${surface?.name}, ${what}, ${stamp(new Date(now).toISOString(), zone)}`);
                log.mutate(next);
              }}
            >
              {tr("Log it")}
            </button>
            <Link className="btn min-h-14" to={form}>
              {tr("Something was otherwise")}
            </Link>
          </p>
        </div>
      ) : (
        <button type="button" className={`btn min-h-14 ${amiss ? "" : "btn-primary"}`} onClick={() => setSure(true)}>
          {tr("It is on, as planned, now")}
        </button>
      )}
      {log.error instanceof Refused && (
        <div role="alert" className="mt-2 text-error">
          {Object.values(log.error.fields).map((m) => (
            <p key={JSON.stringify(m)}>
              <Said words={m} />
            </p>
          ))}
          {Object.keys(log.error.fields).length === 0 && <p>{log.error.message}</p>}
        </div>
      )}
    </div>
  );
}
