import type { Schemas } from "../../api/client";
import { Choice } from "../../ui/Form";
import { tr } from "../../words/words";

type Model = Schemas["AreaModel"];

/** A zone, a group or all of a 3-D file or table of offsets. */
export function ModelFields({
  path,
  model,
  set,
  models,
  zones,
}: {
  path: string;
  model: Model;
  set: (m: Model) => void;
  models: Schemas["Model"][];
  zones: string[];
}) {
  if (models.length === 0)
    return (
      <p>
        {tr(
          "There is no 3-D file or table of offsets yet. Add one with “3-D files and offsets” above the list, then choose it here.",
        )}
      </p>
    );
  const at = models.find((m) => m.id === model.modelId);
  const groups = Object.keys(at?.areas.groups ?? {});
  const what = model.zone ? `zone:${model.zone}` : model.groups?.[0] ? `group:${model.groups[0]}` : "all";
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <Choice
        name={`${path}.modelId`}
        label={tr("Model")}
        value={model.modelId}
        onChange={(modelId) => set({ ...model, modelId })}
        options={[{ value: "", label: tr("choose one…") }, ...models.map((m) => ({ value: m.id, label: m.name }))]}
      />
      <Choice
        name={`${path}.zone`}
        label={tr("What of it")}
        value={what}
        onChange={(v) => {
          const [kind, name = ""] = v.split(/:(.*)/s);
          set({
            modelId: model.modelId,
            ...(kind === "zone" && { zone: name as Model["zone"] }),
            ...(kind === "group" && { groups: [name] }),
          });
        }}
        options={[
          { value: "all", label: tr("all of it") },
          ...zones.map((z) => ({ value: `zone:${z}`, label: tr("{z}, on this surface's side", { z }) })),
          ...groups.map((g) => ({ value: `group:${g}`, label: tr("the group {g}", { g }) })),
        ]}
      />
    </div>
  );
}
