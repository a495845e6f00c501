// @vitest-environment happy-dom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { Router } from "wouter";
import { memoryLocation } from "wouter/memory-location";
import { Failsafe } from "./Failsafe";
import { part } from "./part";

let broken = true;
function Screen() {
  if (broken) throw new Error("a fault");
  return <p>the screen</p>;
}

it("keeps a fault to its screen and tries again", async () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  render(
    <Router hook={memoryLocation().hook}>
      <nav>the way elsewhere</nav>
      <Failsafe>
        <Screen />
      </Failsafe>
    </Router>,
  );
  expect(screen.getByText("the way elsewhere")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("This screen failed.");
  broken = false;
  await userEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(screen.getByText("the screen")).toBeTruthy();
});

it("says that a part did not come, and loads the page again once the program answers", async () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  vi.useFakeTimers({ shouldAdvanceTime: true });
  let answers = false;
  vi.stubGlobal("fetch", async () => {
    if (!answers) throw new Error("nobody");
    return new Response("ok");
  });
  const reload = vi.spyOn(window.location, "reload").mockImplementation(() => {});
  const Part = part(async () => {
    throw new TypeError("Failed to fetch dynamically imported module");
  });
  render(
    <Router hook={memoryLocation().hook}>
      <Failsafe>
        <Part />
      </Failsafe>
    </Router>,
  );
  expect((await screen.findByRole("alert")).textContent).toContain("This screen could not be loaded.");
  await vi.advanceTimersByTimeAsync(7000);
  expect(reload).not.toHaveBeenCalled();
  answers = true;
  await vi.advanceTimersByTimeAsync(3500);
  expect(reload).toHaveBeenCalled();
  vi.useRealTimers();
});

it("shows a part as soon as it is there, and at once when it was there before", async () => {
  let loads = 0;
  const Part = part(
    async () => {
      loads++;
      return ({ name }: { name: string }) => <p>here is {name}</p>;
    },
    ({ name }) => <p>{name} comes</p>,
  );
  const { unmount } = render(<Part name="one" />);
  expect(screen.getByText("one comes")).toBeTruthy();
  expect(await screen.findByText("here is one")).toBeTruthy();
  unmount();
  render(<Part name="two" />);
  expect(screen.getByText("here is two")).toBeTruthy();
  expect(loads).toBe(1);
});
