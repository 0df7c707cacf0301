import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
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

  const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
  const at = (day: string) => screen.getByLabelText<HTMLInputElement>(`Value of ${day}`);

  /** The field as a page has it: what was saved comes back after a while, each answer as old as it is. */
  function Slow({ after }: { after: number }) {
    const [value, setValue] = useState("");
    return (
      <RowsField
        label="Start times"
        items={DAYS}
        value={value}
        onSave={(text) => void setTimeout(() => setValue(text), after)}
      />
    );
  }

  it.each([0, 40, 200])("loses no row, however late the answers come: %d ms", async (after) => {
    // a defect: of seven rows typed with a pause each, an older answer took four out of the fields, and then out of the record
    render(<Slow after={after} />);
    for (const [index, day] of DAYS.entries()) {
      await userEvent.click(at(day));
      await userEvent.keyboard(`0${index}:30 to 1${index}:00`);
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    await userEvent.tab();
    const typed = DAYS.map((_, index) => `0${index}:30 to 1${index}:00`);
    expect(DAYS.map((day) => at(day).value)).toEqual(typed);
    await waitFor(() => expect(screen.getAllByText("✓ saved")).toHaveLength(DAYS.length));
    await new Promise((resolve) => setTimeout(resolve, 2 * after));
    expect(DAYS.map((day) => at(day).value)).toEqual(typed);
  });

  it("has after a reload what was typed before it", async () => {
    const field = () => <RowsField label="Start times" items={DAYS} value="Monday: 04:30" onSave={() => {}} />;
    const { unmount } = render(field());
    await userEvent.type(at("Tuesday"), "05:00");
    unmount();
    render(field());
    expect([at("Monday").value, at("Tuesday").value]).toEqual(["04:30", "05:00"]);
    expect(screen.getByText("not saved yet")).toBeTruthy();
  });

  it("reads what was kept as lines before, and writes it back as it was", () => {
    const text = "Monday 04:30\nTuesday 04:30\nRinse: 0.50";
    expect(textOf(rowsOf(text, []), [])).toBe(text);
    expect(textOf(rowsOf(text, ["Button 1"]), ["Button 1"])).toBe(text);
  });
});
