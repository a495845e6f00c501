import type { Schemas } from "../../api/client";
import { useAccounts } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { useSettings } from "../../ui/settings";
import { workdays } from "../../ui/time";
import { LOCALE, tr } from "../../words/words";

const hours = (h: number) => h.toLocaleString(LOCALE, { maximumFractionDigits: 1 });

/** Hours and money: to date, against the plan, and to finish. */
export function AccountsView({ boatId }: { boatId: string }) {
  return <Loaded query={useAccounts(boatId)}>{(a) => <Accounts accounts={a} />}</Loaded>;
}

export function Accounts({ accounts: a, plain }: { accounts: Schemas["Accounts"]; plain?: boolean }) {
  const { money } = useSettings();
  const done = a.materialCents + a.labourCents;
  const left = a.leftMaterialCents + a.leftLabourCents;
  const against = a.plannedH > 0 ? Math.round((100 * a.reckonedHours) / a.plannedH - 100) : 0;
  const answer = tr("{hours} h so far and {leftHours} to come; {done} spent, about {left} to finish.", {
    hours: hours(a.hours),
    leftHours: workdays(a.leftHours, a.workDayH),
    done: money(done, 0),
    left: money(left, 0),
  });
  const detail = (
    <>
      {a.plannedH > 0 &&
        (against === 0
          ? tr("As reckoned. ")
          : tr("Work that was reckoned took {against} % {x}. ", { against: Math.abs(against), x: against > 0 ? tr("more") : tr("less") }))}
      {a.untold > 0 && tr("{untold} {untold, plural, one {entry tells} other {entries tell}} no hours. ", { untold: a.untold })}
      {a.hourCents === 0 && tr("An hour of work has no price: give it one in Plan, Hands and tasks. ")}
      {(a.unpriced ?? []).length > 0 && tr("Without a price in Library: {unpriced}.", { unpriced: a.unpriced?.join(", ") })}
    </>
  );
  return (
    <>
      {plain ? (
        <p>
          {answer} {detail}
        </p>
      ) : (
        <Answer answer={answer} detail={detail} />
      )}
      <div className="grid gap-8 lg:grid-cols-2">
        <Sums title={tr("By work")} sums={a.byKind} />
        <Sums title={tr("By surface")} sums={a.bySurface} />
        <Sums title={tr("By person")} sums={a.byPerson} />
        <Sums title={tr("By month")} sums={a.byMonth} />
      </div>
    </>
  );
}

function Sums({ title, sums }: { title: string; sums: Schemas["Sum"][] | null }) {
  const { money } = useSettings();
  if (!sums || sums.length === 0) return null;
  return (
    <section>
      <h2 className="text-lg">{title}</h2>
      <table className="table-plain text-sm">
        <thead>
          <tr>
            <th>{title.replace("By ", "")}</th>
            <th className="text-right!">{tr("times")}</th>
            <th className="text-right!">{tr("hours")}</th>
            <th className="text-right!">{tr("reckoned")}</th>
            <th className="text-right!">{tr("material")}</th>
          </tr>
        </thead>
        <tbody>
          {sums.map((s) => (
            <tr key={s.name}>
              <td>{s.name}</td>
              <td className="text-right!">{s.entries}</td>
              <td className="text-right!">{s.hours > 0 ? hours(s.hours) : ""}</td>
              <td className="text-right!">{s.plannedH > 0 ? hours(s.plannedH) : ""}</td>
              <td className="text-right!">{s.cents > 0 ? money(s.cents, 0) : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
