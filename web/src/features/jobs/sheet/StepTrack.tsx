import type { Job } from "../api";

type Step = Job["steps"][number];
type Props = { steps: Step[]; inHand: string | null; open: string[]; onFlip: (id: string) => void };

/** The nine steps as one strip: what is done opens at a touch, what comes waits. */
export function StepTrack({ steps, inHand, open, onFlip }: Props) {
  return (
    <nav aria-label="Steps" className="mb-2">
      <ol className="flex flex-wrap items-stretch gap-x-1 desk:flex-nowrap desk:gap-x-2">
        {steps.map((step, index) => {
          const here = step.id === inHand;
          return (
            <li key={step.id} className={here ? "desk:grow" : ""}>
              {step.state === "waiting" || step.state === "left out" ? (
                <span className="flex min-h-11 items-center gap-1.5 text-faint">
                  <Mark number={index + 1} state={step.state} here={here} />
                  <span className="sr-only">
                    {step.name}, {step.state === "waiting" ? "waits" : "not needed"}
                  </span>
                  <span
                    aria-hidden="true"
                    className={`hidden text-sm wide:inline ${step.state === "left out" ? "line-through" : ""}`}
                  >
                    {step.name}
                  </span>
                </span>
              ) : (
                <button
                  type="button"
                  aria-expanded={open.includes(step.id)}
                  aria-current={here ? "step" : undefined}
                  onClick={() => onFlip(step.id)}
                  className={`flex min-h-11 min-w-8 items-center gap-1.5 ${open.includes(step.id) && !here ? "underline underline-offset-4" : ""}`}
                >
                  <Mark number={index + 1} state={step.state} here={here} />
                  <span className={`sr-only ${here ? "font-bold desk:not-sr-only" : "text-sm wide:not-sr-only"}`}>
                    {step.name}
                  </span>
                  {step.result && <span className="sr-only"> {step.result}</span>}
                </button>
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

function Mark({ number, state, here }: { number: number; state: string; here: boolean }) {
  const look =
    state === "done"
      ? "border-both bg-both text-ground"
      : here
        ? "border-both font-bold"
        : state === "open"
          ? "border-edge"
          : "border-rule text-faint";
  return (
    <span aria-hidden="true" className={`grid size-8 shrink-0 place-items-center border-2 font-mono text-sm ${look}`}>
      {number}
    </span>
  );
}
