import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { standInServer } from "@/testing/server";
import { screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { RecogniseStep } from "./RecogniseStep";

vi.mock("../MarkingSearch", () => ({
  MarkingSearch: ({ onChoose }: { onChoose: (board: string, how: string) => void }) => (
    <button onClick={() => onChoose("TVH-2", "as printed")}>This is it: TVH-2</button>
  ),
}));

function shown(parts: Parameters<typeof jobSheet>[0]) {
  const put = vi.fn().mockResolvedValue(undefined);
  standInServer({});
  renderAsking(<RecogniseStep job={jobSheet(parts)} put={put} />);
  return put;
}
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));
const TAKEN = { target: "original", after: "TVH-2", reason: "as printed" };

describe("another original", () => {
  it("is taken at once as long as nothing rests on the first one", async () => {
    const put = shown({ original: "TVH-1", found: {}, wires: {}, replacement: null });
    await press("This is it: TVH-2");
    expect(put).toHaveBeenCalledWith(TAKEN);
  });

  it("is asked about where something goes with the first one, and nothing goes where it stays", async () => {
    const put = shown({ original: "TVH-1", found: { S1: "01", R1: "2" }, replacement: "OFN-U3" });
    await press("This is it: TVH-2");
    expect(screen.getByText(/the choice of OFN-U3, 2 positions/)).toBeTruthy();
    await press("It stays TVH-1");
    expect(put).not.toHaveBeenCalled();
    await press("This is it: TVH-2");
    await press("It is TVH-2");
    expect(put).toHaveBeenCalledWith(TAKEN);
  });
});
