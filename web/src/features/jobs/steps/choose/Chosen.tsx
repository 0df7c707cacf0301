import { InkMark } from "@/ui/inks";
import { Loading, ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import type { Job } from "../../api";
import { useAlternatives } from "../../earlyApi";

/** The choice with its reason, and the alternatives as they stood then. */
export function Chosen({ job }: { job: Job }) {
  const [open, setOpen] = useState(false);
  const alternatives = useAlternatives(job, open);
  const choice = job.chosen;
  if (!job.replacement) return null;
  return (
    <div className="border-l-4 border-replacement pl-3">
      <p>
        Chosen: <InkMark side="replacement">{job.replacement}</InkMark>
        {choice && ` (${choice.verdict}), by ${choice.by}`}
        {choice?.reason && `: ${choice.reason}`}
      </p>
      {choice && (
        <details onToggle={(event) => setOpen(event.currentTarget.open)}>
          <summary className="min-h-11 py-2 text-[0.95rem]">The alternatives as they stood then</summary>
          <ProblemNotice problem={alternatives.error} />
          {open && alternatives.isPending && <Loading what="The alternatives" />}
          <ul>
            {alternatives.data?.map((each) => (
              <li key={each.part_number}>
                <span className="font-mono">{each.part_number}</span>: {each.verdict}, twin check {each.closeness},
                about {Math.round(each.minutes)} minutes{each.price !== null && `, ${each.price.toFixed(2)}`}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
