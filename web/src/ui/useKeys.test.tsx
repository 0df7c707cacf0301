import { fireEvent, render, screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { useKeys } from "./useKeys";

function Page({ does, dialog = false, on = true }: { does: () => void; dialog?: boolean; on?: boolean }) {
  useKeys({ d: does }, on);
  return (
    <>
      <input aria-label="field" />
      <div role="group" aria-label="among several">
        <button type="button">one of them</button>
      </div>
      {dialog && <div role="dialog" />}
    </>
  );
}

describe("a key that does something on a page", () => {
  it("does it once, however long it is held", () => {
    const does = vi.fn();
    render(<Page does={does} />);
    fireEvent.keyDown(document.body, { key: "D" });
    for (let each = 0; each < 8; each += 1) fireEvent.keyDown(document.body, { key: "d", repeat: true });
    expect(does).toHaveBeenCalledTimes(1);
  });

  it("does nothing while somebody types, chooses, or holds another key with it", () => {
    const does = vi.fn();
    render(<Page does={does} />);
    fireEvent.keyDown(screen.getByLabelText("field"), { key: "d" });
    fireEvent.keyDown(screen.getByRole("button"), { key: "d" });
    fireEvent.keyDown(document.body, { key: "d", ctrlKey: true });
    fireEvent.keyDown(document.body, { key: "x" });
    expect(does).not.toHaveBeenCalled();
  });

  it("does nothing behind an open dialog, nor where it is not its turn", () => {
    const does = vi.fn();
    const { rerender } = render(<Page does={does} dialog />);
    fireEvent.keyDown(document.body, { key: "d" });
    rerender(<Page does={does} on={false} />);
    fireEvent.keyDown(document.body, { key: "d" });
    expect(does).not.toHaveBeenCalled();
    rerender(<Page does={does} />);
    fireEvent.keyDown(document.body, { key: "d" });
    expect(does).toHaveBeenCalledTimes(1);
  });
});
