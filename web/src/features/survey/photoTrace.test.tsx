// @vitest-environment happy-dom
// @vitest-environment-options { "url": "http://test/" }
import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { show } from "../../testing";
import { PhotoTrace } from "./PhotoTrace";

// A picture of 800 × 600 pixels shown as 400 × 300: 100 pixels of it are half a metre.
it("traces a photo by a known length, in metres from its lower left", async () => {
  URL.createObjectURL = () => "blob:photo";
  URL.revokeObjectURL = () => {};
  const put = vi.fn();
  show(<PhotoTrace put={put} />);
  fireEvent.change(screen.getByLabelText("Photo of a template"), {
    target: { files: [new File(["x"], "t.jpg", { type: "image/jpeg" })] },
  });
  const img = screen.getByAltText("The template as photographed") as HTMLImageElement;
  Object.defineProperty(img, "naturalWidth", { value: 800 });
  Object.defineProperty(img, "naturalHeight", { value: 600 });
  fireEvent.load(img);
  const sheet = img.parentElement as HTMLElement;
  sheet.getBoundingClientRect = () => ({ left: 10, top: 20, width: 400, height: 300 }) as DOMRect;
  const press = (x: number, y: number) => fireEvent.pointerUp(sheet, { clientX: 10 + x, clientY: 20 + y });
  press(0, 300);
  expect(screen.getByRole("status").textContent).toContain("other end");
  press(50, 300); // 100 pixels on
  expect(screen.getByRole("status").textContent).toContain("Type the known length");
  press(200, 100); // no scale yet: nothing is traced
  expect(put).not.toHaveBeenCalled();
  fireEvent.change(screen.getByLabelText("Known length"), { target: { value: "50 cm" } });
  for (const [x, y] of [
    [0, 300],
    [200, 300],
    [200, 200],
  ] as const)
    press(x, y);
  expect(put.mock.lastCall?.[0]).toEqual([
    { x: 0, y: 0 },
    { x: 2, y: 0 },
    { x: 2, y: 1 },
  ]);
  // Another length scales what is traced; undo takes the corner back.
  fireEvent.change(screen.getByLabelText("Known length"), { target: { value: "1" } });
  expect(put.mock.lastCall?.[0][2]).toEqual({ x: 4, y: 2 });
  fireEvent.click(screen.getByText("Undo the last press"));
  expect(put.mock.lastCall?.[0]).toHaveLength(2);
});
