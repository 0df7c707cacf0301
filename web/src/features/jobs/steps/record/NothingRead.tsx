import { Button } from "@/ui/Button";
import type { StepProps } from "../../stepProps";

const WHY = ["burnt", "drowned", "broken", "not here any more"];

/** A board of which nothing can be read: said in one tap, with why. */
export function NothingRead({ job, put, left }: StepProps & { left: number }) {
  if (job.unread)
    return (
      <div className="flex flex-wrap items-center gap-3 border-l-4 border-text pl-3">
        <p>
          <strong>Nothing on it can be read:</strong> {job.unread.why} ({job.unread.by}).
        </p>
        {!job.closed && <Button onClick={() => void put({ target: "unread", after: null })}>It can be read</Button>}
      </div>
    );
  if (job.closed || left === 0) return null;
  return (
    <div role="group" aria-label="Nothing can be read" className="flex flex-wrap items-center gap-2">
      <span className="text-faint">Nothing can be read, it is</span>
      {WHY.map((why) => (
        <Button key={why} onClick={() => void put({ target: "unread", after: { why } })}>
          {why}
        </Button>
      ))}
    </div>
  );
}
