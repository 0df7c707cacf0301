import { ProofPanel } from "@/comparison/ProofPanel";
import { ProblemNotice } from "@/ui/notices";
import { InkMark } from "@/ui/inks";
import { useState } from "react";
import { useTwin, type Job } from "../../api";

/** How a candidate would behave, set by its nearest functions; and which of its settings come closer by what they do. */
export function Twin({ job, partNumber }: { job: Job; partNumber: string }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 py-2 font-semibold">How it would behave, and what comes closer</summary>
      {open && <Behaves job={job} partNumber={partNumber} />}
    </details>
  );
}

function Behaves({ job, partNumber }: { job: Job; partNumber: string }) {
  const twin = useTwin(job, partNumber);
  if (!twin.data) return twin.error ? <ProblemNotice problem={twin.error} /> : <p>Both boards are followed …</p>;
  return (
    <div className="flex flex-col gap-3">
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        Set by the nearest functions, judged on {twin.data.judged_on}:
        {Object.entries(twin.data.positions).map(([name, value]) => (
          <InkMark key={name} side="replacement">
            {name} {value}
          </InkMark>
        ))}
      </p>
      <ProofPanel proof={twin.data.proof} />
    </div>
  );
}
