import "@fontsource-variable/archivo/wght.css";
import "./fonts.css";
import "./index.css";
import type { Schemas } from "./api/client";
import { carriedAnswer } from "./api/early";
import { shownIn, written } from "./ui/prose";

/** The first sentence of the screen that is opened, and the time zone that it is told in. */
function sentence(): { spans: Schemas["MessageSpan"][]; zone: string } | undefined {
  const [, boat] = /^\/boats\/([^/]+)\/today$/.exec(location.pathname) ?? [];
  if (boat) {
    const today = carriedAnswer<Schemas["Today"]>(`/api/boats/${boat}/today`);
    return today && { spans: today.answer.headline, zone: today.place.timeZone };
  }
  const morning = carriedAnswer<Schemas["Morning"]>("/api/morning");
  const boats = morning?.places.flatMap((p) => p.boats) ?? [];
  return morning && boats.length > 1
    ? { spans: morning.says, zone: morning.places[0]?.place.timeZone ?? "UTC" }
    : undefined;
}

/** Writes the first sentence where the screen will have it: on a slow line it stands a second before the rest is there. */
function write() {
  document.documentElement.dataset.theme = localStorage.getItem("theme") ?? "paper";
  const first = sentence();
  const units = carriedAnswer<Schemas["Meta"]>("/api/meta")?.units;
  const root = document.getElementById("root");
  if (!first || !units || !root) return;
  const shown = shownIn(localStorage.getItem("units") === "imperial" ? "imperial" : "metric", units);
  const main = document.createElement("main");
  main.className = "px-4 pt-30 lg:pl-52 lg:pt-11";
  const h1 = document.createElement("h1");
  h1.className = "text-2xl leading-snug sm:text-[32px]";
  h1.textContent = written(first.spans, shown, first.zone);
  main.append(h1);
  root.append(main);
}

write();
await import("./main");
