import { fireEvent, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { CellTable } from "./CellTable";

const headings = ["At", "Value"];
const rows = [
  ["off", "30"],
  ["on", "45"],
];

function table(more: Partial<Parameters<typeof CellTable>[0]> = {}) {
  const onChange = vi.fn();
  const shown = (version: number, now = rows) => (
    <>
      <CellTable
        label="Post-purge"
        headings={headings}
        rows={now}
        fixed={1}
        cellLabel={(row, column) => `cell ${row} ${column}`}
        version={version}
        onChange={onChange}
        {...more}
      />
      <button>elsewhere</button>
    </>
  );
  const page = render(shown(1));
  return { onChange, again: (version: number, now?: string[][]) => page.rerender(shown(version, now)) };
}
const cell = (row: number, column = 1) =>
  screen.getByRole<HTMLInputElement>("textbox", { name: `cell ${row} ${column}` });
const leave = () => userEvent.click(screen.getByRole("button", { name: "elsewhere" }));
const paste = (into: HTMLElement, text: string) => fireEvent.paste(into, { clipboardData: { getData: () => text } });

describe("a table of cells", () => {
  it("sends what was typed when it is left, with the version at which that began, and nothing for a look", async () => {
    const { onChange } = table();
    await userEvent.click(cell(0));
    await leave();
    expect(onChange).not.toHaveBeenCalled();
    await userEvent.clear(cell(0));
    await userEvent.type(cell(0), "1 min");
    await leave();
    expect(onChange).toHaveBeenLastCalledWith([["off", "1 min"], rows[1]], 1);
  });

  it("shows what was typed until the answer is there, and then the answer", async () => {
    const { again } = table();
    await userEvent.clear(cell(0));
    await userEvent.type(cell(0), "1 min");
    await leave();
    expect(cell(0).value).toBe("1 min");
    again(2, [
      ["off", "60"],
      ["on", "45"],
    ]);
    expect(cell(0).value).toBe("60");
  });

  it("goes down by Enter, and leaves the columns alone that only say which row it is", async () => {
    table();
    await userEvent.click(cell(0));
    await userEvent.keyboard("{Enter}");
    expect(document.activeElement).toBe(cell(1));
    await userEvent.keyboard("{ArrowUp}");
    expect(document.activeElement).toBe(cell(0));
    expect(screen.getAllByRole("rowheader").map((each) => each.textContent)).toEqual(["off", "on"]);
  });

  it("takes several pasted cells at once, and adds rows only where it grows", () => {
    const { onChange } = table();
    paste(cell(0), "15\n20\n25");
    expect(onChange).toHaveBeenLastCalledWith(
      [
        ["off", "15"],
        ["on", "20"],
      ],
      1,
    );
  });

  it("has an empty row at the end where it grows", () => {
    const { onChange } = table({ grows: true, fixed: 0 });
    paste(cell(2, 0), "up\t60\ndown\t75");
    expect(onChange).toHaveBeenLastCalledWith([...rows, ["up", "60"], ["down", "75"]], 1);
  });

  it("says under a row what is wrong in it, and marks the cell", () => {
    table({
      wrong: (row, column) => (row === 1 && column === 1 ? "expected seconds" : ""),
      wrongRow: (row) => (row === 0 ? "a misprint?" : ""),
    });
    expect(cell(1).getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByText("expected seconds")).toBeTruthy();
    expect(screen.getByText("a misprint?")).toBeTruthy();
    expect(cell(0).getAttribute("aria-invalid")).toBeNull();
  });
});
