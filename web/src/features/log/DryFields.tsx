import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useInstruments } from "../../api/queries";
import { upload } from "../../api/upload";
import { NumberField, TextField } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { tr } from "../../words/words";
import type { EntryFields } from "./draft";

/** Gauge readings of the cured film: typed, from a file, or from a gauge that sends. */
export function DryFields({
  form: { edit, set, at },
  build,
  placeId,
}: {
  form: EntryFields;
  build?: Schemas["BuildUp"];
  placeId: string;
}) {
  const { shownUnit, toShown } = useSettings();
  const gauge = useInstruments(placeId).data?.find((i) => i.kind === "gauge");
  const [wrong, setWrong] = useState("");
  // What should stand there: the coats of each step that have gone on, as planned.
  const { dry } = edit;
  const nominal = dry.nominalUm ?? (build?.dueUm || undefined);
  const read = (readingsUm: string) => set({ dry: { ...dry, nominalUm: nominal, readingsUm } });
  const take = (um: number[]) =>
    read([dry.readingsUm, ...um.map((v) => Number(toShown(v, "µm").toPrecision(4)))].filter(Boolean).join(" "));
  const wanted = build?.surface.area.areaM2;
  return (
    <details className="mt-3" open={dry.readingsUm !== ""}>
      <summary className="flex min-h-11 cursor-pointer items-center font-semibold">
        {tr("Dry film by the gauge")}
      </summary>
      <div className="mt-1 grid gap-3 sm:grid-cols-3">
        <NumberField {...at("dry.nominalUm")} label={tr("Film wanted, all coats")} unit="µm" value={nominal} />
        <NumberField {...at("dry.maximumUm")} label={tr("At most")} hint={tr("empty: no limit")} unit="µm" />
        <NumberField
          {...at("dry.profileUm")}
          label={tr("Blasted profile")}
          hint={tr("taken off each: fine 10, medium 25, coarse 40")}
          unit="µm"
        />
        <div className="sm:col-span-3">
          <TextField
            {...at("dry.readingsUm")}
            label={tr("Readings, {shownUnit}", { shownUnit: shownUnit("µm") })}
            hint={
              wanted ? tr("with spaces between; how many it takes is told with the verdict") : tr("with spaces between")
            }
            onChange={read}
          />
        </div>
      </div>
      <div className="mt-2 flex flex-wrap gap-2">
        <label className="btn min-h-11">
          {tr("From a file")}
          <input
            type="file"
            accept=".csv,.txt"
            className="sr-only"
            onChange={async (e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (!file) return;
              try {
                take((await upload<{ readingsUm: number[] }>("/api/gauge", {}, file)).readingsUm);
                setWrong("");
              } catch (err) {
                setWrong((err as Error).message);
              }
            }}
          />
        </label>
        {gauge && (
          <button
            type="button"
            className="btn min-h-11"
            onClick={async () => {
              try {
                const got = await ok(
                  api.GET("/api/instruments/{id}/values", {
                    params: { path: { id: gauge.id }, query: { want: nominal ?? 0, n: 10 } },
                  }),
                );
                take(got.map((v) => v.value));
                setWrong("");
              } catch (err) {
                setWrong((err as Error).message);
              }
            }}
          >
            {tr("Take from {name}", { name: gauge.name })}
          </button>
        )}
      </div>
      {wrong && (
        <p role="alert" className="text-error">
          {wrong}
        </p>
      )}
    </details>
  );
}
