import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { DraftEditor } from "./DraftEditor";

const behaviour = {
  start: "off",
  states: {
    off: { title: "Off", on: [], go: [{ if: { call: true }, to: "on" }] },
    on: { title: "On", on: ["fan"], go: [{ after: 30, to: "off" }] },
  },
};
const record = {
  inputs: [{ id: "call", title: "Call for heat" }],
  outputs: [{ id: "fan", title: "Fan" }],
  behaviour_known: false,
} as unknown as Schemas["RecordShown"];
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });

async function drafted(made: Record<string, boolean>, parts: Partial<Schemas["RecordShown"]> = {}) {
  const job = jobSheet({ original: "NL-1" });
  const path = `/api/jobs/${job.id}/draft`;
  const server = standInServer({
    [`POST ${path}`]: { body: { behaviour, made } },
    [`POST ${path}/check`]: { body: { behaviour, made } },
    "POST /api/drafts": { body: { id: "d1", version: 0 } },
    "POST /api/drafts/d1/place": { body: { id: "d1", version: 1 } },
    [`POST ${path}/load`]: { body: { part_number: "NL-1", revision: 2 } },
  });
  renderAsking(<DraftEditor job={job} record={{ ...record, ...parts }} />);
  await userEvent.click(button("Draft a behaviour from these runs"));
  await screen.findByRole("status");
  return server;
}

describe("a drafted behaviour", () => {
  it("says how many runs it makes, and is loaded only when it makes all", async () => {
    await drafted({ a: true, b: false });
    expect(screen.getByRole("status").textContent).toBe("1 of 2 runs are made by it.");
    expect(button(/^Load it as a new revision/).disabled).toBe(true);
  });

  it("is loaded as a new revision, which the job does not take by itself", async () => {
    await drafted({ a: true });
    await userEvent.click(button("Load it as a new revision of NL-1"));
    expect(await screen.findByText(/NL-1 has revision 2 now. This job keeps/)).toBeTruthy();
  });

  it("takes a time with a fraction, as it is typed", async () => {
    const server = await drafted({ a: true });
    const after = screen.getByRole("textbox", { name: "After, in s" });
    await userEvent.clear(after);
    await userEvent.type(after, "2.5{Enter}");
    await waitFor(() => expect(server.sent.at(-1)?.path).toMatch(/check$/));
    const sent = server.sent.at(-1)?.body as { behaviour: typeof behaviour };
    expect(sent.behaviour.states.on.go).toEqual([{ after: 2.5, to: "off" }]);
  });

  it("is checked anew when a way is taken out", async () => {
    const server = await drafted({ a: true });
    await userEvent.click(button("Take out this way of on: 1"));
    await waitFor(() => expect(server.sent.at(-1)?.path).toMatch(/check$/));
    const sent = server.sent.at(-1)?.body as { behaviour: typeof behaviour };
    expect([sent.behaviour.states.on.go, sent.behaviour.states.off.go]).toEqual([[], behaviour.states.off.go]);
  });

  it("is not loaded over a behaviour that is written down", async () => {
    await drafted({ a: true }, { behaviour_known: true });
    expect(screen.queryByRole("button", { name: /^Load it/ })).toBeNull();
    expect(screen.getByText(/How NL-1 behaves is written down already/)).toBeTruthy();
  });

  it("goes into the workshop with where it is from, though it does not make every run yet", async () => {
    const server = await drafted({ a: true, b: false });
    await userEvent.click(button("Take it into the workshop"));
    const link = await screen.findByRole<HTMLAnchorElement>("link", { name: "Go on there" });
    expect(link.getAttribute("href")).toBe("/workshop/d1?part=behaviour");
    const placed = server.sent
      .filter((each) => each.path.endsWith("/place"))
      .map((each) => each.body as { path: string[]; seen: number; after: unknown });
    expect(placed.map((each) => [each.path.join("."), each.seen])).toEqual([
      ["board.behaviour", 0],
      ["board.standing.behaviour", 1],
    ]);
    expect(placed[0]?.after).toEqual(behaviour);
  });
});
