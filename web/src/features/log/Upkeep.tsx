import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useUpkeep } from "../../api/queries";
import { NumberField } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { number } from "../../ui/settings";
import { longDay } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

/** What was laid that wants doing again, and when. */
export function UpkeepView({ boatId, zone }: { boatId: string; zone: string }) {
  const [miles, setMiles] = useState<number>();
  return (
    <Loaded query={useUpkeep(boatId, miles ?? 0)}>
      {(u) => {
        const first = u.films?.[0];
        return (
          <>
            <Answer
              answer={first ? `${first.surface}: ${first.what}, ${first.when}.` : tr("Nothing that was laid comes due.")}
              detail={tr("From the film that stands, where she lies and the sheet; look at her all the same.")}
            />
            <div className="max-w-52">
              <NumberField
                name="miles"
                label={tr("Miles in a season")}
                hint={tr("nautical; wears antifouling")}
                unit="nm"
                value={miles}
                onChange={setMiles}
              />
            </div>
            <Films upkeep={u} zone={zone} />
          </>
        );
      }}
    </Loaded>
  );
}

export function Films({ upkeep: u, zone }: { upkeep: Schemas["Upkeep"]; zone: string }) {
  return (
    <>
      {(u.films ?? []).length === 0 && (
        <p className="mt-2">{tr("Nothing that was laid comes due by itself: primers and fillers wait for what goes over them.")}</p>
      )}
      <ul className="mt-4">
        {u.films?.map((f) => (
          <li key={f.surfaceId} className="rule-b grid gap-x-4 py-2 sm:grid-cols-[12rem_1fr_12rem]">
            <b>{f.surface}</b>
            <span>
              <Figure title={tr("{surface}, upkeep", { surface: f.surface })} working={f.working}>
                {f.what}
              </Figure>{" "}
              <span className="quiet">
                {f.product}, <Quantity value={f.filmUm} unit="µm" />
                {f.seasons > 0 && tr(", {seasons} seasons", { seasons: number(f.seasons, 1) })}
              </span>
            </span>
            <span>
              {f.when} <span className="quiet">({longDay(f.at, zone)})</span>
            </span>
          </li>
        ))}
      </ul>
      {(u.shelf ?? []).length > 0 && (
        <section className="mt-6">
          <h2 className="text-lg">{tr("On the shelf")}</h2>
          <ul>
            {u.shelf?.map((s) => (
              <li key={s.id} className="rule-b py-2">
                <b>{s.product}</b>, <Quantity value={s.leftL} unit="L" />: {s.worry}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
