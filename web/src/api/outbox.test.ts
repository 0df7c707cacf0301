import { entry } from "@/testing/jobs";
import { describe, expect, it, vi } from "vitest";
import { Problem } from "./client";
import { takenWhole } from "@/with_you/takings";
import { closeOutbox, drop, keep, onPending, pendingHere, readPending, refuse, waiting } from "./outbox";

const targets = async (maker: string, job?: string) => (await waiting(maker, job)).map((each) => each.entry.target);

describe("the outbox", () => {
  it("keeps entries in their order until they are dropped, over a restart of the page", async () => {
    expect(await keep("a", "wennick", entry("found.S1", "01"))).toBe(true);
    await keep("a", "wennick", entry("found.R1", "2"));
    await keep("b", "wennick", entry("serial", "77"));
    await closeOutbox();
    expect(await targets("wennick", "a")).toEqual(["found.S1", "found.R1"]);
    const [first] = await waiting("wennick", "a");
    if (first) await drop(first);
    expect(await targets("wennick")).toEqual(["found.R1", "serial"]);
  });

  it("never lacks what was made, nor has it twice, while it is on its way into the database", async () => {
    await readPending("wennick");
    const seen: string[][] = [];
    // looked at whenever anything changes, and all the time between
    const look = () => seen.push(pendingHere("wennick", "a").map((each) => each.entry.id));
    const stop = onPending(look);
    let ended = false;
    const between = () => {
      look();
      if (!ended) setImmediate(between);
    };
    between();
    const made = [];
    for (const id of ["1", "2", "3"]) {
      made.push(keep("a", "wennick", entry("found.S1", id, { id })));
      await Promise.resolve().then(look);
    }
    await Promise.all(made);
    for (let turn = 0; turn < 20; turn += 1) await new Promise((resolve) => setTimeout(resolve, 0)).then(look);
    ended = true;
    stop();
    const lists = seen.map((ids) => ids.join(" ")).filter((each, index, all) => each !== all[index - 1]);
    expect(lists).toEqual(["", "1", "1 2", "1 2 3"]);
    expect(seen.at(-1)).toEqual(["1", "2", "3"]);
  });

  it("has what waited and was taken along in an earlier version", async () => {
    await new Promise<void>((resolve) => {
      const old = indexedDB.open("worthy-twin", 3);
      old.onupgradeneeded = () => {
        old.result.createObjectStore("entries", { keyPath: "order", autoIncrement: true });
        old.result.createObjectStore("jobs", { keyPath: ["person", "job"] });
        old.result.createObjectStore("answers", { keyPath: ["person", "address"] });
        old.result.createObjectStore("files", { keyPath: ["person", "address"] });
      };
      old.onsuccess = () => {
        const writing = old.result.transaction(["entries", "jobs"], "readwrite");
        writing.objectStore("entries").add({ job: "a", maker: "wennick", entry: entry("found.S1", "01") });
        const taken = { person: "wennick", job: "a", asOf: "16:40", entries: 3, since: [], asked: true, bytes: 9 };
        writing.objectStore("jobs").add({ ...taken, lookedAt: 0, document: '{"job": 1}' });
        writing.oncomplete = () => (old.result.close(), resolve());
      };
    });
    expect(await targets("wennick", "a")).toEqual(["found.S1"]);
    const whole = await takenWhole("wennick", "a");
    expect([whole?.[0].entries, whole?.[1]]).toEqual([3, '{"job": 1}']);
    expect(whole?.[0]).not.toHaveProperty("document");
  });

  it("shows nobody what another person made", async () => {
    await keep("a", "wennick", entry("found.S1", "01"));
    await keep("a", "corm", entry("found.S1", "11"));
    expect((await waiting("corm", "a")).map((each) => each.entry.after)).toEqual(["11"]);
    expect(await waiting("ildro")).toEqual([]);
    expect((await waiting("wennick")).map((each) => each.entry.after)).toEqual(["01"]);
  });

  it("keeps with an entry why it was refused", async () => {
    await keep("a", "wennick", entry("hold.isolate", {}));
    const [each] = await waiting("wennick");
    if (!each) throw new Error("nothing was kept");
    await refuse(each, new Problem(422, "Not possible", "Say where.", [{ place: "where", expected: "a text" }]));
    await closeOutbox();
    const [again] = await waiting("wennick");
    expect(again?.refused).toEqual({
      status: 422,
      title: "Not possible",
      detail: "Say where.",
      faults: [{ place: "where", expected: "a text" }],
    });
  });

  it("says where the browser keeps nothing, and holds the entry as long as the page is open", async () => {
    vi.spyOn(indexedDB, "open").mockImplementation(() => {
      throw new Error("storage is full");
    });
    expect(await keep("a", "wennick", entry("found.S1", "01"))).toBe(false);
    const [each] = await waiting("wennick", "a");
    expect(each?.entry.after).toBe("01");
    if (each) await refuse(each, new Problem(422, "Not possible", "No."));
    expect((await waiting("wennick"))[0]?.refused?.detail).toBe("No.");
    if (each) await drop(each);
    expect(await waiting("wennick")).toEqual([]);
  });

  it("takes away entries of the first version, for nobody can say whose they are", async () => {
    await new Promise<void>((resolve) => {
      const old = indexedDB.open("worthy-twin", 1);
      old.onupgradeneeded = () => old.result.createObjectStore("entries", { keyPath: "order", autoIncrement: true });
      old.onsuccess = () => {
        const writing = old.result.transaction("entries", "readwrite");
        writing.objectStore("entries").add({ job: "a", entry: entry("found.S1", "01") });
        writing.oncomplete = () => (old.result.close(), resolve());
      };
    });
    expect(await waiting("wennick")).toEqual([]);
    expect(await keep("a", "wennick", entry("found.S1", "11"))).toBe(true);
  });
});
