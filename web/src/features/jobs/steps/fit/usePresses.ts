import type { Schemas } from "@/api/client";
import { keepValue, keptValue } from "@/api/kept";
import { useState } from "react";
import type { Job } from "../../api";

type Line = Schemas["PressLine"];
type Kept = { believed: string[]; todo: Line[]; done: number };

/** Where somebody is in a series of presses; kept on this device, so that a call in the middle loses nothing. */
export function usePresses(job: Job, panel: Schemas["PanelShown"], index: number) {
  const key = `presses ${job.id}-${job.replacement}-${index}-${panel.count}`;
  const [state, setState] = useState<Kept>(
    () => keptValue<Kept>(key) ?? { believed: [], todo: panel.presses, done: 0 },
  );
  const keep = (next: Kept) => {
    keepValue(key, next);
    setState(next);
  };
  const made = (lines: Line[]) =>
    lines.filter((line) => line.action !== "open").flatMap((line) => Array<string>(line.times).fill(line.action));
  return {
    next: state.todo[state.done],
    done: state.done,
    total: state.todo.length,
    /** What was pressed so far, with the press in hand where it was just made. */
    actions: (withNext: boolean) => [...state.believed, ...made(state.todo.slice(0, state.done + (withNext ? 1 : 0)))],
    seen: () => keep({ ...state, done: state.done + 1 }),
    back: () => keep({ ...state, done: Math.max(0, state.done - 1) }),
    goOn: (believed: string[], todo: Line[]) => keep({ believed, todo, done: 0 }),
    restart: () => keep({ believed: [], todo: panel.presses, done: 0 }),
  };
}
