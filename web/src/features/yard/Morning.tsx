import { useQuery } from "@tanstack/react-query";
import { Link } from "wouter";
import { api, ok, type Refused, type Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { KNOWN_BY } from "../../ui/knownBy";
import { Answer, Loaded } from "../../ui/Page";
import { Ribbon } from "../../ui/Ribbon";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { clock, day, longDay } from "../../ui/time";
import { weatherLanes } from "../../ui/weatherLanes";
import { tr } from "../../words/words";

/** The first page of a yard: the sentence of the day of each boat, which is late, the weather once. */
export function Morning() {
  const morning = useQuery<Schemas["Morning"], Refused>({
    queryKey: key("morning"),
    queryFn: () => ok(api.GET("/api/morning")),
  });
  return <Loaded query={morning}>{(m) => <Shown morning={m} />}</Loaded>;
}

function Shown({ morning }: { morning: Schemas["Morning"] }) {
  const zone = morning.places[0]?.place.timeZone ?? "UTC";
  return (
    <>
      <Answer
        over={
          <span>
            {longDay(morning.now, zone)}, {clock(morning.now, zone)}
          </span>
        }
        answer={<Sentence spans={morning.says} zone={zone} />}
        detail={<Sentence spans={morning.detail} zone={zone} />}
      />
      {morning.places.map((p) => (
        <Place key={p.place.id} morning={p} />
      ))}
    </>
  );
}

function Place({ morning: m }: { morning: Schemas["PlaceMorning"] }) {
  const { show } = useSettings();
  const zone = m.place.timeZone;
  const lanes = weatherLanes(m.ribbon.hours, show, m.ribbonOf);
  return (
    <section className="mb-8">
      <h2 className="text-lg">
        {m.place.name}
        <span className="quiet text-base font-normal">
          {" "}
          <Sentence spans={m.weather} zone={zone} />
          {m.place.weatherSource !== "imported" && ` (${KNOWN_BY[m.place.weatherSource]})`}
        </span>
      </h2>
      <Ribbon ribbon={m.ribbon} zone={zone} lanes={lanes} first="2 days" />
      <ul className="mt-3 border-t border-base-content" data-testid="boats">
        {m.boats.map((b) => (
          <li key={b.id} className="rule-b grid gap-x-8 gap-y-1 py-3 lg:grid-cols-[170px_minmax(0,1fr)_250px]">
            <h3 className="text-lg">
              <Link className="linked" to={`/boats/${b.id}/today`}>
                {b.name}
              </Link>
            </h3>
            <p>
              <span className="font-slab text-lg">
                <Sentence spans={b.says} zone={zone} />
              </span>{" "}
              <span className="quiet text-sm">
                <Sentence spans={b.detail} zone={zone} />
              </span>
            </p>
            <p className="text-sm">
              <Launch launch={b.launch} zone={zone} />
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How a launch stands: late in a word and a mark, else when she is ready. */
function Launch({ launch: l, zone }: { launch?: Schemas["PlanLaunching"]; zone: string }) {
  if (!l) return <span className="quiet">{tr("nothing planned")}</span>;
  const trouble = l.left > 0 || l.lateH > 0;
  return (
    <span className={trouble ? "block border-l-4 border-error pl-2 font-semibold" : ""}>
      {l.left > 0 && tr("{left} {left, plural, one {task finds} other {tasks find}} no place. ", { left: l.left })}
      {l.lateH > 0 &&
        tr("Late by {lateH} {lateH, plural, one {day} other {days}}. ", { lateH: Math.ceil(l.lateH / 24) })}
      {l.half &&
        tr("Ready half the time by {half}{x}. ", {
          half: day(l.half, zone),
          x: l.nine ? tr(", nine times in ten by {nine}", { nine: day(l.nine, zone) }) : "",
        })}
      {l.due && tr("Wanted {due}.", { due: day(l.due, zone) })}
      {!trouble && !l.half && !l.due && tr("No launch day is set.")}
    </span>
  );
}
