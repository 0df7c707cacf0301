import { closeOutbox, keep, waiting } from "@/api/outbox";
import { forgetToken } from "@/api/client";
import { entry, jobSheet } from "@/testing/jobs";
import { standInServer } from "@/testing/server";
import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { aloneInTurn, sendAll } from "./sending";

/** A long check (TWIN_LONG=1) tries 10,000 histories, others each time; the short one always the same. */
const LONG = process.env.TWIN_LONG === "1";
const HISTORIES = LONG ? 10_000 : 300;
const PEOPLE = ["wennick", "corm"] as const;
const TARGETS = ["found.S1", "found.R1", "serial"] as const;
/** What becomes of a request: taken, taken with the answer lost, refused, or not now. */
const ANSWERS = ["taken", "lost", "cut", "hung", 401, 403, 408, 409, 413, 422, 429, 500, 503] as const;
type Answer = (typeof ANSWERS)[number];
const REFUSES: readonly Answer[] = [409, 413, 422];

type Sent = { id: string; target: string; maker: string };

/** The depot: it takes each entry once, of whoever is signed in, in the order in which they come. */
class Depot {
  readonly taken: Sent[] = [];
  readonly refused = new Set<string>();
  answers: Answer[] = [];
  signedIn = "";

  /** What a request is answered with: as it was drawn, or taken once nothing more is drawn. */
  ask(entries: Sent[]) {
    const answer = this.answers.shift() ?? "taken";
    if (answer === "cut" || answer === "hung") return "unreachable" as const;
    if (typeof answer === "number") {
      if (REFUSES.includes(answer) && entries.length === 1) this.refused.add((entries[0] as Sent).id);
      return { status: answer, body: { title: "No", detail: `answer ${answer}`, faults: [] } };
    }
    for (const each of entries) {
      expect(each.maker, "sent as who is signed in").toBe(this.signedIn);
      if (this.taken.every(({ id }) => id !== each.id)) this.taken.push(each);
    }
    return answer === "lost" ? ("unreachable" as const) : { body: jobSheet({ id: "j" }) };
  }
}

type Step =
  | { do: "tap"; target: string; sheet: string; at: boolean }
  | { do: "send"; answers: Answer[] }
  | { do: "reload" }
  | { do: "other" }
  | { do: "full"; on: boolean };

const steps = fc.array(
  fc.oneof(
    { weight: 6, arbitrary: fc.record({ do: fc.constant("tap" as const), target: fc.constantFrom(...TARGETS), sheet: fc.constantFrom("j", "j.2"), at: fc.boolean() }) },
    { weight: 3, arbitrary: fc.record({ do: fc.constant("send" as const), answers: fc.array(fc.constantFrom(...ANSWERS), { maxLength: 4 }) }) },
    { weight: 1, arbitrary: fc.constant({ do: "reload" as const }) },
    { weight: 1, arbitrary: fc.constant({ do: "other" as const }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant("full" as const), on: fc.boolean() }) },
  ),
  { minLength: 1, maxLength: 24 },
); // prettier-ignore

describe("whatever happens to a device", () => {
  it("nothing that it acknowledged is lost, doubled, reordered or given to somebody else", { timeout: 3_600_000 }, () =>
    fc.assert(fc.asyncProperty(steps, livedThrough), { numRuns: HISTORIES, ...(LONG ? {} : { seed: 1 }) }),
  );
});

async function livedThrough(history: Step[]) {
  vi.restoreAllMocks();
  await closeOutbox();
  globalThis.indexedDB = new IDBFactory();
  const depot = new Depot();
  const taking = (each: { body: unknown }) => depot.ask([each.body as Sent]);
  const together = (each: { body: unknown }) => {
    const { entries } = each.body as { entries: Sent[] };
    const answer = depot.ask(entries);
    return typeof answer === "string" || "status" in answer
      ? answer
      : { body: { taken: entries.length, sheet: answer.body } };
  };
  standInServer({
    "POST /api/jobs/j/entries": taking,
    "POST /api/jobs/j.2/entries": taking,
    "POST /api/jobs/j/entries/waited": together,
    "POST /api/jobs/j.2/entries/waited": together,
  });
  let person: string = PEOPLE[0];
  let made = 0;
  /** What each person was told that it is kept, in their order; what a full device holds in memory is lost with the page. */
  const acknowledged: { id: string; maker: string; target: string; sheet: string; kept: boolean }[] = [];
  const lost = new Set<string>();
  const send = async (answers: Answer[]) => {
    depot.signedIn = person;
    depot.answers = [...answers];
    await aloneInTurn(() => sendAll("j", person, () => Promise.resolve()));
  };
  for (const step of history) {
    if (step.do === "tap") {
      const id = `${++made}`;
      const maker = person;
      const one = entry(step.target, id, { id });
      const keeping = keep(step.sheet, maker, one).then((kept) =>
        acknowledged.push({ id, maker, target: step.target, sheet: step.sheet, kept }),
      );
      // some taps come before the one before is in the database
      if (step.at) await keeping;
    } else if (step.do === "send") await send(step.answers);
    else if (step.do === "other") person = PEOPLE.find((each) => each !== person) ?? person;
    else if (step.do === "reload") {
      await closeOutbox();
      forgetToken();
      for (const each of acknowledged) if (!each.kept) lost.add(each.id);
    } else if (step.on) {
      vi.spyOn(IDBObjectStore.prototype, "add").mockImplementation(() => {
        throw new DOMException("full", "QuotaExceededError");
      });
    } else vi.restoreAllMocks();
  }
  vi.restoreAllMocks();
  for (const each of PEOPLE) {
    person = each;
    // what was acknowledged last may still be on its way into the database
    await keep("j", each, entry("serial", "last", { id: `last of ${each}` }));
    await send([]);
    const refused = (await waiting(each)).filter((one) => one.refused).map((one) => one.entry.id);
    const due = acknowledged.filter((one) => one.maker === each && !lost.has(one.id) && !refused.includes(one.id));
    const there = depot.taken.filter((one) => one.maker === each && !one.id.startsWith("last"));
    // each once, and nothing that was lost with a page but what had been sent before
    expect(new Set(there.map(({ id }) => id)).size).toBe(there.length);
    for (const one of due)
      expect(
        there.map(({ id }) => id),
        "nothing is lost",
      ).toContain(one.id);
    for (const id of refused) expect(depot.refused.has(id), "only what the depot refused is refused").toBe(true);
    for (const target of TARGETS)
      for (const sheet of ["j", "j.2"]) {
        const order = acknowledged.filter((one) => one.maker === each && one.target === target && one.sheet === sheet);
        const came = there.filter(({ id }) => order.some((one) => one.id === id)).map(({ id }) => id);
        expect(came, "in the order in which they were made").toEqual([...came].sort((a, b) => Number(a) - Number(b)));
      }
  }
}
