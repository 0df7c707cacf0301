import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { Energise } from "../Energise";
import { KitPart } from "./KitPart";
import { LearningPart } from "./LearningPart";

type Fitting = Schemas["FittingShown"];
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const told = (put: ReturnType<typeof vi.fn>) => put.mock.calls.map(([each]) => each as unknown);

describe("back to power", () => {
  const release = [
    { id: "static", title: "Static" },
    { id: "isolate", title: "Main switch" },
  ];
  const shown = (fitting: Partial<Fitting>, parts: Partial<Job> = {}) => {
    const put = vi.fn();
    const all = { missing_dead: [], missing_beside: [], release, ...fitting } as unknown as Fitting;
    render(<Energise job={jobSheet(parts)} put={put} fitting={all} />);
    return put;
  };

  it("names what is still to do on the dead machine before anything else", () => {
    shown({ missing_dead: ["S1 is not read back", "2 wires are not done"] });
    expect(screen.getAllByRole("listitem").map((each) => each.textContent)).toEqual([
      "S1 is not read back",
      "2 wires are not done",
    ]);
    expect(screen.queryByRole("button", { name: "The supply is on" })).toBeNull();
  });

  it("releases the hold points from the last to the first, and only so", async () => {
    const put = shown({});
    const [first, second] = screen.getAllByRole<HTMLInputElement>("checkbox");
    if (!first || !second) throw new Error("two hold points are expected");
    expect([first.disabled, second.disabled, button("The supply is on").disabled]).toEqual([false, true, true]);
    await userEvent.click(first);
    await userEvent.click(second);
    expect(first.disabled).toBe(true);
    await userEvent.click(button("The supply is on"));
    expect(told(put)).toEqual([{ target: "energised", after: { released: ["static", "isolate"] }, reason: "" }]);
  });

  it("goes on with something left only with a reason that stays", async () => {
    const put = shown({ missing_dead: ["S1 is not read back"], release: [] });
    await userEvent.click(screen.getByRole("button"));
    expect(button("The supply is on").disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("Why this is left"), "shown on its display");
    await userEvent.click(button("The supply is on"));
    expect(told(put)).toEqual([{ target: "energised", after: { released: [] }, reason: "shown on its display" }]);
  });

  it("gives no power while what killed the old board is still there", () => {
    shown({ release: [] }, { uncleared: ["shorted valve"] } as never);
    expect(screen.getByText(/The fault that killed the old board has not been fixed/)).toBeTruthy();
    expect(button("The supply is on").disabled).toBe(true);
  });
});

describe("the kit against its list", () => {
  const line = (item: string, needed: string, count = 1, facts: string[] = []) =>
    ({ item, needed, count, facts }) as never;
  const kit = [line("lead E", "needed", 2), line("lead F", "not needed"), line("clip", "perhaps", 4, ["plug"])];
  const shown = (counted: Record<string, number>) => {
    const put = vi.fn();
    render(<KitPart job={jobSheet({ kit: counted })} put={put} kit={kit} />);
    return put;
  };
  const lines = () => screen.getAllByRole("listitem").map((each) => each.textContent);

  it("counts everything as there with one tap, and only what is needed", async () => {
    const put = shown({});
    expect(screen.getAllByText("not counted")).toHaveLength(3);
    await userEvent.click(button("All of it is there"));
    expect(told(put)).toEqual([{ target: "kit.lead E", after: 2 }]);
  });

  it("names what is missing and what is left over, and never counts below nothing", async () => {
    const put = shown({ "lead E": 1, "lead F": 1, clip: 0 });
    expect(lines()).toEqual([
      "2 × lead E needed1 missing−+",
      "1 × lead F not needed here1 there, 1 left over−+",
      "4 × clip perhaps needed: depends on plug4 missing−+",
    ]);
    await userEvent.click(button("One less: clip"));
    await userEvent.click(button("One more: lead E"));
    expect(told(put)).toEqual([
      { target: "kit.clip", after: 0 },
      { target: "kit.lead E", after: 2 },
    ]);
  });
});

describe("a learning run", () => {
  const learning = { told_by: "Told by its row", can_be_stopped: false, cycles: 3, shows: "LE" };
  const looks = [{ group: "learning", key: "learning.1", words: "The oven is cold", done: false }];
  const shown = (parts: Partial<Job>) => {
    const put = vi.fn();
    render(<LearningPart job={jobSheet(parts)} put={put} fitting={{ learning, looks } as unknown as Fitting} />);
    return put;
  };

  it("is not made before everything was looked at, for it cannot be stopped", async () => {
    shown({});
    expect(screen.getByText(/Once begun it cannot be stopped/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText("Shown at the end"), "OK");
    expect(button("The run is made").disabled).toBe(true);
  });

  it("keeps its cycles and what was shown, and can be undone", async () => {
    const put = shown({ looks: { "learning.1": true } as never });
    const cycles = screen.getByLabelText("Cycles run");
    await userEvent.clear(cycles);
    await userEvent.type(cycles, "two");
    await userEvent.type(screen.getByLabelText("Shown at the end"), " OK ");
    expect(button("The run is made").disabled).toBe(true);
    await userEvent.clear(cycles);
    await userEvent.type(cycles, "4");
    await userEvent.click(button("The run is made"));
    expect(told(put)).toEqual([{ target: "learned", after: { cycles: 4, shown: "OK" } }]);
  });

  it("says that it was made", async () => {
    const put = shown({ learned: { cycles: 3, shown: "OK" } as never });
    await userEvent.click(button("Undo"));
    expect(told(put)).toEqual([{ target: "learned", after: null }]);
  });
});
