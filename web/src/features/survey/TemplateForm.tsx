import { useState } from "react";
import { api, ok } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Choice, Refusal } from "../../ui/Form";
import { tr } from "../../words/words";
import type { Edit } from "./edit";

/** Adds the surfaces that a hull type usually has. */
export function TemplateForm({ boatId, done }: { boatId: string; done: () => void }) {
  const words = useMeta().data?.survey;
  const [template, setTemplate] = useState("motor-launch");
  const [substrate, setSubstrate] = useState<Edit["substrate"]>("grp");
  const add = useChange(
    ["surfaces"],
    () => ok(api.POST("/api/boats/{id}/template", { params: { path: { id: boatId } }, body: { template, substrate } })),
    done,
  );
  const names = words?.templates.find((t) => t.key === template)?.surfaces.map((s) => s.name) ?? [];
  return (
    <section className="mt-4 max-w-3xl border border-base-content p-4">
      <h2 className="mb-3 text-lg">{tr("Surfaces of a hull type")}</h2>
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          name="template"
          label={tr("Hull type")}
          value={template}
          onChange={setTemplate}
          options={(words?.templates ?? []).map((t) => ({ value: t.key, label: t.name }))}
        />
        <Choice
          name="substrate"
          label={tr("Mostly of")}
          value={substrate}
          onChange={setSubstrate}
          options={(words?.substrates ?? []).map((s) => ({ value: s.key as Edit["substrate"], label: s.name }))}
        />
      </div>
      <p className="mt-3">
        {tr("{names}. Those she has already by name are left alone. Areas are first guesses to be taped.", {
          names: names.join(", "),
        })}
      </p>
      <Refusal error={add.error} />
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn btn-primary min-h-11" onClick={() => add.mutate(undefined)}>
          {tr("Add them")}
        </button>
        <button type="button" className="btn btn-ghost min-h-11" onClick={done}>
          {tr("Cancel")}
        </button>
      </div>
    </section>
  );
}
