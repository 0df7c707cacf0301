import { CarryView } from "@/comparison/CarryView";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useComparison, useJobBoard } from "../api";
import type { StepProps } from "../JobPage";

/** The heart: what the old positions mean, and what the new board must be set to. */
export function CarryStep({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const original = useJobBoard(job, "original");
  const replacement = useJobBoard(job, "replacement");
  const problem = comparison.error ?? original.error ?? replacement.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data || !original.data || !replacement.data) return <Loading what="Carrying the settings over" />;
  const undecided = comparison.data.rows.filter(
    (row) => (row.missed || row.verdict === "open") && !job.reasons[row.id],
  );
  const done = job.steps.find((each) => each.id === "carry_over")?.state === "done";
  return (
    <div className="flex flex-col gap-5">
      <CarryView
        comparison={comparison.data}
        original={original.data}
        replacement={replacement.data}
        overrides={job.overrides}
        onOverride={
          job.closed ? undefined : (element, value) => void put({ target: `override.${element}`, after: value })
        }
        reasons={job.reasons}
        onReason={job.closed ? undefined : (id, reason) => void put({ target: `reason.${id}`, after: reason || null })}
      />
      {!job.closed && !done && comparison.data.plan && (
        <>
          {undecided.length > 0 && (
            <p>Before the plan is confirmed, give a reason for: {undecided.map((row) => row.title).join(", ")}.</p>
          )}
          <Button
            kind="main"
            className="self-start"
            disabled={undecided.length > 0}
            onClick={() => void put({ target: "confirmed.carry_over", after: { note: "" } })}
          >
            Confirm this plan
          </Button>
        </>
      )}
      {done && <p className="text-faint">The plan is confirmed. A change opens it again.</p>}
    </div>
  );
}
