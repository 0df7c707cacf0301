import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { CheckList } from "./CheckList";
import { LookedAtAtOnce } from "./LookedAtAtOnce";

const line = { id: "leaks", words: "No leak", own: false, ok: null, absent: false, note: "", by: "" };
const own = { id: "own/1", words: "Door lamp", own: true, ok: true, absent: false, note: "", by: "Wennick Tarl" };

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

  it("certifies nothing that this machine does not have", async () => {
    const put = vi.fn().mockResolvedValue(true);
    const page = render(<CheckList job={jobSheet({})} put={put} lines={[line]} />);
    await userEvent.click(screen.getByRole("button", { name: "Not on this machine: No leak" }));
    expect(put).toHaveBeenCalledWith({ target: "check.leaks", after: { ok: true, absent: true } });
    page.unmount();
    const checks = [
      { ...line, absent: true },
      { ...line, id: "codes", words: "No fault is shown" },
    ];
    const plan = { checks, forced: [] } as unknown as Schemas["ProvingShown"];
    render(<LookedAtAtOnce job={jobSheet({})} put={put} plan={plan} />);
    expect(screen.queryByText("No leak")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "I saw each of these 1, and all are OK" }));
    expect(put.mock.calls.slice(1).map(([each]) => (each as { target: string }).target)).toEqual([
      "check.codes",
      "confirmed.prove",
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
