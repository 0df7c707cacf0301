import { timeWords } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import { newId } from "@/api/ids";
import { signalsOf, type FamilyDocument } from "@/comparison/Player";
import { TimeTracks } from "@/drawing/TimeTracks";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";
import { OverPort } from "../OverPort";
import { Taps } from "../Taps";
import { useTiming, type Seen } from "../useTiming";
import { LevelTap } from "./LevelTap";
import { TypedEvent } from "./TypedEvent";

type Props = StepProps & {
  run: Schemas["PlannedShown"] | null;
  plan: Schemas["ProvingShown"];
  family: FamilyDocument;
};

/** One run, timed as it happens: by taps, by typing, or over the port; drawn as it comes. */
export function Recorder({ job, put, run, plan, family }: Props) {
  const timer = useTiming(job.id, "replacement");
  const signals = signalsOf(family);
  const inputs = signals.inputs.filter((each) => !each.level);
  const levels = signals.inputs.filter((each) => each.level);
  const outputs = signals.outputs.filter((each) => signals.compared.includes(each.id));
  const [title, setTitle] = useKeptState("another run", "");
  const { steps, seen, at } = timer.timing;
  const on = Object.fromEntries(inputs.map((each) => [each.id, each.rest === true]));
  steps.forEach((step) => Object.assign(on, step.set));
  seen.forEach((each) => (on[each.output] = each.on));
  // in a planned run its own inputs come first; with gloves the fewer buttons the better
  const first = run ? inputs.filter((each) => run.steps.some((step) => step.input === each.id)) : inputs;
  const others = inputs.filter((each) => !first.includes(each));
  const keep = () => {
    const timed = timer.overPort ? "over the port" : "by hand";
    const until = Math.max(timer.end(), run?.until ?? 0, ...seen.map((each) => Math.ceil(each.at)));
    const name = run?.title ?? (title.trim() || "A run of our own");
    void put({
      target: `run.${newId()}`,
      after: { title: name, plan: run?.id ?? "", steps, seen: seen.filter(isCompared), until: whole(until, at), timed },
    });
  };
  const isCompared = (each: Seen) => outputs.some((output) => output.id === each.output);
  if (!timer.running)
    return (
      <div className="flex flex-wrap items-end gap-2">
        {!run && (
          <div className="w-40 max-w-72 grow">
            <TextField
              label="A run of your own"
              maxLength={200}
              value={title}
              onChange={(event) => setTitle(event.target.value)}
            />
          </div>
        )}
        <Button kind={run ? "main" : "plain"} onClick={() => timer.begin(false)}>
          {run ? "Run it, timed by tapping" : "Time it by tapping"}
        </Button>
        {plan.port && (
          <OverPort instead="Time it by tapping.">
            <Button onClick={() => timer.begin(true)}>
              {run ? "Run it, timed over the port" : "Time it over the port"}
            </Button>
          </OverPort>
        )}
      </div>
    );
  const shown = standing(seen);
  return (
    <div className="flex flex-col gap-3 border-2 border-text p-3" role="group" aria-label="Run under way">
      <p className="flex flex-wrap items-baseline gap-x-4">
        <span role="timer" className="font-mono text-3xl">
          {at.toFixed(1)} s
        </span>
        {run && <Next run={run} at={at} />}
      </p>
      {timer.overPort && (
        <p role="status" className={timer.lost ? "font-semibold" : "text-sm text-faint"}>
          {timer.lost
            ? `The port is silent: ${timer.lost}. It is asked again; or go on by tapping.`
            : timer.watching
              ? "Streamed from the port"
              : "Asking the port how things stand"}{" "}
          {timer.lost && <Button onClick={timer.byHand}>Go on by tapping</Button>}
        </p>
      )}
      <TimeTracks
        inputs={inputs}
        outputs={outputs}
        steps={steps}
        original={run?.original ?? []}
        replacement={run?.replacement ?? []}
        measured={shown}
        measuredUntil={at}
        until={Math.max(run?.until ?? 60, at)}
      />
      {!timer.overPort && (
        <>
          <Taps label="You make happen" names={first} on={on} onTap={(name) => timer.input(name, !on[name])} />
          {levels.map((each) => (
            <LevelTap key={each.id} input={each} onThere={(value) => timer.input(each.id, value)} />
          ))}
          <Taps label="You see" names={outputs} on={on} onTap={(name) => timer.output(name, !on[name])} />
          {others.length > 0 && (
            <details>
              <summary className="min-h-11 py-2">Something else happens</summary>
              <Taps label="Other inputs" names={others} on={on} onTap={(name) => timer.input(name, !on[name])} />
            </details>
          )}
          <TypedEvent inputs={inputs} outputs={outputs} timer={timer} />
        </>
      )}
      <p className="text-sm text-faint">
        {steps.length} made, {seen.length} seen
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          kind="main"
          className="min-h-14"
          needs={lacking({ "what was done or seen": steps.length + seen.length === 0 })}
          onClick={keep}
        >
          End and keep this run
        </Button>
        <Button className="min-h-14" onClick={() => timer.end()}>
          Throw it away
        </Button>
      </div>
    </div>
  );
}

/** What comes next in the run, by the clock of the plan. */
function Next({ run, at }: { run: Schemas["PlannedShown"]; at: number }) {
  const step = run.steps.find((each) => each.at > at - 1);
  const due = run.due.find((each) => each.high > at);
  return (
    <span>
      {step && (
        <>
          at {timeWords(step.at)}: <strong>{`${step.title} ${step.change}`}</strong>
          {step.way === "hand" && step.how && ` (${step.how.toLowerCase()})`}.{" "}
        </>
      )}
      {due && (
        <span className="text-faint">
          Due at {timeWords(Math.round(due.at))}: {due.title} {due.on ? "on" : "off"}
        </span>
      )}
    </span>
  );
}

/** The run ends when somebody says so: what was due later was not waited for. */
function whole(until: number, at: number) {
  return Math.min(until, Math.ceil(at) + 1);
}

function standing(seen: Seen[]): Schemas["ShownAt"][] {
  let on: string[] = [];
  return [
    { at: 0, on: [], states: [] },
    ...seen.map((each) => {
      on = each.on ? [...on, each.output] : on.filter((name) => name !== each.output);
      return { at: each.at, on, states: [] };
    }),
  ];
}
