import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { ProofPanel, ProofWords } from "./ProofPanel";

const proof = (more: Partial<Schemas["ProofShown"]>): Schemas["ProofShown"] => ({
  verdict: "different",
  words: "Off register: 1 input change (the fewest possible) and the two show something different.",
  offsets: [],
  told: ["At 0 s: Call begins."],
  endless: [],
  explored: 12,
  counter_case: { changes: 1, fewest: true, steps: [], at: 5, differing: ["x"] },
  why: ["The original goes from “s” to “t”, because 5 s are over."],
  ...more,
});

describe("a twin verdict", () => {
  it("says why the two part, and how they get there", () => {
    render(<ProofPanel proof={proof({})} />);
    expect(screen.getByText("Why they part")).toBeTruthy();
    expect(screen.getByText(/because 5 s are over/)).toBeTruthy();
    expect(screen.getByText("At 0 s: Call begins.")).toBeTruthy();
  });

  it("tells of boards that go round without end beside it, and hides nothing for that", () => {
    render(
      <ProofPanel proof={proof({ endless: [{ board: "S-1", told: ["Then S-1 goes round."], steps: [], at: 4 }] })} />,
    );
    expect(screen.getByText(/S-1 never comes to rest/)).toBeTruthy();
    expect(screen.getByText(/because 5 s are over/)).toBeTruthy();
  });

  it("says what it rests on where the two are in register", () => {
    const rests = {
      counter_case: null,
      told: [],
      why: ["Taken for granted: “Low” off and “High” on never come together."],
    };
    render(<ProofWords proof={proof({ verdict: "identical", words: "In register.", ...rests })} brief />);
    expect(screen.queryByText("Why they part")).toBeNull();
    expect(screen.getByText("In register.")).toBeTruthy();
    expect(screen.getByText("What this rests on")).toBeTruthy();
    expect(screen.getByText(/Taken for granted/)).toBeTruthy();
  });
});
