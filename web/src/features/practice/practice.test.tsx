import { fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { keepUnderWay, nextSeed, seeds, underWay } from "./kept";
import { heldSo } from "./Photographed";
import { ReadView } from "./ReadView";
import { SafeView } from "./SafeView";
import { stepsOf } from "./steps";
import { acted, type Action, type Task, type Whole } from "./task";
import { leave, waiting, type Ended } from "./waiting";
import { knownWords, minutesWords } from "./words";

beforeEach(() => localStorage.clear());

describe("what is done in a task", () => {
  it("positions that follow positions are one action, anything between makes two", () => {
    let actions: Action[] = [];
    for (const next of [
      { do: "set", positions: { S1: "01" } },
      { do: "set", positions: { S2: "1", S1: "11" } },
      { do: "run", run: "bake" },
      { do: "set", positions: { S1: "00" } },
      { do: "read", positions: { S1: "00" } },
    ] as Action[])
      actions = acted(actions, next);
    expect(actions).toEqual([
      { do: "set", positions: { S1: "11", S2: "1" } },
      { do: "run", run: "bake" },
      { do: "set", positions: { S1: "00" } },
      { do: "read", positions: { S1: "00" } },
    ]);
  });

  it("of names that were said one after another the last counts", () => {
    const named = acted(acted([], { do: "name", suspect: "fuse" }), { do: "name", suspect: "board" });
    expect(named).toEqual([{ do: "name", suspect: "board" }]);
  });
});

describe("a board that is read", () => {
  const board = {
    part_number: "TVH-2210-B",
    document: { look: { colour: "green" } },
    elements: [],
  } as unknown as Task["original"];

  it("is drawn, and shown as a picture with the same words for whoever cannot see it", () => {
    const shown = { positions: {}, said: {} } as never;
    render(<ReadView shown={shown} task={{ original: board } as Task} onAct={vi.fn()} />);
    const drawn = screen.getByRole("img", { name: /TVH-2210-B/ });
    fireEvent.click(screen.getByRole("radio", { name: "As a picture shows it" }));
    const pictured = screen.getByRole("img", { name: /TVH-2210-B/ });
    expect(pictured.getAttribute("aria-label")).toBe(drawn.getAttribute("aria-label"));
    expect(pictured.closest("figure")).not.toBeNull();
    fireEvent.click(screen.getByRole("radio", { name: "Drawn" }));
    expect(screen.getByRole("img", { name: /TVH-2210-B/ }).closest("figure")).toBeNull();
  });

  it("hangs in its picture as it did before, never so far aside that it cannot be read", () => {
    expect(heldSo("a")).toEqual(heldSo("a"));
    const many = Array.from({ length: 200 }, (_, at) => heldSo(`board ${at}`));
    expect(new Set(many.map((each) => JSON.stringify(each))).size).toBeGreaterThan(50);
    for (const each of many) {
      expect(Math.abs(each.aside)).toBeLessThanOrEqual(9);
      expect(Math.abs(each.turned)).toBeLessThanOrEqual(4);
      expect(each.back).toBeGreaterThanOrEqual(4);
      expect(each.back).toBeLessThanOrEqual(12);
    }
  });
});

describe("the steps of a whole job", () => {
  const bare = {
    printed: "TVH-2▒20-A",
    boards: [],
    recognised: "",
    finding: { named: "", suspects: [{ id: "board", title: "The control board" }] },
    held: false,
    card: [],
    chosen: "",
    says: "",
  } as unknown as Whole;

  it("say what they wait for", () => {
    const waits = (shown: Whole) => stepsOf(shown).map((each) => each.waits);
    expect(waits(bare).slice(0, 5)).toEqual([
      "",
      "",
      "Say first which board it is.",
      "",
      "Say first which board it is.",
    ]);
    expect(waits({ ...bare, recognised: "A" })[4]).toBe("Make the machine safe first.");
    expect(waits({ ...bare, recognised: "A" })[5]).toBe("Choose a board first.");
    expect(waits({ ...bare, recognised: "A", chosen: "B" })[8]).toBe("Read the old board first.");
    expect(waits({ ...bare, recognised: "A", chosen: "B", held: true, carried: [] }).join("")).toBe("");
  });

  it("say what was come to", () => {
    const carried = [{ verdict: "open" }, { verdict: "same" }] as Whole["carried"];
    const wiring = { wires: [{ at: "C1.1" }, { at: "" }] } as Whole["wiring"];
    const shown = { ...bare, finding: { ...bare.finding, named: "board" }, carried, wiring, says: "as before" };
    const results = stepsOf(shown).map((each) => each.result);
    expect(results).toEqual(["The control board", "", "", "", "", "1 open", "1 of 2 wires on", "", "as before"]);
    expect(stepsOf({ ...shown, carried: carried?.slice(1) })[5]?.result).toBe("all is carried over");
  });
});

describe("what stays on the device", () => {
  it("goes on where it was left", () => {
    const task = { actions: [{ do: "done" }] as Action[], begun: 1, id: "a" };
    keepUnderWay("t", task);
    expect(underWay("t")).toEqual(task);
    keepUnderWay("t", null);
    expect(underWay("t")).toBeNull();
    localStorage.setItem("worthy-twin practice t", "{");
    expect(underWay("t")).toBeNull();
  });

  it("waits for its maker alone, each once, until it was sent", () => {
    const ended = (id: string) => ({ id, actions: [] }) as unknown as Ended;
    for (const id of ["a", "b", "a"]) leave("wennick", ended(id));
    expect(waiting("wennick").map((each) => each.id)).toEqual(["b", "a"]);
    expect(waiting("corm")).toEqual([]);
    leave("wennick", ended("b"), true);
    expect(waiting("wennick").map((each) => each.id)).toEqual(["a"]);
  });

  it("has the same task of a level until it was done", () => {
    const draw = vi.fn().mockReturnValueOnce(1).mockReturnValue(7);
    const first = seeds(draw);
    expect(seeds(draw)).toEqual(first);
    expect(first.read).toBe(1);
    expect(nextSeed("read", () => 9)).toBe(9);
    expect(seeds(draw)).toEqual({ ...first, read: 9 });
  });
});

describe("making a machine safe", () => {
  it("says how long it has been off, and in which order things were done", () => {
    const points = [
      { id: "b", title: "Prove dead", say: [], done: false },
      { id: "a", title: "Isolate", say: ["Lock on."], done: true },
    ];
    render(<SafeView shown={{ points, done: ["a"], off_s: 300 }} onAct={vi.fn()} busy={false} />);
    screen.getByText("Off for 5 min.");
    screen.getByText("done, 1.");
    screen.getByRole("button", { name: "Do it: Prove dead" });
  });
});

describe("how somebody stands", () => {
  it("is said in words", () => {
    expect([0.1, 0.4, 0.7, 0.96].map(knownWords)).toEqual(["not yet", "coming", "nearly", "has it"]);
    expect([10, 95, 600].map(minutesWords)).toEqual(["under a minute", "2 min", "10 min"]);
  });
});
