import { Choice, NumberField, TextField } from "../../ui/Form";
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
  return (
    <div className="mb-4 grid max-w-5xl gap-4 sm:grid-cols-2 lg:grid-cols-4">
      <TextField name="name" label={tr("Name")} value={edit.name} onChange={(name) => change({ name })} />
      <Choice
        name="part"
        label={tr("Part")}
        value={edit.part}
        onChange={(p) => change({ part: p as Edit["part"] })}
        options={words.parts.map((p) => ({ value: p.part, label: p.name }))}
      />
      <Choice
        name="side"
        label={tr("Side")}
        value={edit.side}
        onChange={(side) => change({ side })}
        options={[
          { value: "both", label: tr("both, or none") },
          { value: "port", label: tr("port") },
          { value: "starboard", label: tr("starboard") },
        ]}
      />
      <Choice
        name="substrate"
        label={tr("Substrate")}
        value={edit.substrate}
        onChange={(substrate) => change({ substrate })}
        options={words.substrates.map((s) => ({ value: s.key as Edit["substrate"], label: s.name }))}
      />
      {!brief && (
        <>
          <TextField
            name="substrateNote"
            label={tr("In your words")}
            hint={tr("such as spruce, strip plank sheathed")}
            value={edit.substrateNote}
            onChange={(substrateNote) => change({ substrateNote })}
          />
          <NumberField
            name="thicknessMM"
            label={tr("Thickness")}
            hint={tr("thin and dark warms fast")}
            unit="mm"
            value={edit.thicknessMM}
            onChange={(v) => change({ thicknessMM: v ?? 0 })}
          />
          <TextField
            name="group"
            label={tr("Group")}
            hint={tr("surfaces listed and added up together")}
            value={edit.group}
            onChange={(group) => change({ group })}
          />
          <TextField name="colour" label={tr("Colour")} value={edit.colour} onChange={(colour) => change({ colour })} />
          <Choice
            name="tone"
            label={tr("How dark")}
            hint={tr("what the sun does to it")}
            value={edit.tone}
            onChange={(tone) => change({ tone })}
            options={words.tones.map((t) => ({ value: t as Edit["tone"], label: t }))}
          />
          <Choice
            name="facing"
            label={tr("Faces")}
            value={edit.facing}
            onChange={(facing) => change({ facing })}
            options={words.facings.map((f) => ({ value: f as Edit["facing"], label: f || tr("as its side says") }))}
          />
          <NumberField
            name="tiltDeg"
            label={tr("Slope")}
            hint={tr("0° level, 90° upright, 180° overhead; usual for {name}: {tiltDeg}°", {
              name: part?.name ?? tr("it"),
              tiltDeg: part?.tiltDeg ?? 90,
            })}
            unit="°"
            value={edit.tiltDeg}
            onChange={(tiltDeg) => change({ tiltDeg })}
          />
          <Choice
            name="access"
            label={tr("Access")}
            hint={tr("what sanding hours are reckoned with")}
            value={edit.access}
            onChange={(access) => change({ access })}
            options={options(ACCESS)}
          />
          <Choice
            name="shelter"
            label={tr("Stands")}
            value={edit.shelter}
            onChange={(shelter) => change({ shelter })}
            options={options(SHELTER)}
          />
        </>
      )}
    </div>
  );
}
