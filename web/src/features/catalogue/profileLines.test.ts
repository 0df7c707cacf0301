import { describe, expect, it } from "vitest";
import { chartTables, plugTables, sectionsOf } from "./profileLines";

const titles = { "fan.line": "Fan, line side", made: "Year of make" };

describe("a profile to be proofread", () => {
  it("says what it holds and nothing else", () => {
    expect(sectionsOf({}, titles)).toEqual([]);
    const found = sectionsOf(
      {
        supply: { volts: [198, 253], hertz: [50], phases: 1 },
        made: { from: 1998 },
        stored_energy: { capacitance_uf: 22, volts: 325 },
        relays: [{ id: "RL1", signal: "fan.line", amps: { motor: 3 } }],
        acts: [{ point: "S1.6", when: "on", what: "Test run", ends: "after ten minutes" }],
        kit: [{ item: "adapter lead E", count: 2, needed_if: { plug: "QL-8" } }],
        learning: { knows: { "T-1": { P01: 30 } }, finds: ["made"] },
      },
      titles,
    );
    expect(Object.fromEntries(found.map((each) => [each.title, each.lines]))).toEqual({
      "Supply, size and surroundings": ["198 to 253 V, 50 Hz, phases: 1", "Made from 1998"],
      "Stored energy": ["22 µF, 325 V"],
      Contacts: ["RL1: Fan, line side, 3 A motor"],
      "Test switches: what acts by itself": ["S1.6 on: Test run; ends after ten minutes"],
      "Kit and companions": ["2 × adapter lead E, where plug QL-8"],
      Learning: ["told T-1: P01 30", "finds Year of make"],
    });
  });

  it("shows plugs pin by pin, and charts as leaflets print them", () => {
    const plug = {
      id: "C1",
      style: "QL-8",
      keyed: true,
      pins: [{ pin: 1, mark: "L", signal: "fan.line" }, { pin: 2 }],
    };
    expect(plugTables({ connectors: [plug] }, titles)[0]).toEqual({
      title: "C1, QL-8, keyed",
      headings: ["Pin", "Printed", "Signal"],
      rows: [
        ["1", "L", "Fan, line side"],
        ["2", "", ""],
      ],
    });
    const columns = [
      { heading: "Year of make", role: "fact" as const, name: "made" },
      { heading: "S1", role: "set" as const, name: "S1" },
      { heading: "Remarks", role: "note" as const, name: "" },
    ];
    const chart = { id: "leaflet 7", title: "", columns, rows: [["2001–2005", "0110", "see page 2"]] };
    expect(chartTables([chart])[0]).toEqual({
      title: "leaflet 7",
      headings: ["Year of make", "S1", "Remarks"],
      rows: [["2001–2005", "0110", "see page 2"]],
    });
  });
});
