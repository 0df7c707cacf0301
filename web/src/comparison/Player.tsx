import { timeWords } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import { shownAt, type Shown } from "@/drawing/shown";
import { TimeTracks } from "@/drawing/TimeTracks";
import { Choice } from "@/ui/fields";
import { SideName } from "@/ui/inks";
import { ProblemNotice } from "@/ui/notices";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { MomentPanel } from "./MomentPanel";
import { inputOf } from "./inputs";
import { momentsOf, nearest } from "./moments";
import { StepList } from "./StepList";
import { oneByOne, useScenario, type NamedScenario, type Step } from "./useScenario";

export type FamilyDocument = {
  inputs: { id: string; title?: string; level?: boolean; unit?: string; from?: number; to?: number }[];
  outputs: { id: string; title?: string; compare?: boolean }[];
  rest?: Record<string, boolean | number>;
  scenarios?: NamedScenario[];
};

export type Endless = { board: string; steps: Step[]; at: number };

type Props = {
  family: FamilyDocument;
  counterCase?: Schemas["CounterCaseShown"] | null;
  /** Ways into a round without end, each at its own end. */
  endless?: Endless[];
  /** Names the pair, so that answers are kept apart. */
  pairKey: unknown[];
  /** Plays a scenario; who looks at `asked.signal` is told when the answer is not wanted any more. */
  play: (scenario: Schemas["ScenarioGiven"], asked: { signal: AbortSignal }) => Promise<Schemas["PlayShown"]>;
};

/** Scenarios played on both boards; changes can be dragged or keyed in, and both answer at once. */
export function Player({ family, counterCase, endless, pairKey, play }: Props) {
  const choices = useMemo(() => scenarioChoices(family, counterCase, endless), [family, counterCase, endless]);
  const scenario = useScenario(choices);
  const { steps, until } = scenario.current;
  const played = useQuery({
    queryKey: ["play", ...pairKey, steps, until],
    queryFn: (asked) => play({ steps: [...steps].sort((a, b) => a.at - b.at), until }, asked),
    placeholderData: keepPreviousData,
  });
  const { inputs, outputs, compared } = signalsOf(family);
  const titles = Object.fromEntries(outputs.map((each) => [each.id, each.title]));
  const parting = played.data ? firstDifference(played.data, compared) : undefined;
  const rounds = played.data?.rounds ?? [];
  const moments = useMemo(
    () => (played.data ? momentsOf(steps, played.data.original, played.data.replacement, played.data.rounds) : []),
    [played.data, steps],
  );
  // where the two part is what one wants to see first
  const [looked, setLooked] = useState<{ steps: Step[]; place: number } | null>(null);
  const place = looked?.steps === steps ? Math.min(looked.place, moments.length - 1) : nearest(moments, parting ?? 0);
  const go = (next: number) => setLooked({ steps, place: next });
  return (
    <div className="flex flex-col gap-2">
      <Choice
        label="Scenario"
        value={scenario.changed ? "own" : scenario.chosen}
        onChange={(event) => scenario.choose(event.target.value)}
      >
        {scenario.changed && <option value="own">Own scenario</option>}
        {choices.map((each) => (
          <option key={each.id} value={each.id}>
            {each.title}
          </option>
        ))}
      </Choice>
      <p className="flex flex-wrap gap-x-5 text-sm">
        <SideName side="original" />
        <SideName side="replacement" />
        <span className="inline-flex items-center gap-2">
          <span aria-hidden="true" className="size-3 bg-both" /> both alike
        </span>
      </p>
      <ProblemNotice problem={played.error} />
      {/* the frame stands before the answer is there: nothing below it is pushed away */}
      {!played.error && (
        <>
          <div aria-busy={!played.data} onPointerUp={() => scenario.changed && scenario.settle()}>
            <TimeTracks
              inputs={inputs}
              outputs={outputs}
              compared={compared}
              steps={steps}
              original={played.data?.original ?? []}
              replacement={played.data?.replacement ?? []}
              thresholds={played.data?.thresholds}
              rounds={rounds}
              until={until}
              parting={parting}
              cursor={moments[place]?.at}
              onLook={(at) => go(nearest(moments, at))}
              onMove={scenario.move}
            />
          </div>
          {/* on a phone the moment below says it */}
          <p role="status" className={parting === undefined ? "" : "sr-only desk:not-sr-only"}>
            {!played.data
              ? "Both boards are played …"
              : parting !== undefined
                ? `The two part at ${timeWords(parting)}.`
                : rounds.length === 0
                  ? "Both boards show the same over this scenario."
                  : ""}
          </p>
          {rounds.map((each) => (
            <p key={each.side}>
              <SideName side={each.side} /> goes round without end from {timeWords(each.at)} on:{" "}
              {each.states.join(", ")}, and again. Nothing is known past that.
            </p>
          ))}
          <div className="min-h-30">
            <MomentPanel moments={moments} place={place} parting={parting} inputs={inputs} titles={titles} onGo={go} />
          </div>
        </>
      )}
      <StepList inputs={inputs} scenario={scenario} />
    </div>
  );
}

/** An end a little past what a scenario leads to. */
const pastIt = (at: number) => Math.round(at + Math.max(5, at * 0.25));

/** A family's inputs and outputs with their titles, and the names of the outputs that are compared. */
export function signalsOf(family: FamilyDocument) {
  const inputs = family.inputs.map(inputOf(family.rest ?? {}));
  const outputs = family.outputs.map((each) => ({ id: each.id, title: each.title ?? each.id }));
  const compared = family.outputs.filter((each) => each.compare !== false).map((each) => each.id);
  return { inputs, outputs, compared };
}

function scenarioChoices(
  family: FamilyDocument,
  counterCase?: Schemas["CounterCaseShown"] | null,
  endless: Endless[] = [],
): NamedScenario[] {
  const rounds = endless.map((each) => ({
    id: `endless-${each.board}`,
    title: `${each.board} goes round without end`,
    steps: oneByOne(each.steps),
    until: pastIt(each.at),
  }));
  const known = [...rounds, ...(family.scenarios ?? []).map((each) => ({ ...each, steps: oneByOne(each.steps) }))];
  if (!counterCase) return known;
  return [
    {
      id: "counter-case",
      title: "The counter-case",
      steps: oneByOne(counterCase.steps),
      until: pastIt(counterCase.at),
    },
    ...known,
  ];
}

/** The first instant at which compared outputs differ; undefined where none does, or a board goes round before. */
function firstDifference(played: Schemas["PlayShown"], compared: string[]): number | undefined {
  const known = Math.min(...played.rounds.map((each) => each.at));
  const every = [...new Set([...played.original, ...played.replacement].map((each) => each.at))];
  const times = every.filter((at) => at < known).sort((a, b) => a - b);
  const standing = (shown: Shown[], at: number) => {
    const last = shownAt(shown, at)?.on ?? [];
    return compared.filter((name) => last.includes(name)).join();
  };
  return times.find((at) => standing(played.original, at) !== standing(played.replacement, at));
}
