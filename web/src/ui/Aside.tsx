import { BookOpen, Menu, Sailboat, Search as SearchIcon } from "lucide-react";
import type { ReactNode } from "react";
import { useLocation } from "wouter";
import type { Schemas } from "../api/client";
import { tr } from "../words/words";
import { NavLink } from "./NavLink";
import { atTheBoat, type Over, SCREENS } from "./screens";
import { mayLeave } from "./unsaved";

/** The boat that is looked at, and the ways to the screens: beside them on a desk, over and under them on a phone. */
export function Aside({
  boats,
  boat,
  open,
  controls,
}: {
  boats: Schemas["Boat"][];
  boat: Schemas["Boat"] | undefined;
  open: (over: Over) => void;
  controls: ReactNode;
}) {
  const [pathname, go] = useLocation();
  const link =
    "flex items-center gap-3 border-l-4 px-4 py-1.5 text-[15px] max-lg:flex-1 max-lg:flex-col max-lg:gap-0.5 max-lg:border-l-0 max-lg:border-t-4 max-lg:px-1 max-lg:py-1.5 max-lg:text-xs max-lg:min-h-14";
  const style = (here: boolean) =>
    `${link} ${here ? "border-accent font-bold" : "border-transparent hover:bg-base-200"}`;
  return (
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
                  : `/boats/${e.target.value}/${pathname.split("/")[3] ?? "today"}`,
            )
          }
        >
          {!boat && <option value="">{tr("No boat yet")}</option>}
          {boats.map((b) => (
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
          onClick={() => open("search")}
        >
          <SearchIcon size={16} aria-hidden="true" /> <span className="max-sm:sr-only">{tr("Search")}</span>
          <kbd className="kbd kbd-sm ml-auto max-lg:hidden">/</kbd>
        </button>
      </div>
      <nav
        className="flex lg:flex-col max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-20 max-lg:border-t max-lg:border-base-content max-lg:bg-base-100"
        aria-label={tr("Main")}
      >
        {boats.length > 1 && (
          <NavLink to="/yard" className={style}>
            <Sailboat size={18} aria-hidden="true" />
            {tr("Yard")}
          </NavLink>
        )}
        {boat &&
          SCREENS.map(({ path, name, icon: Icon }) => (
            <NavLink
              key={path}
              to={`/boats/${boat.id}/${path}`}
              className={(here) => `${style(here)} ${atTheBoat(path) ? "" : "max-lg:hidden"}`}
            >
              <Icon size={18} aria-hidden="true" />
              {name}
            </NavLink>
          ))}
        <NavLink to="/library" className={(here) => `${style(here)} max-lg:hidden`}>
          <BookOpen size={18} aria-hidden="true" />
          {tr("Library")}
        </NavLink>
        <button type="button" className={`${link} border-transparent lg:hidden`} onClick={() => open("more")}>
          <Menu size={18} aria-hidden="true" />
          {tr("More")}
        </button>
      </nav>
      <div className="mt-auto flex flex-wrap gap-x-4 gap-y-1 px-5 text-sm max-lg:hidden">{controls}</div>
    </aside>
  );
}
