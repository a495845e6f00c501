// @vitest-environment happy-dom
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { expect, it, vi } from "vitest";
import { Failsafe } from "./Failsafe";

let broken = true;
function Screen() {
  if (broken) throw new Error("a fault");
  return <p>the screen</p>;
}

it("keeps a fault to its screen and tries again", async () => {
  vi.spyOn(console, "error").mockImplementation(() => {});
  render(
    <MemoryRouter>
      <nav>the way elsewhere</nav>
      <Failsafe>
        <Screen />
      </Failsafe>
    </MemoryRouter>,
  );
  expect(screen.getByText("the way elsewhere")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toContain("This screen failed.");
  broken = false;
  await userEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(screen.getByText("the screen")).toBeTruthy();
});
