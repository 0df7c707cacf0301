import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { VoidBanner } from "./VoidBanner";

const entries = [
  { number: 12, target: "test.fuse", expected: "expected true or false", here: true },
  { number: 13, target: "found.S1", expected: "expected a text", here: false },
];

it("tells which entry cannot stand, and takes back the one of this sheet", async () => {
  const put = vi.fn();
  render(<VoidBanner job={jobSheet({ void: entries } as never)} put={put} />);
  expect(screen.getByText(/Entry 13/).closest("p")?.textContent).toContain("other board");
  expect(screen.getAllByRole("button")).toHaveLength(1);
  await userEvent.click(screen.getByRole("button", { name: "Take entry 12 back" }));
  expect(put.mock.calls).toEqual([[{ target: "test.fuse", after: null, reason: "It cannot stand", again: true }]]);
});

it("offers nothing in a job that is closed", () => {
  render(<VoidBanner job={jobSheet({ void: entries, closed: true } as never)} put={vi.fn()} />);
  expect(screen.queryByRole("button")).toBeNull();
});
