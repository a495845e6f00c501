import type { Schemas } from "../api/client";
import { tr, word } from "../words/words";
import { useSettings } from "./settings";

const FILL: Record<string, string> = {
  "fairing-compound": "#b9b4a2",
  "tie-coat": "#d8c69a",
  barrier: "#7d9488",
  "metal-primer": "#a8654f",
  "high-build-primer": "#9aa3a1",
  undercoat: "#e8e4da",
  "topcoat-one-part": "#5f7f9d",
  "topcoat-two-part": "#41657f",
  gelcoat: "#efe9d8",
  "wood-sealer": "#d2a45a",
  varnish: "#c98f2e",
  "non-skid-paint": "#cdb98a",
  "non-skid-grit": "#8f8a7e",
  "antifouling-soft": "#a8432d",
  "antifouling-hard": "#4b4340",
  unknown: "#b7b0a0",
  filler: "#b9b4a2",
  epoxy: "#8d9c92",
  primer: "#a3aaa8",
  "one-part paint": "#7d94a8",
  "two-part paint": "#5d7c93",
  stain: "#a9763c",
  antifouling: "#9d5546",
};

/** An old layer of unknown thickness is drawn this thick, µm. */
const UNKNOWN_UM = 40;
const shownUm = (l: Schemas["BuildupLayer"]) => l.um || (l.old ? UNKNOWN_UM : 0);

const LEFT = 78;
const WIDTH = 310;
const HEIGHT = 360;
const BASE = 46;

/** A surface's layers as a cut section, thickness to scale, from the substrate up; planned layers are hatched. */
export function CutSection({
  layers,
  substrate,
  dated,
}: {
  layers: Schemas["BuildupLayer"][];
  substrate: string;
  /** With it each coat laid tells its day and batch. */
  dated?: (t: string) => string;
}) {
  const { show } = useSettings();
  const total = layers.reduce((s, l) => s + shownUm(l), 0);
  const kept = layers.filter((l) => l.keep).length;
  const um = (v: number) => {
    const s = show(v, "µm");
    return `${s.text} ${s.unit}`;
  };
  // A round scale that lets the whole film fill the height, at most 1 px a µm.
  const perPx = Math.max(1, total / (HEIGHT - BASE - 14));
  let y = HEIGHT - BASE;
  const drawn = layers.map((l) => {
    const h = shownUm(l) / perPx;
    y -= h;
    return { ...l, y, h };
  });
  const labels = spread(drawn.map((l) => l.y + l.h / 2));
  const bar = [10, 20, 50, 100, 200, 500, 1000, 2000].find((b) => b / perPx > 36) ?? 5000;
  return (
    <svg
      viewBox={`0 0 ${WIDTH + (dated ? 320 : 220)} ${HEIGHT}`}
      className="w-full max-w-[620px]"
      role="img"
      aria-label={tr("Cut section: {layers} layers, {total} in all on {substrate}", {
        layers: layers.length,
        total: um(total),
        substrate,
      })}
    >
      <defs>
        <pattern id="planned" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={3} height={7} fill="var(--color-base-100)" opacity={0.75} />
        </pattern>
        <pattern id="substrate" width={10} height={10} patternUnits="userSpaceOnUse">
          <rect width={10} height={10} fill="var(--curing)" />
          <path d="M0 10L10 0" stroke="currentColor" strokeWidth={0.7} opacity={0.5} />
        </pattern>
      </defs>
      <rect
        x={LEFT}
        y={HEIGHT - BASE}
        width={WIDTH - 30 - LEFT}
        height={BASE - 14}
        fill="url(#substrate)"
        stroke="currentColor"
      />
      <text x={WIDTH - 20} y={HEIGHT - BASE + 20} fontSize={13} fill="currentColor">
        {substrate || tr("substrate")}
      </text>
      {drawn.map((l, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: layers have no other identity than their order
        <g key={i}>
          <rect
            x={LEFT}
            y={l.y}
            width={WIDTH - 30 - LEFT}
            height={Math.max(0.5, l.h)}
            fill={FILL[l.kind] ?? "#999"}
            stroke="var(--color-base-100)"
            strokeWidth={0.7}
          />
          {!l.laid && (
            <rect x={LEFT} y={l.y} width={WIDTH - 30 - LEFT} height={Math.max(0.5, l.h)} fill="url(#planned)" />
          )}
          <path
            d={`M${WIDTH - 30} ${l.y + l.h / 2}L${WIDTH - 22} ${labels[i]}`}
            stroke="currentColor"
            strokeWidth={0.7}
            opacity={0.6}
            fill="none"
          />
          <text x={WIDTH - 19} y={(labels[i] ?? 0) + 4} fontSize={13} fill="currentColor">
            <tspan fontWeight={l.laid ? 650 : 400}>{l.um || !l.old ? um(l.um) : "?"}</tspan>
            <tspan opacity={0.8}>
              {dated && l.at ? ` ${short(l.kind)}, ${dated(l.at)}${l.batch ? `, ${l.batch}` : ""}` : words(l)}
            </tspan>
          </text>
        </g>
      ))}
      {kept > 0 && (
        <g data-testid="stop">
          <path
            d={`M${LEFT - 6} ${drawn[kept - 1]?.y}H${WIDTH - 24}`}
            stroke="var(--shut)"
            strokeWidth={3}
            strokeDasharray="9 4"
          />
          <title>{tr("Sanding must not go below this line")}</title>
        </g>
      )}
      <g transform={`translate(66 ${HEIGHT - BASE})`} stroke="currentColor" fill="currentColor">
        <path d={`M-4 0H4M0 0V${-bar / perPx}M-4 ${-bar / perPx}H4`} fill="none" />
        <text x={-8} y={-bar / perPx / 2 + 4} fontSize={12} stroke="none" textAnchor="end">
          {um(bar)}
        </text>
      </g>
    </svg>
  );
}

const words = (l: Schemas["BuildupLayer"]) =>
  l.old
    ? ` ${[l.colour, l.product].filter(Boolean).join(" ")}${l.keep ? tr(", must stay") : ""}${l.known ? `, ${word(l.known)}` : ""}`
    : ` ${l.laid ? tr("{kind} laid, {known}", { kind: short(l.kind), known: word(l.known) }) : tr("{kind}, planned", { kind: short(l.kind) })}`;

const short = (kind: string) => kind.replaceAll("-", " ").replace(" compound", "").replace("antifouling", "antifoul");

/** Moves labels apart to at least 14 px, bottom one first. */
function spread(at: number[]): number[] {
  const out = [...at];
  for (let i = 1; i < out.length; i++) out[i] = Math.min(out[i] as number, (out[i - 1] as number) - 14);
  const over = 8 - (out.at(-1) ?? 8);
  if (over > 0) {
    out[out.length - 1] = 8;
    for (let i = out.length - 2; i >= 0; i--) out[i] = Math.max(out[i] as number, (out[i + 1] as number) + 14);
  }
  return out;
}
