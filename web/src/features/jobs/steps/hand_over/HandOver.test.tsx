import { jobSheet, wennick } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, waitFor, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { Afterwards } from "./Afterwards";
import { Defects } from "./Defects";
import { HandOverStep } from "./HandOverStep";
import { Numbers } from "./Numbers";

vi.mock("@/api/ids", () => ({ newId: () => "n1" }));
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name);
const swap = { original: "TVH-2210-B", replacement: "TVH-2420-A" };

function shown(Part: typeof Numbers, parts: Partial<Job>) {
  const put = vi.fn();
  renderAsking(<Part job={jobSheet(parts)} put={put} />);
  return put;
}

describe("part and serial numbers", () => {
  it("starts with the old board's own number, then asks for the new one's", async () => {
    const put = shown(Numbers, swap);
    expect(field("Part number").value).toBe("TVH-2210-B");
    await userEvent.type(field("Serial number"), "0417-22");
    await userEvent.click(button("Write it down"));
    expect(put).toHaveBeenCalledWith({
      target: "numbered.n1",
      after: { what: "control board", side: "old", serial: "0417-22", part_number: "TVH-2210-B" },
    });
    expect([field("Part number").value, field("Serial number").value]).toEqual(["TVH-2420-A", ""]);
  });

  it("takes a part that is no board, which has no number of its own here", async () => {
    const put = shown(Numbers, swap);
    await userEvent.selectOptions(field("Side"), "new");
    await userEvent.clear(field("Part"));
    await userEvent.type(field("Part"), "air switch");
    expect(button("Write it down").disabled).toBe(true);
    await userEvent.type(field("Part number"), " AS-4 ");
    await userEvent.click(button("Write it down"));
    expect(put.mock.calls[0]?.[0].after).toEqual({ what: "air switch", side: "new", serial: "", part_number: "AS-4" });
  });

  it("strikes out what is wrong, and says where the old board goes", async () => {
    const row = { side: "old", what: "control board", part_number: "TVH-2210-B", serial: "1" } as const;
    const put = shown(Numbers, { ...swap, numbered: { n0: row } as never });
    await userEvent.click(button("Strike out: old control board"));
    await userEvent.click(screen.getByText("core return"));
    expect(put.mock.calls.map(([each]) => each)).toEqual([
      { target: "numbered.n0", after: null },
      { target: "old_board", after: { way: "core return", note: "" } },
    ]);
  });

  it("is only read once the job is closed", () => {
    shown(Numbers, { ...swap, closed: true });
    expect(screen.queryByRole("button", { name: "Write it down" })).toBeNull();
  });
});

describe("what is left for later", () => {
  beforeEach(() => {
    standInServer({ "/api/session": { body: wennick } });
  });

  it("wants a day and somebody, and proposes who is signed in", async () => {
    const put = shown(Defects, {});
    expect(screen.getByText("Nothing is left for later.")).toBeTruthy();
    await waitFor(() => expect(field("By whom").value).toBe("Wennick Tarl"));
    await userEvent.type(field("What is wrong"), "door seal torn");
    expect(button("Leave it for later").disabled).toBe(true);
    await userEvent.type(field("Put right until"), "2026-12-24");
    await userEvent.click(button("Leave it for later"));
    expect(put).toHaveBeenCalledWith({
      target: "defect.n1",
      after: { what: "door seal torn", until: "2026-12-24", who: "Wennick Tarl", done: false },
    });
  });

  it("is ticked when it is put right, and unticked again", async () => {
    const seal = { what: "door seal torn", until: "2026-12-24", who: "Aldis", done: false };
    const put = shown(Defects, { defects: { d1: seal, d2: { ...seal, what: "fan loud", done: true } } as never });
    await userEvent.click(screen.getByLabelText("door seal torn"));
    await userEvent.click(screen.getByLabelText("fan loud"));
    expect(put.mock.calls.map(([each]) => [each.target, each.after.done])).toEqual([
      ["defect.d1", true],
      ["defect.d2", false],
    ]);
  });
});

describe("after the job is closed", () => {
  const closed = { ...swap, closed: true, entry_count: 40 };

  it("takes that it worked at once, and anything else with what was changed", async () => {
    const put = shown(Afterwards, closed);
    await userEvent.click(button("At once: it worked"));
    expect(button("After a month: it did not work").disabled).toBe(true);
    await userEvent.type(field("What was changed, or did not work (after a month)"), "igniter lead");
    await userEvent.click(button("After a month: it worked with a change"));
    expect(put.mock.calls.map(([each]) => each)).toEqual([
      { target: "feedback.now", after: { result: "worked", note: "" } },
      { target: "feedback.later", after: { result: "worked with a change", note: "igniter lead" } },
    ]);
  });

  it("adds a correction about an entry that there is, beside what stands", async () => {
    const put = shown(Afterwards, closed);
    await userEvent.type(field("What is wrong, and what it should say"), "S1 stood 011010");
    await userEvent.type(field("About entry"), "41");
    expect(button("Add the correction").disabled).toBe(true);
    await userEvent.type(field("About entry"), "{Backspace}{Backspace}7");
    await userEvent.click(button("Add the correction"));
    expect(put).toHaveBeenCalledWith({ target: "correction.n1", after: { what: "S1 stood 011010", entry: 7 } });
  });

  it("only shows what was said of a job that came from another depot", () => {
    const said = { result: "worked", note: "", by: "Ildro Venn" };
    const correction = { what: "fuse was 4 A", entry: 3, by: "Ildro Venn", at: "2026-11-02T08:00:00Z" };
    shown(Afterwards, {
      ...closed,
      origin: { depot: "Low Harbour" } as never,
      feedback: { now: said } as never,
      corrections: { c1: correction } as never,
    });
    expect(screen.getByText(/worked \(Ildro Venn\)/)).toBeTruthy();
    expect(screen.queryByText(/After a month/)).toBeNull();
    expect(screen.getByText(/about entry 3, Ildro Venn/)).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });
});

const refs = {
  original_board: { part_number: "TVH-2205", revision: 1 },
  replacement_board: { part_number: "OFN-U5", revision: 1 },
};

describe("the hand over", () => {
  const over = {
    temporary: ["link across the door switch"],
    decisions: ["restart: by hand, kept"],
    findings: [],
    notes: [],
    unproved: [{ what: "Limit opens while firing", why: "no gas today" }],
    spent: {
      own: [],
      service: [],
      own_total: 120,
      service_total: 310.5,
      saved: 190.5,
      entered: [],
      not_entered: [],
      currency: "",
      assumptions: {},
    },
    codes: [{ shown: "E7", meaning: "airflow not proved", look_at: "air switch", clears: "" }],
    changed: [],
    second_person: false,
    handed_by: "",
    may_sign: false,
    refused: [],
    seal: "",
  };
  const hanging = { axis: "across", backwards: true, on: "up", known: true };
  const points = ["1", "2", "3", "4", "5", "6"].map((place) => `S1.${place}`);
  const bank = { id: "S1", kind: "dip", points, values: ["off", "on"], locked: [], hanging, unit: "", title: "" };
  const number = { ...bank, id: "P1", kind: "parameter", points: ["P1"], unit: "s" };
  const asked = (answer: unknown) => {
    const job = jobSheet({
      ...swap,
      ...refs,
      found: { S1: "01?110" },
      left: { P1: 60 },
      verdict: "different",
    } as never);
    const boards = `/api/jobs/${job.id}/boards`;
    standInServer({
      "/api/session": { body: wennick },
      [`/api/jobs/${job.id}/hand-over`]: answer as never,
      [`${boards}/original`]: { body: { part_number: "TVH-2205", elements: [bank], document: {} } },
      [`${boards}/replacement`]: { body: { part_number: "OFN-U5", elements: [number], document: {} } },
    });
    renderAsking(<HandOverStep job={job} put={vi.fn()} />);
  };

  it("holds as found against as left, and says what is not undone or not proved", async () => {
    asked({ body: over });
    const found = await screen.findByRole("region", { name: "As found" });
    // the bank hangs from the right: its digits stand as the eye meets them, and say so
    expect(within(found).getByRole("img", { name: "S1, left to right 6 to 1, on is up: 011?10" })).toBeTruthy();
    expect(within(screen.getByRole("region", { name: "As left" })).getByText("60")).toBeTruthy();
    expect(screen.getByText(/not said to be undone: link across the door switch/)).toBeTruthy();
    await userEvent.click(screen.getByText("Decisions and findings"));
    expect(screen.getByText("Limit opens while firing: no gas today")).toBeTruthy();
    expect(screen.getByText("120.00 against 310.50")).toBeTruthy();
  });

  it("says what went wrong where the record cannot be gathered", async () => {
    asked({ status: 500, body: { title: "Wrong here", detail: "Nothing was saved. Try again." } });
    expect(await screen.findByText("Nothing was saved. Try again.")).toBeTruthy();
  });
});
