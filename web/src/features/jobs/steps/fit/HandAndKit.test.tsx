import type { Schemas } from "@/api/client";
import { jobSheet } from "@/testing/jobs";
import { render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../../api";
import { InHandPart } from "./InHandPart";
import { KitSteps } from "./KitSteps";

const put = () => vi.fn(() => Promise.resolve(true));

describe("the board in the hand", () => {
  const fitting = {
    looks: [],
    alike: [{ part_number: "TVH-2210-B", words: "chip: square here, round there" }],
  } as unknown as Schemas["FittingShown"];

  it("is said to be the one chosen in one tap, with what is easily taken for it in sight", async () => {
    const said = put();
    render(<InHandPart job={jobSheet({ replacement: "TVH-2210-C", in_hand: null })} put={said} fitting={fitting} />);
    expect(screen.getByRole("note").textContent).toContain("TVH-2210-B (chip: square here, round there)");
    await userEvent.type(screen.getByLabelText("Its revision, where it bears one"), "C2");
    await userEvent.click(screen.getByRole("button", { name: "The board in my hand says TVH-2210-C" }));
    expect(said).toHaveBeenCalledWith({ target: "in_hand", after: { number: "TVH-2210-C", revision: "C2" } });
  });

  it("is typed where it says something else, and read again", async () => {
    const said = put();
    const { rerender } = render(
      <InHandPart job={jobSheet({ replacement: "TVH-2210-C", in_hand: null })} put={said} fitting={fitting} />,
    );
    await userEvent.click(screen.getByText("It says something else"));
    await userEvent.type(screen.getByLabelText("What stands on it"), "TVH-2210-B");
    await userEvent.click(screen.getByRole("button", { name: "Is that the one?" }));
    expect(said).toHaveBeenLastCalledWith({ target: "in_hand", after: { number: "TVH-2210-B" } });
    const read = { number: "TVH-2210-C", serial: "0417", by: "Wennick Tarl", at: "" };
    rerender(<InHandPart job={jobSheet({ in_hand: read })} put={said} fitting={fitting} />);
    await userEvent.click(screen.getByRole("button", { name: "Read it again" }));
    expect(said).toHaveBeenLastCalledWith({ target: "in_hand", after: null });
  });
});

describe("fitting a kit", () => {
  const step = (more: Partial<Schemas["KitStepShown"]>): Schemas["KitStepShown"] => ({
    id: "bracket",
    what: "Screw the bracket on",
    measure: "",
    route: "",
    caution: "",
    check: "",
    picture: "",
    facts: [],
    ...more,
  });

  it("asks for the measure before it is done, and keeps it", async () => {
    const said = put();
    const steps = [step({ measure: "42 mm (41 to 44) from the floor", caution: "Its edges are sharp" })];
    render(<KitSteps job={jobSheet({ kit_steps: {} })} put={said} steps={steps} />);
    expect(screen.getByText("Mind: Its edges are sharp.")).toBeTruthy();
    const done = screen.getByRole("button", { name: "Done: Screw the bracket on" });
    expect((done as HTMLButtonElement).disabled).toBe(true);
    await userEvent.type(screen.getByLabelText("Measured, mm"), "42,5");
    await userEvent.click(done);
    expect(said).toHaveBeenCalledWith({
      target: "kit_step.bracket",
      after: { done: true, measured_mm: 42.5 },
      reason: "",
      again: true,
    });
  });

  it("is left out with a reason, or where it may not be needed without one", async () => {
    const said = put();
    const steps = [step({}), step({ id: "lead", what: "Plug the lead on", facts: ["Humidity probe fitted"] })];
    render(<KitSteps job={jobSheet({ kit_steps: {} })} put={said} steps={steps} />);
    const out = screen.getByRole("button", { name: "Left out: Screw the bracket on" });
    expect((out as HTMLButtonElement).disabled).toBe(true);
    await userEvent.click(screen.getByRole("button", { name: "Not needed here: Plug the lead on" }));
    expect(said).toHaveBeenLastCalledWith({ target: "kit_step.lead", after: { done: false }, reason: "", again: true });
  });

  it("says what was done, by whom, and takes it back", async () => {
    const said = put();
    const kept = { bracket: { done: true, measured_mm: 42, by: "Wennick Tarl", at: "" } } as Job["kit_steps"];
    render(<KitSteps job={jobSheet({ kit_steps: kept })} put={said} steps={[step({})]} />);
    expect(screen.getByText(/Done, 42 mm/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Take back: Screw the bracket on" }));
    expect(said).toHaveBeenCalledWith({ target: "kit_step.bracket", after: null });
  });
});
