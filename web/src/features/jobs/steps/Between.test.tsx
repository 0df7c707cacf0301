import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Between } from "./Between";

const plain = jobSheet();
const sheets = [
  { id: plain.id, board: "1", title: "Mixer board" },
  { id: `${plain.id}.2`, board: "2", title: "Drive board" },
];
const job = jobSheet({ together: { sheets } as unknown as Schemas["BoardsOfJob"] });
const end = (board: string, place: string, made: string[] | null, carries = "") =>
  ({ board, title: board === "1" ? "Mixer board" : "Drive board", place, carries, new: made }) as const;

function shown(between: Schemas["LeadShown"][], adds = false, places: Record<string, string[] | null> = {}) {
  standInServer({ [`/api/jobs/${job.id}/between`]: { body: { between, places } } });
  const put = vi.fn(() => Promise.resolve(true));
  renderAsking(<Between job={job} put={put} adds={adds} />);
  return put;
}

describe("wires between the boards", () => {
  it("are shown with both their new places, and what is not sound about them in words", async () => {
    const ends = [end("1", "J2.4", ["J2.4"], "Motor thermal contact"), end("2", "D2.5", [], "Ready contact")];
    shown([
      {
        id: "a",
        what: "white",
        ends,
        wrong: ["One end goes to the new board, the other is tied back: the wire would end nowhere."],
      },
    ]);
    const row = (await screen.findByText("white")).closest("li");
    expect(row?.textContent).toContain("tied back");
    expect(row?.textContent).toContain("the wire would end nowhere");
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("are kept end by end, from places that the boards have, and taken out", async () => {
    const put = shown([{ id: "a", what: "", ends: [end("1", "J1", null), end("2", "D2", null)], wrong: [] }], true, {
      "1": ["J1", "J1.4"],
      "2": null,
    });
    await userEvent.selectOptions(await screen.findByLabelText("Here, on Mixer board"), "J1.4");
    const keep = screen.getByRole("button", { name: "Keep this wire between the boards" });
    expect((keep as HTMLButtonElement).disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("There, on Drive board"), "X7.2");
    await userEvent.click(keep);
    expect(put).toHaveBeenLastCalledWith({
      target: expect.stringMatching(/^between\.[0-9a-f-]{36}$/),
      after: { one: { board: "1", place: "J1.4" }, other: { board: "2", place: "X7.2" } },
    });
    await userEvent.click(
      screen.getByRole("button", { name: "Take out the wire from Mixer board J1 to Drive board D2" }),
    );
    expect(put).toHaveBeenLastCalledWith({ target: "between.a", after: null });
  });

  it("are no question where there is one board", () => {
    const { container } = renderAsking(<Between job={jobSheet({ together: null })} put={vi.fn()} />);
    expect(container.innerHTML).toBe("");
  });
});
