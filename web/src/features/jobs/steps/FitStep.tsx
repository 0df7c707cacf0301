import { Button } from "@/ui/Button";
import { Caution, ProblemNotice } from "@/ui/notices";
import { useWiring } from "../api";
import type { StepProps } from "../JobPage";
import { NoteAndConfirm } from "./NoteAndConfirm";

/** The wiring plan as a list to tick, one thing at a time, supply last; then the confirmation. */
export function FitStep({ job, put }: StepProps) {
  const wiring = useWiring(job);
  const steps = wiring.data?.steps ?? [];
  const next = steps.find((step) => !job.ticked[step.key]);
  const done = steps.filter((step) => job.ticked[step.key]).length;
  return (
    <div className="flex flex-col gap-4">
      <Caution title="Supply last, and only after the last look">
        Set the new board as planned before it is mounted, and read it back. Move wires one at a time; no lead pinched,
        every routing kept; supply last. Local codes, the maker’s instructions and licensed practice come first.
      </Caution>
      {wiring.error && <ProblemNotice problem={wiring.error} />}
      {next && (
        <section aria-label="Next wire" className="border-2 border-text p-4">
          <p className="text-faint">
            {done + 1} of {steps.length}
          </p>
          <p className="text-2xl font-semibold">{next.words}</p>
          {next.minded.map((each) => (
            <p key={each} className="font-semibold">
              Mind: {each}
            </p>
          ))}
          {!job.closed && (
            <Button
              kind="main"
              className="mt-3"
              onClick={() => void put({ target: `ticked.${next.key}`, after: true })}
            >
              Done
            </Button>
          )}
        </section>
      )}
      {steps.length > 0 && (
        <ol className="border-t border-rule">
          {steps.map((step) => (
            <li key={step.key} className="flex items-baseline gap-3 border-b border-rule py-2">
              <span aria-hidden="true" className="w-5 font-mono">
                {job.ticked[step.key] ? "✓" : ""}
              </span>
              <span className={job.ticked[step.key] ? "text-faint" : ""}>{step.words}</span>
              {job.ticked[step.key] && !job.closed && (
                <Button
                  kind="quiet"
                  aria-label={`Undo: ${step.words}`}
                  onClick={() => void put({ target: `ticked.${step.key}`, after: null })}
                >
                  Undo
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
      {!job.closed && next && (
        <p>
          {steps.length - done} of {steps.length} are not ticked yet.
        </p>
      )}
      <NoteAndConfirm
        job={job}
        put={put}
        step="fit"
        label="Anything that was done otherwise than planned?"
        confirm="Fitted and set as planned"
      />
    </div>
  );
}
