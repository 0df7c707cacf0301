import { Loading, ProblemNotice } from "@/ui/notices";
import { useHandOver } from "../../endApi";
import type { StepProps } from "../../stepProps";
import { goTo, Next } from "../Next";
import { Parts } from "../Parts";
import { Closing } from "./Closing";
import { defectsPart, papersPart, spentPart } from "./endParts";

/** The end of a job in which it was not the board: what was put right, what it cost, the papers. */
export function HandOverRepair({ job, put }: StepProps) {
  const over = useHandOver(job);
  if (over.error) return <ProblemNotice problem={over.error} />;
  if (!over.data) return <Loading what="Gathering the record" />;
  const data = over.data;
  const parts = [
    defectsPart({ job, put }),
    spentPart({ job, put }, data),
    { ...papersPart({ job, put }, data, "job sheet, customer’s page, package"), open: job.closed },
  ];
  return (
    <div className="flex flex-col gap-4">
      <Next job={job} step="hand_over" words="hand it over." button="Show me" onGo={() => goTo("closing")} />
      <ul aria-label="What was put right">
        {Object.entries(job.repairs).map(([id, each]) => (
          <li key={id} className="border-b border-rule py-2">
            <strong>{each.kind}</strong>: {each.what} {each.part && <span className="font-mono">{each.part}</span>}
          </li>
        ))}
      </ul>
      <Parts parts={parts} keep still={job.closed} />
      <div id="closing" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3">
        <Closing job={job} put={put} over={data} />
      </div>
    </div>
  );
}
