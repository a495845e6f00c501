import { useState } from "react";
import { useLocation } from "wouter";
import type { Schemas } from "../api/client";
import { LANGUAGES, language, speak, tr, word } from "../words/words";
import { Failsafe } from "./Failsafe";
import { NavLink } from "./NavLink";
import { part } from "./part";
import { useSettings } from "./settings";
import { clock } from "./time";

const SetClock = part(async () => (await import("./SetClock")).SetClock);

/** The row of small things: the program's time, units, light, language, help, who may come in, the version. */
export function Controls({ meta, zone, openHelp }: { meta: Schemas["Meta"]; zone: string; openHelp: () => void }) {
  const { units, setUnits, theme, setTheme } = useSettings();
  const page = useLocation()[0].split("/")[3] ?? "today";
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
  const [setting, setSetting] = useState(false);
  const mode = MODES[meta.clock.mode] ?? "";
  return (
    <>
      <button type="button" className="linked text-left max-lg:min-h-11" onClick={() => setSetting(true)}>
        {clock(meta.now, zone)}, {meta.clock.mode === "real" ? tr("now") : tr("clock {MODES}", { MODES: mode })}
      </button>
      {setting && (
        <Failsafe>
          <SetClock meta={meta} zone={zone} mode={mode} close={() => setSetting(false)} />
        </Failsafe>
      )}
    </>
  );
}
