import { takeCarried } from "./early";

/** How many answers are held: those of the pages that were looked at last. */
const MOST = 60;

type Held = { tag: string; text: string };
const answers = new Map<string, Held>();

/** Asks the program; an answer that is held already and still stands is not sent again. */
export async function held(r: Request): Promise<Response> {
  const was = r.method === "GET" ? answers.get(r.url) : undefined;
  if (was) r.headers.set("If-None-Match", was.tag);
  const answer = takeCarried(r) ?? (await fetch(r));
  if (answer.status === 304 && was) {
    const headers = new Headers(answer.headers);
    headers.set("Content-Type", "application/json");
    return new Response(was.text, { status: 200, headers });
  }
  const tag = answer.headers.get("ETag");
  if (r.method !== "GET" || !answer.ok || !tag) return answer;
  const text = await answer.clone().text();
  answers.delete(r.url); // the last ones asked for are at the end
  answers.set(r.url, { tag, text });
  const [oldest] = answers.keys();
  if (answers.size > MOST && oldest) answers.delete(oldest);
  return answer;
}
