/** What somebody made on this device and the depot does not have yet, beside entries of jobs. */
import { keptNames, keptValue } from "./kept";
import { waiting } from "./outbox";

export type Unsent = {
  /** Changes to drafts of the workshop, by the draft. */
  drafts: { draft: string; count: number }[];
  /** Tasks of practice that were ended. */
  tasks: number;
  /** Vans whose shelf is being counted. */
  vans: string[];
};

const DRAFT = "workshop ";
const TASKS = "practice waiting";
const COUNT = "count ";

/** What is unsent beside entries; all of it is kept under the person's name. */
export function unsentBeside(person: string): Unsent {
  const names = keptNames(person);
  const count = (name: string) => keptValue<unknown[]>(name, person)?.length ?? 0;
  return {
    drafts: after(names, DRAFT).map((draft) => ({ draft, count: count(DRAFT + draft) })),
    tasks: count(TASKS),
    vans: after(names, COUNT),
  };
}

const after = (names: string[], start: string) =>
  names.filter((name) => name.startsWith(start)).map((name) => name.slice(start.length));

/** How many things of somebody's are on this device alone. */
export async function countUnsent(person: string): Promise<number> {
  const { drafts, tasks, vans } = unsentBeside(person);
  const changes = drafts.reduce((sum, each) => sum + each.count, 0);
  return (await waiting(person)).length + changes + tasks + vans.length;
}
