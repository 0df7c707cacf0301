import { describe, expect, it } from "vitest";
import { drop, keep, waiting } from "./kept";

const edit = (id: string) => ({ id, what: "place" as const, body: { after: id }, seen: 3 });

describe("edits that wait on a device", () => {
  it("are kept in their order under who made them, and gone when they are answered", () => {
    keep("wennick", "d", edit("a"));
    keep("wennick", "d", edit("b"));
    keep("wennick", "d", edit("a"));
    keep("corm", "d", edit("c"));
    expect(waiting("wennick", "d").map((each) => each.id)).toEqual(["b", "a"]);
    drop("wennick", "d", "b");
    drop("wennick", "d", "a");
    expect(waiting("wennick", "d")).toEqual([]);
    expect(localStorage.length).toBe(1);
    expect(waiting("corm", "d")[0]?.body).toEqual({ after: "c" });
  });

  it("are none where what the device has cannot be read", () => {
    localStorage.setItem("workshop wennick d", "{");
    expect(waiting("wennick", "d")).toEqual([]);
  });
});
