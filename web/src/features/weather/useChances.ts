import { useCallback, useEffect, useRef, useState } from "react";
import { refusedBy, type Schemas } from "../../api/client";

type Chances = Schemas["Chances"];

/** Plays the futures of a boat's weather: how far it is, the result, and a way to stop. */
export function useChances(boatId: string, futures: number) {
  const [done, setDone] = useState(0);
  const [result, setResult] = useState<Chances>();
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
      const answer = await fetch(`/api/boats/${boatId}/chances?futures=${futures}`, { signal: control.signal });
      if (!answer.ok || !answer.body) throw refusedBy(answer.status, await answer.json().catch(() => undefined));
      for await (const line of lines(answer.body)) {
        const said = JSON.parse(line) as Schemas["ChancesLine"];
        setDone(said.done);
        if (said.result) setResult(said.result);
      }
    } catch (e) {
      if (!control.signal.aborted) setError(e instanceof Error ? e : new Error("The chances could not be told."));
    }
    if (running.current === control) {
      running.current = undefined;
      setDone(0);
    }
  }, [boatId, futures, stop]);
  useEffect(() => stop, [stop]);
  return { done, result, error, start, stop };
}

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
