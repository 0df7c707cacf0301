import type { Schemas } from "@/api/client";
import type { Position, Positions } from "@/drawing/types";

export type Task = Schemas["TaskShown"];
export type Level = Task["task"]["level"];
export type Laid = Schemas["Laid"];
export type Home = Schemas["PracticeHome"];
export type Group = Schemas["GroupShown"];

/** Something that was done in a task. */
export type Action =
  | { do: "read" | "set"; positions: Positions }
  | { do: "run"; run: string }
  | { do: "put"; wire: string; place: string }
  | { do: "test"; test: string }
  | { do: "press"; panel: number; action: string }
  | { do: "measure"; place: string }
  | { do: "blame"; what: string }
  | { do: "name"; suspect: string }
  | { do: "hold"; point: string }
  | { do: "wait"; seconds: number }
  | { do: "recognise" | "choose"; board: string }
  | { do: "want"; function: string; value: Position }
  | { do: "tell"; what: string }
  | { do: "touch" | "done" };

export type Ran = {
  id: string;
  title: string;
  steps: Schemas["StepShown"][];
  until: number;
  outputs: { at: number; on: string[] }[];
  fault: "" | "stands still" | "never settles" | "dead" | "burnt";
};

/** What the learner sees of each level. */
export type Reading = { positions: Positions; said: Positions };
export type Setting = {
  positions: Positions;
  original?: Positions;
  wanted?: { title: string; value: string }[];
  runs: { id: string; title: string; looked_at: boolean }[];
  ran?: Ran;
};
export type Wiring = {
  wires: { id: string; colour: string; was: string; carried: string; at: string }[];
  places: { place: string; mark: string; title: string }[];
};
export type Finding = {
  symptoms: string[];
  tests: {
    id: string;
    title: string;
    minutes: number;
    risk: string;
    how: string[];
    expected: string;
    result: string;
  }[];
  suspects: { id: string; title: string }[];
  named: string;
  minutes: number;
};
export type Keying = {
  panels: { title: string; shows: string; keys: { key: string; action: string }[] }[];
  wanted_keys: { element: string; title: string; value: string; unit: string }[];
  presses: number;
};
export type Metering = {
  doing: string;
  at: number;
  missing: string;
  pins: { place: string; mark: string; title: string; volts: number | null }[];
  named: string;
};
export type Safety = {
  points: { id: string; title: string; say: string[]; done: boolean }[];
  done: string[];
  off_s: number | null;
};

export type Whole = {
  printed: string;
  boards: string[];
  recognised: string;
  finding: Finding;
  safety: Safety;
  held: boolean;
  card: { title: string; value: string }[];
  reading?: Reading;
  judged_on?: "read" | "factory";
  candidates?: { board: string; functions: number; missed: string[]; settable: boolean }[];
  chosen: string;
  carried?: {
    function: string;
    title: string;
    wanted: string;
    got: string;
    verdict: string;
    may_be: { value: Position; words: string }[];
  }[];
  to_set?: Positions;
  setting?: Setting;
  keyed_in?: string[];
  keying?: Keying;
  wiring?: Wiring;
  says: string;
};

const MERGED = ["read", "set"];
const ONE = ["name", "blame", "recognise", "choose", "tell"];

/** One more action; positions that follow positions are one action with them, and of tests and names the last counts. */
export function acted(actions: Action[], next: Action): Action[] {
  const last = actions.at(-1);
  if (last && "positions" in next && "positions" in last && MERGED.includes(last.do) && last.do === next.do)
    return [...actions.slice(0, -1), { ...last, positions: { ...last.positions, ...next.positions } }];
  if (last && next.do === last.do && ONE.includes(next.do)) return [...actions.slice(0, -1), next];
  return [...actions, next];
}
