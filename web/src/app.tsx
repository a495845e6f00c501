import { BrowserRouter, Navigate, Route, Routes, useParams } from "react-router";
import { useBoats, useMeta } from "./api/queries";
import { BoatForm } from "./features/boats/BoatForm";
import { BuildUp } from "./features/buildup/BuildUp";
import { Library } from "./features/library/Library";
import { Sheet } from "./features/library/Sheet";
import { Log } from "./features/log/Log";
import { Plan } from "./features/plan/Plan";
import { Stores } from "./features/stores/Stores";
import { MeasuringSheet, WalkRound } from "./features/survey/Sheets";
import { Survey } from "./features/survey/Survey";
import { Today } from "./features/today/Today";
import { Weather } from "./features/weather/Weather";
import { Shell } from "./ui/Shell";
import { SettingsProvider } from "./ui/settings";

export function App() {
  const meta = useMeta();
  if (meta.isPending) return <p className="p-6">Opening…</p>;
  if (meta.isError)
    return (
      <main className="p-6">
        <h1 className="text-2xl">The program does not answer.</h1>
        <p className="mt-2">Start it again, then reload this page. What was saved is safe.</p>
      </main>
    );
  return (
    <SettingsProvider table={meta.data.units}>
      <BrowserRouter>
        <Routes>
          <Route element={<Shell meta={meta.data} />}>
            <Route index element={<First />} />
            <Route path="boats/new" element={<BoatForm />} />
            <Route path="library" element={<Library />} />
            <Route path="library/:productId" element={<Sheet />} />
            <Route path="boats/:boatId" element={<ABoat />}>
              <Route index element={<Navigate to="today" replace />} />
              <Route path="today" element={<Today />} />
              <Route path="survey" element={<Survey />} />
              <Route path="survey/measuring-sheet" element={<MeasuringSheet />} />
              <Route path="survey/walk-round" element={<WalkRound />} />
              <Route path="build-up" element={<BuildUp />} />
              <Route path="stores" element={<Stores />} />
              <Route path="weather" element={<Weather />} />
              <Route path="plan" element={<Plan />} />
              <Route path="log" element={<Log />} />
            </Route>
            <Route path="*" element={<NotHere />} />
          </Route>
        </Routes>
      </BrowserRouter>
    </SettingsProvider>
  );
}

/** The last boat looked at, or the first one, or the way to make one. */
function First() {
  const boats = useBoats();
  if (!boats.data) return null;
  const last = localStorage.getItem("boat");
  const boat = boats.data.find((b) => b.id === last) ?? boats.data[0];
  return <Navigate to={boat ? `/boats/${boat.id}/today` : "/boats/new"} replace />;
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
      <h1 className="text-3xl">There is no such page.</h1>
      <p className="mt-2">The boat or the product may have been deleted. Pick another on the left.</p>
    </>
  );
}
