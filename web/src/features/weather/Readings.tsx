import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useInstruments } from "../../api/queries";
import { Answer, Loaded } from "../../ui/Page";
import { Remove } from "../../ui/Remove";
import { Said } from "../../ui/Sentence";
import { stamp } from "../../ui/time";
import { LOCALE, tr, trNodes } from "../../words/words";
import { ImportReadings } from "./ImportReadings";
import { InstrumentForm } from "./InstrumentForm";
import { SpotForm } from "./SpotForm";
import { TraceChart } from "./TraceChart";

const FEEDS: Record<string, string> = {
  file: tr("from files and by hand"),
  live: tr("sends by itself"),
  simulated: tr("simulated"),
};

/** The loggers and probes of the boat's place: what they show, what is odd about it, and how to bring more. */
export function Readings({ survey }: { survey: Schemas["Survey"] }) {
  const { place } = survey;
  const [adding, setAdding] = useState(false);
  return (
    <Loaded query={useInstruments(place.id)}>
      {(all) => {
        const mine = all.filter((i) => !i.boatId || i.boatId === survey.boat.id);
        const doubtful = mine.filter((i) => i.doubts.length > 0).length;
        const silent = mine.filter((i) => i.count === 0).length;
        return (
          <>
            <Answer
              over={<span>{place.name}</span>}
              answer={
                mine.length === 0
                  ? tr("No readings at all: every figure here is from the forecast and the model.")
                  : tr("{mine, plural, one {One instrument} other {{mine} instruments}} here{x}{x2}.", {
                      mine: mine.length,
                      x: doubtful ? tr(", {doubtful} with something odd", { doubtful }) : "",
                      x2: silent ? tr(", {silent} without readings yet", { silent }) : "",
                    })
              }
              detail={tr(
                "A logger in the open corrects the forecast; a probe or an infra-red reading corrects the model of its surface. Readings always stand above the model.",
              )}
            />
            {mine.map((i) => (
              <One key={i.id} instrument={i} survey={survey} />
            ))}
            <div className="mt-6">
              {adding ? (
                <InstrumentForm survey={survey} done={() => setAdding(false)} />
              ) : (
                <button type="button" className="btn btn-primary min-h-11" onClick={() => setAdding(true)}>
                  {tr("Add a logger or probe")}
                </button>
              )}
            </div>
          </>
        );
      }}
    </Loaded>
  );
}

type Open = "edit" | "import" | "spot" | "";

function One({ instrument: i, survey }: { instrument: Schemas["Instrument"]; survey: Schemas["Survey"] }) {
  const [open, setOpen] = useState<Open>("");
  const zone = survey.place.timeZone;
  const surface = survey.surfaces.find((s) => s.id === i.surfaceId);
  const close = () => setOpen("");
  const button = (o: Open, name: string) => (
    <button
      type="button"
      className={`btn min-h-11 ${open === o ? "btn-neutral" : ""}`}
      aria-expanded={open === o}
      aria-label={`${name}: ${i.name}`}
      onClick={() => setOpen(open === o ? "" : o)}
    >
      {name}
    </button>
  );
  return (
    <section className="rule-b py-4" aria-label={i.name}>
      <h2 className="text-lg">{i.name}</h2>
      <p className="quiet text-sm">
        {WHERE[i.kind]}
        {surface && ` ${surface.name.toLowerCase()}`}; {FEEDS[i.feed]}.{" "}
        {i.count > 0 && i.first && i.last
          ? tr("{count, plural, one {One reading} other {{count} readings}}, {first} to {last}.", {
              count: i.count.toLocaleString(LOCALE),
              first: stamp(i.first, zone),
              last: stamp(i.last, zone),
            })
          : tr("No readings yet.")}
      </p>
      {i.doubts.map((d) => (
        <p key={d.what + d.from} className="mt-1 border-l-4 border-warning pl-2 text-sm" role="note">
          {trNodes("{from} to {to}: {text}", {
            from: <b>{stamp(d.from, zone)}</b>,
            to: <b>{stamp(d.to, zone)}</b>,
            text: <Said words={d.text} />,
          })}
        </p>
      ))}
      {i.count > 0 && <TraceChart instrument={i} zone={zone} />}
      <div className="mt-2 flex flex-wrap gap-2">
        {i.kind === "spot" && button("spot", tr("Note a reading"))}
        {button("import", tr("Import a file"))}
        {button("edit", tr("Change"))}
      </div>
      {open === "spot" && <SpotForm instrument={i} zone={zone} done={close} />}
      {open === "import" && <ImportReadings instrument={i} zone={zone} done={close} />}
      {open === "edit" && (
        <>
          <InstrumentForm survey={survey} instrument={i} done={close} />
          <Remove
            of={["readings"]}
            what={tr("{name} with its readings", { name: i.name })}
            label={tr("delete this instrument")}
            remove={() => ok(api.DELETE("/api/instruments/{id}", { params: { path: { id: i.id } } }))}
            done={close}
          />
        </>
      )}
    </section>
  );
}

const WHERE: Record<string, string> = {
  air: tr("In the open"),
  tent: tr("In the tent"),
  surface: tr("On"),
  spot: tr("Infra-red, on"),
  scale: tr("Scale at the bench"),
  gauge: tr("Film gauge at the bench"),
};
