import { useState } from "react";
import type { Schemas } from "../../api/client";
import { newID, send } from "../../api/outbox";
import { useChange } from "../../api/queries";
import { useNow } from "../../ui/Alarms";
import { stamp } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes, word } from "../../words/words";

/** The timers that run: of pots that were mixed, and of the coats that were laid. */
export function Pots({ bench: b, boatId }: { bench: Schemas["Bench"]; boatId: string }) {
  const now = useNow(b.now);
  const zone = b.place.timeZone;
  const put = useChange(["pots"], (p: Schemas["PotEdit"]) =>
    send({ id: newID(), label: tr("pot"), boatId, method: "PUT", path: `/api/boats/${boatId}/pots`, body: p }),
  );
  const edit = (p: Schemas["Pot"], more: Partial<Schemas["PotEdit"]>): Schemas["PotEdit"] => ({
    id: p.id,
    productId: p.productId,
    litres: p.litres,
    mixedAt: p.mixedAt,
    ...(p.surfaceId && { surfaceId: p.surfaceId }),
    ...(p.laidAt && { laidAt: p.laidAt }),
    ...more,
  });
  const at = () => new Date(now).toISOString();
  const coming = b.clocks.filter((c) => c.timers.some((t) => t.at && Date.parse(t.at) > now - 600_000));
  return (
    <section data-testid="timers">
      <h2 className="text-lg">{tr("Timers")}</h2>
      <Notices />
      {b.pots.length === 0 && coming.length === 0 && (
        <p className="quiet">{tr("Nothing runs. They start when a pot is mixed or a coat is logged.")}</p>
      )}
      {b.pots.map((p) => (
        <div key={p.id} className="mt-2 border border-base-content p-3">
          <p>
            {trNodes("{product}, {litres}{surface}, mixed {mixedAt}", {
              product: <b>{p.product}</b>,
              litres: <Quantity value={p.litres} unit="L" />,
              surface: p.surface && tr(" for {surface}", { surface: p.surface.toLowerCase() }),
              mixedAt: stamp(p.mixedAt, zone),
            })}
          </p>
          <Timers timers={p.timers} now={now} zone={zone} />
          <p className="no-print mt-2 flex flex-wrap gap-2">
            {!p.laidAt && p.surfaceId && (
              <button
                type="button"
                className="btn btn-neutral min-h-12"
                onClick={() => put.mutate(edit(p, { laidAt: at() }))}
              >
                {tr("The first of it is on")}
              </button>
            )}
            <button type="button" className="btn min-h-12" onClick={() => put.mutate(edit(p, { emptiedAt: at() }))}>
              {tr("The pot is empty")}
            </button>
          </p>
        </div>
      ))}
      {coming.map((c) => (
        <div key={c.surfaceId} className="mt-3">
          <p>
            <b>{c.surface}</b> <span className="quiet">{c.product}</span>
          </p>
          <Timers timers={c.timers} now={now} zone={zone} />
        </div>
      ))}
    </section>
  );
}

function Timers({ timers, now, zone }: { timers: Schemas["ClockTimer"][]; now: number; zone: string }) {
  return (
    <ul>
      {timers.map((t) => {
        const left = t.at ? Date.parse(t.at) - now : undefined;
        return (
          <li key={t.key} data-timer={t.key} className="rule-b grid grid-cols-[1fr_auto] gap-x-3 py-1.5">
            <span className={left !== undefined && left <= 0 && left > -60_000 ? "font-bold text-error" : ""}>
              {word(t.label)}
            </span>
            <b className="text-right text-lg tabular-nums">
              {left === undefined
                ? tr("beyond the forecast")
                : left < -60_000
                  ? tr("past")
                  : left <= 0
                    ? tr("now")
                    : countdown(left)}
            </b>
            <span className="quiet text-sm">
              {t.at && stamp(t.at, zone)}
              {t.at &&
                trNodes(", at {tempC} {x}", {
                  tempC: <Quantity value={t.tempC} unit="°C" />,
                  x: t.forecast ? tr("as forecast") : tr("so far"),
                })}
              {t.note && `; ${t.note}`}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** 1:05:09 under a day, else days and hours. */
function countdown(ms: number) {
  const s = Math.round(ms / 1000);
  const two = (n: number) => String(n).padStart(2, "0");
  if (s >= 86_400) return `${Math.floor(s / 86_400)} d ${Math.floor((s % 86_400) / 3600)} h`;
  return `${Math.floor(s / 3600)}:${two(Math.floor((s % 3600) / 60))}:${two(s % 60)}`;
}

/** Asks once whether timers may ring through the system. */
function Notices() {
  const [state, setState] = useState(() => ("Notification" in window ? Notification.permission : "denied"));
  if (state !== "default") return null;
  return (
    <button
      type="button"
      className="linked no-print min-h-11 text-sm"
      onClick={async () => setState(await Notification.requestPermission())}
    >
      {tr("also tell me when this is not in front")}
    </button>
  );
}
