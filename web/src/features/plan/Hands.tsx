import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useChange, useMeta } from "../../api/queries";
import { Conflict } from "../../ui/Conflict";
import { Errors, Refusal, unsendable } from "../../ui/Form";
import { tr, trNodes } from "../../words/words";
import { OwnTasks } from "./OwnTasks";
import { PeopleFields, YardFields } from "./PeopleFields";
import { RuleFields } from "./RuleFields";

type Settings = Schemas["PlanSettings"];
type OwnTask = Schemas["TaskOwnTask"];

/** Who works and when, tasks of one's own, and the rules of the trade that hold here. */
export function Hands({ plan, boatId }: { plan: Schemas["YardPlan"]; boatId: string }) {
  const crafts = useMeta().data?.skills ?? [];
  const [draft, setDraft] = useState<Settings>(plan.settings);
  const [version, setVersion] = useState(plan.version);
  const [local, setLocal] = useState<Record<string, string>>({});
  const id = plan.place.id;
  const save = useChange(["plan"], (v: number) =>
    ok(api.PUT("/api/places/{id}/plan", { params: { path: { id } }, body: { version: v, value: draft } })),
  );
  const submit = (v: number) => {
    const bad = unsendable(draft);
    setLocal(bad);
    if (Object.keys(bad).length === 0) save.mutate(v);
  };
  const boat = plan.boats.find((b) => b.id === boatId);
  const own = draft.own[boatId] ?? [];
  const setOwn = (list: OwnTask[]) => setDraft({ ...draft, own: { ...draft.own, [boatId]: list } });
  const taken = Object.values(draft.own).flatMap((list) => list.map((t) => t.skill?.trim() ?? ""));
  const skills = [...new Set([...crafts, ...draft.people.flatMap((p) => p.skills), ...taken])].filter(Boolean);
  const marked = Object.entries(draft.marks);
  return (
    <Errors.Provider value={{ ...local, ...save.error?.fields }}>
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
      <div className="mt-4 flex flex-col gap-3">
        <Refusal error={save.error?.status === 409 ? null : save.error} />
        <button
          type="button"
          className="btn btn-primary min-h-11 self-start"
          disabled={save.isPending}
          onClick={() => submit(version)}
        >
          {tr("Save hands and tasks")}
        </button>
      </div>
      <Conflict
        error={save.error}
        mine={draft}
        stored={(c: Schemas["YardPlan"]) => c.settings}
        onMine={(c) => {
          setVersion(c.version);
          submit(c.version);
        }}
        onTheirs={(c) => {
          setDraft(c.settings);
          setVersion(c.version);
          save.reset();
        }}
      />
    </Errors.Provider>
  );
}
