import { element } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import { BoardDrawing } from "./BoardDrawing";
import { ElementEditor } from "./ElementEditor";
import type { EditorProps, Position } from "./types";

const DIGITS = [..."0123456789"];
/** Eight, four, two and one; `turned` as a wheel gives them the other way round. */
const weights = (turned: boolean) =>
  DIGITS.map((digit) => [8, 4, 2, 1].filter((weight) => Boolean(Number(digit) & weight) !== turned));
const wheels = (more = {}) =>
  element({
    id: "W1",
    kind: "thumbwheel",
    points: ["W1.1", "W1.2"],
    values: DIGITS,
    factory: "00",
    contacts: weights(false),
    ...more,
  });

function edited(given: Partial<EditorProps>) {
  const made: Position[] = [];
  function Held() {
    const [value, setValue] = useState(given.value);
    const all = { element: wheels(), side: "original", ...given, value } as const;
    return <ElementEditor {...all} onChange={(next) => (made.push(next), setValue(next))} />;
  }
  render(<Held />);
  return made;
}
const button = (name: string) => screen.getByRole("button", { name });

describe("a row of thumbwheels", () => {
  it("turns each wheel by itself, past nine to nought and back", async () => {
    const made = edited({ value: "19" });
    await userEvent.click(button("W1.2 up"));
    await userEvent.click(button("W1.1 down"));
    await userEvent.click(button("W1.1 down"));
    expect(made).toEqual(["10", "00", "90"]);
  });

  it("is set by keys on a wheel, and typed whole", async () => {
    const made = edited({ value: undefined });
    screen.getByRole("spinbutton", { name: "W1.2" }).focus();
    await userEvent.keyboard("7{ArrowUp}{ArrowDown}");
    expect(made).toEqual(["?7", "?8", "?7"]);
    const typed = screen.getByLabelText("W1 typed");
    await userEvent.clear(typed);
    await userEvent.type(typed, "4");
    expect(screen.getByRole("alert").textContent).toContain("2 places of 0 1 2 3 4 5 6 7 8 9 or ? are needed");
    await userEvent.type(typed, "2");
    expect(made.at(-1)).toBe("42");
  });

  it("has a wheel that nobody can read, and starts at nought from there", async () => {
    const made = edited({ value: "47" });
    await userEvent.click(button("W1.1 unreadable"));
    expect(screen.getByRole("spinbutton", { name: "W1.1" }).getAttribute("aria-valuetext")).toBe("unreadable");
    await userEvent.click(button("W1.1 up"));
    expect(made).toEqual(["?7", "07"]);
  });

  it("says what a meter finds closed, for wheels coded either way", () => {
    edited({ value: "3?" });
    expect(screen.getByText("Closed to common: W1.1 2 1; W1.2 ?.")).toBeTruthy();
  });

  it("says it of complement-coded wheels the other way round", () => {
    edited({ value: "39", element: wheels({ contacts: weights(true) }) });
    expect(screen.getByText("Closed to common: W1.1 8 4; W1.2 4 2.")).toBeTruthy();
  });

  it("leaves a locked wheel in a plan, and knows no unreadable one there", async () => {
    const made = edited({ value: "00", unreadable: false, element: wheels({ locked: ["W1.1"] }) });
    expect(button("W1.1 up").hasAttribute("disabled")).toBe(true);
    screen.getByRole("spinbutton", { name: "W1.1" }).focus();
    await userEvent.keyboard("5?");
    expect(screen.queryByRole("button", { name: "W1.2 unreadable" })).toBeNull();
    expect(made).toEqual([]);
  });
});

describe("a board with thumbwheels", () => {
  it("draws a window for each wheel, in the order in which they are numbered", () => {
    const drawn = (backwards: boolean) => {
      const layout = [{ ref: "W1", at: [10, 10] as [number, number], size: [16, 12] as [number, number] }];
      const { container, unmount } = render(
        <BoardDrawing
          name="QN7-0056"
          document={{ size_mm: [80, 60], layout }}
          elements={[wheels({ hanging: { axis: "across", backwards, on: "up", known: true } })]}
          positions={{ W1: "4?" }}
          side="original"
        />,
      );
      const texts = [...container.querySelectorAll("g text")].map((each) => each.textContent);
      unmount();
      return texts.filter((each) => each !== "W1");
    };
    expect(drawn(false)).toEqual(["4", "?"]);
    expect(drawn(true)).toEqual(["?", "4"]);
  });
});
