import { useState } from "react";
import { Choice, NumberField } from "../../ui/Form";
import { tr } from "../../words/words";

/** Where the bow points when a side has the morning sun: the sun of the morning stands in the east. */
const BY_THE_SUN: Record<string, number> = { port: 180, starboard: 0, bow: 90, stern: 270 };

type Compass = DeviceOrientationEvent & { webkitCompassHeading?: number };
type Asks = { requestPermission?: () => Promise<string> };

/** Where the bow points: by which side has the morning sun, by the phone laid along the keel, or in degrees. */
export function Heading({
  name,
  value,
  onChange,
}: {
  name: string;
  value: number | undefined;
  onChange: (deg: number | undefined) => void;
}) {
  const bySun = Object.keys(BY_THE_SUN).find((k) => BY_THE_SUN[k] === value) ?? "";
  const [wrong, setWrong] = useState("");
  const compass = async () => {
    setWrong("");
    const asks = (window.DeviceOrientationEvent ?? {}) as unknown as Asks;
    if (
      !("DeviceOrientationEvent" in window) ||
      (asks.requestPermission && (await asks.requestPermission()) !== "granted")
    )
      return setWrong(tr("This device lets out no compass: say which side has the morning sun."));
    const kind = "ondeviceorientationabsolute" in window ? "deviceorientationabsolute" : "deviceorientation";
    const read = (e: Event) => {
      const { alpha, absolute, webkitCompassHeading } = e as Compass;
      const deg = webkitCompassHeading ?? (absolute && alpha !== null ? 360 - alpha : undefined);
      if (deg === undefined) return;
      window.removeEventListener(kind, read);
      clearTimeout(patience);
      onChange(Math.round(deg) % 360);
    };
    const patience = setTimeout(() => {
      window.removeEventListener(kind, read);
      setWrong(tr("No compass answered: say which side has the morning sun."));
    }, 3000);
    window.addEventListener(kind, read);
  };
  return (
    <div className="flex flex-col gap-3">
      <Choice
        name={`${name}.sun`}
        label={tr("Which side has the morning sun?")}
        value={bySun}
        onChange={(side) => onChange(side ? BY_THE_SUN[side] : undefined)}
        options={[
          { value: "", label: value === undefined ? "choose…" : tr("by degrees") },
          { value: "port", label: tr("port") },
          { value: "starboard", label: tr("starboard") },
          { value: "bow", label: tr("the bow") },
          { value: "stern", label: tr("the stern") },
        ]}
      />
      <NumberField
        name={name}
        label={tr("or the bow points to")}
        hint={tr("degrees from true north, clockwise")}
        unit="°"
        value={value}
        onChange={onChange}
      />
      <button type="button" className="linked min-h-11 text-left text-sm" onClick={() => void compass()}>
        {tr("Lay the phone along the keel and read its compass")}
      </button>
      {wrong && (
        <p role="alert" className="text-sm text-error">
          {wrong}
        </p>
      )}
    </div>
  );
}
