import { render, screen, waitFor } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { drawable, type Machine } from "./machine";
import { boxOf, layOut } from "./stateLayout";
import { StateDiagram } from "./StateDiagram";

const TITLES = { call: "Call for heat", fan: "Fan", purge: "Pre-purge", tries: "Tries", restart: "After flame loss" };
const burner: Machine = {
  start: "standby",
  survive_power_loss: ["lockout"],
  states: {
    standby: { title: "Standby", go: [{ to: "purge", if: { call: true } }] },
    purge: {
      on: ["fan", { output: "fan" }],
      go: [
        { to: "light", after: "purge" },
        { to: "standby", if: { call: false } },
      ],
    },
    light: {
      on: ["fan"],
      go: [{ to: "lockout", after: 4, clock: "trial", count: { reached: "tries" } }, { to: "purge" }],
    },
    lockout: { go: [{ to: "standby", when: { restart: "manual" } }] },
    spare: {},
  },
};
const ways = () => screen.getAllByRole("listitem").map((each) => each.textContent?.replace(/^\d+ /, ""));
const pick = (state: string) => userEvent.selectOptions(screen.getByLabelText("State"), state);

describe("a machine as a state diagram", () => {
  it("draws every state once, with what is on in it whole, and an arrow for each way", async () => {
    const { container } = render(<StateDiagram machine={burner} titles={TITLES} />);
    await waitFor(() => expect(container.querySelector("svg")).toBeTruthy());
    const texts = [...container.querySelectorAll("svg text")].map((each) => each.textContent);
    expect(texts).toEqual([
      "Standby",
      "nothing on",
      "purge",
      "Fan, Fan, at times",
      "light",
      "Fan",
      "lockout",
      "nothing on",
      "spare",
      "nothing on",
      // the arrow out of the state in hand has its number
      "1",
    ]);
    expect(container.querySelectorAll("svg path[d]").length).toBe(1 + 6);
    // what survives a power loss has a broken frame
    expect(container.querySelectorAll("rect[stroke-dasharray]").length).toBe(1);
  });

  it("tells the ways out of the state that is chosen, in words", async () => {
    render(<StateDiagram machine={burner} titles={TITLES} />);
    expect(ways()).toEqual(["To purge when Call for heat: yes"]);
    await pick("light");
    expect(ways()).toEqual(["To lockout when after 4 s on clock trial, counted to Tries", "To purge at once"]);
    await pick("lockout");
    expect(screen.getByText("kept when the supply is lost")).toBeTruthy();
    expect(ways()).toEqual(["To Standby where After flame loss is manual"]);
    await pick("spare");
    expect(ways()).toEqual(["No way out of this state."]);
  });

  it("draws an arrow from the state in hand to the next one that is taken, and takes one out", async () => {
    const drawn = vi.fn();
    const out = vi.fn();
    render(<StateDiagram machine={burner} titles={TITLES} onArrow={drawn} onTakeOut={out} />);
    await pick("light");
    await userEvent.click(screen.getByRole("button", { name: "Draw an arrow from light" }));
    await userEvent.selectOptions(screen.getByLabelText("It leads to"), "spare");
    expect(drawn.mock.calls).toEqual([["light", "spare"]]);
    // the state in hand stays in hand
    await userEvent.click(screen.getByRole("button", { name: "Take it out: arrow 2 of light" }));
    expect(out.mock.calls).toEqual([["light", 1]]);
    await userEvent.click(screen.getByRole("button", { name: "Draw an arrow from light" }));
    await userEvent.click(screen.getByRole("button", { name: "Not after all" }));
    await pick("purge");
    expect(drawn.mock.calls.length).toBe(1);
  });
});

/** Every place of a document, and the document with something else there. */
function* withOther(node: unknown, other: unknown): Generator<unknown> {
  yield other;
  if (Array.isArray(node))
    for (const [at, each] of node.entries())
      for (const changed of withOther(each, other))
        yield node.map((one, index) => (index === at ? changed : one) as unknown);
  else if (typeof node === "object" && node !== null)
    for (const [name, each] of Object.entries(node))
      for (const changed of withOther(each, other)) yield { ...node, [name]: changed };
}

describe("a draft that is half typed", () => {
  it("is drawn whatever stands at any place of it", { timeout: 60_000 }, async () => {
    // a defect: "Val" of "Valve" in what is on in a state, and the page did not open any more
    const others: unknown[] = ["", "Val", 7, true, null, [], ["x"], {}, { to: 3 }, [null], [[]]];
    for (const other of others)
      for (const changed of withOther(burner, other)) {
        const { unmount } = render(<StateDiagram machine={changed as Machine} titles={TITLES} />);
        unmount();
        const machine = drawable(changed);
        await layOut(
          machine,
          Object.fromEntries(Object.entries(machine.states).map(([name, state]) => [name, boxOf(name, state, TITLES)])),
        );
      }
  });

  it("and whatever JSON it is", () => {
    fc.assert(
      fc.property(fc.jsonValue(), (found) => {
        const { unmount } = render(<StateDiagram machine={found as unknown as Machine} titles={TITLES} />);
        unmount();
      }),
      { numRuns: 200 },
    );
  });

  it("a machine that is whole is drawn as it stands", () => {
    expect(drawable(burner)).toMatchObject(burner);
    expect(drawable({ start: "a", states: { a: { on: "Val" } } }).states.a?.on).toEqual(["Val"]);
  });
});
