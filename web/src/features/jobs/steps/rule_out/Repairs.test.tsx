import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Repairs } from "./Repairs";

const put = vi.fn();
const fuse = { kind: "fuse", what: "2 A", part: "F-2A", by: "Wennick", at: "" };

describe("what was put right", () => {
  it("is said with its kind and the part that went in", async () => {
    render(<Repairs job={jobSheet({ repairs: {} })} put={put} />);
    const add = screen.getByRole<HTMLButtonElement>("button", { name: "Put right" });
    expect(add.disabled).toBe(true);
    await userEvent.click(screen.getByRole("radio", { name: "Sensor" }));
    await userEvent.type(screen.getByLabelText("What was done"), "deck sensor ");
    await userEvent.type(screen.getByLabelText(/^Part number/), "PT-1");
    await userEvent.click(add);
    const after = { kind: "sensor", what: "deck sensor", part: "PT-1" };
    expect(put.mock.calls[0]?.[0]).toMatchObject({ target: expect.stringMatching(/^repair\./), after });
  });

  it("is struck out, but not in a closed job", async () => {
    put.mockReset();
    const { rerender } = render(<Repairs job={jobSheet({ repairs: { r1: fuse } } as never)} put={put} />);
    await userEvent.click(screen.getByRole("button", { name: "Strike out: fuse, 2 A" }));
    expect(put.mock.calls).toEqual([[{ target: "repair.r1", after: null }]]);
    rerender(<Repairs job={jobSheet({ repairs: { r1: fuse }, closed: true } as never)} put={put} />);
    expect(screen.queryByRole("button")).toBeNull();
  });
});
