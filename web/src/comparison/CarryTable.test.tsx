import type { Schemas } from "@/api/client";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { CarryTable, differs } from "./CarryTable";

type Row = Schemas["RowShown"];
const row = (id: string, more: Partial<Row> = {}): Row => ({
  id,
  title: `Function ${id}`,
  importance: "comfort",
  found: "30 s",
  wanted: "30 s",
  wanted_by: "",
  met: true,
  assumed: false,
  on_original: true,
  on_replacement: true,
  got: "30 s",
  verdict: "same",
  missed: false,
  difference: "",
  tolerance: "",
  original_points: [{ point: "S1.1", value: "on" }],
  replacement_points: [{ point: "W2.4", value: "off" }],
  ...more,
});
const rows = () => screen.getAllByRole("listitem").map((each) => each.textContent);

describe("the table of what is carried over", () => {
  it("reads from the old points over the meaning to the new points", () => {
    render(<CarryTable rows={[row("a")]} copied={{}} />);
    expect(rows()).toEqual(["S1.1 onFunction a30 s on both, in registerW2.4 off"]);
  });

  it("asks why somebody goes on where a function is missed or open, and only there", async () => {
    const onReason = vi.fn();
    const all = [
      row("a"),
      row("b", {
        verdict: "off",
        missed: true,
        met: false,
        got: "90 s",
        difference: "60 s longer",
        importance: "safety",
      }),
      row("c", { verdict: "open", found: "90 s or 120 s", wanted: "90 s or 120 s", met: false }),
      row("d", { verdict: "within tolerance", got: "31 s", tolerance: "5 s either way" }),
    ];
    render(<CarryTable rows={all} copied={{}} onReason={onReason} />);
    const asked = screen.getAllByRole("textbox");
    expect(asked).toHaveLength(2);
    await userEvent.type(screen.getByRole("textbox", { name: "Why go on with Function b 60 s longer?" }), "known");
    await userEvent.tab();
    expect(onReason.mock.calls).toEqual([["b", "known"]]);
    expect(screen.getByRole("textbox", { name: "Why go on with Function c open?" })).toBeTruthy();
    // what is alike stands last, and can be folded
    expect(rows()[0]).toContain("30 s → 90 soff register: 60 s longer");
    expect(rows()[2]).toContain("5 s either way");
    expect(screen.getByText("1 function alike, set either way")).toBeTruthy();
  });

  it("tells what was found, what is wanted and by whom apart from each other", () => {
    // a defect: what a table's row wants was shown as what was found, and called the same
    const all = [
      row("a", {
        found: "15 s",
        wanted: "30 s",
        wanted_by: "the maker’s table",
        verdict: "off",
        difference: "15 s longer",
      }),
      row("b", { assumed: true }),
    ];
    render(<CarryTable rows={all} copied={{}} onReason={() => {}} />);
    expect(rows()[0]).toContain("15 s → 30 soff register: 15 s longerWanted: 30 s (the maker’s table), met");
    expect(rows()[1]).toContain("30 s on both, in register, if the old board was set as assumed");
    expect(screen.queryByRole("textbox")).toBeNull();
    expect(screen.queryByText("1 function alike, set either way")).toBeNull();
  });

  it("tells what copying position for position would make", () => {
    const copied = { a: { id: "a", value: "90 s", difference: "60 s longer", missed: true } };
    render(<CarryTable rows={[row("a")]} copied={copied} />);
    expect(rows()[0]).toContain("If copied: 90 s60 s longer");
    expect([differs(copied.a), differs({ ...copied.a, value: "open" }), differs(undefined)]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it("names apart what neither board has, and what one board lacks", () => {
    const lacking = row("b", { on_replacement: false, replacement_points: [], verdict: "not on this board" });
    const neither = row("c", { on_original: false, on_replacement: false });
    render(<CarryTable rows={[lacking, neither]} copied={{}} reasons={{ b: "never used" }} />);
    expect(rows()[0]).toContain("does not have it");
    expect(rows()[0]).toContain("Reason: never used");
    expect(screen.getByText("Neither board has: Function c")).toBeTruthy();
  });
});
