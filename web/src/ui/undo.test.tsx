// @vitest-environment happy-dom
import { fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, it, vi } from "vitest";
import { show } from "../testing";
import { UndoRedo } from "./UndoRedo";
import { useUndoable } from "./useHistory";

const moved = vi.fn();

function Counter() {
  const draft = useUndoable(0, moved);
  return (
    <>
      <output>{draft.value}</output>
      <button type="button" onClick={() => draft.set(draft.value + 1)}>
        more
      </button>
      <UndoRedo of={draft} />
    </>
  );
}

beforeEach(() => vi.useRealTimers());

it("goes back on changes, one by one when there was time between them, and forward again", async () => {
  vi.useFakeTimers({ toFake: ["Date"] });
  const user = userEvent.setup();
  show(<Counter />);
  const shown = () => Number(document.querySelector("output")?.textContent);
  expect(screen.queryByRole("button", { name: /Undo/ })).toBeNull(); // nothing to go back on
  const more = screen.getByRole("button", { name: "more" });
  await user.click(more);
  vi.setSystemTime(Date.now() + 2000);
  await user.click(more);
  await user.click(more); // at once after it: the same step
  expect(shown()).toBe(3);
  await user.click(screen.getByRole("button", { name: /Undo/ }));
  expect(shown()).toBe(1);
  fireEvent.keyDown(document.body, { key: "z", ctrlKey: true });
  expect(shown()).toBe(0);
  expect(screen.getByRole("button", { name: /Undo/ })).toHaveProperty("disabled", true);
  fireEvent.keyDown(document.body, { key: "z", ctrlKey: true, shiftKey: true });
  fireEvent.keyDown(document.body, { key: "y", ctrlKey: true });
  expect(shown()).toBe(3);
  expect(moved).toHaveBeenCalledTimes(4);
});
