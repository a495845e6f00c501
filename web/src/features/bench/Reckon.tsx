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
        Another amount, another surface, a reading, the next window: also without a signal
      </summary>
      <div className="max-w-sm">
        <Choice
          name="reckon.product"
          label="Product"
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
  return <p className="quiet text-sm">Reckoned on this device, from what it knew at {stamp(today.ribbon.now, today.place.timeZone)}.</p>;
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
    areaM2 && areaM2 > 0 && um > 0 ? { volumeSolidsPct: sheet.volumeSolidsPct, dftUm: um, areaM2, coats: 1, lossPct } : undefined,
  );
  const pot = litres ?? (areaM2 ? film.data?.told.practicalL : undefined);
  const twoPart = sheet.ratioByVolume?.hardener || sheet.ratioByWeight?.hardener;
  const mix = useReckoned(
    "mix",
    pot && pot > 0 && twoPart
      ? {
          ...(sheet.ratioByVolume?.hardener ? { ratioByVolume: sheet.ratioByVolume } : { ratioByWeight: sheet.ratioByWeight }),
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
      <h3 className="font-semibold">Into the pot</h3>
      <div className="grid grid-cols-2 gap-3">
        <NumberField name="reckon.litres" label="Litres in all" unit="L" value={litres} onChange={setLitres} />
        <NumberField name="reckon.area" label="or for an area" unit="m²" value={areaM2} onChange={setArea} />
        <NumberField
          name="reckon.dft"
          label="at a dry film"
          hint={`usual: ${prose([{ value: sheet.film.typicalUm, unit: "µm", digits: 0 }])}`}
          unit="µm"
          value={dftUm}
          onChange={setDFT}
        />
      </div>
      <Refusal error={film.error ?? mix.error} />
      {litres === undefined && film.data && areaM2 && (
        <p>
          <Figure title="Litres for the area" working={film.data.told.working}>
            <Quantity value={film.data.told.practicalL} unit="L" />
          </Figure>{" "}
          with {lossPct} % lost{method && ` by ${method.name}`}, laid <Quantity value={film.data.told.wftUm} unit="µm" /> wet.
        </p>
      )}
      {mix.data && (
        <table className="table-plain mt-2">
          <tbody>
            {part("Base", mix.data.told.baseL, mix.data.told.baseKg)}
            {part("Hardener", mix.data.told.hardenerL, mix.data.told.hardenerKg)}
          </tbody>
        </table>
      )}
      {!twoPart && pot !== undefined && <p>One part: nothing to mix.</p>}
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
  const wet = useReckoned("moist-air", whole ? { tempC, rhPct, ...(surfaceC !== undefined && { surfaceTempC: surfaceC }) } : undefined);
  const at = Date.parse(today.ribbon.now);
  const hour = (h: number) => ({ at: new Date(at + h * H).toISOString(), tempC: tempC ?? 0, rhPct: rhPct ?? 0, rainMM: 0, windMS: 0 });
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
      <h3 className="font-semibold">As the instruments show</h3>
      <div className="grid grid-cols-2 gap-3">
        <NumberField name="reckon.air" label="Air" unit="°C" value={tempC} onChange={setTemp} />
        <NumberField name="reckon.rh" label="Humidity" unit="%" value={rhPct} onChange={setRH} />
        <NumberField name="reckon.surface" label="Surface" hint="empty: as the air" unit="°C" value={surfaceC} onChange={setSurface} />
      </div>
      <Refusal error={field.error ?? wet.error} />
      {now && (
        <p className="mt-2">
          <b className="text-lg">{now.allowed ? "It may go on now" : "Not now"}</b>: <Binding check={now.binding} allowed={now.allowed} />.
          The hold after it is the weather’s, beside.
        </p>
      )}
      {wet.data && (
        <p>
          Dew point <Quantity value={wet.data.told.dewPointC} unit="°C" digits={1} />.
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
          air: coming.map(({ at, tempC, rhPct, rainMM, windMS, cloudPct }) => ({ at, tempC, rhPct, rainMM, windMS, cloudPct })),
          surfaceTempsC: temps.slice(from),
        }
      : undefined,
  );
  const recoats = sheet.recoat ?? [];
  const recoat = recoats.find((r) => r.over === "any") ?? recoats[0];
  const clockOf = useReckoned(
    "recoat",
    recoat && coming.length > 1
      ? { min: recoat.min, ...(recoat.max && { max: recoat.max }), minCureC: sheet.minCureC, surfaceTempsC: temps.slice(from) }
      : undefined,
  );
  const windows = field.data?.told.windows ?? [];
  const next = windows[0];
  const told = clockOf.data?.told;
  return (
    <section>
      <h3 className="font-semibold">By the last forecast</h3>
      <Choice
        name="reckon.face"
        label="On"
        value={surfaceId}
        onChange={setSurface}
        options={today.answer.lanes.map((l) => ({ value: l.surfaceId, label: l.surface }))}
      />
      <Refusal error={field.error ?? clockOf.error} />
      {field.data && (
        <p className="mt-2">
          {next ? (
            <>
              <b className="text-lg">Begin from {stamp(next.from, zone)}</b> to {stamp(next.to, zone)}
              {windows.length > 1 && `, or in ${windows.length - 1} later ${windows.length === 2 ? "window" : "windows"}`}.
            </>
          ) : (
            <b>No hour that is known is within its limits.</b>
          )}
        </p>
      )}
      {told && (
        <p>
          Laid now it may be coated again {told.opensAfterH === null ? "past what is known" : `after ${elapsed(told.opensAfterH)}`}
          {told.closesAfterH !== null && `, unsanded until ${elapsed(told.closesAfterH)} after it`}.
        </p>
      )}
      <Source from={field.data?.from ?? clockOf.data?.from} today={today} />
    </section>
  );
}
