import type { Schemas } from "@/api/client";
import { useState } from "react";

export type Step = Schemas["StepShown"];
export type NamedScenario = { id: string; title: string; steps: Step[]; until: number };

/** A scenario in hand: one of the family's, the counter-case, or what somebody keyed in. */
export function useScenario(choices: NamedScenario[]) {
  const [chosen, setChosen] = useState(choices[0]?.id ?? "own");
  const [own, setOwn] = useState<NamedScenario | null>(null);
  const base = choices.find((each) => each.id === chosen) ?? choices[0];
  const current: NamedScenario = own ?? base ?? { id: "own", title: "Own", steps: [], until: 120 };

  const edit = (steps: Step[], until = current.until) => {
    const ordered = steps
      .map((step, index) => ({ step, index }))
      .sort((a, b) => a.step.at - b.step.at || a.index - b.index);
    const last = ordered[ordered.length - 1]?.step.at ?? 0;
    setOwn({ id: "own", title: "Own scenario", steps: ordered.map((each) => each.step), until: Math.max(until, last) });
  };
  return {
    current,
    changed: own !== null,
    choose: (id: string) => {
      setOwn(null);
      setChosen(id);
    },
    chosen,
    move: (index: number, at: number, value?: number) =>
      setOwn({
        ...current,
        id: "own",
        title: "Own scenario",
        steps: current.steps.map((s, i) => (i === index ? movedTo(s, at, value) : s)),
      }),
    settle: () => edit(current.steps),
    put: (index: number, at: number) => edit(current.steps.map((s, i) => (i === index ? { ...s, at } : s))),
    add: (at: number, input: string, value: boolean | number) =>
      edit([...current.steps, { at, set: { [input]: value } }]),
    remove: (index: number) => edit(current.steps.filter((_, i) => i !== index)),
    setUntil: (until: number) => edit(current.steps, until),
  };
}

/** A step at another time; with a value, its one level at that. */
function movedTo(step: Step, at: number, value?: number): Step {
  const [input] = Object.keys(step.set);
  return { at, set: value === undefined || !input ? step.set : { [input]: value } };
}

/** One input change a step, so that each can be moved by itself. */
export function oneByOne(steps: Step[]): Step[] {
  return steps.flatMap((step) =>
    Object.entries(step.set).map(([name, value]) => ({ at: step.at, set: { [name]: value } })),
  );
}
