import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Questions } from "./Questions";

function asked(fact: string, words: string, wanted: unknown) {
  const put = vi.fn();
  render(<Questions job={jobSheet()} put={put} questions={[{ fact, words, wanted } as never]} />);
  return put;
}
const told = (put: ReturnType<typeof asked>) => put.mock.calls.map(([each]) => [each.target, each.after.value]);

describe("what is to be found out on the machine", () => {
  it("is a yes or a no where it is one", async () => {
    const put = asked("damper.fitted", "A damper is fitted: yes", true);
    expect(screen.getByText("A damper is fitted?")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "no" }));
    expect(told(put)).toEqual([["fact.damper.fitted", false]]);
  });

  it("offers what would fit, and takes another answer too", async () => {
    const put = asked("fuel", "Fuel", ["gas", "oil"]);
    await userEvent.click(screen.getByRole("button", { name: "oil" }));
    await userEvent.type(screen.getByLabelText("Fuel"), "wood");
    await userEvent.click(screen.getByRole("button", { name: "Keep" }));
    expect(told(put)).toEqual([
      ["fact.fuel", "oil"],
      ["fact.fuel", "wood"],
    ]);
  });

  it("wants a number where one is asked for, with a comma too", async () => {
    const put = asked("fan.amps", "Fan, A", { from: 0, to: 3 });
    await userEvent.type(screen.getByLabelText("Fan, A"), "a lot");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Keep" }).disabled).toBe(true);
    await userEvent.clear(screen.getByLabelText("Fan, A"));
    await userEvent.type(screen.getByLabelText("Fan, A"), "2,4");
    await userEvent.click(screen.getByRole("button", { name: "Keep" }));
    expect(told(put)).toEqual([["fact.fan.amps", 2.4]]);
  });

  it("is nothing where nothing is open", () => {
    const { container } = render(<Questions job={jobSheet()} put={vi.fn()} questions={[]} />);
    expect(container.textContent).toBe("");
  });
});
