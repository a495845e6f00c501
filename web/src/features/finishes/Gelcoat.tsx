import type { Schemas } from "../../api/client";
import { useMeta } from "../../api/queries";
import { useSettings } from "../../ui/settings";
import { span } from "../../ui/time";
import { Quantity } from "../../ui/Working";
import { tr, trNodes, word } from "../../words/words";
import { Grid, Part } from "./fields";
import { fieldsOf } from "./typed";
import { useCraft } from "./useWork";
import { Findings, Litres, ProductChoice, Steps, Takes, Workbench } from "./Workbench";

const { Num, Pick, Rows, Text, useDraft } = fieldsOf<Schemas["GelcoatWork"]>();

type View = Schemas["Gelcoated"];

/** Gelcoat sprayed, rolled, or as a thickened repair. */
export function Gelcoat({ surfaceId }: { surfaceId: string }) {
  const { bench, plan } = useCraft("gelcoat", surfaceId);
  return (
    <Workbench bench={bench} plan={plan} picture={(v) => <Picture view={v} />}>
      {(v) => <Form view={v} />}
    </Workbench>
  );
}

function Picture({ view }: { view: View }) {
  const { prose } = useSettings();
  const r = view.result;
  const repair = view.work.way === "repair";
  return (
    <>
      <dl className="grid grid-cols-2 gap-x-4 gap-y-2 sm:grid-cols-4 lg:grid-cols-6" data-testid="gel-figures">
        {[
          [tr("In all"), <Litres key="l" value={r.litres} />],
          [repair ? tr("Layers") : tr("Wet passes"), r.passes],
          [tr("Pots"), r.pots],
          [tr("Catalyst of a pot"), <Quantity key="g" value={r.dose.mL} unit="mL" digits={1} />],
          [tr("Gels in"), r.gelMin > 0 ? span(r.gelMin / 60) : tr("not said")],
          [tr("Next pass after"), r.tackMin > 0 ? span(r.tackMin / 60) : tr("not said")],
          ...(repair
            ? []
            : [
                [
                  tr("On the comb"),
                  <span key="c">
                    {trNodes("{wetUm} wet, {dryUm} dry", {
                      wetUm: <Quantity value={r.comb.wetUm} unit="µm" />,
                      dryUm: <Quantity value={r.comb.dryUm} unit="µm" />,
                    })}
                  </span>,
                ],
                [tr("Left after sanding"), <Quantity key="f" value={r.leftUm} unit="µm" />],
              ]),
        ].map(([name, v]) => (
          <div key={String(name)}>
            <dt className="quiet text-sm">{name}</dt>
            <dd className="text-lg font-semibold">{v}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-3 text-sm" data-testid="night">
        <b>{tr("Before night:")} </b>
        {prose(view.night.says)}
      </p>
      <Findings findings={r.findings} />
      <p className="mt-3 text-sm" data-testid="match">
        <b>{tr("Colour:")} </b>
        {r.match}
      </p>
      <div className="mt-4 grid gap-8 lg:grid-cols-[3fr_2fr]">
        <Steps plan={r} title={tr("In this order")} />
        <section>
          <h2 className="text-lg">{tr("From sanding to gloss")}</h2>
          <ol data-testid="ladder">
            {r.ladder.map((s) => (
              <li key={s.grit} className="rule-b grid grid-cols-[4rem_1fr_auto] gap-3 py-1">
                <b className="text-lg">{s.grit}</b>
                <span className="text-sm">{s.why}</span>
                <span className="quiet text-right text-sm">{span(s.hours)}</span>
              </li>
            ))}
            <li className="rule-b py-1 text-sm">{tr("then compound and polish, the machine slow")}</li>
          </ol>
          <Takes plan={r} />
        </section>
      </div>
    </>
  );
}

function Form({ view }: { view: View }) {
  const { read } = useDraft();
  const meta = useMeta().data;
  const repair = read("way") === "repair";
  return (
    <>
      <Part title={tr("How it goes on")} open>
        <Grid>
          <Pick
            at="way"
            label={tr("Way")}
            options={[
              { key: "spray", name: tr("sprayed") },
              { key: "roll", name: tr("rolled") },
              { key: "repair", name: tr("thickened repair") },
            ]}
          />
          <ProductChoice label={tr("Gelcoat")} kinds={["gelcoat"]} chosen={view.work.productId} />
          <Num at="tempC" label={tr("Where it is laid")} unit="°C" />
          <Num at="pct" label={tr("Catalyst, 0 as the sheet says")} unit="%" />
          {!repair && (
            <>
              <Num at="areaM2" label={tr("Area")} unit="m²" />
              <Num at="filmUm" label={tr("Wet film in all")} unit="µm" />
              <Num at="passUm" label={tr("A wet pass")} unit="µm" />
              <Num at="leastUm" label={tr("Must be left after sanding")} unit="µm" />
            </>
          )}
          <Pick
            at="seal"
            label={tr("Seal from the air")}
            options={[
              { key: "wax", name: tr("wax in the last pass") },
              { key: "pva", name: tr("PVA over it") },
              { key: "film", name: tr("film pressed on") },
            ]}
          />
          <Num at="fromGrit" label={tr("Sand from")} unit="P" />
          <Num at="toGrit" label={tr("Sand to")} unit="P" />
        </Grid>
        {repair && (
          <Rows
            at="gouges"
            title={tr("To be filled")}
            add={tr("Add a place")}
            empty={tr("Say how long, wide and deep.")}
            fresh={() => ({ lengthMM: 40, widthMM: 10, depthMM: 2, count: 1 })}
          >
            {(p) => (
              <>
                <Num at={`${p}.lengthMM`} label={tr("Long")} unit="mm" />
                <Num at={`${p}.widthMM`} label={tr("Wide")} unit="mm" />
                <Num at={`${p}.depthMM`} label={tr("Deep")} unit="mm" />
                <Num at={`${p}.count`} label={tr("How many")} />
              </>
            )}
          </Rows>
        )}
      </Part>
      <Part title={tr("Colour patches")} open>
        <Rows
          at="patches"
          title={tr("Tried")}
          add={tr("Log a patch")}
          empty={tr("Judge them cured, wet and dry, by daylight.")}
          fresh={() => ({ on: (meta?.now ?? "").slice(0, 10), recipe: "", judged: tr("not yet"), note: "" })}
        >
          {(p) => (
            <>
              <Text at={`${p}.on`} label={tr("Day")} type="date" />
              <Text at={`${p}.recipe`} label={tr("Mixed")} hint={tr("such as white 100, black 0.4")} wide />
              <Pick
                at={`${p}.judged`}
                label={tr("Cured, it is")}
                options={["not yet", "match", "too light", "too dark", "too warm", "too cold"].map((k) => ({
                  key: k,
                  name: word(k),
                }))}
              />
              <Text at={`${p}.note`} label={tr("Note")} />
            </>
          )}
        </Rows>
      </Part>
    </>
  );
}
