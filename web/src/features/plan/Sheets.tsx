import type { Schemas, Words } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { clock, day, sameDay, span, stamp } from "../../ui/time";
import { tr, word } from "../../words/words";
import { named } from "./name";

/** How many work on the day of the sheets, and who begins with what. */
export function beginnings(plan: Schemas["YardPlan"], prose: (words: Words) => string) {
  const zone = plan.place.timeZone;
  const work = (plan.plan?.items ?? []).filter((i) => !i.launch && sameDay(i.start, plan.now, zone));
  const first = work[0];
  if (!first) return tr("Nobody works today.");
  const people = new Set(work.flatMap((i) => i.people)).size;
  return tr(
    "{people, plural, one {One person works} other {{people} people work}} today: first {people2} at {start} on {boat}, {first}.",
    {
      people,
      people2: first.people.join(" and "),
      start: clock(first.start, zone),
      boat: first.boat,
      first: named(first, prose),
    },
  );
}

/** A sheet for each person and day, to take along: it prints on a page. */
export function Sheets({ plan }: { plan: Schemas["YardPlan"] }) {
  const { prose } = useSettings();
  const zone = plan.place.timeZone;
  const items = (plan.plan?.items ?? []).filter((i) => !i.launch);
  const first = items[0];
  const on = items.some((i) => sameDay(i.start, plan.now, zone)) ? plan.now : first?.start;
  const people = plan.settings.people.map((p) => ({
    name: p.name,
    items: items.filter((i) => on && i.people.includes(p.name) && sameDay(i.start, on, zone)),
  }));
  if (!on) return <p>{tr("Nothing is planned.")}</p>;
  return (
    <>
      {people.map((p) => (
        <section key={p.name} className="sheet mb-6 not-first-of-type:break-before-page">
          <h2 className="text-lg">
            {p.name}, {day(on, zone)}
          </h2>
          {p.items.length === 0 ? (
            <p>{tr("Nothing.")}</p>
          ) : (
            <table className="table-plain max-sm:[&_td]:block max-sm:[&_thead]:hidden max-sm:[&_tr]:block max-sm:[&_tr]:py-2">
              <thead>
                <tr>
                  <th>{tr("From – to")}</th>
                  <th>{tr("Boat")}</th>
                  <th>{tr("What")}</th>
                  <th>{tr("With")}</th>
                  <th>{tr("Must follow")}</th>
                </tr>
              </thead>
              <tbody>
                {p.items.map((i) => (
                  <tr key={i.taskId} className="align-top">
                    <td className="whitespace-nowrap">
                      <b>
                        {clock(i.start, zone)} – {clock(i.end, zone)}
                      </b>
                    </td>
                    <td>{i.boat}</td>
                    <td>
                      {named(i, prose)}
                      <span className="quiet"> {tr("· {hours} of work", { hours: span(i.hours + i.setupH) })}</span>
                    </td>
                    <td>{i.people.filter((o) => o !== p.name).join(", ") || "alone"}</td>
                    <td>
                      {i.limits.map((l) => `${prose(l.until)} by ${stamp(l.by, zone)} (${word(l.name)})`).join("; ")}
                      {i.closes &&
                        tr("{x}begin by {closes}: the window of the coat below closes", {
                          x: i.limits.length > 0 ? "; " : "",
                          closes: stamp(i.closes, zone),
                        })}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
      ))}
    </>
  );
}
