import type { ComponentType } from "react";
import { useParams, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { useMeta, useSurvey } from "../../api/queries";
import { Choice } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { tr } from "../../words/words";
import { Antifouling } from "./Antifouling";
import { Brightwork } from "./Brightwork";
import { Gelcoat } from "./Gelcoat";
import { Metal } from "./Metal";
import { Moulded } from "./Moulded";
import { NonSkid } from "./NonSkid";
import { Refit } from "./Refit";

type Key = Schemas["CraftKind"]["key"];

/** The bench of each craft that is done on a surface. */
const BENCHES: Record<Exclude<Key, "refit">, ComponentType<{ surfaceId: string }>> = {
  "non-skid": NonSkid,
  moulded: Moulded,
  gelcoat: Gelcoat,
  brightwork: Brightwork,
  antifouling: Antifouling,
  metal: Metal,
};

/** A workbench for each finish. */
export function Finishes() {
  const { boatId = "" } = useParams();
  const survey = useSurvey(boatId);
  return (
    <Loaded query={useMeta()}>
      {(meta) => <Loaded query={survey}>{(s) => <Shown key={boatId} survey={s} crafts={meta.crafts} />}</Loaded>}
    </Loaded>
  );
}

function Shown({ survey, crafts }: { survey: Schemas["Survey"]; crafts: Schemas["CraftKind"][] }) {
  const [params, setParams] = useSearchParams();
  const any = survey.surfaces;
  const on = (craft: Schemas["CraftKind"]) => any.filter((f) => f.crafts.includes(craft.key));
  const wanted = crafts.find((c) => c.key === params.get("craft"));
  const craft =
    wanted ??
    crafts.find((c) => c.key === survey.benchFirst) ??
    crafts.find((c) => c.key !== "moulded" && on(c).length > 0) ??
    (crafts[0] as Schemas["CraftKind"]);
  const suited = on(craft);
  const surface = any.find((s) => s.id === params.get("surface")) ?? suited[0];
  const go = (key: Key, id?: string) => setParams({ craft: key, ...(id ? { surface: id } : {}) }, { replace: true });
  const Bench = craft.key === "refit" ? null : BENCHES[craft.key];
  if (any.length === 0)
    return <Answer answer={tr("There is no surface to finish yet.")} detail={tr("Add it in Survey first.")} />;
  const rest = any.filter((s) => !suited.includes(s));
  return (
    <>
      <Tabs
        label={tr("Finishes")}
        tabs={crafts.map(({ key, name }) => ({ key, name }))}
        at={craft.key}
        onChange={(k) => go(k)}
      />
      {Bench === null ? (
        <Refit boatId={survey.boat.id} name={survey.boat.name} />
      ) : (
        <>
          <div className="no-print mb-3 max-w-sm">
            <Choice
              name="surfaceId"
              label={tr("Surface")}
              value={surface?.id ?? ""}
              onChange={(id) => go(craft.key, id)}
              options={[
                ...(surface
                  ? []
                  : [{ value: "", label: tr("none that {name} suits", { name: craft.name.toLowerCase() }) }]),
                ...suited.map((s) => ({ value: s.id, label: s.name })),
                ...rest.map((s) => ({ value: s.id, label: `${s.name} (${s.substrateName})` })),
              ]}
            />
          </div>
          {surface ? (
            <Bench key={craft.key + surface.id} surfaceId={surface.id} />
          ) : (
            <Answer
              answer={tr("No surface of hers is one that {name} is done on.", { name: craft.name.toLowerCase() })}
              detail={tr("Choose one above all the same, or add it in Survey.")}
            />
          )}
        </>
      )}
    </>
  );
}
