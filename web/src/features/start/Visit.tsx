import { useState } from "react";
import { api, ok } from "../../api/client";
import { useOutbox } from "../../api/outbox";
import { useMeta } from "../../api/queries";
import { tr } from "../../words/words";

/** Changes between one's own data and the demo yard: what the browser kept of one must not be shown in the other. */
async function change(enter: boolean) {
  await ok(enter ? api.POST("/api/visit") : api.DELETE("/api/visit"));
  if ("caches" in window) await caches.delete("seen");
  localStorage.removeItem("boat");
  window.location.assign("/");
}

/** The way into the demo yard. */
export function VisitDemo() {
  const meta = useMeta().data;
  const waiting = useOutbox().length;
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState("");
  if (!meta?.hasDemo || meta.visiting) return null;
  return (
    <div>
      <h2 className="text-lg">{tr("Or look round a yard first")}</h2>
      <p className="text-sm">
        {tr(
          "A made-up yard with three boats in the middle of their work. Nothing of yours is touched, and you leave when you like.",
        )}
      </p>
      <button
        type="button"
        className="btn mt-2 min-h-12"
        disabled={busy || waiting > 0}
        onClick={() => {
          setBusy(true);
          change(true).catch((e: Error) => {
            setBusy(false);
            setWrong(e.message);
          });
        }}
      >
        {busy ? tr("Making the yard, a few seconds…") : tr("Look round the demo yard")}
      </button>
      {waiting > 0 && <p className="text-sm">{tr("What waits to be sent goes out first.")}</p>}
      {wrong && (
        <p role="alert" className="text-error">
          {wrong}
        </p>
      )}
    </div>
  );
}

/** Says on every screen of the demo yard that it is one, with the way out. */
export function Visiting() {
  const meta = useMeta().data;
  const waiting = useOutbox().length;
  if (!meta?.visiting) return null;
  return (
    <p className="no-print mb-3 flex flex-wrap items-center gap-x-4 border-l-4 border-warning pl-3 text-sm">
      <span>{tr("You look round a made-up yard: try what you like, nothing here is yours.")}</span>
      <button type="button" className="linked min-h-11" disabled={waiting > 0} onClick={() => void change(false)}>
        {tr("Leave the demo yard")}
      </button>
    </p>
  );
}
