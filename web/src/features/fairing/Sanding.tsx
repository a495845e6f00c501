import { useState } from "react";
import { useSanding } from "../../api/queries";
import { Check, NumberField } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Sentence } from "../../ui/Sentence";
import { useSettings } from "../../ui/settings";
import { span, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";

/** The grits from what is there to what comes next, and whether that goes through. */
export function Sanding({ surfaceId, zone }: { surfaceId: string; zone: string }) {
  const [from, setFrom] = useState<number>();
  const [to, setTo] = useState<number>();
  const [wet, setWet] = useState(false);
  const { prose } = useSettings();
  return (
    <Loaded query={useSanding(surfaceId, { from: from ?? 0, to: to ?? 0, wet })}>
      {(s) => (
        <>
          <Answer
            answer={<Sentence spans={s.says} zone={zone} />}
            detail={
              <>
                {s.ring && s.ring.length > 0 && <b>{prose(s.ring)} </b>}
                {s.tool.name}: {s.tool.note}. {s.dust}. {prose(s.clogs)}
                {s.green &&
                  !s.ready &&
                  tr(" Ridges may be knocked down, green, from {green}.", { green: stamp(s.green, zone) })}
              </>
            }
          />
          <div className="mb-4 grid max-w-xl grid-cols-3 items-end gap-3">
            <NumberField
              name="from"
              label={tr("Scratch that is there")}
              unit="P"
              value={from ?? s.from}
              onChange={setFrom}
            />
            <NumberField name="to" label={tr("The next coat wants")} unit="P" value={to ?? s.to} onChange={setTo} />
            {s.wetOnly ? (
              <p className="text-sm font-semibold">{tr("Wet only: antifouling is never sanded dry.")}</p>
            ) : (
              <Check name="wet" label={tr("Wet")} value={wet} onChange={setWet} />
            )}
          </div>
          <div className="grid gap-8 lg:grid-cols-2">
            <section>
              <h2 className="text-lg">
                <Figure title={tr("Sanding")} working={s.working}>
                  {tr("Grits, in this order")}
                </Figure>
              </h2>
              <ol data-testid="ladder">
                {s.steps.map((st) => (
                  <li key={st.grit} className="rule-b grid grid-cols-[4rem_1fr_auto] gap-3 py-2">
                    <b className="text-xl">{st.grit}</b>
                    <span>{st.why}</span>
                    <span className="quiet text-right text-sm">
                      {span(st.hours)}, {st.discs}{" "}
                      {tr("{discs, plural, one {sheet} other {sheets}}", { discs: st.discs })}
                      {st.water > 0 &&
                        `, ${tr("{water, plural, one {fresh water} other {fresh water {water} times}}", { water: st.water })}`}
                      <br />
                      {trNodes("{removedUm} off", { removedUm: <Quantity value={st.removedUm} unit="µm" /> })}
                    </span>
                  </li>
                ))}
              </ol>
            </section>
            <section>
              <h2 className="text-lg">{tr("Through?")}</h2>
              {s.margins.length === 0 && (
                <p>
                  {tr(
                    "What lies above the layer that must stay is not known: put the old layers into Survey, log coats with litres.",
                  )}
                </p>
              )}
              <ul data-testid="margins">
                {s.margins.map((m) => (
                  <li
                    key={m.place}
                    className={`rule-b py-2 ${m.through ? "border-l-4 border-l-error pl-2 font-semibold" : ""}`}
                  >
                    {m.through ? "✗" : "✓"} {m.place}:{" "}
                    {m.through
                      ? tr("it goes through; by hand and fewer strokes there, or prime once more")
                      : trNodes("{leftUm} are left", { leftUm: <Quantity value={m.leftUm} unit="µm" /> })}
                  </li>
                ))}
              </ul>
              <ul className="mt-3 text-sm">
                {s.notes.map((n) => (
                  <li key={n} className="border-l-4 border-accent py-1 pl-3">
                    {n}
                  </li>
                ))}
              </ul>
            </section>
          </div>
        </>
      )}
    </Loaded>
  );
}
