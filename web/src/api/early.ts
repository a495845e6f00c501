/** What the page carries of the program's answers (httpapi/opening.go), for the screen that it opens with. */
type Early = { time: string; answers: Record<string, { tag: string; body: unknown }> };

/** After this the answers are old, ms: who comes to a screen later asks. */
const GOOD_MS = 10_000;

const carried = globalThis.document?.getElementById("early")?.textContent;
const early: Early = carried ? JSON.parse(carried) : { time: "", answers: {} };

/** The answer of an address, if the page came with it. */
export function carriedAnswer<T>(path: string): T | undefined {
  return early.answers[path]?.body as T | undefined;
}

/** The same as the program would send it, once: what is asked again is asked of the program. */
export function takeCarried(r: Request): Response | undefined {
  const { pathname, search } = new URL(r.url);
  const answer = early.answers[pathname];
  if (r.method !== "GET" || search || !answer) return undefined;
  delete early.answers[pathname];
  if (performance.now() > GOOD_MS) return undefined;
  const headers: Record<string, string> = { "Content-Type": "application/json", "X-Program-Time": early.time };
  if (answer.tag) headers.ETag = answer.tag;
  return new Response(JSON.stringify(answer.body), { status: 200, headers });
}
