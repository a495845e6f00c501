// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import "fake-indexeddb/auto";
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { show } from "../../testing";
import { Conflict } from "../../ui/Conflict";
import { type Kept, useWork } from "./useWork";

type Work = { coats: number; note?: string };
type Bench = Kept<Work>;

/** A program that keeps one bench, and refuses what was made on another edition than the one it keeps. */
function program() {
  const at = { version: 1, work: { coats: 1 } as Work };
  const puts: { version: string | null; coats: number }[] = [];
  let line: (answer: () => Response) => Promise<Response> = async (answer) => answer();
  const answer = (body: unknown, status = 200) =>
    new Response(JSON.stringify(body), { status, headers: { "X-Program-Time": "2026-05-09T08:00:00Z" } });
  vi.stubGlobal("fetch", async (r: Request) => {
    const version = new URL(r.url).searchParams.get("version");
    const work = JSON.parse(await r.text()) as Work;
    puts.push({ version, coats: work.coats });
    return line(() => {
      if (version !== String(at.version))
        return answer({ status: 409, title: "", current: { ...at, trouble: [] } }, 409);
      at.version++;
      at.work = work;
      return answer({ ...at, trouble: [] });
    });
  });
  const by = (l: typeof line) => {
    line = l;
  };
  return { at, puts, by };
}

function Coats({ of }: { of: ReturnType<typeof program> }) {
  const bench = useWork<Work, Bench>(["deck"], {
    get: async () => ({ ...of.at, trouble: [] }),
    preview: async (work) => ({ version: of.at.version, work, trouble: [] }),
    path: "/api/bench",
    label: "the bench",
  });
  return (
    <>
      <output>{bench.work && `${bench.work.coats} coats, ${bench.dirty ? "at hand" : "kept"}`}</output>
      <button type="button" onClick={() => bench.work && bench.set({ ...bench.work, coats: bench.work.coats + 1 })}>
        one more
      </button>
      <Conflict<Bench, Work>
        error={bench.conflict}
        mine={bench.work as Work}
        stored={(c) => c.work}
        onMine={bench.over}
        onTheirs={bench.discard}
      />
    </>
  );
}

const more = () => userEvent.click(screen.getByRole("button", { name: "one more" }));
const slow = { timeout: 5000 };

it("sends a change after the one before, over the edition that that came to, however slow the line", async () => {
  const yard = program();
  let through = () => {};
  const held = new Promise<void>((r) => {
    through = r;
  });
  yard.by((answer) => held.then(answer));
  show(<Coats of={yard} />);
  await screen.findByText("1 coats, kept");
  await more();
  await waitFor(() => expect(yard.puts).toHaveLength(1), slow);
  await more();
  await new Promise((r) => setTimeout(r, 1500));
  expect(yard.puts).toEqual([{ version: "1", coats: 2 }]);
  through();
  await screen.findByText("3 coats, kept", undefined, slow);
  expect(yard.puts).toEqual([
    { version: "1", coats: 2 },
    { version: "2", coats: 3 },
  ]);
});

it("is no other to itself when the answer to what it sent was lost", async () => {
  const yard = program();
  yard.by(async (answer) => {
    answer();
    throw new TypeError("the line broke");
  });
  show(<Coats of={yard} />);
  await screen.findByText("1 coats, kept");
  await more();
  await waitFor(() => expect(yard.at.version).toBe(2), slow);
  yard.by(async (answer) => answer());
  await more();
  await screen.findByText("3 coats, kept", undefined, slow);
  expect(yard.at).toEqual({ version: 3, work: { coats: 3 } });
  expect(screen.queryByText(/was changed elsewhere/)).toBeNull();
});

it("asks when it was another", async () => {
  const yard = program();
  show(<Coats of={yard} />);
  await screen.findByText("1 coats, kept");
  await more();
  yard.at.version = 2;
  yard.at.work = { coats: 1, note: "theirs" };
  expect(await screen.findByText(/was changed elsewhere/, undefined, slow)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Save mine over it" }));
  await screen.findByText("2 coats, kept", undefined, slow);
  expect(yard.at.work).toEqual({ coats: 2, note: "theirs" });
});
