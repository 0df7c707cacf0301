import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { BorrowedBanner } from "./BorrowedBanner";

const kept = { by: "W", at: "", n: 1 };
const tests = {
  link: { result: "runs", as_found: "J3 on 1-2", undo: "Jumper back on its pins", ...kept },
  done: { result: "runs", undo: "Plug back", restored: true, ...kept },
  skipped: { result: "skipped", undo: "Lid back", ...kept },
  plain: { value: 2, ...kept },
};

it("shows what is still to be put back, and says with one tap that it is", async () => {
  const put = vi.fn();
  render(<BorrowedBanner job={jobSheet({ tests } as never)} put={put} />);
  expect(screen.getByText(/Jumper back on its pins/).textContent).toContain("it stood: J3 on 1-2");
  expect(screen.getAllByRole("button")).toHaveLength(1);
  await userEvent.click(screen.getByRole("button", { name: "It is back: Jumper back on its pins" }));
  const after = { result: "runs", as_found: "J3 on 1-2", restored: true };
  expect(put.mock.calls).toEqual([[{ target: "test.link", after }]]);
});
