import type { Schemas } from "@/api/client";
import { element, jobSheet } from "@/testing/jobs";
import { render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { SchoolsPanel } from "./SchoolsPanel";

/** Its bank hangs the other way round: place 1 is seen last. */
const board = {
  part_number: "TVH-2214-A",
  document: {},
  elements: [
    element({
      id: "SW1",
      points: [1, 2, 3, 4].map((each) => `SW1.${each}`),
      hanging: { axis: "across", backwards: true, on: "down", known: true },
    }),
  ],
};
const says = [
  { school: "functions", value: "30 s", difference: "" },
  { school: "table", value: "90 s", difference: "60 s longer" },
];
const disagreement = (id: string, title: string) => ({ id, title, found: "30 s", says });
const school = (id: string, value: string, more: object = {}) => ({
  id,
  positions: { SW1: "0111" },
  counts: true,
  says: [],
  functions: [{ id: "delay", value, difference: value === "30 s" ? "" : "60 s longer", missed: value !== "30 s" }],
  proof: null,
  ...more,
});
const comparison = (more: object = {}) =>
  ({
    proposed: "functions",
    schools: [
      school("functions", "30 s"),
      school("table", "90 s", { proof: { verdict: "different", told: ["Call for heat begins"] } }),
      school("positions", "15 s", { counts: false }),
    ],
    rows: [{ id: "delay", title: "Fan delay", on_original: true, on_replacement: true }],
    disagreements: [disagreement("delay", "Fan delay"), disagreement("purge", "Purge")],
    ...more,
  }) as unknown as Schemas["ComparisonShown"];

function shown(parts: Parameters<typeof jobSheet>[0] = {}, more: object = {}) {
  const put = vi.fn();
  render(<SchoolsPanel job={jobSheet(parts)} put={put} comparison={comparison(more)} board={board} />);
  return put;
}
const part = (name: string) => within(screen.getByRole("region", { name }));

describe("the schools side by side", () => {
  it("show what each sets, what comes of it, and which is proposed", () => {
    shown();
    expect(screen.getByRole("columnheader", { name: /By its functions/ }).textContent).toContain("proposed");
    const cells = within(screen.getByRole("row", { name: /^Fan delay/ })).getAllByRole("cell");
    expect(cells.map((each) => each.textContent)).toEqual(["30 s", "90 s60 s longer", "15 s60 s longer"]);
    expect(screen.getByText("The banks do not look alike: nobody would copy here.")).toBeTruthy();
    expect(screen.getByText("Call for heat begins")).toBeTruthy();
    // a defect: the bank stood here with place 1 first, and beside it, drawn, as the eye meets it
    const set = within(screen.getAllByRole("row")[1] as HTMLElement).getAllByRole("cell");
    expect(set[0]?.textContent).toBe("SW1 1110 left to right 4 to 1, on is down");
  });

  it("are followed function by function, with a reason", async () => {
    const put = shown({ decisions: { purge: "table" } } as Parameters<typeof jobSheet>[0]);
    expect(part("Decide Purge").getByText("Decided: by the table")).toBeTruthy();
    expect(
      part("Decide Purge")
        .getAllByRole("listitem")
        .map((each) => each.textContent),
    ).toEqual(["By its functions: 30 s, as found", "By the table: 90 s, 60 s longer"]);
    const decide = part("Decide Fan delay");
    expect(decide.getByRole<HTMLButtonElement>("button", { name: "By the table" }).disabled).toBe(true);
    await userEvent.type(decide.getByRole("textbox"), "the maker's card is newer ");
    await userEvent.click(decide.getByRole("button", { name: "By the table" }));
    expect(put.mock.calls).toEqual([
      [{ target: "decision.delay", after: "table", reason: "the maker's card is newer" }],
    ]);
  });

  it("are followed in everything, but not where nobody would copy", async () => {
    const put = shown();
    const whole = part("Follow one school in everything");
    expect(whole.queryByRole("button", { name: "Position for position" })).toBeNull();
    await userEvent.type(whole.getByRole("textbox"), "as it was");
    await userEvent.click(whole.getByRole("button", { name: "By its functions" }));
    expect(put.mock.calls).toEqual([[{ target: "school", after: "functions", reason: "as it was" }]]);
  });

  it("decide nothing in a closed job", () => {
    shown({ closed: true }, { schools: [school("table", "–", { positions: null })] });
    expect(screen.queryByRole("textbox")).toBeNull();
  });
});
