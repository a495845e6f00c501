// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import { Refused } from "../api/client";
import { show } from "../testing";
import { Check, Choice, Errors, FieldError, NumberField, Refusal, TextField } from "./Form";
import { useSettings } from "./settings";

/** A number field with its kept value beside it, and a button that switches units. */
function Held({ start, unit, told }: { start?: number; unit: string; told: (v?: number) => void }) {
  const [value, setValue] = useState<number | undefined>(start);
  const { units, setUnits } = useSettings();
  return (
    <>
      <NumberField
        name="n"
        label="Length"
        unit={unit}
        value={value}
        onChange={(v) => {
          setValue(v);
          told(v);
        }}
      />
      <button type="button" onClick={() => setUnits(units === "metric" ? "imperial" : "metric")}>
        units
      </button>
    </>
  );
}

const field = () => screen.getByLabelText<HTMLInputElement>("Length");

it.each([
  ["2.5", 2.5],
  ["2,5", 2.5],
  [" 7 ", 7],
  ["\u22123", -3],
  [".5", 0.5],
])("reads %j as %d", async (typed, want) => {
  const told = vi.fn();
  show(<Held unit="m" told={told} />);
  await userEvent.type(field(), typed);
  expect(told.mock.lastCall?.[0]).toBe(want);
});

it.each(["wide", "1.2.3", "1e3", "0x10", "--1"])("keeps %j as no number, and as it was typed", async (typed) => {
  const told = vi.fn();
  show(<Held unit="m" told={told} />);
  await userEvent.type(field(), typed);
  expect(told.mock.lastCall?.[0]).toBeNaN();
  expect(field().value).toBe(typed);
});

it("keeps an empty field as missing", async () => {
  const told = vi.fn();
  show(<Held start={3} unit="m" told={told} />);
  await userEvent.clear(field());
  expect(told.mock.lastCall?.[0]).toBeUndefined();
});

it("takes feet for metres when the user reads imperial, and switches without loss", async () => {
  const told = vi.fn();
  show(<Held start={9.8} unit="m" told={told} />);
  await userEvent.click(screen.getByText("units"));
  expect(field().value).toBe("32.1522");
  expect(screen.getByText("ft")).toBeTruthy();
  await userEvent.click(screen.getByText("units"));
  expect(field().value).toBe("9.8");
  expect(told).not.toHaveBeenCalled();
  await userEvent.click(screen.getByText("units"));
  await userEvent.clear(field());
  await userEvent.type(field(), "10");
  expect(told.mock.lastCall?.[0]).toBeCloseTo(3.048, 9);
});

it("takes degrees Fahrenheit with their offset", async () => {
  const told = vi.fn();
  show(<Held start={20} unit="°C" told={told} />);
  await userEvent.click(screen.getByText("units"));
  expect(field().value).toBe("68");
  await userEvent.clear(field());
  await userEvent.type(field(), "50");
  expect(told.mock.lastCall?.[0]).toBeCloseTo(10, 9);
});

it("shows an error at its field in place of the hint, and in the user's units", async () => {
  localStorage.setItem("units", "imperial");
  show(
    <Errors.Provider
      value={{ "dimensions.beamM": [{ text: "at most " }, { value: 3, unit: "m", digits: 0 }], list: "add one" }}
    >
      <NumberField name="dimensions.beamM" label="Beam" hint="over all" unit="m" value={1} onChange={() => {}} />
      <TextField name="other" label="Name" hint="hers" value="" onChange={() => {}} />
      <FieldError name="list" />
      <FieldError name="fine" />
    </Errors.Provider>,
  );
  expect(screen.getByText("at most 9.84 ft")).toBeTruthy();
  expect(screen.queryByText("over all")).toBeNull();
  expect(screen.getByText("hers")).toBeTruthy();
  expect(screen.getByLabelText("Beam").getAttribute("aria-invalid")).toBe("true");
  const said = (label: string) =>
    document.getElementById(screen.getByLabelText(label).getAttribute("aria-describedby") ?? "")?.textContent;
  expect(said("Beam")).toBe("at most 9.84 ft");
  expect(said("Name")).toBe("hers");
  expect(screen.getAllByRole("alert")).toHaveLength(2);
});

it("gives the choice made and the tick set", async () => {
  const chose = vi.fn();
  const ticked = vi.fn();
  show(
    <>
      <Choice
        name="side"
        label="Side"
        value="port"
        onChange={chose}
        options={[
          { value: "port", label: "port" },
          { value: "starboard", label: "starboard" },
        ]}
      />
      <Check name="lights" label="Lights" value={false} onChange={ticked} />
    </>,
  );
  await userEvent.selectOptions(screen.getByLabelText("Side"), "starboard");
  await userEvent.click(screen.getByLabelText("Lights"));
  expect(chose).toHaveBeenCalledWith("starboard");
  expect(ticked).toHaveBeenCalledWith(true);
});

it("lists what was refused at no field of the page", () => {
  const error = new Refused(422, "some fields need another value", { beamM: "too wide", "line 3": "is late" });
  show(
    <Errors.Provider value={error.fields}>
      <NumberField name="beamM" label="Beam" unit="m" value={9} onChange={() => {}} />
      <Refusal error={error} />
    </Errors.Provider>,
  );
  const list = screen.getByRole("list");
  expect(list.textContent).toBe("line 3: is late");
  expect(screen.getByText("some fields need another value")).toBeTruthy();
});
