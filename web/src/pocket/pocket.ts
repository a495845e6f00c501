import { api, type Refused, refusedBy, type Schemas } from "../api/client";
import type { paths } from "../api/types.gen";
import { tr } from "../words/words";
import coreUrl from "./core.wasm?url";
import execUrl from "./wasm_exec.js?url";

/** The calculators that go along: their names, requests and results. */
type Named<N extends string> = `/api/calc/${N}` & keyof paths;
type Post<P extends keyof paths> = paths[P] extends { post: infer O } ? O : never;
export type Ask<N extends string> =
  Post<Named<N>> extends { requestBody: { content: { "application/json": infer B } } } ? B : never;
export type Told<N extends string> =
  Post<Named<N>> extends { responses: { 200: { content: { "application/json": infer R } } } } ? R : never;
export type PocketName =
  | "convert"
  | "field"
  | "film"
  | "film-acceptance"
  | "mix"
  | "moist-air"
  | "peroxide"
  | "recoat"
  | "sun"
  | "surface-temp";

type Go = { importObject: WebAssembly.Imports; run: (i: WebAssembly.Instance) => Promise<void> };
type Global = typeof globalThis & { Go?: new () => Go; allCoatsPocket?: (name: string, request: string) => string };

let core: Promise<NonNullable<Global["allCoatsPocket"]>> | undefined;

/** The core on this device, loaded once. */
function load() {
  core ??= (async () => {
    const g = globalThis as Global;
    await import(/* @vite-ignore */ execUrl);
    if (!g.Go) throw new Error(tr("the core's loader does not load"));
    const go = new g.Go();
    const { instance } = await WebAssembly.instantiate(await (await fetch(coreUrl)).arrayBuffer(), go.importObject);
    void go.run(instance);
    if (!g.allCoatsPocket) throw new Error(tr("the core does not start"));
    return g.allCoatsPocket;
  })();
  core.catch(() => {
    core = undefined; // the next question tries again
  });
  return core;
}

/** Where an answer comes from. */
export type From = "program" | "phone";

/** Asks the program, and the core on this device where it does not answer: the same functions, the same figures. */
export async function reckon<N extends PocketName>(name: N, request: Ask<N>): Promise<{ from: From; told: Told<N> }> {
  const path = `/api/calc/${name}` as "/api/calc/mix";
  let got: { data?: unknown; error?: unknown; response: Response };
  try {
    got = await api.POST(path, { body: request as Schemas["MixRequest"] });
  } catch {
    return { from: "phone", told: await onThisDevice(name, request) };
  }
  if (got.error === undefined) return { from: "program", told: got.data as Told<N> };
  if (got.response.status < 500 && got.response.headers.has("X-Program-Time"))
    throw refusedBy(got.response.status, got.error);
  return { from: "phone", told: await onThisDevice(name, request) };
}

/** Answers here, or throws Refused as the program would. */
export async function onThisDevice<N extends PocketName>(name: N, request: Ask<N>): Promise<Told<N>> {
  const answer = JSON.parse((await load())(name, JSON.stringify(request))) as {
    result?: Told<N>;
    errors?: { path: string; message: string }[];
  };
  if (answer.result !== undefined) return answer.result;
  const errors = (answer.errors ?? []).map((e) => ({ location: `body.${e.path}`, message: e.message }));
  throw refusedBy(422, { detail: tr("some fields need another value"), errors }) as Refused;
}

/** Fetches the core quietly, so that it is there without a signal. */
export const carry = () => Promise.all([fetch(coreUrl), fetch(execUrl)]);
