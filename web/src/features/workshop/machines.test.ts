import { describe, expect, it } from "vitest";
import { withMachine, withoutMachine, type Behaviour } from "./machines";

const states = { off: { on: [], go: [] } };
const single: Behaviour = { start: "off", states, survive_power_loss: ["off"], clocks: [{ id: "t" }] };

describe("machines of one board", () => {
  it("a second one takes the first along, with its own start and states; clocks stay the board’s", () => {
    const two = withMachine(single, "steam");
    expect(two).toEqual({
      clocks: [{ id: "t" }],
      machines: [
        { id: "main", start: "off", states, survive_power_loss: ["off"] },
        { id: "steam", start: "idle", states: { idle: { on: [], go: [] } } },
      ],
    });
    expect(withMachine(two, "fan").machines?.map((each) => each.id)).toEqual(["main", "steam", "fan"]);
    expect(withMachine(single, "main").machines?.map((each) => each.id)).toEqual(["first", "main"]);
  });

  it("the last one stands by itself again, as it was", () => {
    expect(withoutMachine({ ...withMachine(single, "steam"), internal: ["steam_wanted"] }, 1)).toEqual(single);
    const three = withMachine(withMachine(single, "steam"), "fan");
    expect(withoutMachine(three, 0).machines?.map((each) => each.id)).toEqual(["steam", "fan"]);
  });
});
