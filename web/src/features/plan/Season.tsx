import { useRef, useState } from "react";
import { api, ok, type Schemas, type Words } from "../../api/client";
import { useChange } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { type Lane, Ribbon, type Scale } from "../../ui/Ribbon";
import { Said, Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, day, stamp } from "../../ui/time";
import { tr, word } from "../../words/words";
import { initials, named } from "./name";

type Item = Schemas["PlanItem"];

const ms = (t: string) => Date.parse(t);
const BAR = 20;

/** The season: a row for each surface, or for each person, from now to the last launch. */
export function Season({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const { show, prose } = useSettings();
  const id = plan.place.id;
  const move = useChange(["plan"], (to: { taskId: string; at: string }) =>
    ok(
      api.POST("/api/places/{id}/plan/move", {
        params: { path: { id } },
        body: { version: plan.version, ...to, near: true },
      }),
    ),
  );
  const [tried, setTried] = useState<{ task: string; result?: Schemas["Tried"] }>();
  const asked = useRef<ReturnType<typeof setTimeout>>(undefined);
  // What a drag would do is asked for when the hand rests, before it lets go.
  const hover = (i: Item, at: string | undefined) => {
    clearTimeout(asked.current);
    if (!at) return setTried(undefined);
    setTried({ task: prose(i.what) });
    asked.current = setTimeout(async () => {
      const body = { version: plan.version, taskId: i.taskId, at, near: true };
      const result = await ok(api.POST("/api/places/{id}/plan/try", { params: { path: { id } }, body })).catch(
        () => undefined,
      );
      setTried((now) => (now?.task === prose(i.what) ? { ...now, result } : now));
    }, 300);
  };
  const [by, setBy] = useState<"surface" | "person">("surface");
  const [whole, setWhole] = useState(false);
  const zone = plan.place.timeZone;
  const all = plan.plan?.items ?? [];
  const items = all.filter((i) => whole || by === "person" || i.boatId === boatId);
  const end = Math.max(...items.map((i) => ms(i.end)), ms(plan.now) + 86_400_000);
  const due =
    plan.plan?.launches.filter((l) => whole || l.boatId === boatId).flatMap((l) => (l.due ? [ms(l.due)] : [])) ?? [];
  const days = Math.ceil((Math.max(end, ...due) - ms(plan.now)) / 86_400_000) + 2;
  const groups = new Map<string, { label: string; note: string; items: Item[] }>();
  const put = (key: string, label: string, note: string, i: Item) => {
    const g = groups.get(key) ?? { label, note, items: [] };
    g.items.push(i);
    groups.set(key, g);
  };
  for (const i of items) {
    if (by === "person") for (const p of i.people) put(p, p, "", i);
    else
      put(
        `${i.boatId}${i.launch ? "~launch" : i.surfaceId}`,
        i.launch ? tr("Launch") : i.surface || tr("Own tasks"),
        whole ? i.boat : "",
        i,
      );
  }
  const open = new Map((plan.plan?.open ?? []).map((o) => [o.surfaceId, o.starts]));
  const lanes = [
    weatherLane(plan, show),
    ...[...groups.entries()].map(([key, g]) =>
      lane(
        key,
        g.label,
        g.note,
        g.items,
        zone,
        by === "person",
        by === "surface" ? (open.get(g.items[0]?.surfaceId ?? "") ?? []) : [],
        {
          drop: (taskId, at) => move.mutate({ taskId, at }),
          hover,
        },
        prose,
      ),
    ),
  ];
  // A little of what has gone by leaves room for the flag of now.
  const past = days / 16;
  const span = {
    now: plan.now,
    from: new Date(ms(plan.now) - past * 86_400_000).toISOString(),
    to: new Date(ms(plan.now) + days * 86_400_000).toISOString(),
    light: [],
  };
  const toggle = (on: boolean, name: string, press: () => void) => (
    <button
      type="button"
      className={`btn join-item btn-sm max-sm:min-h-11 ${on ? "btn-neutral" : "btn-ghost border-base-300"}`}
      aria-pressed={on}
      onClick={press}
    >
      {name}
    </button>
  );
  return (
    <>
      <div className="no-print mb-2 flex flex-wrap gap-4">
        <div className="join">
          {toggle(by === "surface", tr("by surface"), () => setBy("surface"))}
          {toggle(by === "person", tr("by person"), () => setBy("person"))}
        </div>
        {by === "surface" && (
          <div className="join">
            {toggle(!whole, tr("this boat"), () => setWhole(false))}
            {toggle(whole, tr("every boat"), () => setWhole(true))}
          </div>
        )}
      </div>
      <Ribbon
        key={`${by}${whole}`}
        ribbon={span}
        zone={zone}
        lanes={lanes}
        spans={{ "two weeks": [1, 14], "a month": [2, 31], all: [past, days] }}
        first="all"
      />
      <Trial tried={tried} zone={zone} />
      <p className="quiet mt-2 text-sm">
        {tr(
          "Solid: a coat. Hollow: other work. Hatched: what mends a missed window or limit. The thin tail runs to where the window closes; a bracket below to where tape, bare metal or another limit ends; the strip below is when weather and light allow the next coat. Letters are people. Weekends are shaded. Drag a task to see what that would move, and let it go to pin it to the nearest quarter of an hour that suits it; Week has the same by keys.",
        )}
      </p>
      <Refusal error={move.error} />
    </>
  );
}

/** What a drag would do, while it is held. */
function Trial({ tried, zone }: { tried: { task: string; result?: Schemas["Tried"] } | undefined; zone: string }) {
  const { prose } = useSettings();
  if (!tried) return null;
  const r = tried.result;
  return (
    <p role="status" className="mt-2 border-l-4 border-warning pl-3">
      <b>{tried.task}</b>
      {!r && tr(": hold it there to see what that moves")}
      {r?.trouble.map((t) => (
        <span key={t.message}>
          : <Said words={t.says} />
        </span>
      ))}
      {r?.at && r.trouble.length === 0 && (
        <>
          {tr(" at {at}: ", { at: stamp(r.at, zone) })}
          {r.moved.length === 0
            ? tr("moves nothing else")
            : `moves ${r.moved
                .slice(0, 3)
                .map((m) => prose(m.name))
                .join("; ")}${r.moved.length > 3 ? ` and ${r.moved.length - 3} more` : ""}`}
          .{" "}
          {r.says.map((l) => (
            <Sentence key={JSON.stringify(l)} spans={l} zone={zone} />
          ))}
        </>
      )}
    </p>
  );
}

/** The days that the plan counts with: warmth as a band, hours of rain as bars; beyond the forecast fainter. */
function weatherLane(plan: Schemas["YardPlan"], show: ReturnType<typeof useSettings>["show"]): Lane {
  const days = plan.days.map((d) => ({ ...d, t: Date.parse(`${d.day}T00:00:00Z`) }));
  const low = Math.min(...days.map((d) => d.minC));
  const high = Math.max(...days.map((d) => d.maxC), low + 1);
  const y = (v: number) => 44 - ((v - low) / (high - low)) * 40;
  const said = (v: number) => `${show(v, "°C", 0).text} ${show(v, "°C").unit}`;
  return {
    id: "weather",
    label: tr("Weather"),
    note: tr("warmth, and hours of rain"),
    height: 48,
    read: (t) => {
      const d = days.filter((k) => k.t <= t).at(-1);
      return d
        ? `${d.forecast ? "" : "usual: "}${said(d.minC)} to ${said(d.maxC)}, ${d.rainH ? tr("{rainH} h rain", { rainH: d.rainH }) : "dry"}`
        : "";
    },
    draw: (x) => {
      const w = Math.max(1, x(86_400_000) - x(0));
      return days.map((d) => (
        <g key={d.day} opacity={d.forecast ? 1 : 0.55}>
          <rect
            x={x(d.t)}
            width={w}
            y={y(d.maxC)}
            height={Math.max(1, y(d.minC) - y(d.maxC))}
            fill="var(--open)"
            opacity={0.3}
          />
          {d.rainH > 0 && (
            <rect x={x(d.t) + w / 4} width={w / 2} y={48 - d.rainH * 3} height={d.rainH * 3} fill="var(--dew)" />
          )}
        </g>
      ));
    },
  };
}

/** What a drag does: while it is held, and when it is let go. */
interface Drags {
  hover: (i: Item, at: string | undefined) => void;
  drop: (taskId: string, at: string) => void;
}

function lane(
  id: string,
  label: string,
  note: string,
  items: Item[],
  zone: string,
  person: boolean,
  open: Schemas["CalendarStretch"][],
  move: Drags,
  prose: (words: Words) => string,
): Lane {
  const name = (i: Item) => (person ? `${i.boat}: ${named(i, prose)}` : prose(i.what));
  return {
    id,
    label,
    note: note || undefined,
    height: 36,
    read: (t) => {
      const at = items.find((i) => ms(i.start) <= t && t < ms(i.end)) ?? items.find((i) => ms(i.start) >= t);
      return at ? `${name(at)}, ${stamp(at.start, zone)}` : tr("nothing more");
    },
    draw: (x) => (
      <>
        <defs>
          <pattern id="rekey" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width={6} height={6} fill="var(--color-base-100)" />
            <rect width={3} height={6} fill="var(--shut)" />
          </pattern>
        </defs>
        {open.map((o) => {
          const [left = 0, right = 0] = x.range();
          const a = Math.max(left, x(ms(o.from)));
          return (
            <rect
              key={o.from}
              x={a}
              width={Math.max(0, Math.min(right, x(ms(o.to))) - a)}
              y={BAR + 4}
              height={4}
              fill="var(--open)"
              opacity={0.5}
            />
          );
        })}
        {items.map((i) => (
          <Bar key={i.taskId} item={i} x={x} zone={zone} move={move} />
        ))}
      </>
    ),
  };
}

function Bar({ item: i, x, zone, move }: { item: Item; x: Scale; zone: string; move: Drags }) {
  const { prose } = useSettings();
  const what = prose(i.what);
  const [left = 0, right = 0] = x.range();
  const [by, setBy] = useState<{ from: number; px: number }>();
  const a = x(ms(i.start)) + (by?.px ?? 0);
  if (a > right || a < left - 4) return null;
  const late = a > right - 110; // no room for the day to the right
  if (i.launch)
    return (
      <g>
        <path d={`M${a} 0v${BAR}`} stroke="var(--shut)" strokeWidth={3} />
        <text
          x={late ? a - 6 : a + 6}
          textAnchor={late ? "end" : "start"}
          y={14}
          fontSize={12}
          fontWeight={700}
          fill="currentColor"
        >
          {day(i.start, zone)}, {clock(i.start, zone)}
        </text>
      </g>
    );
  const w = Math.max(5, x(ms(i.end)) - a);
  const to = (px: number) =>
    new Date(Math.round(x.invert(x(ms(i.start)) + px).getTime() / 900_000) * 900_000).toISOString();
  const who = initials(i.people);
  const label = [what, `${what.split(",")[0]} ${who}`, who].find((l) => l.length * 6.2 + 6 < w);
  const limit = i.limits.map((l) => ({ ...l, x: Math.min(right, x(ms(l.by))) })).sort((p, q) => p.x - q.x)[0];
  const closes = i.closes ? Math.min(right, x(ms(i.closes))) : 0;
  const fill = i.rekey ? "url(#rekey)" : i.coat ? "var(--open)" : "var(--color-base-100)";
  return (
    <g>
      {closes > a + w && (
        <rect x={a + w} y={BAR / 2 - 1.5} width={closes - a - w} height={3} fill="var(--closing)" opacity={0.7} />
      )}
      <rect
        className={i.rekey ? "" : "cursor-grab"}
        data-bar={i.taskId}
        onPointerDown={(e) => {
          if (i.rekey) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          setBy({ from: e.clientX, px: 0 });
        }}
        onPointerMove={(e) => {
          if (!by) return;
          setBy({ ...by, px: e.clientX - by.from });
          if (Math.abs(e.clientX - by.from) > 3) move.hover(i, to(e.clientX - by.from));
        }}
        onPointerCancel={() => {
          setBy(undefined);
          move.hover(i, undefined);
        }}
        onPointerUp={(e) => {
          // The last move may not be drawn yet: the pointer itself says how far.
          const px = by ? e.clientX - by.from : 0;
          if (Math.abs(px) > 3) move.drop(i.taskId, to(px));
          setBy(undefined);
          move.hover(i, undefined);
        }}
        x={a}
        width={w}
        height={BAR}
        fill={fill}
        stroke={i.rekey ? "var(--shut)" : "currentColor"}
        strokeWidth={1}
      />
      {label && (
        <text
          x={a + 4}
          y={BAR - 6}
          fontSize={11}
          className="pointer-events-none"
          fill={i.coat ? "var(--color-base-100)" : "currentColor"}
        >
          {label}
        </text>
      )}
      {limit && limit.x > a + w + 4 && (
        <path d={`M${a + w} ${BAR + 9}H${limit.x}v-5`} fill="none" stroke="var(--shut)" strokeWidth={1.5}>
          <title>
            {tr("{name}: {until} by {by}", {
              name: word(limit.name),
              until: prose(limit.until),
              by: stamp(limit.by, zone),
            })}
          </title>
        </path>
      )}
      {i.pinned && <circle data-pinned={i.taskId} cx={a + w / 2} cy={-3} r={3.5} fill="currentColor" />}
      <title>{`${i.boat}: ${i.surface} ${what}, ${stamp(i.start, zone)}, ${i.people.join(", ")}`}</title>
    </g>
  );
}
