import type { Schemas } from "@/api/client";
import { renderAsking } from "@/testing/queries";
import { screen, waitFor, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { describe, expect, it, vi } from "vitest";
import { Player, signalsOf, type FamilyDocument } from "./Player";

const family: FamilyDocument = {
  inputs: [{ id: "power" }, { id: "call", title: "Call for heat" }],
  outputs: [
    { id: "fan", title: "Fan" },
    { id: "lamp", compare: false },
  ],
  rest: { call: false },
  scenarios: [{ id: "bake", title: "A bake", steps: [{ at: 1, set: { call: true } }], until: 60 }],
};
const shows = (...on: [number, string[]][]): Schemas["PlayShown"]["original"] =>
  on.map(([at, each]) => ({ at, on: each, states: [each.includes("fan") ? "Post-purge" : "Standby"] }));
const counterCase = {
  at: 31,
  steps: [{ at: 0, set: { power: true, call: true } }],
} as unknown as Schemas["CounterCaseShown"];

function shown(played: Partial<Schemas["PlayShown"]>, more: Partial<Parameters<typeof Player>[0]> = {}) {
  const play = vi.fn((given: Schemas["ScenarioGiven"]) =>
    Promise.resolve({
      original: shows(),
      replacement: shows(),
      rounds: [],
      until: given.until,
      ...played,
    } as Schemas["PlayShown"]),
  );
  renderAsking(<Player family={family} pairKey={["a", "b"]} play={play} {...more} />);
  return play;
}
const status = async () => {
  await waitFor(() => expect(screen.getByRole("status").textContent).not.toBe("Both boards are played …"));
  return screen.getByRole("status").textContent;
};

describe("a scenario played on both boards", () => {
  it("says that both show the same", async () => {
    shown({ original: shows([0, []], [5, ["fan"]]), replacement: shows([0, []], [5, ["fan"]]) });
    expect(await status()).toBe("Both boards show the same over this scenario.");
  });

  it("says when they part, and does not look at what is not compared", async () => {
    shown({
      original: shows([0, ["lamp"]], [5, ["fan"]], [35, []]),
      replacement: shows([0, []], [5, ["fan"]], [95, []]),
    });
    expect(await status()).toBe("The two part at 35 s.");
  });

  it("says where a board goes round without end, and claims nothing past that", async () => {
    const rounds = [{ side: "replacement" as const, at: 12, states: ["Purge", "Trial"] }];
    const play = shown(
      { original: shows([0, []], [35, ["fan"]]), replacement: shows([0, []]), rounds },
      { endless: [{ board: "S-1", steps: [{ at: 12, set: { call: true } }], at: 12 }] },
    );
    expect(await status()).toBe("");
    expect(screen.getByText(/goes round without end from 12 s on: Purge, Trial, and again/)).toBeTruthy();
    expect(screen.getByRole("option", { name: "S-1 goes round without end" })).toBeTruthy();
    expect(play).toHaveBeenCalledWith({ steps: [{ at: 12, set: { call: true } }], until: 17 }, expect.anything());
  });

  it("is gone through change by change, from where they part, with the states of both machines", async () => {
    shown({
      original: shows([0, []], [5, ["fan"]], [35, []]),
      replacement: shows([0, []], [5, ["fan"]]),
    });
    await status();
    const panel = within(screen.getByRole("region", { name: "Change by change" }));
    expect(panel.getByText("35 s")).toBeTruthy();
    expect(panel.getByText("They part here.")).toBeTruthy();
    expect(panel.getByText("Post-purge")).toBeTruthy();
    expect(panel.getByText("Fan on, here alone")).toBeTruthy();
    expect(panel.getByRole("button", { name: "The change after" }).getAttribute("aria-disabled")).toBe("true");
    await userEvent.click(panel.getByRole("button", { name: "The change before" }));
    expect(panel.getByText("5 s")).toBeTruthy();
    await userEvent.keyboard("{ArrowLeft}{ArrowLeft}{ArrowRight}");
    expect(panel.getByText("1 s")).toBeTruthy();
    expect(panel.getByText(/Call for heat begins/)).toBeTruthy();
  });

  it("begins with the counter-case, one change a step, some time past its end", async () => {
    const play = shown({}, { counterCase });
    await status();
    expect(play.mock.calls[0]?.[0]).toEqual({
      steps: [
        { at: 0, set: { power: true } },
        { at: 0, set: { call: true } },
      ],
      until: 39,
    });
    expect(screen.getAllByRole("option").slice(0, 2)).toHaveLength(2);
  });

  it("is played anew when somebody keys in another change", async () => {
    const play = shown({});
    await status();
    await userEvent.click(screen.getByText("Change the scenario"));
    const at = screen.getByRole("textbox", { name: "At, in s" });
    await userEvent.clear(at);
    expect(screen.getByRole("alert").textContent).toBe("Give the time in seconds, 0 or more.");
    await userEvent.type(at, "12,5");
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Change" }), "ends");
    await userEvent.click(screen.getByRole("button", { name: "Add" }));
    await waitFor(() => expect(play.mock.lastCall?.[0].steps).toHaveLength(2));
    expect(play.mock.lastCall?.[0].steps[1]).toEqual({ at: 12.5, set: { call: false } });
    expect(screen.getByRole<HTMLSelectElement>("combobox", { name: "Scenario" }).value).toBe("own");
  });

  it("moves, and takes out, a change in the list", async () => {
    const play = shown({});
    await status();
    await userEvent.click(screen.getByText("Change the scenario"));
    const time = screen.getByRole("textbox", { name: "Time of change 1" });
    await userEvent.clear(time);
    await userEvent.type(time, "nine{Enter}"); // no number: it stays where it was
    expect(within(screen.getByRole("list")).getByDisplayValue("1")).toBeTruthy();
    await userEvent.clear(time);
    await userEvent.type(time, "9{Enter}");
    await waitFor(() => expect(play.mock.lastCall?.[0].steps).toEqual([{ at: 9, set: { call: true } }]));
    await userEvent.click(screen.getByRole("button", { name: "Take out change 1" }));
    await waitFor(() => expect(play.mock.lastCall?.[0].steps).toEqual([]));
  });

  it("tells what went wrong", async () => {
    const play = () => Promise.reject(new Error("The core was away."));
    renderAsking(<Player family={family} pairKey={["a", "b"]} play={play} />);
    expect((await screen.findByRole("alert")).textContent).toContain("The core was away.");
  });

  it("takes the rest of an input from the family, and power as on", () => {
    const { inputs, compared } = signalsOf(family);
    expect(inputs).toEqual([
      { id: "power", title: "power", rest: true },
      { id: "call", title: "Call for heat", rest: false },
    ]);
    expect(compared).toEqual(["fan"]);
  });
});
