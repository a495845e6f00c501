import { useParams, useSearchParams } from "wouter";
import { useSurvey } from "../../api/queries";
import { Loaded, Tabs } from "../../ui/Page";
import { tr } from "../../words/words";
import { BestChances } from "./Chances";
import { Forecast } from "./Forecast";
import { Readings } from "./Readings";
import { TentAndHeat } from "./Tent";
import { Windows } from "./Windows";

const VIEWS = [
  { key: "windows", name: tr("Windows") },
  { key: "chances", name: tr("Best chances") },
  { key: "readings", name: tr("Readings") },
  { key: "forecast", name: tr("Forecast") },
  { key: "tent", name: tr("Tent and heat") },
] as const;

type View = (typeof VIEWS)[number]["key"];

/** Weather at the surfaces of a boat: when she may be coated, from what, and what a tent buys. */
export function Weather() {
  const { boatId = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const survey = useSurvey(boatId);
  const view = VIEWS.find((v) => v.key === params.get("view"))?.key ?? "windows";
  const go = (v: View) => setParams({ ...Object.fromEntries(params), view: v }, { replace: true });
  return (
    <>
      <Tabs label={tr("Weather")} tabs={[...VIEWS]} at={view} onChange={go} />
      {view === "windows" && <Windows />}
      {view !== "windows" && (
        <Loaded query={survey}>
          {(s) => (
            <>
              {view === "chances" && <BestChances boatId={boatId} zone={s.place.timeZone} futures={1000} first />}
              {view === "readings" && <Readings survey={s} />}
              {view === "forecast" && <Forecast survey={s} />}
              {view === "tent" && <TentAndHeat survey={s} />}
            </>
          )}
        </Loaded>
      )}
    </>
  );
}
