import { render, screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { Button } from "./Button";
import { lacking } from "./lacking";

describe("a button", () => {
  it("that is grey says what is missing, and is the same one once nothing is", () => {
    const needs = (what: string) => (
      <Button needs={lacking({ "the reason": what === "", "a date": true })}>Save</Button>
    );
    const page = render(needs(""));
    const button = screen.getByRole<HTMLButtonElement>("button", { name: "Save" });
    expect(button.disabled).toBe(true);
    expect(document.getElementById(button.getAttribute("aria-describedby") ?? "")?.textContent).toBe(
      "First: the reason, a date.",
    );
    page.rerender(<Button needs="">Save</Button>);
    expect(screen.getByRole("button", { name: "Save" })).toBe(button);
    expect(button.disabled).toBe(false);
    expect(screen.queryByText(/First:/)).toBeNull();
  });
});
