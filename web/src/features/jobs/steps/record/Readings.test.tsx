import type { Schemas } from "@/api/client";
import { element, jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen, waitFor, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { AngleReading } from "./AngleReading";
import { BlindReading } from "./BlindReading";
import { PoweredPart } from "./PoweredPart";

const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>("button", { name });
const told = (put: { mock: { calls: unknown[][] } }) => put.mock.calls.map(([each]) => each);

describe("a trimmer between two marks", () => {
  const shown = (parts: Partial<Job>) => {
    const put = vi.fn();
    renderAsking(<AngleReading job={jobSheet(parts)} put={put} element="VR1" />);
    return put;
  };

  it("is read as an angle either way from the top, with how well", async () => {
    const put = shown({});
    const degrees = screen.getByLabelText("Angle in degrees");
    await userEvent.type(degrees, "about 40");
    expect(button("Keep the angle").disabled).toBe(true);
    await userEvent.clear(degrees);
    await userEvent.type(degrees, "−42,5");
    await userEvent.click(button("Keep the angle"));
    expect(told(put)).toEqual([{ target: "angle.VR1", after: { degrees: -42.5, within: 5 } }]);
  });

  it("can be taken back, and is only shown in a closed job", async () => {
    const angles = { VR1: { degrees: 30, within: 2, nearest: 4 } } as never;
    const put = shown({ angles });
    await userEvent.click(button("Take it back"));
    expect(told(put)).toEqual([{ target: "angle.VR1", after: null }]);
  });
});

describe("a second reading", () => {
  it("does not show the first one, and is compared when it is whole", async () => {
    const put = vi.fn();
    renderAsking(<BlindReading put={put} element={element()} />);
    await userEvent.click(button("Read it again, blind"));
    expect(button("Compare the two").disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("S1 typed"), "1?0");
    await userEvent.click(button("Compare the two"));
    expect(told(put)).toEqual([{ target: "blind.S1", after: "1?0" }]);
    expect(screen.queryByRole("dialog")).toBeNull();
  });
});

describe("what only a board with power tells", () => {
  const purge = element({
    id: "P1",
    kind: "parameter",
    title: "Purge",
    unit: "s",
    points: ["P1"],
    range: { low: 0, high: 90, step: 30 },
  });
  const hours = { id: "hours", what: "Hours run", unit: "h", read: "Menu, 4", enter: "", value: null };
  const value = (target: string, title: string, read: string | number, there: string | number | null) => ({
    target,
    title,
    value: read,
    there,
    differs: there !== null && there !== read,
  });
  const shown = (parts: Partial<Job>, port: unknown = {}) => {
    const job = jobSheet(parts);
    const put = vi.fn().mockResolvedValue(undefined);
    standInServer({ [`/api/jobs/${job.id}/port`]: port as never, [`/api/jobs/${job.id}/port/read`]: port as never });
    const record = { port: true, remembered: [hours] } as unknown as Schemas["RecordShown"];
    renderAsking(<PoweredPart job={job} put={put} record={record} elements={[purge]} />);
    return put;
  };

  it("is read by eye, and what a new board will not know is written down", async () => {
    const put = shown({ answers: "yes", how: { P1: "by eye" } });
    expect(screen.getByText("(by eye)")).toBeTruthy();
    await userEvent.type(screen.getByRole("textbox", { name: "P1 in s" }), "60{Enter}");
    await userEvent.type(screen.getByLabelText("Hours run, in h"), "5120{Enter}");
    expect(screen.getByText(/For the record only/)).toBeTruthy();
    expect(told(put)).toContainEqual({ target: "found.P1", after: 60, read_how: "by eye" });
    expect(told(put)).toContainEqual({ target: "kept.hours", after: "5120", read_how: "by eye" });
  });

  it("asks nothing more of a board that is dead", async () => {
    const put = shown({ answers: "no" });
    expect(screen.getByText(/Nothing more can be asked of it/)).toBeTruthy();
    await userEvent.click(screen.getByText("Yes"));
    expect(told(put)).toEqual([{ target: "answers", after: "yes" }]);
  });

  it("is read over the port beside what was read by eye, and taken one by one or all that is new", async () => {
    const read = {
      identity: "TVH-2420-A",
      fault: "",
      values: [
        value("found.P1", "Purge", 60, 30),
        value("found.P2", "Trial", 7, null),
        value("kept.hours", "Hours run", 5120, 5120),
      ],
    };
    const put = shown({ found: { P1: 30 }, kept: { hours: 5120 } as never }, { body: read });
    await userEvent.click(button("Read over the service port"));
    expect(await screen.findByText("TVH-2420-A")).toBeTruthy();
    const lines = screen.getAllByRole("listitem").map((each) => each.textContent);
    expect(lines).toEqual([
      "Purge60by eye: 30Take this instead",
      "Trial7Take it",
      "Hours run5120agrees with what was read",
    ]);
    await userEvent.click(button("Take this instead: Purge"));
    await userEvent.click(button("Take all that nobody read yet"));
    await waitFor(() =>
      expect(told(put)).toEqual([
        { target: "found.P1", after: 60, read_how: "read over the port" },
        { target: "found.P2", after: 7, read_how: "read over the port" },
      ]),
    );
  });

  it("says what is wrong with the answer, and that the board did not answer", async () => {
    shown({}, { body: { identity: "", fault: "The sum over its settings does not agree.", values: [] } });
    await userEvent.click(button("Read over the service port"));
    expect((await screen.findByRole("alert")).textContent).toContain("does not agree");
  });

  it("says why the port cannot be read", async () => {
    shown({}, { status: 400, body: { title: "Refused", detail: "The board does not answer. Is it on?" } });
    await userEvent.click(button("Read over the service port"));
    expect(within(await screen.findByRole("alert")).getByText(/Is it on/)).toBeTruthy();
  });
});
