/** The core's own copy of a job: what was taken along, with every entry that was made since, in their order. */
import type { Entry, Taken } from "@/api/database";
import { waiting } from "@/api/outbox";
import { depotNow } from "./clock";
import { core, inTurn, Interrupted, onCoreGone, type Said } from "./core";
import { keepAnswer, keptAnswer, markOf, takenWhole } from "./takings";

type Made = { job: string; entry: Entry }[];
type Told = { asOf: string; added: string[] };
const told = new Map<string, Told>();
/** What the core said of entries that it would not take, by their ids. */
const refusals = new Map<string, Said>();
/** How many entries are to be entered: what is asked waits for them. */
let entering = 0;

/** For how long what was let go of waits after an entry. */
const SETTLES_MS = 200;

/** What hangs on the moment at which it is asked: it is never kept. */
const OF_THE_MOMENT = /\/make-safe$/;

/** What an address of a job answers here; kept answers first, for the core takes seconds to load. */
export async function askAlong(taken: Taken, method: string, address: string, body: string): Promise<Said> {
  const keeps = method === "GET" && !OF_THE_MOMENT.test(address);
  for (;;) {
    const made = (await waiting(taken.person, taken.job)).filter((each) => !each.refused);
    const mark = markOf(taken, made);
    const kept = keeps ? await keptAnswer(taken.person, address) : undefined;
    if (kept?.mark === mark) return [kept.status, kept.body];
    const said = await inTurn(() => (entering ? null : asked(taken, made, method, address, body)));
    if (!said) {
      // the sheet itself is asked for first: it takes no time, and is what is looked at
      await new Promise((resolve) => setTimeout(resolve, SETTLES_MS));
      continue;
    }
    if (keeps) await keepAnswer({ person: taken.person, address, mark, status: said[0], body: said[1] });
    return said;
  }
}

/** The core's answer; null where it was interrupted. */
async function asked(taken: Taken, made: Made, method: string, address: string, body: string): Promise<Said | null> {
  await bring(taken, made);
  try {
    return await core.ask(method, address, body, depotNow());
  } catch (error) {
    if (error instanceof Interrupted) return null;
    throw error;
  }
}

/** Have an entry entered here, before anything that is asked; why the core would not take it, or null. */
export async function enterAlong(taken: Taken, id: string): Promise<Said | null> {
  const made = (await waiting(taken.person, taken.job)).filter((each) => !each.refused);
  entering += 1;
  core.interrupt();
  await inTurn(() => bring(taken, made)).finally(() => (entering -= 1));
  return refusals.get(id) ?? null;
}

/** Forget what the core was told, as when somebody else signs in. */
export function forgetAlong() {
  told.clear();
  refusals.clear();
}

onCoreGone(forgetAlong);

async function bring(taken: Taken, made: Made): Promise<void> {
  const waits = made.map(({ job, entry }) => ({ sheet: job, entry }));
  let wanted = [...taken.since, ...waits];
  let there = told.get(taken.job);
  const goesOn = there?.asOf === taken.asOf && there.added.every((id, index) => wanted[index]?.entry.id === id);
  if (!there || !goesOn) {
    // it may have been taken along anew since this was asked
    const [now, document] = (await takenWhole(taken.person, taken.job)) ?? [taken, ""];
    await core.putIn(document);
    wanted = [...now.since, ...waits];
    there = { asOf: now.asOf, added: [] };
    told.set(taken.job, there);
  }
  for (const { sheet, entry } of wanted.slice(there.added.length)) {
    const said = await core.add(sheet, JSON.stringify(entry), madeAt(entry));
    if (said[0] >= 400) refusals.set(entry.id, said);
    else refusals.delete(entry.id);
    there.added.push(entry.id);
  }
}

/** When an entry was made, by the depot's clock. */
function madeAt(entry: Entry): string {
  if (!entry.made_at) return depotNow();
  return new Date(Date.parse(entry.made_at) - (entry.clock_ahead_ms ?? 0)).toISOString();
}
