import { forgetPerson } from "@/with_you/forgetting";
import { describe, expect, it } from "vitest";
import { forgetKept, keepText, keepValue, keptNames, keptText, keptValue, notePersonHere, takeOverKept } from "./kept";

describe("what is kept of a person", () => {
  it("is theirs alone, and forgotten at once", () => {
    notePersonHere("wennick");
    keepText("typed /jobs/1 why", "burnt");
    keepValue("count van", { id: "1" });
    keepText("typed /jobs/1 why", "mine", "corm");
    expect(keptNames("wennick").sort()).toEqual(["count van", "typed /jobs/1 why"]);
    notePersonHere("corm");
    expect(keptText("typed /jobs/1 why")).toBe("mine");
    expect(keptValue("count van")).toBeNull();
    forgetKept("wennick");
    expect([keptNames("wennick"), keptNames("corm")]).toEqual([[], ["typed /jobs/1 why"]]);
  });

  it("leaves nothing on the device once it is to be forgotten", async () => {
    notePersonHere("wennick");
    keepText("last job", "j make_safe");
    keepText("typed /jobs/1 why", "burnt");
    await forgetPerson("wennick", true);
    expect(Object.keys(localStorage)).toEqual([]);
  });

  it("waits for its maker where they only sign out", async () => {
    notePersonHere("wennick");
    keepText("typed /jobs/1 why", "burnt");
    await forgetPerson("wennick", false);
    expect([keptText("typed /jobs/1 why"), keptText("typed /jobs/1 why", "wennick")]).toEqual([null, "burnt"]);
  });

  it("takes over what waited under an earlier version", () => {
    localStorage.setItem("workshop corm 12", '[{"id":"e"}]');
    localStorage.setItem("worthy-twin practice waiting wennick", '[{"id":"a"}]');
    takeOverKept();
    expect(keptValue("workshop 12", "corm")).toEqual([{ id: "e" }]);
    expect(keptValue("practice waiting", "wennick")).toEqual([{ id: "a" }]);
    expect(Object.keys(localStorage)).toHaveLength(2);
  });

  it("is nothing where it cannot be read", () => {
    keepText("count van", "{half");
    expect(keptValue("count van")).toBeNull();
  });
});
