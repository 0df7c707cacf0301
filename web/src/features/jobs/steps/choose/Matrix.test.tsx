import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Matrix, type Candidate } from "./Matrix";
import { CRITERIA, ageWords } from "./words";

const candidate = (part_number: string, more: Partial<Candidate> = {}) =>
  ({
    part_number,
    verdict: "with work",
    cells: CRITERIA.map(([criterion]) => ({ criterion, verdict: "fits", reasons: [] })),
    offer: null,
    ...more,
  }) as unknown as Candidate;
const button = (name: string | RegExp) => screen.getByRole("button", { name });

describe("the matrix of candidates", () => {
  it("has a row for each candidate and a column for each criterion", () => {
    render(<Matrix candidates={[candidate("A"), candidate("B")]} chosen="B" open={undefined} onOpen={vi.fn()} />);
    expect(screen.getAllByRole("columnheader")).toHaveLength(CRITERIA.length + 2);
    expect(screen.getAllByRole("rowheader").map((each) => each.textContent)).toEqual([
      "Awith work",
      "Bwith work, chosen",
    ]);
  });

  it("opens a candidate, or the reasons of one cell", async () => {
    const onOpen = vi.fn();
    render(<Matrix candidates={[candidate("A")]} chosen={null} open="A" onOpen={onOpen} />);
    expect(button(/^A ?with work$/).getAttribute("aria-expanded")).toBe("true");
    await userEvent.click(button(/^A ?with work$/));
    await userEvent.click(button("A, Twin check: fits"));
    expect(onOpen.mock.calls).toEqual([["A"], ["A", "behaviour"]]);
  });

  it("says that what nobody judged is to be checked, and shows no price that nobody gave", () => {
    const offer = { price: 212.4 } as Candidate["offer"];
    const some = [candidate("A", { cells: [], offer }), candidate("B")];
    render(<Matrix candidates={some} chosen={null} open={undefined} onOpen={vi.fn()} />);
    expect(button("A, Surroundings: to check")).toBeTruthy();
    expect(screen.getByText("212")).toBeTruthy();
    expect(screen.getByText("–")).toBeTruthy();
  });

  it("is not there without a candidate", () => {
    const { container } = render(<Matrix candidates={[]} chosen={null} open={undefined} onOpen={vi.fn()} />);
    expect(container.innerHTML).toBe("");
  });

  it("says how old an answer is in words", () => {
    expect([20, 600, 7200, 259_200].map(ageWords)).toEqual(["just now", "10 minutes ago", "2 hours ago", "3 days ago"]);
  });
});
