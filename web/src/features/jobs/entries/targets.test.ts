import { TARGETS } from "@/api/targets";
import { entry, jobSheet } from "@/testing/jobs";
import { describe, expect, it } from "vitest";
import { applied, asSaid, valueAt } from "./targets";

describe("targets on the sheet", () => {
  it("finds every kind where the server says that it stands", () => {
    for (const [kind, { key, named }] of Object.entries(TARGETS)) {
      if (kind === "run") continue; // only ever added: the sheet does not carry them
      const job = jobSheet({ [key]: named ? { "x.y": "there" } : "there" });
      expect(valueAt(job, named ? `${kind}.x.y` : kind), kind).toBe("there");
      expect(valueAt(job, named ? `${kind}.other` : `${kind}.x`), kind).toBe(named ? null : "there");
    }
    expect(valueAt(jobSheet(), "run.1")).toBeNull();
  });

  it("leaves out what is kept beside a value", () => {
    const held = { where: "main switch", by: "Wennick Tarl", at: "2026-03-02T03:00:00Z" };
    const job = jobSheet({ holds: { isolate: held } });
    expect(valueAt(job, "hold.isolate")).toEqual({ where: "main switch" });
    expect(asSaid("01")).toBe("01");
    expect(asSaid([1])).toEqual([1]);
  });

  it("reads a step's confirmation from the step", () => {
    const done = { id: "rule_out", state: "done", note: "scorched", end: "condemned" } as const;
    const job = jobSheet({ steps: [{ ...done, name: "Rule out", result: "", waits_for: [], by: "", at: null }] });
    expect(valueAt(job, "confirmed.rule_out")).toEqual({ note: "scorched", end: "condemned" });
    expect(valueAt(job, "confirmed.fit")).toBeNull();
  });

  it("shows an entry before the server has answered, with its turn kept", () => {
    const job = jobSheet({ wires: { w1: { connector: "C1", pin: "1", n: 4 } } });
    const after = applied(job, entry("wire.w1", { connector: "C1", pin: "2" }));
    expect(after.wires).toEqual({ w1: { connector: "C1", pin: "2", n: 4 } });
    expect(applied(after, entry("wire.w1", null)).wires).toEqual({});
    expect(job.wires.w1?.pin).toBe("1");
    expect(applied(job, entry("answers", "no")).answers).toBe("no");
  });

  it("leaves to the server what more hangs on", () => {
    const job = jobSheet();
    for (const each of [entry("original", "A"), entry("confirmed.fit", { note: "" }), entry("power", "on")])
      expect(applied(job, each)).toBe(job);
  });
});
