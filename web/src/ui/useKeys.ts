import { useLayoutEffect } from "react";
import { useLocation } from "wouter";
import type { Schemas } from "../api/client";
import { type Over, SCREENS } from "./screens";
import { useSettings } from "./settings";
import { mayLeave } from "./unsaved";

/** Whether single letters go to screens; they can be switched off for those who speak to their device. */
export const letters = {
  on: () => localStorage.getItem("letters") !== "off",
  set: (on: boolean) => localStorage.setItem("letters", on ? "on" : "off"),
};

/** Goes where a pressed key says, as soon as the page is seen: who knows a key presses it. */
export function useKeys(boats: Schemas["Boat"][], boat: Schemas["Boat"] | undefined, open: (over: Over) => void) {
  const [pathname, go] = useLocation();
  const settings = useSettings();
  useLayoutEffect(() => {
    /** Where a letter goes; undefined for one that goes nowhere. */
    const goal = (letter: string) => {
      if (letter === "y" && boats.length > 1) return "/yard";
      if (letter === "i") return "/library";
      if (!boat) return undefined;
      if (letter === "n")
        return `/boats/${boats[(boats.indexOf(boat) + 1) % boats.length]?.id}/${pathname.split("/")[3] ?? "today"}`;
      const screen = SCREENS.find((s) => s.key === letter);
      return screen && `/boats/${boat.id}/${screen.path}`;
    };
    const press = (e: KeyboardEvent) => {
      if (document.querySelector("dialog[open]")) return;
      if (e.ctrlKey || e.metaKey) {
        if (e.key !== "k") return;
        open("search");
        e.preventDefault();
        return;
      }
      const typing = ["INPUT", "SELECT", "TEXTAREA"].includes((e.target as HTMLElement).tagName);
      if (typing || e.altKey || (!letters.on() && e.key.length === 1)) return;
      const to = goal(e.key);
      if (to) {
        if (!mayLeave()) return;
        go(to);
      } else if (e.key === "/") open("search");
      else if (e.key === "?") open("keys");
      else if (e.key === "u") settings.setUnits(settings.units === "metric" ? "imperial" : "metric");
      else if (e.key === "d") settings.setTheme(settings.theme === "paper" ? "lamp" : "paper");
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [boat, boats, go, open, settings, pathname]);
}
