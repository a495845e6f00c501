// @vitest-environment happy-dom
import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import { ok, Refused, refusedBy } from "../api/client";
import { show } from "../testing";
import { Conflict } from "./Conflict";
import { Answer, Loaded, Tabs } from "./Page";
import { Remove } from "./Remove";
import { Said, Sentence } from "./Sentence";
import { Figure, Quantity } from "./Working";

describe("a quantity", () => {
  it.each([
    ["metric", 31.4, "m²", "31.4 m²"],
    ["imperial", 31.4, "m²", "338 ft²"],
    ["metric", 125, "µm", "125 µm"],
    ["imperial", 125, "µm", "4.9 mil"],
    ["imperial", 20, "°C", "68 °F"],
    ["metric", 3, "parts", "3.0 parts"],
  ])("in %s: %d %s is %s", (units, value, unit, text) => {
    localStorage.setItem("units", units);
    const { container } = show(<Quantity value={value} unit={unit} />);
    expect(container.textContent).toBe(text);
  });
});

const working = {
  inputs: [{ label: "Area", value: 30, unit: "m²" }],
  steps: [
    {
      label: "Litres",
      formula: [{ text: "A / " }, { value: 5, unit: "m²", digits: 0 }],
      value: 6.25,
      unit: "L",
      source: [{ text: "ISO 23811" }],
    },
  ],
  warnings: [[{ text: "rough" }], [{ text: "rough" }], [{ text: "at " }, { value: 10, unit: "°C", digits: 0 }]],
};

it("opens the working of a figure: inputs, formula, source, each warning once", async () => {
  localStorage.setItem("units", "imperial");
  show(
    <Figure title="Bottom, litres" working={working}>
      6.25 L
    </Figure>,
  );
  const dialog = document.querySelector("dialog") as HTMLDialogElement;
  dialog.showModal = vi.fn();
  await userEvent.click(screen.getByTitle("Show the working"));
  expect(dialog.showModal).toHaveBeenCalled();
  expect(dialog.textContent).toContain("Bottom, litres: the working");
  expect(dialog.textContent).toContain("Source: ISO 23811");
  expect(dialog.textContent).toContain("323 ft²30 m²"); // the formula reckons with the metric one
  expect(dialog.textContent).toContain("A / 5 m²");
  expect([...dialog.querySelectorAll("li")].map((l) => l.textContent)).toEqual(["rough", "at 50 °F"]);
});

it("says a sentence in the place's time and the user's units", () => {
  localStorage.setItem("units", "imperial");
  const { container } = show(
    <Sentence
      zone="Europe/London"
      href="/there"
      spans={[
        { text: "Deck", strong: true },
        { text: " from " },
        { at: "2026-05-09T09:20:00Z" },
        { text: " or " },
        { at: "2026-05-10T09:20:00Z", day: true },
        { text: ", over " },
        { value: 10, unit: "°C" },
      ]}
    />,
  );
  expect(container.textContent).toBe("Deck from 10:20 or Sunday 10:20, over 50 °F");
  expect(container.querySelector("a")?.getAttribute("href")).toBe("/there");
});

it("shows what differs between a stale edit and what is stored, and lets either stay", async () => {
  HTMLDialogElement.prototype.showModal = vi.fn();
  HTMLDialogElement.prototype.close = vi.fn();
  const mine = vi.fn();
  const theirs = vi.fn();
  const current = { version: 3, value: { name: "Tern", dimensions: { beamM: 2.2, loaM: 6 } } };
  show(
    <Conflict
      error={new Refused(409, "changed", {}, current)}
      mine={{ name: "Tern", dimensions: { beamM: 2.5, loaM: 6 } }}
      stored={(c: typeof current) => c.value}
      onMine={mine}
      onTheirs={theirs}
    />,
  );
  const rows = [...document.querySelectorAll("tbody tr")].map((r) => [...r.children].map((c) => c.textContent));
  expect(rows).toEqual([["dimensions · beamM", "2.5", "2.2"]]);
  await userEvent.click(screen.getByText("Save mine over it"));
  await userEvent.click(screen.getByText("Take what is stored"));
  expect(mine).toHaveBeenCalledWith(current);
  expect(theirs).toHaveBeenCalledWith(current);
});

it("shows no conflict for other refusals", () => {
  show(
    <Conflict
      error={new Refused(422, "bad", {})}
      mine={{}}
      stored={() => ({})}
      onMine={() => {}}
      onTheirs={() => {}}
    />,
  );
  expect(document.querySelector("dialog")).toBeNull();
});

it("asks once more before it deletes, and tells why it may not", async () => {
  const done = vi.fn();
  const remove = vi.fn(() => Promise.reject(new Refused(409, "in use by the bottom", {})));
  show(<Remove of={["log"]} what="the deck" label="delete this surface" remove={remove} done={done} />);
  await userEvent.click(screen.getByText("delete this surface"));
  expect(remove).not.toHaveBeenCalled();
  await userEvent.click(screen.getByText("Keep"));
  await userEvent.click(screen.getByText("delete this surface"));
  await userEvent.click(screen.getByText("Delete"));
  await waitFor(() => expect(screen.getByText("in use by the bottom")).toBeTruthy());
  expect(done).not.toHaveBeenCalled();
});

it("shows what is loaded, that it loads, or why not", () => {
  const { rerender } = show(<Loaded query={{ data: "here", error: null }}>{(d) => <p>{d}</p>}</Loaded>);
  expect(screen.getByText("here")).toBeTruthy();
  rerender(<Loaded query={{ data: undefined as string | undefined, error: null }}>{(d) => <p>{d}</p>}</Loaded>);
  expect(screen.getByText("Loading…")).toBeTruthy();
  rerender(
    <Loaded query={{ data: undefined as string | undefined, error: new Error("the cable is out") }}>
      {(d) => <p>{d}</p>}
    </Loaded>,
  );
  expect(screen.getByRole("alert").textContent).toContain("the cable is out");
});

function Turning() {
  const [at, setAt] = useState<"a" | "b">("a");
  return (
    <>
      <Tabs
        label="pages"
        at={at}
        onChange={setAt}
        tabs={[
          { key: "a", name: "First" },
          { key: "b", name: "Second" },
        ]}
      />
      <Answer answer={`on ${at}`} />
    </>
  );
}

it("turns between tabs", async () => {
  show(<Turning />);
  await userEvent.click(screen.getByRole("tab", { name: "Second" }));
  expect(screen.getByTestId("answer").textContent).toBe("on b");
  expect(screen.getByRole("tab", { name: "Second" }).getAttribute("aria-selected")).toBe("true");
});

describe("a refused request", () => {
  it("names fields without the wire's prefix, the first message of each", () => {
    const r = refusedBy(422, {
      detail: "some fields",
      errors: [
        { location: "body.value.dimensions.beamM", message: "too wide" },
        { location: "body.value.dimensions.beamM", message: "again" },
        { location: "body.line 3", message: "late" },
        { location: "body", message: "unreadable" },
      ],
    });
    expect(r.fields).toEqual({ "dimensions.beamM": "too wide", "line 3": "late", "": "unreadable" });
    expect(r.message).toBe("some fields");
  });
  it.each([
    [413, {}, "That file is larger than the program takes."],
    [500, null, "The program answered 500."],
    [404, { title: "Not Found" }, "Not Found"],
  ])("says something for %i", (status, body, message) => expect(refusedBy(status, body).message).toBe(message));
  it("keeps what is stored now", () =>
    expect(refusedBy(409, { current: { name: "x" } }).current).toEqual({ name: "x" }));
  it("says so when the program does not answer", async () => {
    await expect(ok(Promise.reject(new TypeError("failed")))).rejects.toThrow("does not answer");
  });
});

it.each([
  ["metric", "24 h at 5.5 °C, \u22122 °C to 12 °C; kit 2.5 L; 12 parts; Mon 1 Jun"],
  ["imperial", "24 h at 41.9 °F, 28.4 °F to 53.6 °F; kit 2.5 L; 12 parts; Mon 1 Jun"],
])("says typed values in %s units and leaves text alone", (units, text) => {
  localStorage.setItem("units", units);
  const { container } = show(
    <Said
      words={[
        { text: "24 h at " },
        { value: 5.5, unit: "°C", digits: 1 },
        { text: ", " },
        { value: -2, unit: "°C", digits: 0 },
        { text: " to " },
        { value: 12, unit: "°C", digits: 0 },
        { text: "; kit 2.5 L; " },
        { value: 12, unit: "parts", digits: 0 },
        { text: "; " },
        { at: "2026-06-01T12:00:00Z", date: true, day: true },
      ]}
    />,
  );
  expect(container.textContent).toBe(text);
});
