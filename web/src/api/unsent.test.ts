import { entry } from "@/testing/jobs";
import { describe, expect, it } from "vitest";
import { keepText, keepValue } from "./kept";
import { keep } from "./outbox";
import { countUnsent, unsentBeside } from "./unsent";

describe("what is unsent on a device", () => {
  it("is everything that somebody made, whatever it is of, and nobody else's", async () => {
    expect(await countUnsent("wennick")).toBe(0);
    await keep("j", "wennick", entry("found.S1", "01"));
    keepValue("workshop 12", [{ id: "a" }, { id: "b" }], "wennick");
    keepValue("practice waiting", [{ id: "t" }], "wennick");
    keepValue("count v1", { id: "c", pieces: {} }, "wennick");
    keepText("typed /jobs/j why", "half", "wennick");
    keepValue("workshop 12", [{ id: "c" }], "corm");
    expect(unsentBeside("wennick")).toEqual({ drafts: [{ draft: "12", count: 2 }], tasks: 1, vans: ["v1"] });
    expect([await countUnsent("wennick"), await countUnsent("corm")]).toEqual([5, 1]);
  });
});
