import { useCallback, useEffect, useRef, useState } from "react";
import { Refused, refusedBy, type Words } from "../api/client";
import { tr } from "../words/words";

/** Work on the server that answers in JSON lines: how far it is, its result, and a way to stop. */
export function useStream<L extends { done: number; result?: unknown; trouble?: Words }>(
  path: string,
  method: "GET" | "POST" = "GET",
) {
  const [done, setDone] = useState(0);
  const [last, setLast] = useState<L>();
  const [error, setError] = useState<Error>();
  const running = useRef<AbortController>(undefined);
  const stop = useCallback(() => {
    running.current?.abort();
    running.current = undefined;
    setDone(0);
  }, []);
  const start = useCallback(async () => {
    stop();
    const control = new AbortController();
    running.current = control;
    setError(undefined);
    setDone(0.01);
    try {
      const answer = await fetch(path, { method, signal: control.signal });
      if (!answer.ok || !answer.body) throw refusedBy(answer.status, await answer.json().catch(() => undefined));
      let said: L | undefined;
      for await (const line of lines(answer.body)) {
        said = JSON.parse(line) as L;
        setDone(said.done);
        setLast(said);
      }
      if (said?.trouble) throw new Refused(422, tr("It came to no end."), { "": said.trouble });
      if (said?.result === undefined) throw new Error(tr("The answer broke off before its end. Try again."));
    } catch (e) {
      if (!control.signal.aborted) setError(e instanceof Error ? e : new Error(tr("The answer broke off.")));
    }
    if (running.current === control) {
      running.current = undefined;
      setDone(0);
    }
  }, [path, method, stop]);
  useEffect(() => stop, [stop]);
  return { done, last, error, start, stop };
}

/** What ended a stream, in words. */
export const troubleOf = (error: Error): Words =>
  (error instanceof Refused ? error.fields[""] : undefined) ?? error.message;

/** The lines of a stream of text. */
async function* lines(body: ReadableStream<Uint8Array>) {
  const reader = body.pipeThrough(new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const parts = (rest + value).split("\n");
    rest = parts.pop() ?? "";
    yield* parts.filter(Boolean);
  }
  if (rest) yield rest;
}
