import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { oneByOne, useScenario } from "./useScenario";

const choices = [
  {
    id: "bake",
    title: "A bake",
    steps: [
      { at: 1, set: { call: true } },
      { at: 9, set: { call: false } },
    ],
    until: 20,
  },
  { id: "fault", title: "A fault", steps: [], until: 5 },
];
const scenario = () => renderHook(() => useScenario(choices)).result;

describe("a scenario in hand", () => {
  it("is one of those offered until somebody changes it", () => {
    const found = scenario();
    expect([found.current.current.id, found.current.changed]).toEqual(["bake", false]);
    act(() => found.current.choose("fault"));
    expect(found.current.current.title).toBe("A fault");
    act(() => found.current.add(3, "door", true));
    expect([found.current.current.title, found.current.changed]).toEqual(["Own scenario", true]);
    act(() => found.current.choose("bake"));
    expect(found.current.current.steps).toEqual(choices[0]?.steps);
  });

  it("stays in order of time, and long enough for its last change", () => {
    const found = scenario();
    act(() => found.current.add(4, "door", true));
    expect(found.current.current.steps.map((step) => step.at)).toEqual([1, 4, 9]);
    act(() => found.current.put(0, 30));
    expect(found.current.current.steps.map((step) => step.at)).toEqual([4, 9, 30]);
    expect(found.current.current.until).toBe(30);
    act(() => found.current.remove(2));
    act(() => found.current.setUntil(2));
    expect(found.current.current.until).toBe(9);
  });

  it("is put in order only when a drag ends: the grip keeps its change", () => {
    const found = scenario();
    act(() => found.current.move(0, 12));
    expect(found.current.current.steps.map((step) => step.at)).toEqual([12, 9]);
    act(() => found.current.settle());
    expect(found.current.current.steps.map((step) => step.at)).toEqual([9, 12]);
  });

  it("has one input change a step", () => {
    expect(oneByOne([{ at: 2, set: { a: true, b: false } }])).toEqual([
      { at: 2, set: { a: true } },
      { at: 2, set: { b: false } },
    ]);
  });
});
