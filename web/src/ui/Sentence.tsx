import type { ReactNode } from "react";
import { Link } from "wouter";
import type { Schemas, Words } from "../api/client";
import { filled, trNodes } from "../words/words";
import { written } from "./prose";
import { useSettings } from "./settings";

/** Words of the program within a text. */
export function Said({ words }: { words: Words }) {
  return <>{useSettings().prose(words)}</>;
}

/** The core's sentence in the user's language and units and the place's time. A strong span links to href. */
export function Sentence({ spans, zone, href }: { spans: Schemas["MessageSpan"][]; zone: string; href?: string }) {
  let pos = 0;
  return (
    <>
      {spans.map((s) => (
        <Shown key={pos++} of={s} zone={zone} href={href} />
      ))}
    </>
  );
}

function Shown({ of: s, zone, href }: { of: Schemas["MessageSpan"]; zone: string; href?: string }): ReactNode {
  const settings = useSettings();
  if (s.strong) {
    const text = written([s], settings, zone);
    return href ? (
      <Link to={href} className="underline decoration-primary decoration-[3px] underline-offset-[6px]">
        {text}
      </Link>
    ) : (
      <strong>{text}</strong>
    );
  }
  if (s.say !== undefined) {
    const fill = filled(s.with, (w) => <Sentence spans={w} zone={zone} href={href} />);
    return trNodes(s.say, fill, s.lower);
  }
  const text = written([s], settings, zone);
  if (s.at)
    return (
      <time dateTime={s.at} className="whitespace-nowrap">
        {text}
      </time>
    );
  return s.value !== undefined ? <span className="whitespace-nowrap">{text}</span> : text;
}
