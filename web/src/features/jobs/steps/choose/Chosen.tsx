import { InkMark } from "@/ui/inks";
import type { Job } from "../../api";

/** The choice with its reason, and the alternatives as they stood then. */
export function Chosen({ job }: { job: Job }) {
  const choice = job.choice;
  if (!job.replacement) return null;
  return (
    <div className="border-l-4 border-replacement pl-3">
      <p>
        Chosen: <InkMark side="replacement">{job.replacement}</InkMark>
        {choice && ` (${choice.verdict}), by ${choice.by}`}
        {choice?.reason && `: ${choice.reason}`}
      </p>
      {choice && (
        <details>
          <summary className="min-h-11 py-2 text-[0.95rem]">The alternatives as they stood then</summary>
          <ul>
            {choice.alternatives.map((each) => (
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
