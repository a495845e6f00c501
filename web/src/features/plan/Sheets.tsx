import type { Schemas, Words } from "../../api/client";
import { useSettings } from "../../ui/settings";
import { clock, day, sameDay, span, stamp } from "../../ui/time";
import { word } from "../../words/words";
import { named } from "./name";

/** How many work on the day of the sheets, and who begins with what. */
export function beginnings(plan: Schemas["YardPlan"], prose: (words: Words) => string) {
  const zone = plan.place.timeZone;
  const work = (plan.plan?.items ?? []).filter((i) => !i.launch && sameDay(i.start, plan.now, zone));
  const first = work[0];
  if (!first) return "Nobody works today.";
  const people = new Set(work.flatMap((i) => i.people)).size;
  return `${people === 1 ? "One person works" : `${people} people work`} today: first ${first.people.join(" and ")} at ${clock(first.start, zone)} on ${first.boat}, ${named(first, prose)}.`;
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
  if (!on) return <p>Nothing is planned.</p>;
  return (
    <>
      {people.map((p) => (
        <section key={p.name} className="sheet mb-6 not-first-of-type:break-before-page">
          <h2 className="text-lg">
            {p.name}, {day(on, zone)}
          </h2>
          {p.items.length === 0 ? (
            <p>Nothing.</p>
          ) : (
            <table className="table-plain max-sm:[&_td]:block max-sm:[&_thead]:hidden max-sm:[&_tr]:block max-sm:[&_tr]:py-2">
              <thead>
                <tr>
                  <th>From – to</th>
                  <th>Boat</th>
                  <th>What</th>
                  <th>With</th>
                  <th>Must follow</th>
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
                      <span className="quiet"> · {span(i.hours + i.setupH)} of work</span>
                    </td>
                    <td>{i.people.filter((o) => o !== p.name).join(", ") || "alone"}</td>
                    <td>
                      {i.limits.map((l) => `${prose(l.until)} by ${stamp(l.by, zone)} (${word(l.name)})`).join("; ")}
                      {i.closes &&
                        `${i.limits.length > 0 ? "; " : ""}begin by ${stamp(i.closes, zone)}: the window of the coat below closes`}
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
