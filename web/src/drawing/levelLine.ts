import type { Schemas } from "@/api/client";
import { shownAt, type Shown } from "./shown";

type Step = Schemas["StepShown"];
type Threshold = Schemas["ThresholdShown"];

/** An input as a thin line: on or off, or a level between its lowest and its highest. */
export type TrackedInput = {
  id: string;
  title: string;
  rest: boolean | number;
  level?: { unit: string; from: number; to: number };
};

/** How much height a level's line takes. */
export const LEVEL = 54;

/** The lowest and the highest value that a level's line has room for, and how finely it is dragged. */
export type Scale = { low: number; high: number; step: number };

const ROOM = 0.2;

/** A level's scale: what it and the thresholds reach, and room beyond to drag it to, within what the level can be. */
export function levelScale(input: TrackedInput, steps: Step[], thresholds: Threshold[]): Scale {
  const told = steps.map((step) => step.set[input.id]).filter((value) => typeof value === "number");
  const met = [...told, ...thresholds.map((each) => each.at), ...(typeof input.rest === "number" ? [input.rest] : [])];
  const [low, high] = [Math.min(...met), Math.max(...met)];
  // one that goes nowhere yet has room too
  const room = high > low ? (high - low) * ROOM : ((input.level?.to ?? 1) - (input.level?.from ?? 0)) / 20;
  const step = 10 ** Math.floor(Math.log10((high - low + 2 * room) / 20));
  return {
    low: Math.max(low - room, input.level?.from ?? low),
    high: Math.min(high + room, input.level?.to ?? high),
    step,
  };
}

/** How far from the top of a level's line a value lies. */
export function heightOf({ low, high }: Scale, value: number) {
  return LEVEL - 10 - ((LEVEL - 18) * (value - low)) / Math.max(high - low, 1e-9);
}

/** The value at a height of a level's line, as finely as it is dragged. */
export function valueAt({ low, high, step }: Scale, y: number) {
  const value = low + ((LEVEL - 10 - y) / (LEVEL - 18)) * (high - low);
  const round = Math.round(Math.max(low, Math.min(high, value)) / step) * step;
  return Number(Math.max(low, Math.min(high, round)).toPrecision(9));
}

/** A time over which one board alone has an output on. */
export type Alone = { side: "original" | "replacement"; from: number; to: number };

/** When one board alone has something on, of what is compared; where each has something that the other has not, neither. */
export function onAlone(original: Shown[], replacement: Shown[], compared: string[], until: number): Alone[] {
  const every = new Set([...original, ...replacement].map((each) => each.at));
  const times = [...every].filter((at) => at < until).sort((a, b) => a - b);
  return times.flatMap((from, index) => {
    const mine = shownAt(original, from)?.on ?? [];
    const its = shownAt(replacement, from)?.on ?? [];
    const more = compared.some((id) => mine.includes(id) && !its.includes(id));
    const less = compared.some((id) => its.includes(id) && !mine.includes(id));
    const side = more ? ("original" as const) : ("replacement" as const);
    return more === less ? [] : [{ side, from, to: times[index + 1] ?? until }];
  });
}

/** The bands of a level, between two thresholds, in which it stands while one board alone has something on. */
export function bandsOf(input: TrackedInput, steps: Step[], thresholds: Threshold[], alone: Alone[], until: number) {
  if (typeof input.rest !== "number") return [];
  const stands = [{ at: 0, value: input.rest }];
  for (const step of steps) {
    const value = step.set[input.id];
    if (typeof value === "number") stands.push({ at: step.at, value });
  }
  return stands.flatMap(({ at, value }, index) => {
    const end = stands[index + 1]?.at ?? until;
    const low = Math.max(...thresholds.map((each) => each.at).filter((each) => each <= value));
    const high = Math.min(...thresholds.map((each) => each.at).filter((each) => each > value));
    if (!Number.isFinite(low) || !Number.isFinite(high)) return [];
    return alone
      .map((each) => ({ side: each.side, from: Math.max(at, each.from), to: Math.min(end, each.to), low, high }))
      .filter((each) => each.to > each.from);
  });
}
