import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { DraftField } from "./DraftField";
import { NumberField } from "./NumberField";
import { Segments } from "@/ui/Segments";

const field = () => screen.getByRole("textbox");

describe("a number that is kept when it is left", () => {
  it.each([
    ["231.5", 231.5],
    ["0,5", 0.5],
    [" 12 ", 12],
  ])("takes %s", async (typed, kept) => {
    const onSave = vi.fn();
    render(<NumberField label="Reading" value={undefined} onSave={onSave} />);
    await userEvent.type(field(), typed);
    expect(onSave).not.toHaveBeenCalled();
    await userEvent.tab();
    expect(onSave.mock.calls).toEqual([[kept]]);
  });

  it("keeps what is none in the field, and says so", async () => {
    const onSave = vi.fn();
    render(<NumberField label="Reading" value={7} onSave={onSave} />);
    await userEvent.clear(field());
    await userEvent.type(field(), "1.2.3{Enter}");
    expect(screen.getByRole("alert").textContent).toContain("Not kept");
    expect([field().getAttribute("aria-invalid"), onSave.mock.calls]).toEqual(["true", []]);
    await userEvent.clear(field());
    await userEvent.tab();
    expect(onSave.mock.calls).toEqual([[null]]); // an empty field takes the number back
  });

  it("is not kept below the least that it may be", async () => {
    const onSave = vi.fn();
    render(<NumberField label="After" value={3} least={0} onSave={onSave} />);
    await userEvent.type(field(), "{Backspace}-2{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("Not kept: give a number of 0 or more, such as 231.5.");
    expect(onSave).not.toHaveBeenCalled();
  });

  it("keeps nothing that did not change", async () => {
    const onSave = vi.fn();
    render(<NumberField label="Reading" value={7} onSave={onSave} />);
    await userEvent.type(field(), "0{Backspace}{Enter}");
    expect(onSave).not.toHaveBeenCalled();
  });
});

describe("a line that is kept when it is left", () => {
  it("is trimmed, and kept once", async () => {
    const onSave = vi.fn();
    render(<DraftField label="Note" value="old" onSave={onSave} />);
    await userEvent.clear(field());
    await userEvent.type(field(), " new {Enter}");
    await userEvent.tab();
    expect(onSave.mock.calls).toEqual([["new"]]);
  });
});

describe("answers side by side", () => {
  it("tells which one is taken, and takes another", async () => {
    const onChange = vi.fn();
    const choices = [
      ["yes", "Yes"],
      ["no", "No"],
    ] as const;
    render(<Segments label="Answers?" choices={choices} value="no" onChange={onChange} />);
    expect(screen.getByRole("radio", { name: "No" }).getAttribute("aria-checked")).toBe("true");
    await userEvent.click(screen.getByRole("radio", { name: "Yes" }));
    expect(onChange.mock.calls).toEqual([["yes"]]);
  });
});
