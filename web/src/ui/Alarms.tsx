import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { programTime } from "../api/programTime";
import { useBench, useMeta } from "../api/queries";
import { tr, word } from "../words/words";
import { clock } from "./time";

export type Alarm = { id: string; what: string; at: number; label: string };

/** The timers of a bench that are worth a sound, the soonest first. */
export function alarmsOf(b: Schemas["Bench"]): Alarm[] {
  const of = (id: string, what: string, timers: Schemas["ClockTimer"][]) =>
    timers.flatMap((t) =>
      t.ring && t.at ? [{ id: `${id} ${t.key}`, what, at: Date.parse(t.at), label: word(t.label) }] : [],
    );
  return [
    ...b.pots.flatMap((p) => of(p.id, `${p.product}${p.surface && `, ${p.surface}`}`, p.timers)),
    ...b.clocks.flatMap((c) => of(c.surfaceId, c.surface, c.timers)),
  ].sort((a, z) => a.at - z.at);
}

/** The program's time now, every second, also while it is away; a clock that stands stays where an answer had it. */
export function useNow(answered: string | undefined): number {
  const stands = useMeta().data?.clock.mode === "fixed";
  const [, tick] = useState(0);
  useEffect(() => {
    const t = setInterval(() => tick((n) => n + 1), 1000);
    return () => clearInterval(t);
  }, []);
  return stands && answered ? Date.parse(answered) : programTime();
}

function beep() {
  try {
    const audio = new AudioContext();
    for (const at of [0, 0.35, 0.7]) {
      const tone = audio.createOscillator();
      const loud = audio.createGain();
      tone.frequency.value = 880;
      loud.gain.value = 0.2;
      tone.connect(loud).connect(audio.destination);
      tone.start(audio.currentTime + at);
      tone.stop(audio.currentTime + at + 0.2);
    }
  } catch {
    // a browser without sound: the notice stays on the screen
  }
}

/** Rings when a timer of the boat ends while this is open, on whatever screen; stays until it is seen. */
export function Alarms({ boatId, zone }: { boatId: string; zone: string }) {
  const bench = useBench(boatId, { timers: true });
  const now = useNow(bench.data?.now);
  const before = useRef(0);
  const [rung, setRung] = useState<Alarm[]>([]);
  useEffect(() => {
    const from = before.current;
    before.current = now;
    if (!bench.data || from === 0 || now <= from) return;
    const due = alarmsOf(bench.data).filter((a) => a.at > from && a.at <= now);
    if (due.length === 0) return;
    beep();
    navigator.vibrate?.([200, 100, 200]);
    if ("Notification" in window && Notification.permission === "granted")
      for (const a of due) new Notification(a.label, { body: a.what, tag: a.id });
    setRung((r) => [...r, ...due]);
  }, [bench.data, now]);
  if (rung.length === 0) return null;
  return (
    <div role="alert" className="no-print mb-4 border-4 border-error bg-base-100 p-3">
      {rung.map((a) => (
        <p key={`${a.id}${a.at}`} className="text-lg">
          <b>{a.label}</b>, {clock(a.at, zone)}: {a.what}
        </p>
      ))}
      <button type="button" className="btn btn-neutral mt-2 min-h-12" onClick={() => setRung([])}>
        {tr("Seen")}
      </button>
    </div>
  );
}
