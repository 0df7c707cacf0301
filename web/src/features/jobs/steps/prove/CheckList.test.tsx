import { jobSheet } from "@/testing/jobs";
import { render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { CheckList } from "./CheckList";

const line = { id: "leaks", words: "No leak", own: false, ok: null, note: "", by: "" };
const own = { id: "own/1", words: "Door lamp", own: true, ok: true, note: "", by: "Wennick Tarl" };

describe("the check list", () => {
  it("takes one tap a line, either way, and each can be taken back", async () => {
    const put = vi.fn().mockResolvedValue(undefined);
    render(<CheckList job={jobSheet({})} put={put} lines={[line, own]} />);
    await userEvent.click(screen.getByRole("button", { name: "Good: No leak" }));
    await userEvent.click(screen.getByRole("button", { name: "Not so: No leak" }));
    await userEvent.click(screen.getByRole("button", { name: "Undo: Door lamp" }));
    expect(put.mock.calls.map(([each]) => each as object)).toEqual([
      { target: "check.leaks", after: { ok: true } },
      { target: "check.leaks", after: { ok: false } },
      { target: "check.own/1", after: null },
    ]);
  });

  it("takes lines of one's own, and nothing at all of a closed job", async () => {
    const put = vi.fn().mockResolvedValue(undefined);
    const page = render(<CheckList job={jobSheet({})} put={put} lines={[line]} />);
    await userEvent.type(screen.getByRole("textbox"), " Fan quiet {Enter}");
    const [[said]] = put.mock.calls as [[{ target: string; after: unknown }]];
    expect(said.target).toMatch(/^check\.own\/[0-9a-f-]{36}$/);
    expect(said.after).toEqual({ ok: true, what: "Fan quiet" });
    page.unmount();
    render(<CheckList job={jobSheet({ closed: true })} put={put} lines={[{ ...line, ok: false }]} />);
    expect(within(screen.getByRole("list")).queryByRole("button")).toBeNull();
    expect(screen.getByText("not as it should be")).toBeTruthy();
  });
});
