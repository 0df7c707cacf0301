import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it } from "vitest";
import { Suspects } from "./Suspects";
import type { RuleOut } from "./types";

const suspect = (id: string, weight: number) => ({ id, title: id, before: 0.2, weight, words: "possible" });
const data = (weights: Record<string, number>, chain: unknown[] = []) =>
  ({
    suspects: Object.entries(weights).map(([id, weight]) => suspect(id, weight)),
    chain,
    school: "exclusion",
  }) as unknown as RuleOut;
const lines = () => screen.getAllByRole("listitem").map((each) => each.textContent);

describe("who is suspected", () => {
  it("says what the last answer moved, up or down, in hundredths", () => {
    const { rerender } = render(<Suspects data={data({ board: 0.4, fuse: 0.6 })} />);
    expect(lines()).toEqual(["boardpossible", "fusepossible"]);
    rerender(<Suspects data={data({ board: 0.75, fuse: 0.25 })} />);
    expect(lines()).toEqual(["boardpossible ↑ up by 35", "fusepossible ↓ down by 35"]);
    rerender(<Suspects data={data({ board: 0.755, fuse: 0.245 })} />);
    // what moves less than a hundredth did not move
    expect(lines()).toEqual(["boardpossible", "fusepossible"]);
  });

  it("names the first few, and all of them at a touch", async () => {
    const weights = Object.fromEntries([..."abcdefg"].map((name, index) => [name, 0.3 - index / 30]));
    render(<Suspects data={data(weights)} />);
    expect(lines()).toHaveLength(4);
    await userEvent.click(screen.getByRole("button", { name: "All 7" }));
    expect(lines()).toHaveLength(7);
  });

  it("keeps the last thing that was tested in sight where there is little room", () => {
    const link = { title: "Fuse", result: "blown", words: "speaks for a short", leading: "Igniter" };
    render(<Suspects data={data({ board: 0.4 }, [link])} />);
    expect(screen.getByText(/speaks for a short/).textContent).toBe("speaks for a short. Then leading: Igniter.");
  });
});
