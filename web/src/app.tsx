import { useEffect } from "react";
import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import { useChanges } from "./api/changes";
import { Refused } from "./api/client";
import { useBoats, useMeta } from "./api/queries";
import { Today } from "./features/today/Today";
import { part } from "./ui/part";
import { Shell } from "./ui/Shell";
import { SettingsProvider } from "./ui/settings";
import { tr } from "./words/words";

// Today is there at once; the other screens come when they are first asked for.
const NewBoat = part(async () => (await import("./features/boats/NewBoat")).NewBoat);
const BuildUp = part(async () => (await import("./features/buildup/BuildUp")).BuildUp);
const Bench = part(async () => (await import("./features/bench/Bench")).Bench);
const Fairing = part(async () => (await import("./features/fairing/Fairing")).Fairing);
const Finishes = part(async () => (await import("./features/finishes/Finishes")).Finishes);
const Help = part(async () => (await import("./features/help/Help")).Help);
const Library = part(async () => (await import("./features/library/Library")).Library);
const Log = part(async () => (await import("./features/log/Log")).Log);
const MeasuringSheet = part(async () => (await import("./features/survey/Sheets")).MeasuringSheet);
const Morning = part(async () => (await import("./features/yard/Morning")).Morning);
const People = part(async () => (await import("./features/people/People")).People);
const Phone = part(async () => (await import("./features/phone/Phone")).Phone);
const Plan = part(async () => (await import("./features/plan/Plan")).Plan);
const Report = part(async () => (await import("./features/log/Report")).Report);
const Sheet = part(async () => (await import("./features/library/Sheet")).Sheet);
const Start = part(async () => (await import("./features/start/Start")).Start);
const Stores = part(async () => (await import("./features/stores/Stores")).Stores);
const Survey = part(async () => (await import("./features/survey/Survey")).Survey);
const WalkRound = part(async () => (await import("./features/survey/Sheets")).WalkRound);
const Weather = part(async () => (await import("./features/weather/Weather")).Weather);

export function App() {
  useChanges();
  const meta = useMeta();
  const out = meta.isLoadingError && meta.error instanceof Refused && meta.error.status === 401;
  useEffect(() => {
    if (out) location.assign(`/login?to=${encodeURIComponent(location.pathname + location.search)}`);
  }, [out]);
  if (meta.isPending) return <p className="p-6">{tr("Opening…")}</p>;
  if (meta.isError)
    return (
      <main className="p-6">
        <h1 className="text-2xl">{tr("The program does not answer.")}</h1>
        <p className="mt-2">{tr("Start it again, then reload this page. What was saved is safe.")}</p>
      </main>
    );
  return (
    <SettingsProvider table={meta.data.units} currency={meta.data.currency}>
      <BrowserRouter>
        <Routes>
          <Route element={<Shell meta={meta.data} />}>
            <Route index element={<First />} />
            <Route path="help/:stage?" element={<Help />} />
            <Route path="yard" element={<Morning />} />
            <Route path="start" element={<Start />} />
            <Route path="boats/new" element={<NewBoat />} />
            <Route path="library" element={<Library />} />
            <Route path="phone" element={<Phone />} />
            <Route path="people" element={<People />} />
            <Route path="library/:productId" element={<Sheet />} />
            <Route path="boats/:boatId" element={<ABoat />}>
              <Route index element={<Navigate to="today" replace />} />
              <Route path="today" element={<Today />} />
              <Route path="survey" element={<Survey />} />
              <Route path="survey/measuring-sheet" element={<MeasuringSheet />} />
              <Route path="survey/walk-round" element={<WalkRound />} />
              <Route path="fairing" element={<Fairing />} />
              <Route path="build-up" element={<BuildUp />} />
              <Route path="finishes" element={<Finishes />} />
              <Route path="stores" element={<Stores />} />
              <Route path="weather" element={<Weather />} />
              <Route path="plan" element={<Plan />} />
              <Route path="bench" element={<Bench />} />
              <Route path="log" element={<Log />} />
              <Route path="report" element={<Report />} />
            </Route>
            <Route path="*" element={<NotHere />} />
          </Route>
        </Routes>
      </BrowserRouter>
    </SettingsProvider>
  );
}

/** The yard's morning where there is more than one boat, else the boat's day, or the questions that are answered without one. */
function First() {
  const boats = useBoats().data;
  if (!boats) return null;
  const [boat, another] = boats;
  return <Navigate to={another ? "/yard" : boat ? `/boats/${boat.id}/today` : "/start"} replace />;
}

function ABoat() {
  const { boatId } = useParams();
  const boats = useBoats();
  if (!boats.data) return null;
  if (!boats.data.some((b) => b.id === boatId)) return <NotHere />;
  return <Shell.Page />;
}

function NotHere() {
  return (
    <>
      <h1 className="text-3xl">{tr("There is no such page.")}</h1>
      <p className="mt-2">{tr("The boat or the product may have been deleted. Pick another on the left.")}</p>
    </>
  );
}
