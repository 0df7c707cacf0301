import { InkMark, SideName, VerdictMark } from "@/ui/inks";
import type { StepProps } from "../JobPage";
import { NoteAndConfirm } from "./NoteAndConfirm";

/** As found against as left, the verdict, the sheets; and the end of the job. */
export function HandOverStep({ job, put }: StepProps) {
  const left = job.left ?? {};
  const reasons = Object.entries(job.reasons);
  return (
    <div className="flex flex-col gap-5">
      <div className="grid gap-4 sm:grid-cols-2">
        <section aria-label="As found">
          <h3>
            <SideName side="original">As found</SideName>
          </h3>
          <p className="my-1 font-mono">{job.original}</p>
          <Positions side="original" positions={job.found} />
        </section>
        <section aria-label="As left">
          <h3>
            <SideName side="replacement">As left</SideName>
          </h3>
          <p className="my-1 font-mono">{job.replacement}</p>
          <Positions side="replacement" positions={left} />
        </section>
      </div>
      {job.verdict && (
        <p>
          Twin check: <VerdictMark verdict={job.verdict} />
        </p>
      )}
      {reasons.length > 0 && (
        <ul className="list-disc pl-5">
          {reasons.map(([id, reason]) => (
            <li key={id}>
              {id}: {reason}
            </li>
          ))}
        </ul>
      )}
      <p className="flex flex-wrap gap-4">
        <a href={`/api/jobs/${job.id}/sheet.pdf`} className="min-h-11 py-2">
          Job sheet (PDF)
        </a>
        <a href={`/api/jobs/${job.id}/sheet.json`} className="min-h-11 py-2">
          Job sheet (JSON)
        </a>
      </p>
      {!job.closed && (
        <>
          <NoteAndConfirm
            job={job}
            put={put}
            step="hand_over"
            label="Anything the next person should know"
            confirm="Close the job"
          />
          <p className="text-sm text-faint">After that nothing in it changes any more.</p>
        </>
      )}
    </div>
  );
}

function Positions({
  side,
  positions,
}: {
  side: "original" | "replacement";
  positions: Record<string, string | number>;
}) {
  const entries = Object.entries(positions);
  if (entries.length === 0) return <p className="text-faint">nothing recorded</p>;
  return (
    <ul className="flex flex-wrap gap-2">
      {entries.map(([name, value]) => (
        <li key={name}>
          <InkMark side={side}>
            {name} {value}
          </InkMark>
        </li>
      ))}
    </ul>
  );
}
