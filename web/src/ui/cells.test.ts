import { describe, expect, it } from "vitest";
import { cellsOf, laidOver, pastedCells } from "./cells";

describe("cells from elsewhere", () => {
  it("come with tabs from a spreadsheet, with semicolons or commas from a file", () => {
    expect(cellsOf("a\tb\nc\td\n")).toEqual([
      ["a", "b"],
      ["c", "d"],
    ]);
    expect(cellsOf("a;b,c\r\n1;2")).toEqual([
      ["a", "b,c"],
      ["1", "2"],
    ]);
    expect(cellsOf('a,"b, with ""quotes""\nand a line"\n1,2')).toEqual([
      ["a", 'b, with "quotes"\nand a line'],
      ["1", "2"],
    ]);
  });

  it("are one cell where nothing parts them", () => {
    expect(pastedCells("DK2, DK3")).toEqual([["DK2, DK3"]]);
    expect(pastedCells("15\n30")).toEqual([["15"], ["30"]]);
  });

  it("are laid over from a cell on, and add rows only where a table grows", () => {
    const rows = [
      ["1", "2"],
      ["3", "4"],
    ];
    expect(laidOver(rows, [["a", "b", "c"], ["d"]], 1, 1, 2, true)).toEqual([
      ["1", "2"],
      ["3", "a"],
      ["", "d"],
    ]);
    expect(laidOver(rows, [["a"], ["b"]], 1, 0, 2, false)).toEqual([
      ["1", "2"],
      ["a", "4"],
    ]);
    expect(rows[1]).toEqual(["3", "4"]);
  });
});
