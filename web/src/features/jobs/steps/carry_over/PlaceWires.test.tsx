import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { PlaceWires } from "./PlaceWires";

const wire = (place: string, to: string | null = null) => ({
  id: place,
  name: place,
  tag: "",
  colour: "brown",
  carries: "nothing",
  from_place: place,
  to_place: to,
});
const wiring = (more: object = {}) =>
  ({
    wires: [wire("J1.1"), wire("J1.2", "X.2")],
    replacement_pins: [
      { place: "X.1", mark: "L", title: "nothing" },
      { place: "X.2", mark: "", title: "Fan" },
    ],
    offered: [],
    by_hand: [],
    leads: ["lead B"],
    ...more,
  }) as unknown as Schemas["WiringShown"];

function shown(more: object = {}, taken = true) {
  const put = vi.fn().mockResolvedValue(taken);
  render(<PlaceWires job={jobSheet({})} put={put} wiring={wiring(more)} />);
  return put;
}
const choose = (name: string, value: string) => userEvent.selectOptions(screen.getByLabelText(name), value);

describe("wires put by hand", () => {
  beforeEach(() => localStorage.clear());

  it("one goes onto a pin, linked on to a second, through a lead", async () => {
    const put = shown();
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Save where it goes" }).disabled).toBe(true);
    await choose("Wire", "J1.1");
    await choose("Goes to", "X.1");
    await choose("Link on to a second pin", "X.2");
    await userEvent.type(screen.getByLabelText("Through an adapter cable"), " lead B ");
    await userEvent.type(screen.getByLabelText("Why"), "both halves");
    await userEvent.click(screen.getByRole("button", { name: "Save where it goes" }));
    expect(put).toHaveBeenCalledWith({
      target: "placed.J1.1",
      after: { to: ["X.1", "X.2"], lead: "lead B" },
      reason: "both halves",
    });
    expect(screen.getByLabelText<HTMLSelectElement>("Wire").value).toBe("");
  });

  it("one is tied back, or joined with another that has a place", async () => {
    const put = shown();
    await choose("Wire", "J1.1");
    await choose("Goes to", "join J1.2");
    await userEvent.click(screen.getByRole("button", { name: "Save where it goes" }));
    await choose("Wire", "J1.1");
    await choose("Goes to", "tie back");
    await userEvent.click(screen.getByRole("button", { name: "Save where it goes" }));
    expect(put.mock.calls.map(([each]: unknown[]) => (each as { after: unknown }).after)).toEqual([
      { to: [], joined: "J1.2" },
      { to: [] },
    ]);
  });

  it("what was refused stays in the form", async () => {
    shown({}, false);
    await choose("Wire", "J1.1");
    await choose("Goes to", "X.1");
    await userEvent.click(screen.getByRole("button", { name: "Save where it goes" }));
    expect(screen.getByLabelText<HTMLSelectElement>("Goes to").value).toBe("X.1");
  });

  it("a plug that nobody knows goes complete by one tap, and by another not", async () => {
    const put = shown({
      offered: [{ plug: "J1", socket: "J1" }],
      by_hand: [
        {
          kind: "plug_put",
          name: "J2",
          words: "Plug J2 complete onto J2",
          why: "",
          by: "Wennick Tarl",
          at: "2026-03-02T03:00:00Z",
        },
      ],
    });
    await userEvent.click(screen.getByRole("button", { name: "Move plug J1 complete onto J1" }));
    await userEvent.click(screen.getByRole("button", { name: "Remove" }));
    expect(put.mock.calls.map(([each]: unknown[]) => each)).toEqual([
      { target: "plug_put.J1", after: { to: "J1" } },
      { target: "plug_put.J2", after: null },
    ]);
  });
});
