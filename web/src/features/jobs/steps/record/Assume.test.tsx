import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { Assume } from "./Assume";
import { NothingRead } from "./NothingRead";

const sources = [
  {
    source: "sister machine",
    of: "SQ-0003, Oven 1",
    words: "As on another machine",
    positions: { S1: "0101", R1: "2" },
  },
  { source: "factory", of: "", words: "As its maker sets it", positions: { R1: "0" } },
];
vi.mock("../../earlyApi", () => ({ useAssumable: () => ({ data: sources }) }));

const put = vi.fn();
beforeEach(() => put.mockReset());
const shown = (parts: object) => render(<Assume job={jobSheet(parts)} put={put} />);

describe("what cannot be read", () => {
  it("is assumed all at once or one by one, with where it is from", async () => {
    shown({ found: { S1: "01?1", R1: "?", S2: "00" }, assumed: {} });
    expect(screen.getByText(/S1, R1 cannot be read/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "All of these: As on another machine" }));
    await userEvent.click(screen.getByRole("button", { name: "R1 0" }));
    expect(put.mock.calls.map(([each]) => each)).toEqual([
      { target: "assumed.S1", after: { value: "0101", source: "sister machine", of: "SQ-0003, Oven 1" } },
      { target: "assumed.R1", after: { value: "2", source: "sister machine", of: "SQ-0003, Oven 1" } },
      { target: "assumed.R1", after: { value: "0", source: "factory", of: "" } },
    ]);
  });

  it("stands as assumed, and is taken back", async () => {
    const S1 = { value: "0101", source: "sister machine", of: "SQ-0003, Oven 1", by: "Wennick", at: "" };
    shown({ found: { S1: "????" }, assumed: { S1 } });
    expect(screen.getByText("Assumed, not read:")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Not so" }));
    expect(put.mock.calls).toEqual([[{ target: "assumed.S1", after: null }]]);
  });

  it("asks nothing where everything was read", () => {
    const { container } = shown({ found: { S1: "0101" }, assumed: {} });
    expect(container.textContent).toBe("");
  });
});

describe("a board of which nothing can be read", () => {
  it("is said so in one tap, and taken back in one", async () => {
    const { rerender } = render(<NothingRead job={jobSheet({ unread: null })} put={put} left={3} />);
    await userEvent.click(screen.getByRole("button", { name: "burnt" }));
    rerender(<NothingRead job={jobSheet({ unread: { why: "burnt", by: "W", at: "" } })} put={put} left={0} />);
    await userEvent.click(screen.getByRole("button", { name: "It can be read" }));
    expect(put.mock.calls).toEqual([
      [{ target: "unread", after: { why: "burnt" } }],
      [{ target: "unread", after: null }],
    ]);
  });
});
