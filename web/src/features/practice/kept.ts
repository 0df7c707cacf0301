import { keepValue, keptValue } from "@/api/kept";
import type { Level } from "./task";
import { LEVELS } from "./words";
import type { Action } from "./task";

/** A task under way: interrupted, it goes on where it was left. */
export type UnderWay = { actions: Action[]; begun: number; id: string };

const keyOf = (name: string) => `practice task ${name}`;

export function underWay(name: string): UnderWay | null {
  const kept = keptValue<UnderWay>(keyOf(name));
  return kept && Array.isArray(kept.actions) && typeof kept.id === "string" ? kept : null;
}

/** Keep a task under way, or forget it. */
export const keepUnderWay = (name: string, task: UnderWay | null) => keepValue(keyOf(name), task);

const SEEDS = "practice seeds";

/** The seed of the next task of each level on this device: the same until it was done, so that it can be had along. */
export function seeds(draw: () => number): Record<Level, number> {
  const kept = keptValue<Partial<Record<Level, number>>>(SEEDS) ?? {};
  const all = Object.fromEntries(
    LEVELS.map((level) => [level, Number.isInteger(kept[level]) ? kept[level] : draw()]),
  ) as Record<Level, number>;
  keepValue(SEEDS, all);
  return all;
}

/** Draw another task of a level. */
export function nextSeed(level: Level, draw: () => number): number {
  const next = draw();
  keepValue(SEEDS, { ...seeds(draw), [level]: next });
  return next;
}
