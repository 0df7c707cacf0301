import { act, renderHook } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { notePersonHere } from "@/api/kept";
import { useTyped, useTypedForm, useKeptState } from "./typed";

describe("what is typed into a field", () => {
  const field = (value: string) => renderHook((now: string) => useTyped(now, "a field"), { initialProps: value });

  it("stands while older answers come in, until its own is there", () => {
    const { result, rerender } = field("old");
    for (const text of ["a", "ab"]) {
      act(() => result.current.type(text));
      act(() => result.current.saved(text));
    }
    for (const [answer, shown] of [
      ["old", "ab"],
      ["a", "ab"],
      ["ab", "ab"],
      ["somebody else’s", "somebody else’s"],
      // it was acknowledged: going back to what it was is somebody’s word like any other
      ["old", "old"],
    ] as const) {
      rerender(answer);
      expect(result.current.shown).toBe(shown);
    }
  });

  it("gives way to what somebody else said since, unless there is more to be saved", () => {
    const { result, rerender } = field("old");
    act(() => result.current.type("mine"));
    rerender("theirs");
    expect([result.current.shown, result.current.dirty]).toEqual(["mine", true]);
    act(() => result.current.saved("mine"));
    rerender("theirs, later");
    expect(result.current.shown).toBe("theirs, later");
  });

  it("outlives a reload until it is saved, and is said to be from before", () => {
    const first = field("old");
    act(() => first.result.current.type("half a wo"));
    first.unmount();
    const second = field("old");
    expect([second.result.current.shown, second.result.current.restored]).toEqual(["half a wo", true]);
    act(() => second.result.current.saved("half a wo"));
    second.unmount();
    expect(field("half a wo").result.current.restored).toBe(false);
  });

  it("is nobody else’s", () => {
    const first = field("old");
    act(() => first.result.current.type("mine"));
    first.unmount();
    notePersonHere("corm");
    expect(field("old").result.current.shown).toBe("old");
    notePersonHere(null);
    expect(field("old").result.current.shown).toBe("mine");
  });
});

describe("a form that is saved by a button", () => {
  it("has its fields after a reload, until it is done", () => {
    const form = () => renderHook(() => useTypedForm("a form", { what: "", count: "1" }));
    const first = form();
    act(() => first.result.current.set({ what: "cover" }));
    act(() => first.result.current.set({ count: "4" }));
    first.unmount();
    const second = form();
    expect(second.result.current.fields).toEqual({ what: "cover", count: "4" });
    act(() => second.result.current.done());
    second.unmount();
    expect(form().result.current.fields).toEqual({ what: "", count: "1" });
  });

  it("has a field of its own likewise", () => {
    const text = () => renderHook(() => useKeptState("a text", ""));
    const first = text();
    act(() => first.result.current[1]("why"));
    first.unmount();
    const second = text();
    expect(second.result.current[0]).toBe("why");
    act(() => second.result.current[1](""));
    second.unmount();
    expect(text().result.current[0]).toBe("");
  });
});
