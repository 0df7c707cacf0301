import type { Schemas } from "@/api/client";
import { shownAt, type Shown } from "@/drawing/shown";
import type { Step } from "./useScenario";

type Round = Schemas["RoundShown"];
/** What one board shows and in which states its machines are; nothing is known of one that goes round without end. */
export type Standing = { states: string[]; on: string[]; known: boolean };
/** An instant of a scenario at which something changes: inputs, or what a board shows or is in. */
export type Moment = {
  at: number;
  changed: { input: string; value: boolean | number }[];
  original: Standing;
  replacement: Standing;
};

/** Every instant at which an input or a board changes, in order, with what stands on both boards after it. */
export function momentsOf(steps: Step[], original: Shown[], replacement: Shown[], rounds: Round[] = []): Moment[] {
  const times = new Set([...steps, ...original, ...replacement, ...rounds].map((each) => each.at));
  const until = (side: Round["side"]) => rounds.find((each) => each.side === side)?.at ?? Infinity;
  return [...times]
    .sort((a, b) => a - b)
    .map((at) => ({
      at,
      changed: steps
        .filter((step) => step.at === at)
        .flatMap((step) => Object.entries(step.set).map(([input, value]) => ({ input, value }))),
      original: at < until("original") ? standing(original, at) : LOST,
      replacement: at < until("replacement") ? standing(replacement, at) : LOST,
    }));
}

const LOST: Standing = { states: [], on: [], known: false };

function standing(shown: Shown[], at: number): Standing {
  const last = shownAt(shown, at);
  return { states: last?.states ?? [], on: last?.on ?? [], known: true };
}

/** The moment that is nearest to a time, by its place. */
export function nearest(moments: Moment[], at: number): number {
  return moments.reduce(
    (best, each, index) => (Math.abs(each.at - at) < Math.abs((moments[best]?.at ?? Infinity) - at) ? index : best),
    0,
  );
}
