import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Refused, Schemas } from "../../api/client";
import { key } from "../../api/keys";
import { useCoats, useMeta, useToday } from "../../api/queries";
import { type Ask, type From, type PocketName, reckon, type Told } from "../../pocket/pocket";
import { Choice, NumberField, Refusal } from "../../ui/Form";
import { useSettings } from "../../ui/settings";
import { elapsed, stamp } from "../../ui/time";
import { Figure, Quantity } from "../../ui/Working";
import { tr, trNodes } from "../../words/words";
import { Binding } from "../weather/words";

/** An answer of the core, from the program or, without a signal, from this device. */
function useReckoned<N extends PocketName>(name: N, request: Ask<N> | undefined) {
  return useQuery<{ from: From; told: Told<N> }, Refused>({
    queryKey: key("reckoned", name, request),
    queryFn: () => reckon(name, request as Ask<N>),
    enabled: request !== undefined,
    networkMode: "always",
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

const H = 3_600_000;

/** Another amount, another surface, what a thermometer shows now, the next window: reckoned without a signal too. */
export function Reckon({ boatId, productId }: { boatId: string; productId: string }) {
  const { coats } = useCoats();
  const today = useToday(boatId).data;
  const [chosen, setChosen] = useState("");
  const sheet = (coats.find((p) => p.id === (chosen || productId)) ?? coats[0])?.sheet;
  if (!sheet || !today) return null;
  return (
    <details className="mt-8 border-t border-base-content pt-3" data-testid="reckon">
      <summary className="min-h-11 cursor-pointer text-lg font-semibold">
        {tr("Another amount, another surface, a reading, the next window: also without a signal")}
      </summary>
      <div className="max-w-sm">
        <Choice
          name="reckon.product"
          label={tr("Product")}
          value={chosen || productId || (coats[0]?.id ?? "")}
          onChange={setChosen}
          options={coats.map((p) => ({ value: p.id, label: p.sheet.name }))}
        />
      </div>
      <div className="mt-4 grid gap-8 lg:grid-cols-3">
        <Pot sheet={sheet} today={today} />
        <Now sheet={sheet} today={today} />
        <Ahead sheet={sheet} today={today} />
      </div>
    </details>
  );
}

function Source({ from, today }: { from: From | undefined; today: Schemas["Today"] }) {
  if (from !== "phone") return null;
  return (
    <p className="quiet text-sm">
      {tr("Reckoned on this device, from what it knew at {now}.", {
        now: stamp(today.ribbon.now, today.place.timeZone),
      })}
    </p>
  );
}

type Part = { sheet: Schemas["ProductSheet"]; today: Schemas["Today"] };

/** What to pour for litres, or for an area at a film. */
function Pot({ sheet, today }: Part) {
  const { prose } = useSettings();
  const [litres, setLitres] = useState<number>();
  const [areaM2, setArea] = useState<number>();
  const [dftUm, setDFT] = useState<number>();
  const um = dftUm ?? sheet.film.typicalUm;
  const method = useMeta().data?.methods.find((m) => m.key === sheet.methods[0]);
  const lossPct = sheet.lossPct?.[sheet.methods[0] ?? ""] ?? method?.lossPct ?? 0;
  const film = useReckoned(
    "film",
    areaM2 && areaM2 > 0 && um > 0
      ? { volumeSolidsPct: sheet.volumeSolidsPct, dftUm: um, areaM2, coats: 1, lossPct }
      : undefined,
  );
  const pot = litres ?? (areaM2 ? film.data?.told.practicalL : undefined);
  const twoPart = sheet.ratioByVolume?.hardener || sheet.ratioByWeight?.hardener;
  const mix = useReckoned(
    "mix",
    pot && pot > 0 && twoPart
      ? {
          ...(sheet.ratioByVolume?.hardener
            ? { ratioByVolume: sheet.ratioByVolume }
            : { ratioByWeight: sheet.ratioByWeight }),
          baseKgL: sheet.baseKgL,
          hardenerKgL: sheet.hardenerKgL,
          totalL: pot,
        }
      : undefined,
  );
  const part = (name: string, l?: number, kg?: number) =>
    l !== undefined && (
      <tr>
        <td>{name}</td>
        <td className="num text-lg">
          <Quantity value={1000 * l} unit="mL" />
        </td>
        <td className="num text-lg">{kg !== undefined && <Quantity value={1000 * kg} unit="g" />}</td>
      </tr>
    );
  return (
    <section>
      <h3 className="font-semibold">{tr("Into the pot")}</h3>
      <div className="grid grid-cols-2 gap-3">
        <NumberField name="reckon.litres" label={tr("Litres in all")} unit="L" value={litres} onChange={setLitres} />
        <NumberField name="reckon.area" label={tr("or for an area")} unit="m²" value={areaM2} onChange={setArea} />
        <NumberField
          name="reckon.dft"
          label={tr("at a dry film")}
          hint={tr("usual: {x}", { x: prose([{ value: sheet.film.typicalUm, unit: "µm", digits: 0 }]) })}
          unit="µm"
          value={dftUm}
          onChange={setDFT}
        />
      </div>
      <Refusal error={film.error ?? mix.error} />
      {litres === undefined && film.data && areaM2 && (
        <p>
          <Figure title={tr("Litres for the area")} working={film.data.told.working}>
            <Quantity value={film.data.told.practicalL} unit="L" />
          </Figure>{" "}
          {trNodes("with {lossPct} % lost{method}, laid {wftUm} wet.", {
            lossPct,
            method: method && tr(" by {name}", { name: method.name }),
            wftUm: <Quantity value={film.data.told.wftUm} unit="µm" />,
          })}
        </p>
      )}
      {mix.data && (
        <table className="table-plain mt-2">
          <tbody>
            {part(tr("Base"), mix.data.told.baseL, mix.data.told.baseKg)}
            {part(tr("Hardener"), mix.data.told.hardenerL, mix.data.told.hardenerKg)}
          </tbody>
        </table>
      )}
      {!twoPart && pot !== undefined && <p>{tr("One part: nothing to mix.")}</p>}
      <Source from={mix.data?.from ?? film.data?.from} today={today} />
    </section>
  );
}

/** Whether it may go on now, by what instruments in the hand show. */
function Now({ sheet, today }: Part) {
  const [tempC, setTemp] = useState<number>();
  const [rhPct, setRH] = useState<number>();
  const [surfaceC, setSurface] = useState<number>();
  const whole = tempC !== undefined && rhPct !== undefined;
  const wet = useReckoned(
    "moist-air",
    whole ? { tempC, rhPct, ...(surfaceC !== undefined && { surfaceTempC: surfaceC }) } : undefined,
  );
  const at = Date.parse(today.ribbon.now);
  const hour = (h: number) => ({
    at: new Date(at + h * H).toISOString(),
    tempC: tempC ?? 0,
    rhPct: rhPct ?? 0,
    rainMM: 0,
    windMS: 0,
  });
  const field = useReckoned(
    "field",
    whole
      ? {
          limits: sheet.limits,
          applyH: 0,
          lights: true,
          latitudeDeg: today.place.latitudeDeg,
          longitudeDeg: today.place.longitudeDeg,
          air: [hour(0), hour(1)],
          ...(surfaceC !== undefined && { surfaceTempsC: [surfaceC, surfaceC] }),
        }
      : undefined,
  );
  const now = field.data?.told.hours[0];
  return (
    <section>
      <h3 className="font-semibold">{tr("As the instruments show")}</h3>
      <div className="grid grid-cols-2 gap-3">
        <NumberField name="reckon.air" label={tr("Air")} unit="°C" value={tempC} onChange={setTemp} />
        <NumberField name="reckon.rh" label={tr("Humidity")} unit="%" value={rhPct} onChange={setRH} />
        <NumberField
          name="reckon.surface"
          label={tr("Surface")}
          hint={tr("empty: as the air")}
          unit="°C"
          value={surfaceC}
          onChange={setSurface}
        />
      </div>
      <Refusal error={field.error ?? wet.error} />
      {now && (
        <p className="mt-2">
          <b className="text-lg">{now.allowed ? tr("It may go on now") : tr("Not now")}</b>:{" "}
          <Binding check={now.binding} allowed={now.allowed} />
          {tr(". The hold after it is the weather’s, beside.")}
        </p>
      )}
      {wet.data && (
        <p>
          {trNodes("Dew point {dewPointC}.", {
            dewPointC: <Quantity value={wet.data.told.dewPointC} unit="°C" digits={1} />,
          })}
        </p>
      )}
      <Source from={field.data?.from} today={today} />
    </section>
  );
}

/** When it may be begun, and recoated, by the last forecast. */
function Ahead({ sheet, today }: Part) {
  const zone = today.place.timeZone;
  const [surfaceId, setSurface] = useState(today.answer.surfaceId);
  const hours = today.ribbon.hours;
  const face = today.ribbon.faces.find((f) => f.surfaceId === surfaceId);
  const temps = hours.map((h, i) => face?.surfaceC[i] ?? h.surfaceC);
  const from = hours.findIndex((h) => h.at >= today.ribbon.now);
  const coming = from < 0 ? [] : hours.slice(from);
  const field = useReckoned(
    "field",
    coming.length > 1
      ? {
          limits: sheet.limits,
          applyH: 1,
          latitudeDeg: today.place.latitudeDeg,
          longitudeDeg: today.place.longitudeDeg,
          air: coming.map(({ at, tempC, rhPct, rainMM, windMS, cloudPct }) => ({
            at,
            tempC,
            rhPct,
            rainMM,
            windMS,
            cloudPct,
          })),
          surfaceTempsC: temps.slice(from),
        }
      : undefined,
  );
  const recoats = sheet.recoat ?? [];
  const recoat = recoats.find((r) => r.over === "any") ?? recoats[0];
  const clockOf = useReckoned(
    "recoat",
    recoat && coming.length > 1
      ? {
          min: recoat.min,
          ...(recoat.max && { max: recoat.max }),
          minCureC: sheet.minCureC,
          surfaceTempsC: temps.slice(from),
        }
      : undefined,
  );
  const windows = field.data?.told.windows ?? [];
  const next = windows[0];
  const told = clockOf.data?.told;
  return (
    <section>
      <h3 className="font-semibold">{tr("By the last forecast")}</h3>
      <Choice
        name="reckon.face"
        label={tr("On")}
        value={surfaceId}
        onChange={setSurface}
        options={today.answer.lanes.map((l) => ({ value: l.surfaceId, label: l.surface }))}
      />
      <Refusal error={field.error ?? clockOf.error} />
      {field.data && (
        <p className="mt-2">
          {next ? (
            trNodes("{from} to {to}{later}.", {
              from: <b className="text-lg">{tr("Begin from {from}", { from: stamp(next.from, zone) })}</b>,
              to: stamp(next.to, zone),
              later:
                windows.length > 1 &&
                tr(", or in {later, plural, one {one later window} other {# later windows}}", {
                  later: windows.length - 1,
                }),
            })
          ) : (
            <b>{tr("No hour that is known is within its limits.")}</b>
          )}
        </p>
      )}
      {told && (
        <p>
          {trNodes("Laid now it may be coated again {x}{closesAfterH}.", {
            x:
              told.opensAfterH === null
                ? tr("past what is known")
                : tr("after {opensAfterH}", { opensAfterH: elapsed(told.opensAfterH) }),
            closesAfterH:
              told.closesAfterH !== null &&
              tr(", unsanded until {closesAfterH} after it", { closesAfterH: elapsed(told.closesAfterH) }),
          })}
        </p>
      )}
      <Source from={field.data?.from ?? clockOf.data?.from} today={today} />
    </section>
  );
}
