import type { Level } from "./task";
import { LEVELS } from "./words";
import type { Action } from "./task";

/** A task under way: interrupted, it goes on where it was left. */
export type UnderWay = { actions: Action[]; begun: number; id: string };

const keyOf = (name: string) => `worthy-twin practice ${name}`;

export function underWay(name: string): UnderWay | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(name)) ?? "null") as UnderWay | null;
    return kept && Array.isArray(kept.actions) && typeof kept.id === "string" ? kept : null;
  } catch {
    return null;
  }
}

/** Keep a task under way, or forget it. */
export function keepUnderWay(name: string, task: UnderWay | null) {
  try {
    if (task === null) localStorage.removeItem(keyOf(name));
    else localStorage.setItem(keyOf(name), JSON.stringify(task));
  } catch {
    // a device that keeps nothing begins anew after an interruption
  }
}

const SEEDS = "worthy-twin practice seeds";

/** The seed of the next task of each level on this device: the same until it was done, so that it can be had along. */
export function seeds(draw: () => number): Record<Level, number> {
  let kept: Partial<Record<Level, number>> = {};
  try {
    kept = JSON.parse(localStorage.getItem(SEEDS) ?? "{}") as Partial<Record<Level, number>>;
  } catch {
    // drawn anew
  }
  const all = Object.fromEntries(
    LEVELS.map((level) => [level, Number.isInteger(kept[level]) ? kept[level] : draw()]),
  ) as Record<Level, number>;
  keepSeeds(all);
  return all;
}

/** Draw another task of a level. */
export function nextSeed(level: Level, draw: () => number): number {
  const next = draw();
  keepSeeds({ ...seeds(draw), [level]: next });
  return next;
}

function keepSeeds(all: Record<Level, number>) {
  try {
    localStorage.setItem(SEEDS, JSON.stringify(all));
  } catch {
    // a device that keeps nothing draws each time
  }
}
