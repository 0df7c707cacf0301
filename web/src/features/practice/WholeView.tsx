import { Button } from "@/ui/Button";
import { useEffect, useRef, useState } from "react";
import { stepsOf, WHOLE_STEPS, type WholeStep } from "./steps";
import type { Action, Task, Whole } from "./task";
import { StepRoom } from "./StepRoom";

type Props = { shown: Whole; task: Task; onAct: (action: Action) => void; busy: boolean };

/** The nine steps of a job on one simulated machine: one is open, and every other is a touch away. */
export function WholeView({ shown, task, onAct, busy }: Props) {
  const steps = stepsOf(shown);
  const [open, setOpen] = useState<WholeStep>(() => steps.find((each) => !each.result)?.id ?? "hand_over");
  const opened = useRef<HTMLLIElement>(null);
  const at = useRef(open);
  useEffect(() => {
    // the step before it folds up above: what opens stays in sight
    if (at.current !== open) opened.current?.scrollIntoView({ block: "start" });
    at.current = open;
  }, [open]);
  const next = WHOLE_STEPS[WHOLE_STEPS.indexOf(open) + 1];
  const act = (action: Action) => {
    // what a room calls done is done with its step; the job ends where it is handed over
    if (action.do === "done" && next) setOpen(next);
    else onAct(action);
    if (action.do === "touch") setOpen("record");
  };
  return (
    <>
      <ol className="border-t border-rule" aria-label="Nine steps">
        {steps.map((each, number) => (
          <li key={each.id} ref={each.id === open ? opened : undefined} className="scroll-mt-4 border-b border-rule">
            <button
              type="button"
              aria-current={each.id === open ? "step" : undefined}
              className={`flex min-h-12 w-full items-center gap-3 py-2 text-left ${each.id === open ? "font-semibold" : ""}`}
              onClick={() => setOpen(each.id)}
            >
              <span
                aria-hidden="true"
                className={`grid size-8 shrink-0 place-items-center border ${each.result ? "border-both bg-both text-ground" : "border-edge"}`}
              >
                {number + 1}
              </span>
              <span className="w-28 shrink-0">{each.title}</span>
              <span className="min-w-0 grow truncate text-faint">{each.result}</span>
            </button>
            {each.id === open && (
              <section aria-label={each.title} className="flex flex-col gap-5 border-t border-rule py-5">
                {each.waits ? (
                  <p>{each.waits}</p>
                ) : (
                  <StepRoom step={each.id} shown={shown} task={task} onAct={act} busy={busy} />
                )}
              </section>
            )}
          </li>
        ))}
      </ol>
      {open !== "hand_over" && (
        <Button kind="quiet" className="self-start" disabled={busy} onClick={() => onAct({ do: "done" })}>
          Leave it at that, and see what came of it
        </Button>
      )}
    </>
  );
}
