import { useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useChange } from "../../api/queries";
import { upload } from "../../api/upload";
import { Errors, Refusal } from "../../ui/Form";
import { tr } from "../../words/words";

type Ring = Schemas["PolygonPoint"][];

const UNITS = ["mm", "cm", "m", "in", "ft"] as const;
const METRES: Record<(typeof UNITS)[number], string> = { mm: "0.001", cm: "0.01", m: "1", in: "0.0254", ft: "0.3048" };

/** Takes all closed shapes of an SVG or DXF drawing. */
export function FromDrawing({ label, take }: { label: string; take: (rings: Ring[]) => void }) {
  const [unit, setUnit] = useState<(typeof UNITS)[number]>("mm");
  const file = useRef<HTMLInputElement>(null);
  const read = useChange(
    [],
    (f: File) =>
      upload<Schemas["Drawing"]>(
        "/api/drawings",
        { format: f.name.toLowerCase().endsWith(".dxf") ? "dxf" : "svg", unitM: METRES[unit] },
        f,
      ),
    (d) => take(d.rings.map((r) => r.ring)),
  );
  return (
    <div>
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <span className="font-semibold">{label}</span>
        <input
          ref={file}
          type="file"
          accept=".svg,.dxf"
          aria-label={label}
          className="file-input file-input-sm bg-(--sheet) max-sm:min-h-11"
          onChange={(e) => {
            const f = e.target.files?.[0];
            if (f) read.mutate(f);
          }}
        />
        <label className="flex items-center gap-1">
          {tr("unit, if it does not say")}
          <select
            className="select select-sm w-20 bg-(--sheet) max-sm:min-h-11"
            value={unit}
            onChange={(e) => setUnit(e.target.value as (typeof UNITS)[number])}
          >
            {UNITS.map((u) => (
              <option key={u}>{u}</option>
            ))}
          </select>
        </label>
      </div>
      <Errors.Provider value={{}}>
        <Refusal error={read.error} />
      </Errors.Provider>
    </div>
  );
}
