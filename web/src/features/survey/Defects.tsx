import { useState } from "react";
import { api, ok, type Schemas } from "../../api/client";
import { newID } from "../../api/outbox";
import { smaller } from "../../api/picture";
import { useChange, useMeta, useWritten } from "../../api/queries";
import { EditForm } from "../../ui/EditForm";
import { AreaField, Choice, NumberField, Refusal, TextField } from "../../ui/Form";
import { figuresOf } from "../../ui/fieldsOf";
import { Remove } from "../../ui/Remove";
import { useSettings } from "../../ui/settings";
import { longDay, span } from "../../ui/time";
import { type Edition, useEdition } from "../../ui/useEdition";
import { Figure, Quantity } from "../../ui/Working";
import { tr } from "../../words/words";

type Defect = Schemas["Defect"];
type Draft = Schemas["DefectEdit"];

export const isOpen = (d: Defect) => d.repair.open;

export function useDefectName() {
  const kinds = useMeta().data?.survey.defectKinds ?? [];
  return (d: { kind: string; count: number }) => {
    const name = kinds.find((k) => k.kind === d.kind)?.name ?? d.kind;
    return d.count > 1 ? `${d.count} × ${name}` : name;
  };
}

/** "220 × 4 × 3 mm", as far as known, in the user's units. */
export function Size({ d }: { d: { lengthMM: number; widthMM: number; depthMM: number } }) {
  const { show } = useSettings();
  const parts = [d.lengthMM, d.widthMM, d.depthMM]
    .filter((v) => v > 0)
    .map((v) => show(v, "mm", v < 10 && !Number.isInteger(v) ? 1 : 0));
  if (parts.length === 0) return null;
  return <span className="whitespace-nowrap">{`${parts.map((p) => p.text).join(" × ")} ${parts[0]?.unit}`}</span>;
}

/** A little filler in mL, more of it in L. */
export function Filler({ litres }: { litres: number }) {
  return litres < 0.5 ? <Quantity value={1000 * litres} unit="mL" /> : <Quantity value={litres} unit="L" />;
}

/** Defects one under the other; without any, what to do to note one. */
export function DefectList({ defects, pin }: { defects: Defect[]; pin: (id?: string) => void }) {
  const name = useDefectName();
  if (defects.length === 0)
    return (
      <div>
        <p>{tr("No defect is noted here.")}</p>
        <button type="button" className="btn mt-2 min-h-11" onClick={() => pin()}>
          {tr("Pin a defect")}
        </button>
      </div>
    );
  return (
    <ul data-testid="defects">
      {defects.map((d) => (
        <li key={d.id} className="rule-b flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
          <b className="w-7 text-right">{d.number}</b>
          <span className="min-w-56 flex-1">
            <b className="first-letter:uppercase inline-block">{name(d)}</b> <Size d={d} />
            {d.note && <span className="quiet"> – {d.note}</span>}
          </span>
          <span>{d.state}</span>
          <span className="w-36 text-right">
            <Figure title={tr("Defect {number}, repair", { number: d.number })} working={d.repair.working}>
              {span(d.repair.hours)}
              {d.repair.fillerL > 0 && (
                <>
                  , <Filler litres={d.repair.fillerL} />
                </>
              )}
            </Figure>
          </span>
          {d.photos.length > 0 && (
            <span className="quiet text-sm">
              {tr("{photos, plural, one {1 photo} other {{photos} photos}}", { photos: d.photos.length })}
            </span>
          )}
          <button type="button" className="linked max-sm:min-h-11" onClick={() => pin(d.id)}>
            {tr("open")}
          </button>
        </li>
      ))}
    </ul>
  );
}

const FRESH = {
  kind: "void" as const,
  lengthMM: 0,
  widthMM: 0,
  depthMM: 0,
  count: 1,
  action: "",
  state: "found",
  note: "",
};

/** What of a defect is its user's to change. */
export const editOfDefect = (d: Defect): Draft => ({
  surfaceId: d.surfaceId,
  kind: d.kind,
  place: d.place,
  lengthMM: d.lengthMM,
  widthMM: d.widthMM,
  depthMM: d.depthMM,
  count: d.count,
  action: d.action,
  state: d.state,
  note: d.note,
  frame: d.frame,
  hours: d.hours,
  fillerL: d.fillerL,
});

/** A defect just pinned at a place, or the one given for changing. */
export function DefectForm({
  survey,
  defect,
  place,
  done,
}: {
  survey: Schemas["Survey"];
  defect?: Defect;
  place?: { view: string; x: number; y: number; surfaceId: string };
  done: (id?: string) => void;
}) {
  const name = useDefectName();
  const form = useEdition<Defect, Draft>(defect, (d) =>
    d
      ? editOfDefect(d)
      : {
          ...FRESH,
          surfaceId: place?.surfaceId ?? "",
          place: { view: place?.view ?? "plan", x: place?.x ?? 0, y: place?.y ?? 0 },
        },
  );
  const { edit: draft, set } = form;
  const [id] = useState(newID);
  // They are listed as one walks round her.
  const open = defect ? survey.defects.filter((d) => isOpen(d) || d.id === defect.id) : [];
  const next = open[open.findIndex((d) => d.id === defect?.id) + 1];
  const save = useWritten<Edition<Draft>, Defect>(
    ["surfaces"],
    (sent) => [
      {
        id: newID(),
        label: defect
          ? `defect ${defect.number}`
          : tr("a defect, {x}", { x: name({ kind: draft.kind, count: draft.count }) }),
        boatId: survey.boat.id,
        ...(defect
          ? { method: "PUT" as const, path: `/api/defects/${defect.id}`, body: sent }
          : { method: "POST" as const, path: `/api/boats/${survey.boat.id}/defects`, body: { id, ...sent.value } }),
      },
    ],
    (d) => done(d === "kept" ? undefined : d.id),
  );
  return (
    <section className="mt-4 max-w-5xl border border-base-content p-4" data-testid="defect-form">
      <h2 className="mb-3 text-lg">{defect ? tr("Defect {number}", { number: defect.number }) : tr("A new defect")}</h2>
      <EditForm
        form={form}
        save={save}
        needed={["count", "place.x", "place.y"]}
        says={defect ? tr("Save the defect") : tr("Note it")}
        buttons={
          <>
            {next && (
              <button type="button" className="btn min-h-11" onClick={() => done(next.id)}>
                {tr("On to {number}, {next}", { number: next.number, next: name(next) })}
              </button>
            )}
            <button type="button" className="btn btn-ghost min-h-11" onClick={() => done()}>
              {tr("Close")}
            </button>
          </>
        }
      >
        <DefectFields survey={survey} form={form} />
      </EditForm>
      {defect && (defect.history?.length ?? 0) > 0 && (
        <p className="mt-3 text-sm" data-testid="history">
          {defect.history?.map((h) => `${h.state} until ${longDay(h.at, survey.place.timeZone)}`).join(", ")}
          {tr(", now {state}.", { state: defect.state })}
        </p>
      )}
      {defect && !isOpen(defect) && (
        <button
          type="button"
          className="btn mt-3 min-h-11"
          onClick={() => {
            set({ state: "found" });
          }}
        >
          {tr("It is there again")}
        </button>
      )}
      {defect && <Photos defect={defect} boatId={survey.boat.id} />}
      {defect && (
        <Remove
          of={["surfaces"]}
          what={tr("defect {number} and its photos", { number: defect.number })}
          label={tr("delete this defect")}
          remove={() => ok(api.DELETE("/api/defects/{id}", { params: { path: { id: defect.id } } }))}
          done={() => done()}
        />
      )}
    </section>
  );
}

/** What a defect is, where, how large, and what is to be done. */
function DefectFields({
  survey,
  form: { edit: draft, at, set },
}: {
  survey: Schemas["Survey"];
  form: ReturnType<typeof useEdition<Defect, Draft>>;
}) {
  const words = useMeta().data?.survey;
  const usual = words?.defectKinds.find((k) => k.kind === draft.kind)?.action ?? "";
  const size = figuresOf(draft, set);
  return (
    <div className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
      <Choice
        {...at("kind")}
        label={tr("What is it")}
        options={(words?.defectKinds ?? []).map((k) => ({ value: k.kind, label: k.name }))}
      />
      <Choice
        {...at("surfaceId")}
        label={tr("On")}
        options={survey.surfaces.map((s) => ({ value: s.id, label: s.name }))}
      />
      <Choice
        {...at("state")}
        label={tr("How far it is")}
        options={(words?.defectStates ?? []).map((s) => ({ value: s, label: s }))}
      />
      <NumberField {...at("count")} label={tr("How many")} unit="" />
      <NumberField {...at("place.x")} label={tr("From aft")} unit="m" />
      <NumberField
        {...at("place.y")}
        label={/side$/.test(draft.place.view) ? tr("Over the waterline") : tr("To starboard of the middle")}
        hint={tr("the other way: with a minus")}
        unit="m"
      />
      <TextField {...at("frame")} label={tr("Frame or landmark")} hint={tr("such as 7, or the second port light")} />
      <NumberField {...size("lengthMM")} label={tr("Length")} unit="mm" />
      <NumberField {...size("widthMM")} label={tr("Width")} unit="mm" />
      <NumberField {...size("depthMM")} label={tr("Depth")} unit="mm" />
      <TextField {...at("action")} label={tr("What to do")} hint={tr("usual: {usual}", { usual })} />
      <NumberField {...at("hours")} label={tr("Hours")} hint={tr("empty: reckoned from kind and size")} unit="h" />
      <NumberField {...at("fillerL")} label={tr("Filler")} hint={tr("empty: reckoned from the size")} unit="L" />
      <div className="sm:col-span-2">
        <AreaField {...at("note")} label={tr("Note")} rows={2} />
      </div>
    </div>
  );
}

function Photos({ defect, boatId }: { defect: Defect; boatId: string }) {
  const add = useWritten<Blob, Defect>(["surfaces"], (file) => [
    {
      id: newID(),
      label: tr("photo of defect {number}", { number: defect.number }),
      boatId,
      method: "POST",
      path: `/api/defects/${defect.id}/photos`,
      body: file,
    },
  ]);
  const remove = useChange(["surfaces"], (id: string) =>
    ok(api.DELETE("/api/photos/{id}", { params: { path: { id } } })),
  );
  return (
    <div className="mt-4">
      <h3 className="mb-2">{tr("Photos")}</h3>
      <div className="flex flex-wrap items-end gap-3">
        {defect.photos.map((p, i) => (
          <figure key={p.id}>
            <img
              src={`/api/photos/${p.id}`}
              alt={tr("Defect {number}, {i}", { number: defect.number, i: i + 1 })}
              width={p.width}
              height={p.height}
              className="h-32 w-auto border border-base-300"
            />
            <figcaption>
              <button type="button" className="linked text-sm" onClick={() => remove.mutate(p.id)}>
                {tr("delete")}
              </button>
            </figcaption>
          </figure>
        ))}
        <label className="text-sm font-semibold">
          {tr("Add a photo")}
          <input
            type="file"
            aria-label={tr("Photo")}
            accept="image/jpeg,image/png,image/webp"
            className="file-input mt-1 block min-h-11 bg-(--sheet) font-normal"
            onChange={(e) => {
              const f = e.target.files?.[0];
              if (f) void smaller(f).then(add.mutate);
              e.target.value = "";
            }}
          />
        </label>
      </div>
      <Refusal error={add.error ?? remove.error} />
    </div>
  );
}
