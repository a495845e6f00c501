import { useState } from "react";
import { tr } from "../words/words";
import { TextField } from "./Form";
import { readPosition } from "./numbers";

export type At = { latitudeDeg: number; longitudeDeg: number };

/** A position to some ten metres. */
const rounded = (deg: number) => Math.round(1e4 * deg) / 1e4;

/** A position as it is pasted, or asked of the device. */
export function Position({ name, hint, onAt }: { name: string; hint?: string; onAt: (at: At) => void }) {
  const [pasted, setPasted] = useState("");
  const [wrong, setWrong] = useState("");
  const here = () => {
    if (!window.isSecureContext || !navigator.geolocation)
      return setWrong(tr("This browser tells no position over plain http: paste it."));
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        setWrong("");
        setPasted(`${rounded(coords.latitude)}, ${rounded(coords.longitude)}`);
        onAt({ latitudeDeg: rounded(coords.latitude), longitudeDeg: rounded(coords.longitude) });
      },
      () => setWrong(tr("The position was not let out: paste it.")),
    );
  };
  return (
    <div>
      <TextField
        name={name}
        label={tr("Position")}
        hint={hint ?? tr("pasted, such as 52.95, 0.85 or 52°57'N 0°51'E")}
        value={pasted}
        onChange={(t) => {
          setPasted(t);
          const at = readPosition(t);
          if (at) {
            setWrong("");
            onAt(at);
          }
        }}
      />
      <button type="button" className="linked mt-1 min-h-11 text-sm" onClick={here}>
        {tr("Use my position")}
      </button>
      {wrong && (
        <p role="alert" className="text-sm text-error">
          {wrong}
        </p>
      )}
    </div>
  );
}
