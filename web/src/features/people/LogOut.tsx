import { useState } from "react";
import { api, ok } from "../../api/client";
import { empty, useOutbox } from "../../api/outbox";
import { tr } from "../../words/words";

/** Logs out, and empties what the browser kept; what waits to be sent is asked about first. */
export function LogOut() {
  const waiting = useOutbox().length;
  const [sure, setSure] = useState(false);
  const out = async () => {
    await ok(api.DELETE("/api/session"));
    await empty();
    await globalThis.caches?.delete("seen"); // what the program answered; its own files stay
    for (const key of Object.keys(localStorage))
      if (!["units", "theme", "language", "letters"].includes(key)) localStorage.removeItem(key);
    location.assign("/login");
  };
  if (sure && waiting > 0)
    return (
      <div role="alert" className="border-l-4 border-error pl-3">
        <p>
          {tr(
            "{waiting, plural, one {One entry waits} other {# entries wait}} on this device to be sent. Logging out throws it away.",
            {
              waiting,
            },
          )}
        </p>
        <p className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="btn btn-error min-h-11" onClick={() => void out()}>
            {tr("Throw it away and log out")}
          </button>
          <button type="button" className="btn btn-ghost min-h-11" onClick={() => setSure(false)}>
            {tr("Stay")}
          </button>
        </p>
      </div>
    );
  return (
    <button type="button" className="btn min-h-11" onClick={() => (waiting > 0 ? setSure(true) : void out())}>
      {tr("Log out, and empty what this browser kept")}
    </button>
  );
}
