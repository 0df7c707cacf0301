import { element } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it } from "vitest";
import { ElementEditor, reached } from "./ElementEditor";
import type { EditorProps, Position } from "./types";

/** An editor that stands where it was last set, and everything that it was set to. */
function edited(given: Partial<EditorProps>) {
  const made: Position[] = [];
  function Held() {
    const [value, setValue] = useState(given.value);
    const all = { element: element(), side: "original", ...given, value } as const;
    return <ElementEditor {...all} onChange={(next) => (made.push(next), setValue(next))} />;
  }
  render(<Held />);
  return made;
}
const button = (name: string | RegExp) => screen.getByRole("button", { name });

describe("a switch bank", () => {
  it("is set by taps, each place by itself", async () => {
    const made = edited({ value: "010" });
    await userEvent.click(button("S1.1 off"));
    await userEvent.click(button("S1.2 on"));
    expect(made).toEqual(["110", "100"]);
  });

  it("is set by keys, faster than the page is drawn", async () => {
    const made = edited({ value: undefined });
    button(/^S1\.1/).focus();
    await userEvent.keyboard("10?");
    expect(made.at(-1)).toBe("10?");
    await userEvent.keyboard("{ArrowLeft}{ArrowUp}");
    expect(made.at(-1)).toBe("11?");
  });

  it("runs the other way where its numbers do, and has on below where it does", async () => {
    const hanging = { axis: "across", backwards: true, on: "down", known: true } as const;
    const made = edited({ value: "000", element: element({ hanging }) });
    button(/^S1\.1/).focus();
    await userEvent.keyboard("{ArrowLeft}{ArrowDown}");
    expect(made).toEqual(["010"]);
    expect(screen.getByText(/As it hangs, left to right 3 to 1, on is down; 1 is on/)).toBeTruthy();
    // typed as the eye meets it, kept as the places are numbered
    const typed = screen.getByLabelText<HTMLInputElement>(/^S1 typed/);
    await userEvent.clear(typed);
    await userEvent.type(typed, "100");
    expect([made.at(-1), typed.value]).toEqual(["001", "100"]);
  });

  it("stands upright where it hangs so, and is set by the keys that point as it does", async () => {
    const hanging = { axis: "down", backwards: true, on: "left", known: true } as const;
    const made = edited({ value: "000", element: element({ hanging }) });
    button(/^S1\.1/).focus();
    await userEvent.keyboard("{ArrowLeft}{ArrowUp}{ArrowLeft}{ArrowRight}");
    expect(made).toEqual(["100", "110", "100"]);
  });

  it("is typed whole, and says what is needed while it is not", async () => {
    const made = edited({ value: undefined });
    const typed = screen.getByLabelText("S1 typed");
    await userEvent.type(typed, "01");
    expect(screen.getByRole("alert").textContent).toContain("3 places of 0 1 or ? are needed");
    expect(made).toEqual([]);
    await userEvent.type(typed, "?");
    expect(made).toEqual(["01?"]);
  });

  it("has no unreadable place in a plan, and leaves what is locked", async () => {
    const made = edited({ value: "000", unreadable: false, element: element({ locked: ["S1.2"] }) });
    await userEvent.click(button("S1.2 off, locked"));
    await userEvent.type(screen.getByLabelText("S1 typed"), "{Backspace}?");
    expect(made).toEqual([]);
    expect(screen.queryByRole("button", { name: /Nothing readable/ })).toBeNull();
  });
});

describe("a parameter", () => {
  const minutes = element({
    id: "P1",
    kind: "parameter",
    unit: "s",
    points: ["P1"],
    range: { low: 0, high: 45, step: 15 },
  });

  it("takes what it can be set to, and says what that is", async () => {
    const made = edited({ element: minutes, value: 15 });
    await userEvent.click(button("P1 more"));
    const field = screen.getByRole("textbox", { name: "P1 in s" });
    await userEvent.clear(field);
    await userEvent.type(field, "20{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("Not possible here: 0 to 45 in steps of 15");
    await userEvent.clear(field);
    await userEvent.type(field, "45{Enter}");
    await userEvent.click(button("P1 more"));
    expect(made.filter((each, index) => each !== made[index - 1])).toEqual([30, 45]);
  });

  it("can be set anywhere in a long range", async () => {
    const long = element({ id: "P2", kind: "parameter", points: ["P2"], range: { low: 0, high: 3600, step: 1 } });
    const made = edited({ element: long, value: 0 });
    await userEvent.type(screen.getByRole("textbox", { name: "P2" }), "{Backspace}2750{Enter}");
    expect(made.at(-1)).toBe(2750);
  });

  it("adds its steps up without rounding into nothing", async () => {
    const fine = element({ id: "P3", kind: "parameter", points: ["P3"], range: { low: 0, high: 1, step: 0.1 } });
    const made = edited({ element: fine, value: 0.2 });
    await userEvent.click(button("P3 more"));
    expect(made).toEqual([0.3]);
    expect([reached(0.7, 0, 1, 0.1), reached(0.75, 0, 1, 0.1), reached(1.1, 0, 1, 0.1)]).toEqual([true, false, false]);
  });

  it("can be unreadable in a record", async () => {
    const made = edited({ element: minutes, value: 15 });
    await userEvent.click(button("? unreadable"));
    expect(made).toEqual(["?"]);
  });
});

describe("a rotary", () => {
  it("offers its marks", async () => {
    const made = edited({ element: element({ id: "R1", kind: "rotary", points: ["R1"], values: ["0", "1", "2"] }) });
    expect(screen.getAllByRole("radio").map((each) => each.textContent)).toEqual(["0", "1", "2", "? unreadable"]);
    await userEvent.click(screen.getByRole("radio", { name: "2" }));
    expect(made).toEqual(["2"]);
  });
});
