import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useSettings } from "./settings";
import { clock, stamp, weekday } from "./time";

/** The core's sentence in the user's units and the place's time. A strong span links to href. */
export function Sentence({ spans, zone, href }: { spans: Schemas["SaySpan"][]; zone: string; href?: string }) {
  const { show, prose } = useSettings();
  let pos = 0;
  return (
    <>
      {spans.map((s) => {
        const key = pos++;
        if (s.at)
          return (
            <time key={key} dateTime={s.at} className="whitespace-nowrap">
              {s.date ? stamp(s.at, zone) : `${s.day ? `${weekday(s.at, zone)} ` : ""}${clock(s.at, zone)}`}
            </time>
          );
        if (s.value !== undefined) {
          const v = show(s.value, s.unit ?? "", Number.isInteger(s.value) ? 0 : undefined);
          return <span key={key} className="whitespace-nowrap">{`${v.text} ${v.unit}`}</span>;
        }
        if (s.strong)
          return href ? (
            <Link key={key} to={href} className="underline decoration-primary decoration-[3px] underline-offset-[6px]">
              {s.text}
            </Link>
          ) : (
            <strong key={key}>{s.text}</strong>
          );
        return <span key={key}>{prose(s.text ?? "")}</span>;
      })}
    </>
  );
}
