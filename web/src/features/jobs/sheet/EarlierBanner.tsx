import { Button } from "@/ui/Button";
import { InkMark } from "@/ui/inks";
import { Link } from "@tanstack/react-router";
import { useEarlier } from "../endApi";
import type { StepProps } from "../stepProps";

/** What earlier jobs left in this machine: where the next technician starts from. */
export function EarlierBanner({ job, put }: StepProps) {
  const earlier = useEarlier(job);
  const now = earlier.data;
  if (job.closed || !now || (!now.board && now.defects.length === 0)) return null;
  const moved =
    now.board === job.original && now.left
      ? Object.entries(now.left).filter(([name, value]) => name in job.found && job.found[name] !== value)
      : [];
  return (
    <section aria-label="From earlier jobs" className="mb-4 flex flex-col gap-2 border-y border-rule py-3">
      {now.board && (
        <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <span>
            In this machine since {now.since && new Date(now.since).toLocaleDateString([], { dateStyle: "medium" })}:
          </span>
          <InkMark side="original">{now.board}</InkMark>
          <span className="font-mono">
            {Object.entries(now.left ?? {})
              .map(([name, value]) => `${name} ${value}`)
              .join(", ")}
          </span>
          {now.by_job_id && (
            <Link to="/jobs/$id" params={{ id: now.by_job_id }}>
              {now.by_job}
            </Link>
          )}
        </p>
      )}
      {moved.length > 0 && (
        <p className="font-semibold">
          Read otherwise than it was left: {moved.map(([name, value]) => `${name} was left at ${value}`).join(", ")}.
          Somebody moved it.
        </p>
      )}
      {now.defects.length > 0 && <p>Left for later: {now.defects.join("; ")}.</p>}
      {now.corrections.length > 0 && <p>Corrected since: {now.corrections.join("; ")}.</p>}
      {now.board && job.original === null && job.steps.some((s) => s.id === "recognise" && s.state !== "waiting") && (
        <Button
          className="self-start"
          onClick={() => void put({ target: "original", after: now.board, reason: `As ${now.by_job} left it` })}
        >
          It is still this board: {now.board}
        </Button>
      )}
    </section>
  );
}
