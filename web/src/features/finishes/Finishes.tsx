import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useMeta, useSurvey } from "../../api/queries";
import { Choice } from "../../ui/Form";
import { Answer, Loaded, Tabs } from "../../ui/Page";
import { Antifouling } from "./Antifouling";
import { Brightwork } from "./Brightwork";
import { Gelcoat } from "./Gelcoat";
import { Metal } from "./Metal";
import { Moulded } from "./Moulded";
import { NonSkid } from "./NonSkid";
import { Refit } from "./Refit";

type Part = Schemas["AreaPartInfo"];
type Substrate = Schemas["SurveySubstrateInfo"];

/** The crafts of the last stages, each with the surfaces that it is mostly done on first. */
const CRAFTS = [
  { key: "non-skid", name: "Non-skid", suits: (p: Part) => p.trodden, Bench: NonSkid },
  { key: "moulded", name: "Moulded panels", suits: (p: Part) => p.trodden, Bench: Moulded },
  { key: "gelcoat", name: "Gelcoat", suits: (_: Part, of: Substrate) => of.laminate, Bench: Gelcoat },
  { key: "brightwork", name: "Brightwork", suits: (p: Part, of: Substrate) => of.wood && !p.underwater, Bench: Brightwork },
  { key: "antifouling", name: "Antifouling", suits: (p: Part) => p.underwater, Bench: Antifouling },
  { key: "metal", name: "Metal", suits: (_: Part, of: Substrate) => of.metal, Bench: Metal },
  { key: "refit", name: "Refit and snags", suits: () => true, Bench: NonSkid },
] as const;

type Key = (typeof CRAFTS)[number]["key"];

/** A workbench for each finish. */
export function Finishes() {
  const { boatId = "" } = useParams();
  const survey = useSurvey(boatId);
  return (
    <Loaded query={useMeta()}>
      {(meta) => <Loaded query={survey}>{(s) => <Shown key={boatId} survey={s} words={meta.survey} />}</Loaded>}
    </Loaded>
  );
}

function Shown({ survey, words }: { survey: Schemas["Survey"]; words: Schemas["SurveyWords"] }) {
  const [params, setParams] = useSearchParams();
  const any = survey.surfaces;
  const on = (craft: (typeof CRAFTS)[number]) =>
    any.filter((f) => {
      const part = words.parts.find((p) => p.part === f.part);
      const of = words.substrates.find((o) => o.key === f.substrate);
      return part && of && craft.suits(part, of);
    });
  const wanted = CRAFTS.find((c) => c.key === params.get("craft"));
  const craft = wanted ?? CRAFTS.find((c) => c.key !== "moulded" && on(c).length > 0) ?? CRAFTS[0];
  const suited = on(craft);
  const surface = any.find((s) => s.id === params.get("surface")) ?? suited[0];
  const go = (key: Key, id?: string) => setParams({ craft: key, ...(id ? { surface: id } : {}) }, { replace: true });
  const { Bench } = craft;
  if (any.length === 0) return <Answer answer="There is no surface to finish yet." detail="Add it in Survey first." />;
  const rest = any.filter((s) => !suited.includes(s));
  return (
    <>
      <Tabs label="Finishes" tabs={CRAFTS.map(({ key, name }) => ({ key, name }))} at={craft.key} onChange={(k) => go(k)} />
      {craft.key === "refit" ? (
        <Refit boatId={survey.boat.id} name={survey.boat.name} />
      ) : (
        <>
          <div className="no-print mb-3 max-w-sm">
            <Choice
              name="surfaceId"
              label="Surface"
              value={surface?.id ?? ""}
              onChange={(id) => go(craft.key, id)}
              options={[
                ...(surface ? [] : [{ value: "", label: `none that ${craft.name.toLowerCase()} suits` }]),
                ...suited.map((s) => ({ value: s.id, label: s.name })),
                ...rest.map((s) => ({ value: s.id, label: `${s.name} (${s.substrateName})` })),
              ]}
            />
          </div>
          {surface ? (
            <Bench key={craft.key + surface.id} surfaceId={surface.id} />
          ) : (
            <Answer
              answer={`No surface of hers is one that ${craft.name.toLowerCase()} is done on.`}
              detail="Choose one above all the same, or add it in Survey."
            />
          )}
        </>
      )}
    </>
  );
}
