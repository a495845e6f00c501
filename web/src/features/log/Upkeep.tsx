import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { newID } from "../../api/outbox";
import { useChange, useUpkeep, useWritten } from "../../api/queries";
import { NumberField, Refusal } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { number } from "../../ui/prose";
import { Said } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { longDay, monthOf } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, word } from "../../words/words";
import { BoatFields } from "../boats/BoatFields";
import { Grades, type Held } from "./Grades";

type Film = Schemas["DueFilm"];

/** When it wants doing, as a range of months; due is since when it does. */
export function when(f: Film, now: string, zone: string): string {
  if (f.at <= now) return tr("due now");
  if (f.from <= now) return tr("due by {to} at the latest, and perhaps now", { to: monthOf(f.to, zone) });
  const [from, to] = [monthOf(f.from, zone), monthOf(f.to, zone)];
  return from === to ? tr("in {from}", { from }) : tr("between {from} and {to}", { from, to });
}

/** What was laid that wants doing again, and when. */
export function UpkeepView({ boatId, now, zone }: { boatId: string; now: string; zone: string }) {
  const [walking, setWalking] = useState(false);
  const { prose } = useSettings();
  return (
    <Loaded query={useUpkeep(boatId)}>
      {(u) => {
        const first = u.films.find((f) => !f.planned || f.at <= now);
        const graded = u.films.filter((f) => f.heldAt).length;
        return (
          <>
            <Answer
              answer={
                first
                  ? tr("{surface}: {what}, {when}.", {
                      surface: first.surface,
                      what: prose(first.what),
                      when: when(first, now, zone),
                    })
                  : u.films.length > 0
                    ? tr("Nothing to plan: what will come due has coats in the job.")
                    : tr("Nothing that was laid comes due.")
              }
              detail={
                graded > 0
                  ? tr(
                      "From the film that stands, the sun it gets, and how {graded} of {films} finishes held. Look at her all the same.",
                      {
                        graded,
                        films: u.films.length,
                      },
                    )
                  : tr(
                      "From the film that stands and the sun it gets, by rules of thumb: grade the finishes once a year, and it goes by yours.",
                    )
              }
            />
            {u.films.length > 0 && !walking && (
              <button type="button" className="btn btn-primary min-h-12" onClick={() => setWalking(true)}>
                {tr("Walk round her and grade the finishes, {season}", { season: String(u.season) })}
              </button>
            )}
            {walking && <WalkRound boatId={boatId} films={u.films} now={now} done={() => setWalking(false)} />}
            <Season boatId={boatId} />
            <Films upkeep={u} now={now} zone={zone} plans />
          </>
        );
      }}
    </Loaded>
  );
}

/** Every finish of the boat, to be graded one after the other. */
function WalkRound({ boatId, films, now, done }: { boatId: string; films: Film[]; now: string; done: () => void }) {
  const [held, setHeld] = useState<Record<string, Held>>({});
  const graded = films.filter((f) => held[f.surfaceId]);
  const save = useWritten(
    ["log"],
    () =>
      graded.map((f) => {
        const id = newID();
        return {
          id,
          label: tr("the finish was graded, {surface}", { surface: f.surface }),
          boatId,
          method: "POST" as const,
          path: "/api/log",
          body: {
            id,
            boatId,
            surfaceId: f.surfaceId,
            kind: "grade",
            startedAt: now,
            litres: 0,
            wetUm: [],
            thinnerPct: 0,
            grit: 0,
            removedUm: 0,
            who: localStorage.getItem("who") ?? "",
            note: "",
            held: held[f.surfaceId],
          },
        };
      }),
    done,
  );
  return (
    <section className="max-w-4xl border border-base-content p-4">
      <h2 className="text-lg">{tr("How did it hold?")}</h2>
      <p className="quiet text-sm">{tr("0 is nothing, 4 is gone. What is not tapped counts as nothing wrong.")}</p>
      {films.map((f) => (
        <div key={f.surfaceId} className="rule-b py-3">
          <div className="flex flex-wrap items-center justify-between gap-2">
            <b>{f.surface}</b>
            <button
              type="button"
              className="btn min-h-11"
              aria-pressed={held[f.surfaceId] !== undefined && Object.keys(held[f.surfaceId] ?? {}).length === 0}
              onClick={() => setHeld({ ...held, [f.surfaceId]: {} })}
            >
              {tr("Nothing wrong")}
            </button>
          </div>
          <Grades
            label={f.surface}
            below={f.below}
            held={held[f.surfaceId] ?? {}}
            set={(h) => setHeld({ ...held, [f.surfaceId]: h })}
          />
        </div>
      ))}
      <Refusal error={save.error} />
      <div className="mt-3 flex gap-2">
        <button
          type="button"
          className="btn btn-primary min-h-12"
          disabled={graded.length === 0 || save.isPending}
          onClick={() => save.mutate(undefined)}
        >
          {tr("Log {graded, plural, one {one grade} other {# grades}}", { graded: graded.length })}
        </button>
        <button type="button" className="btn btn-ghost min-h-12" onClick={done}>
          {tr("Cancel")}
        </button>
      </div>
    </section>
  );
}

/** How she is used in a year, which wears her finishes. */
function Season({ boatId }: { boatId: string }) {
  return (
    <BoatFields
      boatId={boatId}
      said={tr("Reckon with that")}
      fields={(at) => (
        <>
          <div className="w-44">
            <NumberField
              {...at("monthsAfloat")}
              label={tr("Months afloat in a year")}
              hint={tr("empty: six")}
              unit=""
            />
          </div>
          <div className="w-44">
            <NumberField
              {...at("seasonNM")}
              label={tr("Miles in a year")}
              hint={tr("nautical; wears antifouling")}
              unit="nm"
            />
          </div>
        </>
      )}
    />
  );
}

const worst = (held: Held) => Object.entries(held).filter(([, g]) => g > 0);

/** The films that come due; plans offers to put what renews them into the job. */
export function Films({
  upkeep: u,
  now,
  zone,
  plans,
}: {
  upkeep: Schemas["Upkeep"];
  now: string;
  zone: string;
  plans?: boolean;
}) {
  const renew = useChange(["steps"], (id: string) =>
    ok(api.POST("/api/surfaces/{id}/renew", { params: { path: { id } } })),
  );
  return (
    <>
      {u.films.length === 0 && (
        <p className="mt-2">
          {tr("Nothing that was laid comes due by itself: primers and fillers wait for what goes over them.")}
        </p>
      )}
      <Refusal error={renew.error} />
      <ul className="mt-4">
        {u.films.map((f) => (
          <li key={f.surfaceId} className="rule-b grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[11rem_1fr_16rem_11rem]">
            <b>{f.surface}</b>
            <span>
              <Figure title={tr("{surface}, upkeep", { surface: f.surface })} working={f.working}>
                <Said words={f.what} />
              </Figure>
              <span className="quiet block text-sm">
                {f.product}, <Quantity value={f.filmUm} unit="µm" />
                {f.seasons > 0 && tr(", {seasons} seasons", { seasons: number(f.seasons, 1) })}
                {tr(", laid {laidAt}", { laidAt: monthOf(f.laidAt, zone) })}
              </span>
              {f.heldAt && (
                <span className="quiet block text-sm">
                  {tr("Graded {heldAt}: {held}.", {
                    heldAt: longDay(f.heldAt, zone),
                    held:
                      worst(f.held ?? {})
                        .map(([k, g]) => `${word(k)} ${g}`)
                        .join(", ") || tr("nothing wrong"),
                  })}
                </span>
              )}
            </span>
            <span>{when(f, now, zone)}</span>
            {plans &&
              (f.planned ? (
                <span className="quiet">{tr("coats are in the job")}</span>
              ) : (
                <button
                  type="button"
                  className="btn btn-sm min-h-11"
                  disabled={renew.isPending}
                  onClick={() => renew.mutate(f.surfaceId)}
                >
                  {tr("Put it into the job")}
                </button>
              ))}
          </li>
        ))}
      </ul>
      {u.shelf.length > 0 && (
        <section className="mt-6">
          <h2 className="text-lg">{tr("On the shelf")}</h2>
          <ul>
            {u.shelf.map((s) => (
              <li key={s.id} className="rule-b py-2">
                <b>{s.product}</b>, <Quantity value={s.leftL} unit="L" />: {s.worry && <Said words={s.worry} />}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
