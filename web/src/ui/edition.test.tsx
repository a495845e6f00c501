// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it } from "vitest";
import { show } from "../testing";
import { alike, merged, useEdition } from "./useEdition";

it("puts what was touched over what is stored now, and nothing else", () => {
  const opened = { litres: 2, note: "", at: { x: 1 } };
  expect(merged(opened, { litres: 3, note: "", at: { x: 1 } }, { litres: 2, note: "theirs", at: { x: 2 } })).toEqual({
    litres: 3,
    note: "theirs",
    at: { x: 2 },
  });
  expect(
    merged(opened, { litres: 2, note: "mine", at: { x: 3 } }, { litres: 5, note: "theirs", at: { x: 2 } }),
  ).toEqual({
    litres: 5,
    note: "mine",
    at: { x: 3 },
  });
});

it("holds nothing, none and what is not said for the same, and no more than that", () => {
  expect(alike({ a: 1, b: 0, c: [], d: { e: "" } }, { d: null, a: 1 })).toBe(true);
  expect(alike({ a: [{ x: 0 }, { x: 1 }] }, { a: [{}, { x: 1 }] })).toBe(true);
  expect(alike({ a: 1, b: 2 }, { b: 2, a: 1 })).toBe(true);
  expect(alike({ a: 1 }, { a: 2 })).toBe(false);
  expect(alike({ a: [1, 2] }, { a: [2, 1] })).toBe(false);
  expect(alike({ a: true }, {})).toBe(false);
});

type Thing = { version: number; note: string; litres: number };

function Form({ thing, send }: { thing: Thing; send: (s: unknown) => void }) {
  const form = useEdition(thing, (t?: Thing) => ({ note: t?.note ?? "", litres: t?.litres ?? 0 }));
  return (
    <>
      <output>{`${form.edit.note} ${form.edit.litres}`}</output>
      <button type="button" onClick={() => form.set({ note: "mine" })}>
        type
      </button>
      <button type="button" onClick={() => send(form.sent)}>
        send
      </button>
      <button type="button" onClick={() => send(form.over({ version: 7, note: "theirs", litres: 9 }))}>
        over
      </button>
    </>
  );
}

function Fetched({ send }: { send: (s: unknown) => void }) {
  const [thing, setThing] = useState({ version: 3, note: "first", litres: 1 });
  return (
    <>
      <button type="button" onClick={() => setThing({ version: 4, note: "theirs", litres: 5 })}>
        fetch
      </button>
      <Form thing={thing} send={send} />
    </>
  );
}

it("sends the edition that was opened, whatever is fetched meanwhile", async () => {
  const sent: unknown[] = [];
  show(<Fetched send={(s) => sent.push(s)} />);
  const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
  await press("type");
  await press("fetch");
  expect(document.querySelector("output")?.textContent).toBe("mine 1");
  await press("send");
  await press("over");
  expect(sent).toEqual([
    { version: 3, value: { note: "mine", litres: 1 } },
    { version: 7, value: { note: "mine", litres: 9 } },
  ]);
});

it("follows what is fetched while nothing is typed", async () => {
  const sent: unknown[] = [];
  show(<Fetched send={(s) => sent.push(s)} />);
  const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
  await press("fetch");
  expect(document.querySelector("output")?.textContent).toBe("theirs 5");
  await press("type");
  await press("send");
  expect(sent).toEqual([{ version: 4, value: { note: "mine", litres: 5 } }]);
});
