import type { Schemas } from "@/api/client";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { LockOff } from "./LockOff";

const point = (id: string, title: string, asks: string[], more: object = {}) =>
  ({
    id,
    title,
    asks,
    kind: "",
    say: [],
    limit: null,
    unit: "",
    wait_s: 0,
    left_s: 0,
    energy_j: null,
    pairs: [],
    held: null,
    ...more,
  }) as Schemas["HoldShown"];
const isolate = point("isolate", "Isolate", ["where", "tag"]);
const dead = point("dead", "Prove dead", ["reading", "checked_before"], { limit: 50, unit: "V" });
const fixed = point("static", "Static led away", []);
const stored = point("stored", "Stored energy gone", ["reading"], { wait_s: 600, left_s: 600 });

const put = vi.fn();
beforeEach(() => put.mockReset().mockResolvedValue(true));
function shown(points: Schemas["HoldShown"][], more: Partial<Schemas["MakeSafeShown"]> = {}) {
  const safe = {
    points,
    as_before: { isolate: { where: "main switch", tag: "6" } },
    locked_off_at: null,
    read_at: 0,
    ...more,
  };
  render(<LockOff put={put} safe={safe as never} />);
}
const targets = () => put.mock.calls.map(([each]) => each.target);
const confirm = () => screen.getByRole<HTMLButtonElement>("button", { name: /All of this holds/ });

describe("every hold point on one screen", () => {
  const asBefore = () => userEvent.click(screen.getByRole("button", { name: /^Same as last time on this machine/ }));

  it("holds together once everything is said; what was said last of a lock is offered, and not filled in", async () => {
    shown([isolate, dead, fixed]);
    // a defect: the place and the tag of another site stood there already, and one tap confirmed them
    expect(screen.queryByDisplayValue("main switch")).toBeNull();
    await asBefore();
    expect(screen.getByDisplayValue("main switch")).toBeTruthy();
    expect(screen.queryByRole("button", { name: /^Same as last time/ })).toBeNull();
    expect(confirm().disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("Prove dead: Reading in V"), "0,2");
    expect(confirm().disabled).toBe(true);
    await userEvent.click(screen.getByRole("checkbox"));
    await userEvent.click(confirm());
    expect(targets()).toEqual(["hold.isolate", "hold.dead", "hold.static", "confirmed.make_safe"]);
    expect(put.mock.calls[1]?.[0].after).toEqual({ reading: 0.2, checked_before: true });
  });

  it("stops at the first that is refused: nothing after it is said", async () => {
    put.mockImplementation((each?: { target: string }) => Promise.resolve(each?.target !== "hold.dead"));
    shown([isolate, dead, fixed]);
    await asBefore();
    await userEvent.type(screen.getByLabelText("Prove dead: Reading in V"), "230");
    await userEvent.click(screen.getByRole("checkbox"));
    await userEvent.click(confirm());
    expect(targets()).toEqual(["hold.isolate", "hold.dead"]);
  });

  it("begins the wait for stored energy with the locking off, and asks for its reading after it", async () => {
    shown([isolate, fixed, stored]);
    expect(screen.queryByLabelText(/^Stored energy gone: Reading/)).toBeNull();
    await asBefore();
    await userEvent.click(screen.getByRole("button", { name: "All of this holds: begin the wait" }));
    expect(targets()).toEqual(["hold.isolate", "hold.static"]);
  });
});
