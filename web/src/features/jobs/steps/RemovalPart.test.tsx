import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { RemovalPart } from "./RemovalPart";

type Removed = Schemas["RemovedKept"];
const piece = (n: number, what: string, more: Partial<Removed> = {}) =>
  ({ n, what, kind: "screw", count: 1, place: "", back: false, ...more }) as Removed;

const way = { data: undefined as { of: string; pieces: object[] } | undefined };
vi.mock("../earlyApi", () => ({ useWayIn: () => way }));

function shown(parts: Parameters<typeof jobSheet>[0] = {}, left = 0) {
  const put = vi.fn();
  const record = { removed_left: left } as Schemas["RecordShown"];
  render(<RemovalPart job={jobSheet(parts)} put={put} record={record} />);
  return put;
}
const field = (name: string) => screen.getByRole<HTMLInputElement>("textbox", { name });
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });

describe("what comes off on the way in", () => {
  it("is written down with its kind and number, and the place stays for the next", async () => {
    const put = shown();
    expect(screen.getByText("Nothing came off yet.")).toBeTruthy();
    await userEvent.type(field("What comes off"), "back panel");
    await userEvent.selectOptions(screen.getByRole("combobox"), "panel");
    await userEvent.type(field("From where"), "rear");
    await userEvent.click(button("It is off"));
    const [change] = put.mock.calls[0] as [{ target: string; after: unknown }];
    expect(change.target).toMatch(/^removed\.[0-9a-f-]{36}$/);
    expect(change.after).toEqual({ what: "back panel", kind: "panel", count: 1, place: "rear" });
    expect([field("What comes off").value, field("From where").value]).toEqual(["", "rear"]);
  });

  it.each(["0", "1.5", "-2", "some"])("does not count %s", async (count) => {
    shown();
    await userEvent.type(field("What comes off"), "screw");
    await userEvent.clear(field("How many"));
    await userEvent.type(field("How many"), count);
    expect(button("It is off").disabled).toBe(true);
  });

  it("goes on again in reverse, and each kind is counted off and on", async () => {
    const removed = {
      a: piece(1, "cover screw", { count: 4 }),
      b: piece(2, "fan plug", { kind: "plug", back: true }),
      c: piece(3, "bracket screw", { count: 2, back: true }),
    };
    const put = shown({ removed }, 4);
    expect(screen.getAllByRole("checkbox").map((each) => each.parentElement?.textContent)).toEqual([
      "2 × bracket screw (screw)",
      "1 × fan plug (plug)",
      "4 × cover screw (screw)",
    ]);
    expect(screen.getByText("screw: 6 off, 2 back on").className).toBe("font-semibold");
    expect(screen.getByText("plug: 1 off, 1 back on").className).toBe("");
    expect(screen.getByText(/4 pieces are off/)).toBeTruthy();
    await userEvent.click(screen.getByRole("checkbox", { name: /cover screw/ }));
    expect(put.mock.calls).toEqual([
      [
        {
          target: "removed.a",
          after: { what: "cover screw", kind: "screw", count: 4, place: "", back: true },
        },
      ],
    ]);
  });

  it("can be struck out, but not in a closed job", async () => {
    const put = shown({ removed: { a: piece(1, "screw") } }, 1);
    await userEvent.click(button("Strike out: screw"));
    expect(put.mock.calls).toEqual([[{ target: "removed.a", after: null }]]);
  });

  it("is read only in a closed job", () => {
    shown({ closed: true, removed: { a: piece(1, "screw", { back: true }) } });
    expect(screen.queryByRole("button")).toBeNull();
    expect(screen.getByRole("checkbox")).toHaveProperty("disabled", true);
    expect(screen.getByText(/Everything is back on/)).toBeTruthy();
  });

  it("is offered as it came off the last time, a tap a piece", async () => {
    way.data = { of: "SQ-0003, Oven 1", pieces: [{ what: "lid screws", kind: "screw", count: 4, place: "lid" }] };
    const put = shown();
    await userEvent.click(screen.getByRole("button", { name: /4 × lid screws/ }));
    expect(put.mock.calls[0]?.[0].after).toEqual({ what: "lid screws", kind: "screw", count: 4, place: "lid" });
    way.data = undefined;
  });
});
