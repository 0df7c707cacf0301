import { describe, expect, it } from "vitest";
import { atPlace, endsFor, freshDraft, lineOf, nameFor, placeIn, withLine, withoutLast, withShape } from "./lines";

describe("a sketch that is tapped", () => {
  it("names each thing by the first number that is free", () => {
    expect(nameFor("S", "")).toBe("S1");
    expect(nameFor("S", "S1 bank 8; S2 bank 4\nR1 dial")).toBe("S3");
    expect(nameFor("R", "S1 bank 8; R2 dial")).toBe("R1");
    expect(nameFor("", "relays 3")).toBe("");
  });

  it("is a line for each thing, once what only the eye can say is said", () => {
    const bank = freshDraft("bank", "");
    expect(lineOf("bank", bank)).toBeNull();
    expect(lineOf("bank", { ...bank, count: 8 })).toBe("S1 bank 8");
    expect(lineOf("bank", { ...bank, count: 8, on: "up", from: "left" })).toBe("S1 bank 8, on up, from left");
    const plug = { ...freshDraft("plug", ""), count: 11, marks: " L, N  PE " };
    expect(lineOf("plug", plug)).toBe("C1 plug 11, marked L N PE");
    expect(lineOf("code", { ...freshDraft("code", ""), count: 4 })).toBe("K1 code 4");
    expect(lineOf("plug", { ...freshDraft("plug", ""), count: 6, keyed: "not keyed" })).toBe("C1 plug 6, not keyed");
    expect(lineOf("dial", freshDraft("dial", ""))).toBe("R1 dial 0..9");
    expect(lineOf("dial", { ...freshDraft("dial", ""), values: " " })).toBeNull();
    expect(lineOf("wheels", { ...freshDraft("wheels", ""), count: 2 })).toBe("W1 wheels 2");
    expect(lineOf("relays", { ...freshDraft("relays", ""), count: 3 })).toBe("relays 3");
    expect(lineOf("seen", { ...freshDraft("seen", ""), name: "lamp" })).toBe("lamp");
  });

  it("offers only the ends at which number 1 can be", () => {
    expect(endsFor("up")).toEqual(["left", "right"]);
    expect(endsFor("left")).toEqual(["top", "bottom"]);
    expect(endsFor("")).toHaveLength(4);
  });

  it("grows by a line and gives the last one back", () => {
    const two = withLine(withLine("", "S1 bank 8"), "R1 dial");
    expect(two).toBe("S1 bank 8\nR1 dial");
    expect(withoutLast(two)).toBe("S1 bank 8");
    expect(withoutLast("S1 bank 8")).toBe("");
  });
});

describe("a place tapped in a picture", () => {
  const box = { left: 100, top: 50, width: 400, height: 300 } as DOMRect;

  it("is told in per cent from the left and from the top, and never lies beyond the picture", () => {
    expect(placeIn(box, { clientX: 220, clientY: 200, detail: 1 })).toEqual({ x: 30, y: 50 });
    expect(placeIn(box, { clientX: 90, clientY: 351, detail: 1 })).toEqual({ x: 0, y: 100 });
    expect(placeIn(box, { clientX: 0, clientY: 0, detail: 0 })).toEqual({ x: 50, y: 50 });
  });

  it("stands at the end of its line, and the picture’s shape on a line of its own", () => {
    expect(atPlace("S1 bank 8, on up", { x: 30, y: 50 })).toBe("S1 bank 8, on up, at 30 50");
    expect(atPlace("lamp", null)).toBe("lamp");
    expect(withShape("S1 bank 8", "picture 4 x 3")).toBe("picture 4 x 3\nS1 bank 8");
    expect(withShape("picture 4 x 3\nS1 bank 8", "picture 3 x 4")).toBe("picture 3 x 4\nS1 bank 8");
    expect(withShape("picture 4 x 3\nS1 bank 8", "")).toBe("S1 bank 8");
  });
});
