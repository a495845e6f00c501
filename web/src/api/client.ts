import createClient from "openapi-fetch";
import { tr } from "../words/words";
import { held } from "./held";
import { hear } from "./programTime";
import type { components, paths } from "./types.gen";

export type Schemas = components["schemas"];
export const api = createClient<paths>({ baseUrl: "/", fetch: async (r) => hear(await held(r)) });

/** What is wrong, in words, or as a sentence of the program with its quantities. */
export type Words = string | Schemas["MessageSpan"][];

/** A refused request: what is wrong, field by field, and for a stale edit what is stored now. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly fields: Record<string, Words>,
    readonly current?: unknown,
  ) {
    super(detail);
  }
}

type ProblemBody = {
  detail?: string;
  title?: string;
  errors?: { location?: string; message?: string; says?: Schemas["MessageSpan"][] }[];
  current?: unknown;
};

/** Returns the data of an answer or throws Refused. */
export async function ok<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let got: Awaited<typeof answer>;
  try {
    got = await answer;
  } catch {
    throw new Refused(0, tr("The program does not answer. Is it still running? Nothing was stored."), {});
  }
  if (got.error === undefined) return got.data as T;
  if (got.response.status === 401)
    throw new Refused(
      401,
      tr("You are not logged in any more: log in on another page, then try this again. Nothing was stored."),
      {},
    );
  throw refusedBy(got.response.status, got.error);
}

/** What a problem+json body says. */
export function refusedBy(status: number, body: unknown): Refused {
  const problem = (typeof body === "object" && body !== null ? body : {}) as ProblemBody;
  const fields: Record<string, Words> = {};
  for (const e of problem.errors ?? []) {
    const place = (e.location ?? "").replace(/^body\.?(value\.?)?/, "");
    fields[place] ??= e.says ?? e.message ?? tr("is not right");
  }
  const detail = problem.detail ?? problem.title ?? tr("The program answered {status}.", { status });
  return new Refused(
    status,
    status === 413 ? tr("That file is larger than the program takes.") : detail,
    fields,
    problem.current,
  );
}
