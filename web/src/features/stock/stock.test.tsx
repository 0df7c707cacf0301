import { fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import type { Matrix } from "./api";
import { Cover } from "./Cover";
import { counted, keepCount, keptCount } from "./counting";
import { changeWords, lackWords, proofWords, rateWords, vanWords } from "./words";

describe("a count of a shelf", () => {
  beforeEach(() => localStorage.clear());

  it("counts one more each time a number is read, and never less than none", () => {
    let count = { id: "c", pieces: {} };
    for (const change of [1, 1, -1, -1, -1]) count = counted(count, "OFN-U3", change);
    expect(count).toEqual({ id: "c", pieces: { "OFN-U3": 0 } });
  });

  it("stays on the device until it was sent, under its own id", () => {
    const begun = counted({ id: "c", pieces: {} }, "OFN-U3", 2);
    keepCount("blue", begun);
    expect(keptCount("blue")).toEqual(begun);
    expect(keptCount("grey")).toBeNull();
    keepCount("blue", null);
    expect(keptCount("blue")).toBeNull();
  });

  it("begins anew where what was kept is no count", () => {
    for (const kept of ["{", "null", "7", '{"id": 1}', '{"id": "c", "pieces": null}']) {
      localStorage.setItem("worthy-twin count blue", kept);
      expect(keptCount("blue")).toBeNull();
    }
  });
});

describe("the words of a plan", () => {
  it("say how good it is against any other", () => {
    expect(proofWords(0)).toBe("proved best");
    expect(proofWords(0.0004)).toBe("within 0.04 % of the best");
    expect(proofWords(0.012)).toBe("within 1.2 % of the best");
    expect(rateWords({ failures: 4, served: 3 })).toBe("75 %");
    expect(rateWords({ failures: 0, served: 0 })).toBe("");
  });

  it("say where a board comes from and goes to", () => {
    const names = { a: "Blue van", b: "Grey van" };
    expect(changeWords({ source: null, target: "a" }, names)).toBe("buy for Blue van");
    expect(changeWords({ source: "b", target: null }, names)).toBe("return from Grey van");
    expect(changeWords({ source: "b", target: "gone" }, names)).toBe("move from Grey van to a van that is gone");
  });

  it("say what a shelf lacks, and nothing where nobody planned", () => {
    expect(lackWords({ count: 1, wanted: 3 })).toBe("put in 2");
    expect(lackWords({ count: 3, wanted: 0 })).toBe("3 too many");
    expect(lackWords({ count: 3, wanted: null })).toBe("");
    const van = { pieces: 1, lacks: 2, machines: 1 } as Parameters<typeof vanWords>[0];
    expect(vanWords(van)).toBe("1 board in it, 2 to put in; looks after 1 machine");
  });
});

describe("the picture of who serves whom", () => {
  const matrix: Matrix = {
    kinds: [
      { board: "OLD-1", machines: 4, facts: {} },
      { board: "OLD-2", machines: 1, facts: {} },
    ],
    pieces: [{ piece: "NEW-1", machines: 4, held: 2 }],
    grades: [{ kind: 0, piece: 0, grade: "work" }],
    unjudged: 0,
    judged_at: null,
  };

  it("says what a place means when it is touched", () => {
    const { container } = render(<Cover matrix={matrix} />);
    const told = () => container.querySelector("[aria-live]")?.textContent;
    screen.getByText(/Touch a place/);
    const picture = screen.getByRole("img", { name: /2 kinds of machine against 1 pieces/ });
    fireEvent.click(picture, { clientX: 160, clientY: 125 });
    expect(told()).toBe("OLD-1 in 4 machines: NEW-1 proved twin, with work; 2 in the vans");
    fireEvent.click(picture, { clientX: 160, clientY: 140 });
    expect(told()).toBe("OLD-2 in 1 machine: NEW-1 does not serve it; 2 in the vans");
  });
});
