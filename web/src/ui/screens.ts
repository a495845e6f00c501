import {
  CalendarCheck,
  CalendarRange,
  CloudSun,
  FlaskConical,
  Layers,
  NotebookPen,
  PaintRoller,
  Ruler,
  ShoppingBasket,
  Spline,
} from "lucide-react";
import { tr } from "../words/words";

/** The screens of a boat, with the key that goes there. */
export const SCREENS = [
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

const AT_THE_BOAT: readonly string[] = ["today", "weather", "bench", "log"];

/** Whether a thumb reaches a screen on a phone; the others are under More. */
export const atTheBoat = (path: string) => AT_THE_BOAT.includes(path);

/** The screens that are of no boat, by the first part of their address. */
export const OTHERS: Record<string, string> = {
  yard: tr("Yard"),
  library: tr("Library"),
  start: tr("Ask without a boat"),
  people: tr("People"),
  phone: tr("Phone"),
  help: tr("Help"),
};

/** What is opened over a screen. */
export type Over = "search" | "keys" | "more";
