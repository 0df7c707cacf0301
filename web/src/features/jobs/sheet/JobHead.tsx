import { InkMark, VerdictMark } from "@/ui/inks";
import type { Job } from "../api";
import { when } from "@/ui/times";

/** What is known of a job, always in sight: the machine, both boards, the supply, the verdict. Opened, what was reported. */
export function JobHead({ job, saved, along }: { job: Job; saved: React.ReactNode; along?: React.ReactNode }) {
  return (
    <header className="tall:sticky tall:top-0 z-20 -mx-4 mb-1 border-b border-rule bg-ground px-4">
      <div className="flex flex-wrap items-center gap-x-3 desk:flex-nowrap">
        <details className="group min-w-0 flex-1">
          <summary className="flex min-h-11 items-center gap-3">
            <h1 className="min-w-0 truncate text-lg group-open:whitespace-normal">{job.machine}</h1>
            <span className="shrink-0 font-mono text-sm text-faint">{job.code}</span>
          </summary>
          <div className="flex flex-col gap-1 pb-3">
            <p>{job.complaint || "Nothing was reported in words."}</p>
            {along}
          </div>
        </details>
        <div className="order-last w-full pb-1.5 text-sm desk:order-none desk:w-auto desk:pb-0">
          <Known job={job} />
        </div>
        <div className="shrink-0 text-sm">{saved}</div>
      </div>
      {job.origin && (
        <p className="border-t border-rule py-1.5">
          Brought in from {String(job.origin.depot)}, where it is {String(job.origin.number)}. It is kept as it stood
          there.
        </p>
      )}
      {job.closed && (
        <p className="border-t border-rule py-1.5 font-semibold">
          Closed {when(job.closed_at)}. Nothing in this job changes any more.
        </p>
      )}
    </header>
  );
}

function Known({ job }: { job: Job }) {
  return (
    <ul aria-label="What is known" className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {job.original && (
        <li>
          <InkMark side="original">{job.original}</InkMark>
        </li>
      )}
      {job.replacement && (
        <li>
          <span aria-hidden="true">→ </span>
          <InkMark side="replacement">{job.replacement}</InkMark>
        </li>
      )}
      <li className={job.power === "off" ? "font-semibold" : "text-faint"}>
        {job.power === "off" ? "Locked off" : job.energised ? "Power back ON" : "Power ON"}
      </li>
      {job.verdict && (
        <li>
          <VerdictMark verdict={job.verdict} />
        </li>
      )}
    </ul>
  );
}
