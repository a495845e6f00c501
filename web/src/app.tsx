import { type ComponentType, useEffect } from "react";
import { Redirect, Route, Switch, useParams } from "wouter";
import { useChanges } from "./api/changes";
import { Refused } from "./api/client";
import { useBoats, useMeta } from "./api/queries";
import { Today } from "./features/today/Today";
import { part } from "./ui/part";
import { Shell } from "./ui/Shell";
import { SettingsProvider } from "./ui/settings";
import { tr } from "./words/words";

const screen = <P extends object>(load: () => Promise<ComponentType<P>>) =>
  part(load, () => <p className="quiet appears">{tr("Loading…")}</p>);

// Today is there at once; the other screens come when they are first asked for.
const NewBoat = screen(async () => (await import("./features/boats/NewBoat")).NewBoat);
const BuildUp = screen(async () => (await import("./features/buildup/BuildUp")).BuildUp);
const Bench = screen(async () => (await import("./features/bench/Bench")).Bench);
const Fairing = screen(async () => (await import("./features/fairing/Fairing")).Fairing);
const Finishes = screen(async () => (await import("./features/finishes/Finishes")).Finishes);
const Help = screen(async () => (await import("./features/help/Help")).Help);
const Library = screen(async () => (await import("./features/library/Library")).Library);
const Log = screen(async () => (await import("./features/log/Log")).Log);
const MeasuringSheet = screen(async () => (await import("./features/survey/Sheets")).MeasuringSheet);
const Morning = screen(async () => (await import("./features/yard/Morning")).Morning);
const People = screen(async () => (await import("./features/people/People")).People);
const Phone = screen(async () => (await import("./features/phone/Phone")).Phone);
const Plan = screen(async () => (await import("./features/plan/Plan")).Plan);
const Report = screen(async () => (await import("./features/log/Report")).Report);
const Sheet = screen(async () => (await import("./features/library/Sheet")).Sheet);
const Start = screen(async () => (await import("./features/start/Start")).Start);
const Stores = screen(async () => (await import("./features/stores/Stores")).Stores);
const Survey = screen(async () => (await import("./features/survey/Survey")).Survey);
const WalkRound = screen(async () => (await import("./features/survey/Sheets")).WalkRound);
const Weather = screen(async () => (await import("./features/weather/Weather")).Weather);

/** The screens of a boat, by what follows her in the address. */
const OF_A_BOAT: Record<string, ComponentType> = {
  today: Today,
  survey: Survey,
  "survey/measuring-sheet": MeasuringSheet,
  "survey/walk-round": WalkRound,
  fairing: Fairing,
  "build-up": BuildUp,
  finishes: Finishes,
  stores: Stores,
  weather: Weather,
  plan: Plan,
  bench: Bench,
  log: Log,
  report: Report,
};

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
      <Shell meta={meta.data}>
        <Switch>
          <Route path="/" component={First} />
          <Route path="/help/:stage?" component={Help} />
          <Route path="/yard" component={Morning} />
          <Route path="/start" component={Start} />
          <Route path="/boats/new" component={NewBoat} />
          <Route path="/library" component={Library} />
          <Route path="/library/:productId" component={Sheet} />
          <Route path="/phone" component={Phone} />
          <Route path="/people" component={People} />
          <Route path="/boats/:boatId/*?" component={ABoat} />
          <Route component={NotHere} />
        </Switch>
      </Shell>
    </SettingsProvider>
  );
}

/** The yard's morning where there is more than one boat, else the boat's day, or the questions that are answered without one. */
function First() {
  const boats = useBoats().data;
  if (!boats) return null;
  const [boat, another] = boats;
  return <Redirect to={another ? "/yard" : boat ? `/boats/${boat.id}/today` : "/start"} replace />;
}

function ABoat() {
  const { boatId, "*": screen } = useParams();
  const boats = useBoats();
  if (!boats.data) return null;
  if (!boats.data.some((b) => b.id === boatId)) return <NotHere />;
  if (!screen) return <Redirect to={`/boats/${boatId}/today`} replace />;
  const Screen = OF_A_BOAT[screen] ?? NotHere;
  return <Screen />;
}

function NotHere() {
  return (
    <>
      <h1 className="text-3xl">{tr("There is no such page.")}</h1>
      <p className="mt-2">{tr("The boat or the product may have been deleted. Pick another on the left.")}</p>
    </>
  );
}
