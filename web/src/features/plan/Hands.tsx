import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr, trNodes } from "../../words/words";
import { OwnTasks } from "./OwnTasks";
import { PeopleFields, YardFields } from "./PeopleFields";
import { RuleFields } from "./RuleFields";

type Settings = Schemas["PlanSettings"];
type OwnTask = Schemas["TaskOwnTask"];

/** Who works and when, tasks of one's own, and the rules of the trade that hold here. */
export function Hands({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const crafts = useMeta().data?.skills ?? [];
  const id = plan.place.id;
  const form = useEdition(plan, (p = plan): Settings => p.settings);
  const { edit: draft, put: setDraft } = form;
  const save = useChange(
    ["plan"],
    (sent: Edition<Settings>) => ok(api.PUT("/api/places/{id}/plan", { params: { path: { id } }, body: sent })),
    form.take,
  );
  const boat = plan.boats.find((b) => b.id === boatId);
  const own = draft.own[boatId] ?? [];
  const setOwn = (list: OwnTask[]) => setDraft({ ...draft, own: { ...draft.own, [boatId]: list } });
  const taken = Object.values(draft.own).flatMap((list) => list.map((t) => t.skill?.trim() ?? ""));
  const skills = [...new Set([...crafts, ...draft.people.flatMap((p) => p.skills), ...taken])].filter(Boolean);
  const needed = Object.entries(draft.own).flatMap(([b, list]) =>
    list.flatMap((_, i) => [`own.${b}[${i}].hours`, `own.${b}[${i}].crew`]),
  );
  const marked = Object.entries(draft.marks);
  return (
    <EditForm form={form} save={save} needed={needed} says={tr("Save hands and tasks")}>
      <section data-field="people">
        <h2 className="text-lg">{tr("Who works in {name}", { name: plan.place.name })}</h2>
        <PeopleFields draft={draft} setDraft={setDraft} skills={skills} />
        <YardFields draft={draft} setDraft={setDraft} boat={{ id: boatId, name: boat?.name }} />
        <p className="quiet text-sm">
          {tr(
            "Without working hours of their own people work from eight to six every day. A skill that nobody has is anybody's.",
          )}
        </p>
      </section>
      <section className="mt-6">
        <h2 className="text-lg">{trNodes("Own tasks on {name}", { name: boat?.name })}</h2>
        <OwnTasks boatId={boatId} own={own} setOwn={setOwn} surfaces={boat?.surfaces ?? []} />
      </section>
      <section className="mt-6 max-w-4xl">
        <h2 className="text-lg">{trNodes("Rules between the surfaces of {name}", { name: boat?.name })}</h2>
        <RuleFields rules={plan.rules} boatId={boatId} draft={draft} setDraft={setDraft} />
      </section>
      {marked.length > 0 && (
        <p className="mt-4 text-sm">
          {tr("{marked, plural, one {One task is} other {{marked} tasks are}} marked done, skipped or pinned.", {
            marked: marked.length,
          })}{" "}
          <button type="button" className="linked max-sm:min-h-11" onClick={() => setDraft({ ...draft, marks: {} })}>
            {tr("take all marks off")}
          </button>
        </p>
      )}
    </EditForm>
  );
}
