import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import type { Job } from "../api";
import { Next } from "../steps/Next";
import { nextOf, Parts, type PartOfStep } from "../steps/Parts";
import { STEP_NAMES } from "@/ui/stepNames";
import { WORDS } from "@/ui/words";
import { FirstTime } from "./FirstTime";
import { JobHead } from "./JobHead";
import { OpenStep } from "./OpenStep";
import { StepTrack } from "./StepTrack";
import { ToCome } from "./ToCome";

const step = (id: string, name: string, state: string, more = {}) =>
  ({ id, name, state, result: "", waits_for: [], ...more }) as unknown as Job["steps"][number];
const steps = [
  step("rule_out", "Rule out", "done", { result: "Board condemned" }),
  step("recognise", "Recognise", "open"),
  step("choose", "Choose", "waiting", { waits_for: ["recognise"] }),
];

describe("a step that somebody does for the first time", () => {
  const shown = (known: boolean, inHand = true) =>
    renderAsking(
      <OpenStep
        job={jobSheet({ skipped: [] })}
        step={step("none", "Prove", "open")}
        inHand={inHand}
        known={known}
        put={vi.fn()}
      />,
    );
  const hint = () => screen.queryByRole("complementary", { name: "For the first time" });

  it("says what is done there, until it was done once, and only while it is in hand", () => {
    shown(false);
    expect(hint()).toBeTruthy();
    cleanup();
    shown(true);
    expect(hint()).toBeNull();
    cleanup();
    shown(false, false);
    expect(hint()).toBeNull();
  });

  it("has a hint in every step, and each word is met in one", () => {
    const nine = Object.keys(STEP_NAMES).slice(0, 9);
    for (const id of nine) {
      render(<FirstTime step={id} />);
      expect(hint()?.querySelector("p")?.textContent, id).toMatch(/\.$/);
      cleanup();
    }
    for (const { met, word } of WORDS) expect(met === undefined || nine.includes(met), word).toBe(true);
  });
});

describe("what is known", () => {
  it("is the boards, the supply and the verdict; what was reported opens", async () => {
    const known = { original: "TVH-2205", replacement: "OFN-U3", power: "off", verdict: "different" } as Partial<Job>;
    render(<JobHead job={jobSheet({ ...known, complaint: "Locks out" })} saved={null} />);
    const list = within(screen.getByRole("list", { name: "What is known" }));
    expect(list.getAllByRole("listitem").map((each) => each.textContent)).toEqual([
      "TVH-2205",
      "→ OFN-U3",
      "Locked off",
      "off register",
    ]);
    expect(screen.getByText("Locks out")).toBeTruthy();
  });

  it("says that a job is closed, and where one came from", () => {
    const origin = { depot: "Low Harbour", number: "LH-0004" } as unknown as Job["origin"];
    render(<JobHead job={jobSheet({ closed: true, closed_at: "2026-03-02T03:00:00Z", origin })} saved={null} />);
    expect(screen.getByText(/Nothing in this job changes any more/)).toBeTruthy();
    expect(screen.getByText(/Brought in from Low Harbour, where it is LH-0004/)).toBeTruthy();
    expect(screen.getByText("Nothing was reported in words.")).toBeTruthy();
  });
});

describe("the strip of steps", () => {
  it("opens what is done with what came of it, marks the step in hand, and leaves what waits", async () => {
    const onFlip = vi.fn();
    render(<StepTrack steps={steps} inHand="recognise" open={["recognise"]} onFlip={onFlip} />);
    const buttons = screen.getAllByRole("button");
    expect(buttons.map((each) => each.getAttribute("aria-current"))).toEqual([null, "step"]);
    await userEvent.click(screen.getByRole("button", { name: /Rule out ?Board condemned/ }));
    expect(onFlip).toHaveBeenCalledWith("rule_out");
    expect(screen.getByText("Choose, waits")).toBeTruthy();
  });

  it("is followed by what is to come, with what each step waits for", () => {
    render(<ToCome job={jobSheet({ steps })} />);
    expect(screen.getByRole("listitem").textContent).toBe("Choose waits for Recognise");
  });
});

describe("the next thing to do", () => {
  const shown = (job: Job, ends = false) => {
    const onGo = vi.fn();
    render(<Next job={job} step="record" words="settings: 2 to read." button="Show me" ends={ends} onGo={onGo} />);
    return onGo;
  };
  const inHand = jobSheet({ step: "record" });

  it("is one line with one button, and N on a keyboard", async () => {
    const onGo = shown(inHand);
    expect(screen.getByRole("region", { name: "Next" }).textContent).toBe("Next: settings: 2 to read.Show me");
    await userEvent.click(screen.getByRole("button"));
    await userEvent.keyboard("n");
    expect(onGo).toHaveBeenCalledTimes(2);
  });

  it("does not take N from somebody who types", async () => {
    render(<input aria-label="Note" />);
    const onGo = shown(inHand);
    await userEvent.type(screen.getByLabelText("Note"), "nine");
    expect(onGo).not.toHaveBeenCalled();
  });

  it("is not there for a step that is not in hand, but for the button that ends it", () => {
    shown(jobSheet({ step: "choose" }));
    expect(screen.queryByRole("button")).toBeNull();
    shown(jobSheet({ step: "choose" }), true);
    expect(screen.getByRole("button", { name: "Show me" })).toBeTruthy();
    expect(screen.queryByRole("region")).toBeNull();
  });

  it("is nothing in a closed job", () => {
    shown(jobSheet({ step: "record", closed: true }), true);
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("the parts of a step", () => {
  const part = (id: string, done: boolean, more: Partial<PartOfStep> = {}): PartOfStep => ({
    id,
    title: id,
    status: done ? "read" : "1 to read",
    done,
    body: <p>{`in ${id}`}</p>,
    ...more,
  });
  const open = () => screen.getAllByRole("button", { expanded: true }).map((each) => each.textContent);

  it("stand in their order with the next one open, and what asks for nothing folded", async () => {
    render(
      <Parts parts={[part("a", true), part("pictures", false, { asks: false }), part("b", false), part("c", false)]} />,
    );
    expect(open()).toEqual(["b1 to read"]);
    await userEvent.click(screen.getByRole("button", { name: /^a/ }));
    expect(open()).toEqual(["aread ✓", "b1 to read"]);
    expect(nextOf([part("a", true), part("pictures", false, { asks: false })])).toBeUndefined();
  });

  it("go on to the next one, and close what is done unless somebody works in it", () => {
    const { rerender } = render(<Parts parts={[part("a", false), part("b", false)]} />);
    rerender(<Parts parts={[part("a", true), part("b", false)]} />);
    expect(open()).toEqual(["b1 to read"]);
  });

  it("stay open under the hand where that is asked", () => {
    const { rerender } = render(<Parts keep parts={[part("a", false), part("b", false)]} />);
    rerender(<Parts keep parts={[part("a", true), part("b", false)]} />);
    expect(open()).toEqual(["aread ✓", "b1 to read"]);
  });

  it("open nothing by themselves where nothing is asked any more", () => {
    render(<Parts still parts={[part("a", false), part("b", true, { open: true })]} />);
    expect(open()).toEqual(["bread ✓"]);
  });
});
