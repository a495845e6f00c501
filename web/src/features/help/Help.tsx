import { useQuery } from "@tanstack/react-query";
import { useParams } from "wouter";
import { NavLink } from "../../ui/NavLink";
import { glossaryQuery } from "../../ui/Term";
import { tr } from "../../words/words";
import { HELP } from "./pages";

/** Help by stage of the work, and the words; it is in the program and needs no signal. */
export function Help() {
  const { stage } = useParams();
  const page = HELP.find((h) => h.key === stage) ?? HELP[0];
  const words = stage === "words";
  const link = (here: boolean) =>
    `flex min-h-11 items-center border-b-4 px-1 ${here ? "border-accent font-bold" : "border-transparent"}`;
  return (
    <>
      <nav className="no-print mb-4 flex flex-wrap gap-x-4 border-b border-base-300" aria-label={tr("Help")}>
        {HELP.map((h) => (
          <NavLink key={h.key} to={`/help/${h.key}`} className={link}>
            {h.name}
          </NavLink>
        ))}
        <NavLink to="/help/words" className={link}>
          {tr("Words")}
        </NavLink>
      </nav>
      {words || !page ? (
        <Words />
      ) : (
        <article className="max-w-3xl">
          <h1 className="text-2xl leading-snug sm:text-[32px]" data-testid="answer">
            {page.name}: {page.answers}
          </h1>
          <h2 className="mt-5 text-lg">{tr("How one goes on")}</h2>
          <ol className="list-decimal pl-5">
            {page.steps.map((s) => (
              <li key={s} className="py-1">
                {s}
              </li>
            ))}
          </ol>
          <h2 className="mt-5 text-lg">{tr("What goes wrong")}</h2>
          <ul className="list-disc pl-5">
            {page.mistakes.map((m) => (
              <li key={m} className="py-1">
                {m}
              </li>
            ))}
          </ul>
        </article>
      )}
    </>
  );
}

function Words() {
  const terms = useQuery(glossaryQuery).data ?? [];
  return (
    <article className="max-w-3xl">
      <h1 className="text-2xl leading-snug sm:text-[32px]" data-testid="answer">
        {tr("The words of the trade, and the program’s own.")}
      </h1>
      <dl className="mt-4">
        {terms.map((t) => (
          <div key={t.name} className="rule-b grid gap-x-6 py-2 sm:grid-cols-[190px_minmax(0,1fr)]">
            <dt className="font-semibold">
              {t.name}
              {t.own && <span className="quiet font-normal"> {tr("(this program’s)")}</span>}
            </dt>
            <dd>{t.says}</dd>
          </div>
        ))}
      </dl>
    </article>
  );
}
