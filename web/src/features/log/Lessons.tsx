import { Link } from "wouter";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useLessons } from "../../api/queries";
import { Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { number } from "../../ui/prose";
import { Said } from "../../ui/Sentence";
import { tr } from "../../words/words";

type Lesson = Schemas["TaskLesson"];

const times = (f: number) => `× ${number(f, 2)}`;

/** What the log taught, from how much, and whether it counts. */
export function LessonsView({ boatId }: { boatId: string }) {
  return <Loaded query={useLessons(boatId)}>{(all) => <Lessons boatId={boatId} lessons={all} />}</Loaded>;
}

export function Lessons({ boatId, lessons }: { boatId: string; lessons: Lesson[] }) {
  const set = useChange(["log"], (l: Lesson) =>
    ok(api.PUT("/api/boats/{id}/lessons", { params: { path: { id: boatId } }, body: { key: l.key, off: !l.off } })),
  );
  const counts = lessons.filter((l) => l.counts);
  return (
    <>
      <Answer
        answer={
          lessons.length === 0
            ? tr("Nothing is learned yet: log hours and litres, and feel a coat when it turns dry.")
            : tr(
                "{counts, plural, one {One lesson counts} other {# lessons count}}, from {entries} entries of this log.",
                {
                  counts: counts.length,
                  entries: counts.reduce((n, l) => n + l.entries, 0),
                },
              )
        }
        detail={tr(
          "What is reckoned for work and coats to come is multiplied by these. A few entries move it little: rules of thumb weigh against them.",
        )}
      />
      <Refusal error={set.error} />
      <ul>
        {lessons.map((l) => (
          <li key={l.key} className="rule-b grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[16rem_6rem_1fr_12rem]">
            <b>
              <Said words={l.says} />
            </b>
            <span className="text-lg">{times(l.factor)}</span>
            <span className="quiet text-sm">
              {tr(
                "from {entries, plural, one {one entry} other {# entries}}; one time differs from the next by × {spread} or less, eight in ten.",
                {
                  entries: l.entries,
                  spread: number(l.spread, 2),
                },
              )}
              {(l.by ?? []).length > 1 && (
                <span className="block">
                  {(l.by ?? []).map((p) => `${p.who} ${times(p.factor)} (${p.entries})`).join(" · ")}
                </span>
              )}
              {!l.off && !l.counts && (
                <span className="block">{tr("Sooner than the sheet says: the sheet’s times stand all the same.")}</span>
              )}
            </span>
            <button
              type="button"
              className="btn min-h-11"
              aria-pressed={!l.off}
              disabled={set.isPending}
              onClick={() => set.mutate(l)}
            >
              {l.off ? tr("Off: let it count") : tr("Do not count it")}
            </button>
          </li>
        ))}
      </ul>
      <p className="quiet mt-3 text-sm">
        {tr("How far the forecasts of this place are off is learned from what was measured:")}{" "}
        <Link className="linked" to={`/boats/${boatId}/weather?view=chances`}>
          {tr("see it in Chances.")}
        </Link>
      </p>
    </>
  );
}
