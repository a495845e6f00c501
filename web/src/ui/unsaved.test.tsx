// @vitest-environment happy-dom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import { mayLeave, useChanged, useLeaveAsked } from "./unsaved";

function Form() {
  useLeaveAsked();
  const [note, setNote] = useState("");
  useChanged(note, "");
  return (
    <>
      <input aria-label="note" value={note} onChange={(e) => setNote(e.target.value)} />
      <a href="/elsewhere">elsewhere</a>
    </>
  );
}

it("asks before what is typed goes, and no more once it is given up or taken back", async () => {
  const asked = vi.fn(() => false);
  vi.stubGlobal("confirm", asked);
  const went = vi.fn((e: Event) => e.preventDefault());
  const { unmount } = render(<Form />);
  screen.getByText("elsewhere").addEventListener("click", went);
  await userEvent.click(screen.getByText("elsewhere"));
  expect([asked.mock.calls.length, went.mock.calls.length]).toEqual([0, 1]);
  await userEvent.type(screen.getByLabelText("note"), "x");
  await userEvent.click(screen.getByText("elsewhere"));
  expect([asked.mock.calls.length, went.mock.calls.length]).toEqual([1, 1]);
  const closing = new Event("beforeunload", { cancelable: true });
  window.dispatchEvent(closing);
  expect(closing.defaultPrevented).toBe(true);
  asked.mockReturnValue(true);
  await userEvent.click(screen.getByText("elsewhere"));
  expect([asked.mock.calls.length, went.mock.calls.length]).toEqual([2, 2]);
  await userEvent.clear(screen.getByLabelText("note"));
  expect(mayLeave()).toBe(true);
  await userEvent.type(screen.getByLabelText("note"), "y");
  unmount();
  expect(mayLeave()).toBe(true);
  expect(asked.mock.calls.length).toBe(2);
});
