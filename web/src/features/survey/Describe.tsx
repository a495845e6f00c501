import { Choice, NumberField, TextField } from "../../ui/Form";
import type { Edit, Words } from "./edit";

const ACCESS = { flat: "flat, easy", side: "upright side", overhead: "overhead", fiddly: "fiddly" } as const;
const SHELTER = { open: "in the open", tent: "in a tent", shed: "in a shed" } as const;
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
      <TextField name="name" label="Name" value={edit.name} onChange={(name) => change({ name })} />
      <Choice
        name="part"
        label="Part"
        value={edit.part}
        onChange={(p) => change({ part: p as Edit["part"] })}
        options={words.parts.map((p) => ({ value: p.part, label: p.name }))}
      />
      <Choice
        name="side"
        label="Side"
        value={edit.side}
        onChange={(side) => change({ side })}
        options={[
          { value: "both", label: "both, or none" },
          { value: "port", label: "port" },
          { value: "starboard", label: "starboard" },
        ]}
      />
      <Choice
        name="substrate"
        label="Substrate"
        value={edit.substrate}
        onChange={(substrate) => change({ substrate })}
        options={words.substrates.map((s) => ({ value: s.key as Edit["substrate"], label: s.name }))}
      />
      {!brief && (
        <>
          <TextField
            name="substrateNote"
            label="In your words"
            hint="such as spruce, strip plank sheathed"
            value={edit.substrateNote}
            onChange={(substrateNote) => change({ substrateNote })}
          />
          <NumberField
            name="thicknessMM"
            label="Thickness"
            hint="thin and dark warms fast"
            unit="mm"
            value={edit.thicknessMM}
            onChange={(v) => change({ thicknessMM: v ?? 0 })}
          />
          <TextField
            name="group"
            label="Group"
            hint="surfaces listed and added up together"
            value={edit.group}
            onChange={(group) => change({ group })}
          />
          <TextField name="colour" label="Colour" value={edit.colour} onChange={(colour) => change({ colour })} />
          <Choice
            name="tone"
            label="How dark"
            hint="what the sun does to it"
            value={edit.tone}
            onChange={(tone) => change({ tone })}
            options={words.tones.map((t) => ({ value: t as Edit["tone"], label: t }))}
          />
          <Choice
            name="facing"
            label="Faces"
            value={edit.facing}
            onChange={(facing) => change({ facing })}
            options={words.facings.map((f) => ({ value: f as Edit["facing"], label: f || "as its side says" }))}
          />
          <NumberField
            name="tiltDeg"
            label="Slope"
            hint={`0° level, 90° upright, 180° overhead; usual for ${part?.name ?? "it"}: ${part?.tiltDeg ?? 90}°`}
            unit="°"
            value={edit.tiltDeg}
            onChange={(tiltDeg) => change({ tiltDeg })}
          />
          <Choice
            name="access"
            label="Access"
            hint="what sanding hours are reckoned with"
            value={edit.access}
            onChange={(access) => change({ access })}
            options={options(ACCESS)}
          />
          <Choice
            name="shelter"
            label="Stands"
            value={edit.shelter}
            onChange={(shelter) => change({ shelter })}
            options={options(SHELTER)}
          />
        </>
      )}
    </div>
  );
}
