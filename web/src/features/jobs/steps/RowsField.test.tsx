import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { RowsField, rowsOf, textOf } from "./RowsField";

describe("a list to enter again", () => {
  it("has a row for each item of the board, and keeps a row when it is left", async () => {
    const onSave = vi.fn();
    render(<RowsField label="Prices" items={["Button 1", "Button 2"]} value="Button 2: 3.20" onSave={onSave} />);
    expect((screen.getByLabelText("Value of Button 2") as HTMLInputElement).value).toBe("3.20");
    await userEvent.type(screen.getByLabelText("Value of Button 1"), "2.50");
    await userEvent.tab();
    expect(onSave).toHaveBeenLastCalledWith("Button 1: 2.50\nButton 2: 3.20");
  });

  it("takes rows of one's own, and takes them out", async () => {
    const onSave = vi.fn();
    const { rerender } = render(<RowsField label="Prices" items={["Button 1"]} value="" onSave={onSave} />);
    await userEvent.click(screen.getByRole("button", { name: "One more row" }));
    await userEvent.type(screen.getByLabelText("Item 2"), "Rinse");
    await userEvent.type(screen.getByLabelText("Value 2"), "0.50");
    await userEvent.tab();
    await userEvent.tab(); // past its own button, out of the row
    expect(onSave).toHaveBeenLastCalledWith("Rinse: 0.50");
    rerender(<RowsField label="Prices" items={["Button 1"]} value="Rinse: 0.50" onSave={onSave} />);
    await userEvent.click(screen.getByRole("button", { name: "Take out Rinse" }));
    expect(onSave).toHaveBeenLastCalledWith("");
  });

  it("reads what was kept as lines before, and writes it back as it was", () => {
    const text = "Monday 04:30\nTuesday 04:30\nRinse: 0.50";
    expect(textOf(rowsOf(text, []), [])).toBe(text);
    expect(textOf(rowsOf(text, ["Button 1"]), ["Button 1"])).toBe(text);
  });
});
