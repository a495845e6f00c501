import { useIsFetching } from "@tanstack/react-query";
import {
  BookOpen,
  CalendarCheck,
  CalendarRange,
  CloudSun,
  FlaskConical,
  Layers,
  Menu,
  NotebookPen,
  PaintRoller,
  Ruler,
  Sailboat,
  Search as SearchIcon,
  ShoppingBasket,
  Spline,
} from "lucide-react";
import { Suspense, useEffect, useLayoutEffect, useRef, useState } from "react";
import { NavLink, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { api, ok, type Schemas } from "../api/client";
import { useBoats, useChange, usePlaces } from "../api/queries";
import { Visiting } from "../features/start/Visit";
import { LANGUAGES, language, speak, tr, trNodes, word } from "../words/words";
import { Alarms } from "./Alarms";
import { Failsafe } from "./Failsafe";
import { Outbox } from "./Outbox";
import { useKeptForOffline } from "./offline";
import { part } from "./part";
import { useSettings, Zone } from "./settings";
import { clock, fromLocalField, longDay, toLocalField } from "./time";
import { mayLeave, useLeaveAsked } from "./unsaved";
import { useRoute } from "./useRoute";

const Search = part(async () => (await import("./Search")).Search);

const PAGES = [
  { path: "today", name: tr("Today"), key: "t", icon: CalendarCheck },
  { path: "survey", name: tr("Survey"), key: "s", icon: Ruler },
  { path: "fairing", name: tr("Fairing"), key: "f", icon: Spline },
  { path: "build-up", name: tr("Build-up"), key: "b", icon: Layers },
  { path: "finishes", name: tr("Finishes"), key: "h", icon: PaintRoller },
  { path: "stores", name: tr("Stores"), key: "o", icon: ShoppingBasket },
  { path: "weather", name: tr("Weather"), key: "w", icon: CloudSun },
  { path: "plan", name: tr("Plan"), key: "p", icon: CalendarRange },
  { path: "bench", name: tr("Bench"), key: "e", icon: FlaskConical },
  { path: "log", name: tr("Log"), key: "l", icon: NotebookPen },
] as const;

/** The screens that a thumb reaches on a phone; the others are under More. */
const AT_THE_BOAT: string[] = ["today", "weather", "bench", "log"];

const KEYS = [
  ...PAGES.map((p) => [p.key, p.name] as const),
  ["/", tr("Search, or say what to do; ctrl k too")] as const,
  ["y", tr("Yard, with more than one boat")] as const,
  ["i", tr("Library")] as const,
  ["n", tr("Next boat")] as const,
  ["u", tr("Metric or imperial")] as const,
  ["d", tr("Light or dark")] as const,
  ["?", tr("These keys")] as const,
];

export function Shell({ meta }: { meta: Schemas["Meta"] }) {
  const boats = useBoats();
  const places = usePlaces();
  const params = useParams();
  const go = useNavigate();
  const where = useLocation();
  const settings = useSettings();
  const asking = useIsFetching() > 0;
  const help = useRef<HTMLDialogElement>(null);
  const more = useRef<HTMLDialogElement>(null);
  const main = useRef<HTMLElement>(null);
  const [letters, setLetters] = useState(() => localStorage.getItem("letters") !== "off");
  const [searching, setSearching] = useState(false);
  const [boatId, setBoatId] = useState(() => params.boatId ?? localStorage.getItem("boat") ?? "");
  useEffect(() => {
    if (!params.boatId) return;
    setBoatId(params.boatId);
    localStorage.setItem("boat", params.boatId);
  }, [params.boatId]);
  const boat = boats.data?.find((b) => b.id === boatId) ?? boats.data?.[0];
  const several = (boats.data?.length ?? 0) > 1;
  useLeaveAsked();
  useKeptForOffline(boat?.id ?? "", boat?.placeId ?? "");
  const zone = places.data?.find((p) => p.id === boat?.placeId)?.timeZone ?? "UTC";

  // As soon as the page is seen: who knows a key presses it.
  useLayoutEffect(() => {
    const press = (e: KeyboardEvent) => {
      const el = e.target as HTMLElement;
      if ((e.ctrlKey || e.metaKey) && e.key === "k" && !document.querySelector("dialog[open]")) {
        e.preventDefault();
        setSearching(true);
        return;
      }
      if (
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        (!letters && e.key.length === 1) ||
        ["INPUT", "SELECT", "TEXTAREA"].includes(el.tagName) ||
        document.querySelector("dialog[open]")
      )
        return;
      const page = PAGES.find((p) => p.key === e.key);
      const goes = (page && boat) || (e.key === "y" && several) || e.key === "i" || (e.key === "n" && boat);
      if (goes && !mayLeave()) return;
      if (page && boat) go(`/boats/${boat.id}/${page.path}`);
      else if (e.key === "/") setSearching(true);
      else if (e.key === "y" && several) go("/yard");
      else if (e.key === "i") go("/library");
      else if (e.key === "n" && boat && boats.data) {
        const next = boats.data[(boats.data.indexOf(boat) + 1) % boats.data.length];
        const page = where.pathname.split("/")[3] ?? "today";
        if (next) go(`/boats/${next.id}/${page}`);
      } else if (e.key === "u") settings.setUnits(settings.units === "metric" ? "imperial" : "metric");
      else if (e.key === "d") settings.setTheme(settings.theme === "paper" ? "lamp" : "paper");
      else if (e.key === "?") help.current?.showModal();
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [boat, boats.data, go, letters, settings, several, where.pathname]);

  const at = where.pathname.split("/");
  const other: Record<string, string> = {
    yard: tr("Yard"),
    library: tr("Library"),
    start: tr("Ask without a boat"),
    people: tr("People"),
    phone: tr("Phone"),
    help: tr("Help"),
  };
  useRoute(
    main,
    (at[1] === "boats" ? PAGES.find((p) => p.path === at[3])?.name : other[at[1] ?? ""]) ?? "",
    at[1] === "boats" ? (boat?.name ?? "") : "",
  );
  const link =
    "flex items-center gap-3 border-l-4 px-4 py-1.5 text-[15px] max-lg:flex-1 max-lg:flex-col max-lg:gap-0.5 max-lg:border-l-0 max-lg:border-t-4 max-lg:px-1 max-lg:py-1.5 max-lg:text-xs max-lg:min-h-14";
  const style = ({ isActive }: { isActive: boolean }) =>
    `${link} ${isActive ? "border-accent font-bold" : "border-transparent hover:bg-base-200"}`;
  return (
    <div className="min-h-screen lg:grid lg:grid-cols-[176px_1fr]">
      <a href="#main" className="btn btn-neutral sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50">
        {tr("To the page")}
      </a>
      <aside
        aria-label={tr("Boat and pages")}
        className="flex flex-col gap-3 pt-4 lg:sticky lg:top-0 lg:h-screen lg:overflow-y-auto lg:border-r lg:border-base-content lg:py-5 max-lg:sticky max-lg:top-0 max-lg:z-20 max-lg:border-b max-lg:border-base-300 max-lg:bg-base-100 max-lg:px-4 max-lg:pb-2 max-lg:pt-2"
      >
        <p className="font-slab text-2xl font-semibold lg:px-5 max-lg:hidden">{tr("All Coats")}</p>
        <div className="max-lg:flex max-lg:items-center max-lg:gap-2 lg:px-4">
          <label className="sr-only" htmlFor="boat">
            {tr("Boat")}
          </label>
          <select
            id="boat"
            className="select w-full min-h-11 border-base-content bg-(--sheet) font-semibold"
            value={boat?.id ?? ""}
            onChange={(e) =>
              mayLeave() &&
              go(
                e.target.value === "new"
                  ? "/boats/new"
                  : e.target.value === "start"
                    ? "/start"
                    : `/boats/${e.target.value}/${where.pathname.split("/")[3] ?? "today"}`,
              )
            }
          >
            {!boat && <option value="">{tr("No boat yet")}</option>}
            {boats.data?.map((b) => (
              <option key={b.id} value={b.id}>
                {b.name}
              </option>
            ))}
            <option value="new">{tr("Add a boat…")}</option>
            <option value="start">{tr("Ask without a boat…")}</option>
          </select>
          {boat && <p className="quiet mt-1 text-xs max-lg:hidden">{boat.type}</p>}
          <button
            type="button"
            className="flex min-h-11 items-center gap-2 border border-base-300 px-3 text-sm hover:bg-base-200 lg:mt-2 lg:w-full"
            onClick={() => setSearching(true)}
          >
            <SearchIcon size={16} aria-hidden="true" /> <span className="max-sm:sr-only">{tr("Search")}</span>
            <kbd className="kbd kbd-sm ml-auto max-lg:hidden">/</kbd>
          </button>
        </div>
        <nav
          className="flex lg:flex-col max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-20 max-lg:border-t max-lg:border-base-content max-lg:bg-base-100"
          aria-label={tr("Main")}
        >
          {several && (
            <NavLink to="/yard" className={style}>
              <Sailboat size={18} aria-hidden="true" />
              {tr("Yard")}
            </NavLink>
          )}
          {boat &&
            PAGES.map(({ path, name, icon: Icon }) => (
              <NavLink
                key={path}
                to={`/boats/${boat.id}/${path}`}
                className={(at) => `${style(at)} ${AT_THE_BOAT.includes(path) ? "" : "max-lg:hidden"}`}
              >
                <Icon size={18} aria-hidden="true" />
                {name}
              </NavLink>
            ))}
          <NavLink to="/library" className={(at) => `${style(at)} max-lg:hidden`}>
            <BookOpen size={18} aria-hidden="true" />
            {tr("Library")}
          </NavLink>
          <button type="button" className={`${link} border-transparent lg:hidden`} onClick={() => more.current?.showModal()}>
            <Menu size={18} aria-hidden="true" />
            {tr("More")}
          </button>
        </nav>
        <div className="mt-auto flex flex-wrap gap-x-4 gap-y-1 px-5 text-sm max-lg:hidden">
          <Controls meta={meta} zone={zone} openHelp={() => help.current?.showModal()} />
        </div>
      </aside>
      <Zone value={zone}>
        <main
          id="main"
          ref={main}
          tabIndex={-1}
          data-asking={asking ? "yes" : "no"}
          className="min-w-0 px-4 pb-24 outline-none pt-4 lg:px-8 lg:pb-10 lg:pt-5"
        >
          <Failsafe>
            <Visiting />
            <Outbox />
            {boat && <Alarms key={boat.id} boatId={boat.id} zone={zone} />}
          </Failsafe>
          <Failsafe>
            <Suspense fallback={<p className="quiet">{tr("Loading…")}</p>}>
              <Outlet />
            </Suspense>
          </Failsafe>
          <footer className="rule-t mt-10 flex flex-wrap gap-x-5 gap-y-2 pt-3 text-sm lg:hidden">
            <Controls meta={meta} zone={zone} openHelp={() => help.current?.showModal()} />
          </footer>
        </main>
      </Zone>
      {searching && (
        <Suspense>
          <Search
            close={() => setSearching(false)}
            boatId={boat?.id ?? ""}
            pages={[
              ...(several ? [{ name: tr("Yard"), path: "/yard" }] : []),
              ...(boat ? PAGES.map((p) => ({ name: p.name, path: `/boats/${boat.id}/${p.path}` })) : []),
              { name: tr("Library"), path: "/library" },
              { name: tr("Ask without a boat"), path: "/start" },
              { name: tr("Add a boat"), path: "/boats/new" },
              { name: tr("People"), path: "/people" },
              { name: tr("Phone"), path: "/phone" },
              { name: tr("Help"), path: "/help" },
            ]}
          />
        </Suspense>
      )}
      <dialog ref={more} className="modal modal-bottom" aria-label={tr("More")}>
        <div className="modal-box border-t border-base-content bg-base-100">
          <div className="grid grid-cols-2 gap-2">
            {boat &&
              PAGES.filter((p) => !AT_THE_BOAT.includes(p.path)).map(({ path, name, icon: Icon }) => (
                <NavLink
                  key={path}
                  to={`/boats/${boat.id}/${path}`}
                  className="btn btn-ghost min-h-14 justify-start border-base-300"
                  onClick={() => more.current?.close()}
                >
                  <Icon size={18} aria-hidden="true" />
                  {name}
                </NavLink>
              ))}
            <NavLink to="/library" className="btn btn-ghost min-h-14 justify-start border-base-300" onClick={() => more.current?.close()}>
              <BookOpen size={18} aria-hidden="true" />
              {tr("Library")}
            </NavLink>
          </div>
          <form method="dialog" className="mt-3">
            <button type="submit" className="btn btn-neutral min-h-12 w-full">
              {tr("Close")}
            </button>
          </form>
        </div>
      </dialog>
      <dialog ref={help} className="modal" aria-label={tr("Keys")}>
        <div className="modal-box border border-base-content bg-base-100">
          <h2 className="text-xl">{tr("Keys")}</h2>
          <table className="table-plain mt-2">
            <tbody>
              {KEYS.map(([k, what]) => (
                <tr key={k}>
                  <td className="w-16">
                    <kbd className="kbd">{k}</kbd>
                  </td>
                  <td>{what}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet mt-3 text-sm">
            {tr("On the ribbon the arrow keys read another instant. On the drawing Tab and Enter pick a surface.")}
          </p>
          <label className="mt-3 flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox"
              checked={letters}
              onChange={(e) => {
                localStorage.setItem("letters", e.target.checked ? "on" : "off");
                setLetters(e.target.checked);
              }}
            />
            {tr("Single letters go to pages; without them ctrl k does")}
          </label>
          <form method="dialog" className="mt-4 text-right">
            <button type="submit" className="btn btn-neutral">
              {tr("Close")}
            </button>
          </form>
        </div>
      </dialog>
    </div>
  );
}

Shell.Page = () => <Outlet />;

function Controls({ meta, zone, openHelp }: { meta: Schemas["Meta"]; zone: string; openHelp: () => void }) {
  const { units, setUnits, theme, setTheme } = useSettings();
  const page = useLocation().pathname.split("/")[3] ?? "today";
  const small = "linked text-left max-lg:min-h-11";
  const other = language === "en" ? "fr" : "en";
  return (
    <>
      <ClockControl meta={meta} zone={zone} />
      <button type="button" className={small} onClick={() => setUnits(units === "metric" ? "imperial" : "metric")}>
        {word(units)}
      </button>
      <button type="button" className={small} onClick={() => setTheme(theme === "paper" ? "lamp" : "paper")}>
        {theme === "paper" ? tr("light") : tr("dark")}
      </button>
      <button
        type="button"
        className={small}
        lang={other}
        onClick={() => speak(other)}
        title={tr("Today, Bench and Log are in both languages")}
      >
        {LANGUAGES[other]}
      </button>
      <button type="button" className={small} onClick={openHelp}>
        {tr("keys: ?")}
      </button>
      <NavLink className={small} to={`/help/${page}`}>
        {tr("help")}
      </NavLink>
      <NavLink className={small} to="/people">
        {tr("people")}
      </NavLink>
      <NavLink className={small} to="/phone">
        {tr("phone")}
      </NavLink>
      <span className="quiet text-xs max-lg:self-center">{tr("version {version}", { version: meta.version })}</span>
    </>
  );
}

const MODES: Record<string, string> = { real: tr("the real clock"), fixed: tr("standing"), running: tr("running on") };

/** The program's time, and for a demo the means to move it. */
function ClockControl({ meta, zone }: { meta: Schemas["Meta"]; zone: string }) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [at, setAt] = useState("");
  const set = useChange(["clock", "weather", "readings"], (v: Schemas["ClockEdit"]) => ok(api.PUT("/api/clock", { body: v })));
  const move = (addH: number) => set.mutate({ mode: meta.clock.mode === "real" ? "fixed" : meta.clock.mode, addH });
  return (
    <>
      <button
        type="button"
        className="linked text-left max-lg:min-h-11"
        onClick={() => {
          setAt(toLocalField(meta.now, zone));
          dialog.current?.showModal();
        }}
      >
        {clock(meta.now, zone)}, {meta.clock.mode === "real" ? tr("now") : tr("clock {MODES}", { MODES: MODES[meta.clock.mode] })}
      </button>
      <dialog ref={dialog} className="modal" aria-label={tr("Clock")}>
        <div className="modal-box border border-base-content bg-base-100 text-base">
          <h2 className="text-xl">
            {trNodes("It is {now}, {now2} ({MODES}).", {
              now: longDay(meta.now, zone),
              now2: clock(meta.now, zone),
              MODES: MODES[meta.clock.mode],
            })}
          </h2>
          <p className="quiet mt-1 text-sm">
            {tr("Everything is answered for this time. A moved clock is for trying things out; go back to the real clock to work.")}
          </p>
          <div className="mt-4 flex flex-wrap gap-2">
            {[1, 6, 24].map((h) => (
              <button key={h} type="button" className="btn" onClick={() => move(h)}>
                {h === 24 ? tr("a day on") : tr("{h} h on", { h })}
              </button>
            ))}
            <button type="button" className="btn" onClick={() => move(-24)}>
              {tr("a day back")}
            </button>
          </div>
          <div className="mt-4 flex flex-wrap items-end gap-2">
            <label className="text-sm font-semibold">
              {tr("Set to")}
              <input
                type="datetime-local"
                className="input mt-1 min-h-11 bg-(--sheet)"
                value={at}
                onChange={(e) => setAt(e.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn"
              disabled={!fromLocalField(at, zone)}
              onClick={() => set.mutate({ mode: "fixed", at: fromLocalField(at, zone) })}
            >
              {tr("stand there")}
            </button>
            <button
              type="button"
              className="btn"
              disabled={!fromLocalField(at, zone)}
              onClick={() => set.mutate({ mode: "running", at: fromLocalField(at, zone) })}
            >
              {tr("run on from there")}
            </button>
            <button type="button" className="btn" onClick={() => set.mutate({ mode: "real" })}>
              {tr("the real clock")}
            </button>
          </div>
          {set.error && <p className="mt-2 text-error">{set.error.message}</p>}
          <form method="dialog" className="mt-4 text-right">
            <button type="submit" className="btn btn-neutral">
              {tr("Close")}
            </button>
          </form>
        </div>
      </dialog>
    </>
  );
}
