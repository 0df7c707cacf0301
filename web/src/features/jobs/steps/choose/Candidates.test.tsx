import { fireEvent, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Candidate } from "./candidate";
import { Candidates } from "./Candidates";
import { CRITERIA, ageWords, haveWords } from "./words";

const candidate = (part_number: string, more: Partial<Candidate> = {}) =>
  ({
    part_number,
    verdict: "with work",
    cells: CRITERIA.map(([criterion]) => ({ criterion, verdict: "fits", reasons: [] })),
    offer: null,
    ...more,
  }) as unknown as Candidate;
const button = (name: string | RegExp) => screen.getByRole("button", { name });

const reason = (words: string, verdict: string) => ({ words, verdict });
const shown = (candidates: Candidate[], more: Partial<Parameters<typeof Candidates>[0]> = {}) =>
  render(<Candidates candidates={candidates} chosen={null} open={undefined} onOpen={vi.fn()} {...more} />);

describe("the candidates", () => {
  it("say in a line what speaks against each, the worst first, when it is here and what it costs", () => {
    const cells = [
      { criterion: "supply", verdict: "to check", reasons: [reason("Measure the supply", "to check")] },
      { criterion: "connectors", verdict: "with work", reasons: [reason("J2 pin by pin", "with work")] },
      { criterion: "behaviour", verdict: "no", reasons: [reason("Off register", "no"), reason("Off register", "no")] },
    ] as Candidate["cells"];
    const offer = { price: 212.4, stock: 0, days: 1, on_van: false, unknown: false } as Candidate["offer"];
    shown([candidate("A", { cells, offer }), candidate("B")], { chosen: "B" });
    expect(screen.getAllByRole("listitem").map((each) => each.querySelector("button")?.textContent)).toEqual([
      "Awith workOff registerMeasure the supplyand 1 more1 day212",
      "Bwith work, chosenNothing speaks against it.being askedno price",
    ]);
  });

  it("open in full, or at the reasons of one criterion", async () => {
    const onOpen = vi.fn();
    shown([candidate("A")], { open: "A", onOpen });
    const line = screen.getByRole("button", { expanded: true });
    await userEvent.click(line);
    await userEvent.click(button("A, Twin check: fits"));
    expect(onOpen.mock.calls).toEqual([["A"], ["A", "behaviour"]]);
  });

  it("say the whole name of a mark when it is touched, and that what nobody judged is to be checked", () => {
    shown([candidate("A", { cells: [] })]);
    fireEvent.focus(button("A, Surroundings: to check"));
    expect(screen.getByText("Surroundings: to check")).toBeTruthy();
  });

  it("say when each is here", () => {
    const offer = { price: 10, stock: 0, days: null, on_van: false, unknown: false };
    const words = [{}, { days: 4 }, { stock: 3 }, { on_van: true }, { unknown: true }, { price: null }].map((more) =>
      haveWords({ ...offer, ...more } as Candidate["offer"]),
    );
    expect(words).toEqual(["cannot be had", "4 days", "3 in stock", "on the van", "not known", "no answer"]);
  });

  it("is not there without a candidate", () => {
    const { container } = shown([]);
    expect(container.innerHTML).toBe("");
  });

  it("says how old an answer is in words", () => {
    expect([20, 600, 7200, 259_200].map(ageWords)).toEqual(["just now", "10 minutes ago", "2 hours ago", "3 days ago"]);
  });
});
