import type { Grade, Plan, PlanLine, Van } from "./api";

export const GRADE_WORDS: Record<Grade, string> = {
  proved: "proved twin, goes in as it is",
  work: "proved twin, with work",
  listed: "not known to fail",
};

/** The least that is enough, as it is chosen. */
export const ENOUGH: [grade: Grade, words: string][] = [
  ["proved", "proved twins that go in as they are"],
  ["work", "proved twins, with work allowed"],
  ["listed", "whatever is not known to fail"],
];

const STATES: Record<string, string> = {
  waiting: "waits for its turn",
  judging: "who serves whom",
  planning: "which boards each van carries",
  done: "done",
  stopped: "was stopped",
  failed: "could not be worked out",
};

export const stateWords = (plan: { state: string }) => STATES[plan.state] ?? plan.state;

const percent = (share: number, digits = 0) => `${(100 * share).toFixed(digits)} %`;

/** The share of failures that are put right at the first visit. */
export function rateWords({ failures, served }: { failures: number | null; served: number | null }): string {
  return failures && served !== null ? percent(served / failures) : "";
}

/** How good a plan is against any other. */
export function proofWords(gap: number): string {
  return gap < 0.00005 ? "proved best" : `within ${percent(gap, gap < 0.001 ? 2 : 1)} of the best`;
}

/** What was asked of a plan, in a line. */
export function askedWords({ asked }: Pick<PlanLine, "asked">): string {
  const { grade, days, lend, budget } = asked as { grade: Grade; days: number; lend: boolean; budget: number | null };
  const enough = ENOUGH.find(([each]) => each === grade)?.[1] ?? grade;
  const money = budget === null ? "" : `, ${moneyWords(budget)} in all vans together`;
  return `${enough}; ${days} days${money}${lend ? "; vans lend to each other" : ""}`;
}

/** An amount of money, in groups. */
export const moneyWords = (amount: number) => amount.toLocaleString("en-GB", { maximumFractionDigits: 0 });

/** What a van has and lacks. */
export function vanWords({ pieces, lacks, machines }: Van): string {
  const has = pieces === 0 ? "nothing in it" : `${pieces} ${pieces === 1 ? "board" : "boards"} in it`;
  return `${has}${lacks ? `, ${lacks} to put in` : ""}; looks after ${machines} ${machines === 1 ? "machine" : "machines"}`;
}

/** Where a piece goes: bought, given back, or from van to van. */
export function changeWords(
  { source, target }: { source: string | null; target: string | null },
  names: Plan["names"],
): string {
  const nameOf = (van: string) => names[van] ?? "a van that is gone";
  if (source === null) return `buy for ${target === null ? "nobody" : nameOf(target)}`;
  return target === null ? `return from ${nameOf(source)}` : `move from ${nameOf(source)} to ${nameOf(target)}`;
}

/** What is wrong with how many there are, by the plan that was taken; empty where nothing is. */
export function lackWords({ count, wanted }: { count: number; wanted: number | null }): string {
  if (wanted === null || wanted === count) return "";
  return wanted > count ? `put in ${wanted - count}` : `${count - wanted} too many`;
}

/** A fact of a machine, as people say it. */
export function factWords(facts: Record<string, unknown>): string {
  const told = (value: unknown) => (typeof value === "boolean" ? (value ? "yes" : "no") : String(value));
  return Object.entries(facts)
    .map(([name, value]) => `${name} ${told(value)}`)
    .join(", ");
}
