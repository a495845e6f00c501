import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { useAudit, useChange, useUsers, useWho } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { Choice, TextField } from "../../ui/Form";
import { Answer, Loaded } from "../../ui/Page";
import { Reflow } from "../../ui/Reflow";
import { Remove } from "../../ui/Remove";
import { stamp } from "../../ui/time";
import { type Edition, useEdition } from "../../ui/useEdition";
import { tr } from "../../words/words";
import { LogOut } from "./LogOut";

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

const MAY: Record<Schemas["UserEdit"]["may"], string> = {
  look: tr("look"),
  log: tr("look and log"),
  plan: tr("look, log and plan"),
  all: tr("do all, with people, backups and the clock"),
};

/** Who may come in, what each may do, and who changed what. */
export function People() {
  return <Loaded query={useWho()}>{(who) => <Shown who={who} />}</Loaded>;
}

function Shown({ who }: { who: Schemas["Who"] }) {
  const owner = who.may === "all";
  return (
    <>
      <Answer
        answer={
          who.logsIn
            ? tr("You are {name}, and may {may}.", { name: who.name, may: MAY[who.may] })
            : tr("Nobody has to log in here.")
        }
        detail={
          who.logsIn
            ? tr("What you change is written down with your name.")
            : tr(
                "Whoever sits at this computer may all. Add yourself first, then the others: from then on everybody logs in.",
              )
        }
      />
      {who.logsIn && <LogOut />}
      {owner && <Users />}
      {owner && <Audit />}
    </>
  );
}

function Users() {
  const [editing, setEditing] = useState<string>();
  return (
    <Loaded query={useUsers()}>
      {(users) => (
        <section className="mt-6 max-w-3xl" data-testid="users">
          <h2 className="text-lg">{tr("Who may come in")}</h2>
          <ul>
            {users.map((u) => (
              <li key={u.id} className="rule-b py-2">
                <div className="flex flex-wrap items-center justify-between gap-3">
                  <span>
                    <b>{u.name}</b> <span className="quiet">{MAY[u.may]}</span>
                  </span>
                  <span className="flex flex-wrap gap-3">
                    <button
                      type="button"
                      className="linked min-h-11"
                      onClick={() => setEditing(editing === u.id ? undefined : u.id)}
                    >
                      {tr("change {name}", { name: u.name })}
                    </button>
                    <Remove
                      of={["people"]}
                      what={u.name}
                      label={tr("shut {name} out", { name: u.name })}
                      remove={() => ok(api.DELETE("/api/users/{id}", { params: { path: { id: u.id } } }))}
                      done={() => {}}
                    />
                  </span>
                </div>
                {editing === u.id && <Edit user={u} done={() => setEditing(undefined)} />}
              </li>
            ))}
          </ul>
          {editing === "new" ? (
            <Edit
              first={users.length === 0}
              done={() => (users.length === 0 ? location.assign("/login?to=/people") : setEditing(undefined))}
            />
          ) : (
            <button type="button" className="btn btn-primary mt-3 min-h-12" onClick={() => setEditing("new")}>
              {tr("Add a person")}
            </button>
          )}
        </section>
      )}
    </Loaded>
  );
}

function Edit({ user, first, done }: { user?: Schemas["User"]; first?: boolean; done: () => void }) {
  const form = useEdition(undefined, (): Schemas["UserEdit"] => ({
    name: user?.name ?? "",
    may: user?.may ?? (first ? "all" : "log"),
    passphrase: "",
  }));
  const { at } = form;
  const save = useChange(
    ["people"],
    ({ value }: Edition<Schemas["UserEdit"]>) =>
      user
        ? ok(api.PUT("/api/users/{id}", { params: { path: { id: user.id } }, body: value }))
        : ok(api.POST("/api/users", { body: value })),
    done,
  );
  return (
    <EditForm
      form={form}
      save={save}
      says={user ? tr("Save") : tr("Let this person in")}
      cancel={done}
      className="mt-2 border border-base-300 p-4"
    >
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField {...at("name")} label={tr("Name, as in Plan")} />
        <Choice
          {...at("may")}
          label={tr("May")}
          options={Object.entries(MAY).map(([value, label]) => ({ value, label }))}
        />
        <TextField
          {...at("passphrase")}
          label={tr("Passphrase")}
          hint={user ? tr("empty: as it is") : tr("10 to 72 letters")}
          type="password"
        />
      </div>
    </EditForm>
  );
}

function Audit() {
  const entries = useAudit().data ?? [];
  if (entries.length === 0) return null;
  return (
    <section className="mt-8 max-w-4xl" data-testid="audit">
      <h2 className="text-lg">{tr("Who changed what")}</h2>
      <Reflow>
        <table className="table-plain">
          <thead>
            <tr>
              <th>{tr("When")}</th>
              <th>{tr("Who")}</th>
              <th>{tr("What")}</th>
            </tr>
          </thead>
          <tbody>
            {entries.map((e, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the list only grows at its head, as a whole
              <tr key={i}>
                <td className="whitespace-nowrap">{stamp(e.at, HERE)}</td>
                <td>{e.who}</td>
                <td>{e.what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Reflow>
    </section>
  );
}
