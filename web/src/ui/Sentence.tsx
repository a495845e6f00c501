import { Link } from "react-router";
import type { Schemas, Words } from "../api/client";
import { useSettings, written } from "./settings";

/** Words of the program within a text. */
export function Said({ words }: { words: Words }) {
  return <>{useSettings().prose(words)}</>;
}

/** The core's sentence in the user's units and the place's time. A strong span links to href. */
export function Sentence({ spans, zone, href }: { spans: Schemas["SaySpan"][]; zone: string; href?: string }) {
  const settings = useSettings();
  let pos = 0;
  return (
    <>
      {spans.map((s) => {
        const key = pos++;
        const text = written([s], settings, zone);
        if (s.at)
          return (
            <time key={key} dateTime={s.at} className="whitespace-nowrap">
              {text}
            </time>
          );
        if (s.value !== undefined)
          return (
            <span key={key} className="whitespace-nowrap">
              {text}
            </span>
          );
        if (s.strong)
          return href ? (
            <Link key={key} to={href} className="underline decoration-primary decoration-[3px] underline-offset-[6px]">
              {text}
            </Link>
          ) : (
            <strong key={key}>{text}</strong>
          );
        return <span key={key}>{text}</span>;
      })}
    </>
  );
}
