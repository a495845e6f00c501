import { Choice, NumberField, TextField } from "../../ui/Form";
import { fieldsOf } from "../../ui/fieldsOf";
import { tr } from "../../words/words";
import type { Edit, Words } from "./edit";

const ACCESS = {
  flat: tr("flat, easy"),
  side: tr("upright side"),
  overhead: tr("overhead"),
  fiddly: tr("fiddly"),
} as const;
const SHELTER = { open: tr("in the open"), tent: tr("in a tent"), shed: tr("in a shed") } as const;
const options = <T extends string>(names: Record<T, string>) =>
  (Object.keys(names) as T[]).map((value) => ({ value, label: names[value] }));

/** What a surface is and how it lies. */
export function Describe({
  edit,
  change,
  words,
  brief = false,
}: {
  edit: Edit;
  change: (e: Partial<Edit>) => void;
  words: Words;
  brief?: boolean;
}) {
  const part = words.parts.find((p) => p.part === edit.part);
  const at = fieldsOf(edit, change);
  return (
    <div className="mb-4 grid max-w-5xl gap-4 sm:grid-cols-2 lg:grid-cols-4">
      <TextField {...at("name")} label={tr("Name")} />
      <Choice
        name="part"
        label={tr("Part")}
        value={edit.part}
        onChange={(p) => change({ part: p as Edit["part"] })}
        options={words.parts.map((p) => ({ value: p.part, label: p.name }))}
      />
      <Choice
        {...at("side")}
        label={tr("Side")}
        options={[
          { value: "both", label: tr("both, or none") },
          { value: "port", label: tr("port") },
          { value: "starboard", label: tr("starboard") },
        ]}
      />
      <Choice
        {...at("substrate")}
        label={tr("Substrate")}
        options={words.substrates.map((s) => ({ value: s.key as Edit["substrate"], label: s.name }))}
      />
      {!brief && (
        <>
          <TextField
            {...at("substrateNote")}
            label={tr("In your words")}
            hint={tr("such as spruce, strip plank sheathed")}
          />
          <NumberField
            name="thicknessMM"
            label={tr("Thickness")}
            hint={tr("thin and dark warms fast")}
            unit="mm"
            value={edit.thicknessMM}
            onChange={(v) => change({ thicknessMM: v ?? 0 })}
          />
          <TextField {...at("group")} label={tr("Group")} hint={tr("surfaces listed and added up together")} />
          <TextField {...at("colour")} label={tr("Colour")} />
          <Choice
            {...at("tone")}
            label={tr("How dark")}
            hint={tr("what the sun does to it")}
            options={words.tones.map((t) => ({ value: t as Edit["tone"], label: t }))}
          />
          <Choice
            {...at("facing")}
            label={tr("Faces")}
            options={words.facings.map((f) => ({ value: f as Edit["facing"], label: f || tr("as its side says") }))}
          />
          <NumberField
            {...at("tiltDeg")}
            label={tr("Slope")}
            hint={tr("0° level, 90° upright, 180° overhead; usual for {name}: {tiltDeg}°", {
              name: part?.name ?? tr("it"),
              tiltDeg: part?.tiltDeg ?? 90,
            })}
            unit="°"
          />
          <Choice
            {...at("access")}
            label={tr("Access")}
            hint={tr("what sanding hours are reckoned with")}
            options={options(ACCESS)}
          />
          <Choice {...at("shelter")} label={tr("Stands")} options={options(SHELTER)} />
        </>
      )}
    </div>
  );
}
